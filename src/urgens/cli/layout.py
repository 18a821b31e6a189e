"""Commands of the layout: drafts, other ways, drawings, lines."""

import argparse
from dataclasses import asdict
from pathlib import Path

from urgens.cli.exits import DONE
from urgens.cli.printing import loaded, print_json
from urgens.document import Build, BuildChange, BuildErrors, changed, dumps, load, save, with_setup
from urgens.document.layout.line_sheets import routed
from urgens.guidance import findings
from urgens.guidance.advice.layouts import alternatives
from urgens.plumbing.conversion import conversion
from urgens.plumbing.cut_list import TooLongError
from urgens.plumbing.draft import drafted
from urgens.plumbing.shopping import cut_from
from urgens.printed.lines import bend_words, printed_alternatives, printed_lines
from urgens.quantity import Units
from urgens.solve import solve


def _plumb(options: argparse.Namespace) -> int:
    build = loaded(options)
    if options.to is not None:
        print_json(asdict(conversion(build, with_setup(load(options.file), options.to))))
        return DONE
    if options.alternatives:
        prices = {} if build.plumbing is None else build.plumbing.prices
        asked = {str(kind): price for kind, price in prices.items()}
        print_json(printed_alternatives(alternatives(build), asked))
        return DONE
    if not options.draft:
        return _draw_plan(build, options.output)
    change = BuildChange.laying("The usual layout", drafted(build))
    if options.alternative is not None:
        known = {one.school.name: one.change for one in alternatives(build)}
        if options.alternative not in known:
            raise BuildErrors.one(
                "--alternative",
                f'there is no way "{options.alternative}" for this build',
                f"choose one of {', '.join(known)}",
            )
        change = known[options.alternative]
    laid = changed(build, change)
    if options.output is None:
        print(dumps(laid), end="")
    else:
        save(laid, options.output)
    return DONE


def _draw_plan(build: Build, output: Path | None) -> int:
    """Write the plan of a build's layout, or say what else there is to ask for."""
    if output is None:
        raise BuildErrors.one(
            "plumb",
            "nothing is asked for",
            "add --draft, --alternatives or --to, or -o with a drawing's name",
        )
    from urgens.ui.application import offscreen
    from urgens.ui.stations.plumb.plan_file import write_drawing

    application = offscreen()  # kept until it is drawn
    write_drawing(build, output)
    del application
    return DONE


def _lines(options: argparse.Namespace) -> int:
    build = loaded(options)
    if build.plumbing is None:
        remedy = "draw its layout first: parts, and the lines between them"
        raise BuildErrors.one("plumbing", "this build has no layout", remedy)
    made = routed(build.plumbing)
    try:
        cut = cut_from(made, options.stock, options.saw)
    except TooLongError as error:
        raise BuildErrors.one(error.name, str(error), "name a longer --stock") from None
    found = findings(solve(build))
    if options.json:
        print_json(printed_lines(build.plumbing, made, cut, found))
        return DONE
    for words in bend_words(made, Units(build.natural_units)):
        print(words)
    for finding in found:
        if finding.where in {one.line.id for one in made}:
            print(f"{finding.severity.word}  {finding.code}  {finding.message} {finding.why}")
    return DONE


RUN = {"plumb": _plumb, "lines": _lines}
