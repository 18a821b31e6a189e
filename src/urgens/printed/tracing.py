"""Faults traced, as the JSON objects the command line prints."""

from typing import Any

from urgens.guidance.faults.tables import TraceCause, TraceSign, TraceTest, tables
from urgens.guidance.tracing.trace import Traced
from urgens.guidance.words.figures import FigureWords

NEXT = 5  # tests that are printed


def printed_trace(trace: Traced, words: FigureWords) -> dict[str, Any]:
    """Return what a fault comes to, shares of 1.

    trace: of it; words: in units.
    """
    return {
        "stop_driving": bool(trace.stops),
        "stops": list(trace.stops),
        "causes": [
            {"id": one.cause.id, "share": one.share, "why": trace.reason(one, words),
             "mend": one.cause.mend}
            for one in trace.ranked
        ],
        "other": trace.other,
        "next": [
            {"test": one.test.id, "minutes": one.test.minutes, "why": why(one.test),
             "gain": one.gain}
            for one in trace.tests[:NEXT]
        ],
        "contradictions": list(trace.contradictions),
    }  # fmt: skip


def why(test: TraceTest) -> str:
    """Return what a test is and costs; test: of it."""
    people = "" if test.people == 1 else f", {test.people} people"
    opens = "opens a joint" if test.opens else "opens nothing"
    return f"{test.words}: {test.minutes} min{people}, {opens}."


def printed_tables() -> dict[str, Any]:
    """Return signs, causes and tests."""
    whole = tables()
    return {
        "signs": [_sign(one) for one in whole.signs],
        "causes": [_cause(one) for one in whole.causes],
        "tests": [_test(one) for one in whole.tests],
    }


def _sign(sign: TraceSign) -> dict[str, Any]:
    asks = [tables().ask(name) for name in sign.asks]
    asked = [
        {"id": ask.id, "words": sign.asked.get(ask.id, ask.words),
         "answers": [{"id": one.id, "words": one.words} for one in ask.answers]}
        for ask in asks
    ]  # fmt: skip
    return {"id": sign.id, "words": sign.words, "look": sign.look, "stops": bool(sign.stops),
            "asks": asked}  # fmt: skip


def _cause(cause: TraceCause) -> dict[str, Any]:
    return {
        "id": cause.id,
        "words": cause.words,
        "why": cause.why,
        "place": cause.place,
        "mend": cause.mend,
    }


def _test(test: TraceTest) -> dict[str, Any]:
    outcomes = [{"id": each.id, "words": each.words, "means": each.means} for each in test.outcomes]
    return {"id": test.id, "words": test.words, "minutes": test.minutes, "people": test.people,
            "opens": test.opens, "procedure": test.procedure, "outcomes": outcomes}  # fmt: skip
