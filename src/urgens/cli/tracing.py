"""The command line of faults: what they may come from, and sayings tried on a build."""

import argparse
import sys
from typing import Any

from urgens.bench.evidence_on_record import (
    RecordedEvidence,
    already_known,
    counting,
    evidence_of,
    of_logs,
)
from urgens.cli.exits import DONE
from urgens.cli.printing import loaded, print_json
from urgens.document import Build, BuildErrors
from urgens.guidance.sayings import SAID, tried
from urgens.guidance.tracing.ranking import TraceEvidence
from urgens.guidance.tracing.readings import reading
from urgens.guidance.tracing.trace import Traced, traced
from urgens.guidance.words.figures import FigureWords
from urgens.printed.tracing import printed_tables, printed_trace, why
from urgens.quantity import UnitSystem
from urgens.solve import solve

SHOWN = 6  # causes that are told in words
Logged = tuple[tuple[RecordedEvidence, ...], tuple[str, ...]]


def _trace(options: argparse.Namespace) -> int:
    if options.list:
        print_json(printed_tables())
        return DONE
    if options.file is None:
        raise BuildErrors.one("FILE", "no build is named", "name one, or ask for --list")
    build = loaded(options)
    known = _recorded(build, options)
    evidence = evidence_of(build, _told(options), known)
    found = traced(build, evidence, _case(build, options.load_case))
    extra = _given_twice(options)
    if options.json:
        printed = printed_trace(found, FigureWords(UnitSystem.METRIC))
        print_json({**printed, "contradictions": [*extra, *printed["contradictions"]]})
        return DONE
    _say(found, extra, FigureWords(build.natural_units))
    return DONE


def _recorded(build: Build, options: argparse.Namespace) -> tuple[RecordedEvidence, ...]:
    """Return what counts of the build's own records; raises BuildErrors for a name that is none."""
    logged, unread = _of_logs(build, options)
    for words in unread:
        print(f"urgens: {words}", file=sys.stderr)
    recorded = (*already_known(build), *logged)
    names = [one.name for one in recorded]
    for option, wanted in (("--leave-out", options.leave_out), ("--take-in", options.take_in)):
        for name in wanted:
            if name not in names:
                known = ", ".join(f'"{one}"' for one in names)
                remedy = f"choose of {known}" if names else "leave it away: nothing is on record"
                raise BuildErrors.one(option, f'there is no "{name}" on record', remedy)
    return counting(recorded, options.since, options.leave_out, options.take_in)


def _of_logs(build: Build, options: argparse.Namespace) -> Logged:
    """Return what logs tell: all of them where some are named, those since the fault, or none."""
    if options.take_in or options.leave_out:
        return of_logs(build, options.file)
    if options.since is not None:
        return of_logs(build, options.file, options.since)
    return (), ()


def _told(options: argparse.Namespace) -> TraceEvidence:
    """Return what the options say; raises BuildErrors for a reading that is none."""
    seen = dict(options.sign)
    signs = {**dict.fromkeys(seen, True), **dict.fromkeys(options.not_sign, False)}
    return TraceEvidence(
        signs,
        dict(options.test),
        tuple(reading(*one) for one in options.reading),
        answers={name: answers for name, answers in seen.items() if answers},
    )


def _case(build: Build, name: str | None) -> int:
    names = [one.name for one in build.vehicle.load_cases]
    if name is None:
        return 0
    if name not in names:
        known = ", ".join(f'"{one}"' for one in names)
        raise BuildErrors.one("--load-case", f'there is no "{name}"', f"choose one of {known}")
    return names.index(name)


def _given_twice(options: argparse.Namespace) -> list[str]:
    """Return what was said both ways; the last one counts."""
    seen = [name for name, _ in options.sign]
    both = [f"{one}: seen and not seen." for one in seen if one in options.not_sign]
    ways: dict[str, tuple[str, ...]] = {}
    for name, answers in options.sign:
        if ways.setdefault(name, answers) != answers:
            both.append(f"{name}: answered in two ways; the last one counts.")
    told: dict[str, str] = {}
    for test, outcome in options.test:
        if told.setdefault(test, outcome) != outcome:
            both.append(f"{test}: {told[test]} and {outcome} exclude each other.")
    return both


def _say(trace: Traced, extra: list[str], words: FigureWords) -> None:
    for line in trace.stops:
        print(f"Do not drive: {line}")
    for line in (*extra, *trace.contradictions):
        print(f"Contradiction: {line}")
    for one in trace.ranked[:SHOWN]:
        print(f"{100 * one.share:3.0f} of 100  {one.cause.words}. {trace.reason(one, words)}")
    print(f"{100 * trace.other:3.0f} of 100  Something not in this list.")
    if trace.tests:
        print(f"Next: {why(trace.tests[0].test)}")


def _sayings(options: argparse.Namespace) -> int:
    build = loaded(options)
    found = tried(solve(build))
    if options.json:
        print_json([
            {"id": one.id, "saying": one.saying, "verdict": one.answer.verdict,
             "here": one.answer.here, "limit": one.answer.limit}
            for one in found
        ])  # fmt: skip
        return DONE
    for one in found:
        print(
            f"{one.saying}: {SAID[one.answer.verdict]}.",
            f"{one.answer.here} {one.answer.limit}".rstrip(),
        )
    return DONE


RUN: dict[str, Any] = {"trace": _trace, "sayings": _sayings}
