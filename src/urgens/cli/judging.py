"""Commands that solve a build and judge it."""

import argparse

import numpy as np

from urgens.cli.exits import DANGER, DONE
from urgens.cli.printing import loaded, print_json
from urgens.guidance import Severity, findings
from urgens.guidance.advice.recommendation import with_offers
from urgens.printed.solution import printed_solution
from urgens.solve import solve


def _solve(options: argparse.Namespace) -> int:
    build = loaded(options)
    solution = solve(
        build,
        load_case=options.load_case,
        surface=options.surface,
        speed=options.speed,
        efforts=None if options.effort is None else np.array(options.effort),
    )
    found = [finding.printed() for finding in with_offers(build, findings(solution))]
    print_json({**printed_solution(solution), "findings": found})
    return DONE


def _check(options: argparse.Namespace) -> int:
    build = loaded(options)
    found = findings(solve(build))
    if options.json:
        rows = [finding.printed() for finding in with_offers(build, found)]
        print_json(rows)
    else:
        if not found:
            print("nothing found: no rule known here has anything to say about this build")
        for finding in found:
            print(f"{finding.severity.word}  {finding.code}  {finding.message} {finding.why}")
    return DANGER if any(f.severity is Severity.DANGER for f in found) else DONE


RUN = {"solve": _solve, "check": _check}
