"""A fault in three sentences: what it most likely is, what to do next, what to leave alone."""

from urgens.guidance.tracing.fault_places import FaultPlace
from urgens.guidance.tracing.ranking import CandidateTest
from urgens.guidance.tracing.trace import Traced
from urgens.guidance.tracing.weighing import speaks_for

SURE = 0.6  # share from which one would name it
LIKELY = 0.25  # from which one leads
ELSE = 0.3  # of something else from which nothing listed is named
POINTS = 0.4  # share after an outcome from which it points to one cause


def sentences(trace: Traced, places: tuple[FaultPlace, ...]) -> tuple[str, str, str]:
    """Return the three sentences; trace: of a fault; places: of it, the likeliest first."""
    return _likeliest(trace), _next(trace), _leave(trace, places)


def _likeliest(trace: Traced) -> str:
    first, second = (one.cause.words for one in trace.ranked[:2])
    share = trace.ranked[0].share
    if trace.other > max(share, ELSE):
        what = "was read" if trace.evidence.readings else "was seen"
        return (
            f"No one thing listed shows all that {what} (“{first}” is nearest): there may be "
            "two, or one of it was taken wrongly."
        )
    of = f"{100 * share:.0f} of 100"
    because = speaks_for(trace, trace.ranked[0].cause.id)
    why = f", because of this: {because}" if because else ""
    if share >= SURE:
        return f"“{first}”, unless something was missed ({of}){why}."
    if share >= LIKELY:
        return f"Most likely “{first}” ({of}){why}. After that “{second}”."
    return f"Too early to say: “{first}” and “{second}” lead, the first with {of}."


def _next(trace: Traced) -> str:
    if not trace.tests:
        return (
            "Nothing is left to test: look at what is listed first, or ask somebody who knows it."
        )
    asked = trace.tests[0]
    people = "alone" if asked.test.people == 1 else f"with {asked.test.people} people"
    opens = ", one joint opened" if asked.test.opens else ""
    said = f"Next, {asked.test.minutes} min {people}{opens}: {asked.test.words}."
    return f"{said} {_points(trace, asked)}".rstrip()


def _points(trace: Traced, asked: CandidateTest) -> str:
    """Return what the outcome of a test that would tell most points to."""
    row, cause = max(
        ((row, place) for row in range(len(asked.outcomes)) for place in range(len(trace.ranked))),
        key=lambda pair: float(asked.then[pair[0], pair[1]]),
    )
    if asked.then[row, cause] < POINTS:
        return ""
    words = trace.tracing.causes[cause].words
    return f"“{asked.outcomes[row].words}” would point to “{words}”."


def _leave(trace: Traced, places: tuple[FaultPlace, ...]) -> str:
    if trace.stops:
        return f"Do not drive it. {trace.stops[0].rstrip('.')}."
    out = [one for one in places if one.out]
    if out:
        alike = [one for one in out if one.out == out[0].out]
        return f"Leave {_named(alike)} alone: {out[0].out}."
    if trace.tests and not trace.tests[0].test.opens:
        return "Open nothing and renew nothing yet: what is next opens no joint."
    return "Renew nothing yet: nothing is ruled out."


def _named(places: list[FaultPlace]) -> str:
    """Return at most three places in words, both sides of one axle as one."""
    words = [one.words for one in places]
    for one in places:
        kind, _, at = one.id.partition(":")
        axle, side, _ = at.partition("-left")
        right = next((o.words for o in places if o.id == f"{kind}:{axle}-right"), None)
        if side and right is not None:
            words[words.index(one.words)] = f"{axle} {kind}s"
            words.remove(right)
    return " and ".join([", ".join(words[:2]), words[2]] if len(words) > 2 else words)
