"""Faults traced, as the JSON objects the command line prints."""

from typing import Any

from urgens.guidance.tracing.tables import Cause, Sign, Trial, tables
from urgens.guidance.tracing.trace import Traced
from urgens.guidance.words.figures import Words

SHOWN, NEXT = 12, 5  # causes and tests that are printed


def printed_trace(found: Traced, words: Words) -> dict[str, Any]:
    """Return what a fault comes to, shares of 1.

    found: of it [object]; words: in units [object].
    Source: `guidance.tracing`.
    """
    return {
        "stop_driving": bool(found.stops),
        "stops": list(found.stops),
        "causes": [
            {"id": one.cause.id, "share": one.share, "why": found.reason(one, words),
             "mend": one.cause.mend}
            for one in found.ranked[:SHOWN]
        ],
        "other": found.other,
        "next": [
            {"test": one.test.id, "minutes": one.test.minutes, "why": why(one.test),
             "gain": one.gain}
            for one in found.tests[:NEXT]
        ],
        "contradictions": list(found.contradictions),
    }  # fmt: skip


def why(test: Trial) -> str:
    """Return what a test is and costs; test: of it [object]. Source: the table."""
    people = "" if test.people == 1 else f", {test.people} people"
    opens = "opens a joint" if test.opens else "opens nothing"
    return f"{test.words}: {test.minutes} min{people}, {opens}."


def printed_tables() -> dict[str, Any]:
    """Return signs, causes and tests. Source: the shipped tables."""
    whole = tables()
    return {
        "signs": [_sign(one) for one in whole.signs],
        "causes": [_cause(one) for one in whole.causes],
        "tests": [_test(one) for one in whole.tests],
    }


def _sign(one: Sign) -> dict[str, Any]:
    return {"id": one.id, "words": one.words, "look": one.look, "stops": bool(one.stops)}


def _cause(one: Cause) -> dict[str, Any]:
    return {"id": one.id, "words": one.words, "why": one.why, "place": one.place, "mend": one.mend}


def _test(one: Trial) -> dict[str, Any]:
    outcomes = [{"id": each.id, "words": each.words, "means": each.means} for each in one.outcomes]
    return {"id": one.id, "words": one.words, "minutes": one.minutes, "people": one.people,
            "opens": one.opens, "procedure": one.procedure, "outcomes": outcomes}  # fmt: skip
