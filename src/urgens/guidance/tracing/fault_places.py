"""Where a fault can sit on this build: every place with its share, and what rules one out."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

import numpy as np

from urgens.document import Build
from urgens.document.kinds.valves import kind_of
from urgens.guidance.faults.tables import TraceCause
from urgens.guidance.tracing.fitting import valve_fits
from urgens.guidance.tracing.trace import Traced
from urgens.guidance.tracing.weighing import ruled_out_by, seen_alone
from urgens.physics.axle import AXLES

OUT = 0.03  # share under which a place is as good as ruled out
FELL = 0.25  # of what it had by the signs that are seen alone
SIDES = ("left", "right")
OTHER_SIDE = {"left": "right", "right": "left"}
VEHICLE = "vehicle"
_ONE = ("rod", "booster", "reservoir", "cylinder", "switch", "joints", VEHICLE)
_WORDS = {
    "rod": "pedal and rod", "booster": "booster", "reservoir": "reservoir", "cylinder": "cylinder",
    "switch": "warning switch", "joints": "joints", VEHICLE: "tyres, load, road",
}  # fmt: skip


@dataclass(frozen=True)
class FaultPlace:
    """A place by its id, in words, with the share of all causes that sits there [-].

    `causes` are ids, the likeliest first; `out` tells why it is ruled out, empty where it is not.
    """

    id: str
    words: str
    share: float
    causes: tuple[str, ...]
    out: str


def fault_places(build: Build, trace: Traced) -> tuple[FaultPlace, ...]:
    """Return every place of a build, the likeliest first, what is ruled out last.

    trace: what is known comes to.
    A cause that can sit at several places has as much of its share at each; one of a wheel sits
    where the answers say.
    """
    there = {one.place for one in trace.tracing.causes}
    shares = {place: 0.0 for place in _places(build) if place not in _ONE or place in there}
    pointed = dict(shares)  # by the signs that are seen alone
    causes: dict[str, list[tuple[float, str]]] = {place: [] for place in shares}
    before = seen_alone(trace)
    for one in trace.ranked:
        where = [place for place in places_of(build, trace, one.cause) if place in shares]
        for place in where:
            shares[place] += one.share / len(where)
            pointed[place] += float(before[one.place]) / len(where)
            causes[place].append((one.share / len(where), one.cause.id))
    listed = max(1.0 - trace.other, 1e-9)
    found = []
    for place, share in shares.items():
        own = tuple(cause for _, cause in sorted(causes[place], key=lambda row: -row[0]))
        gone = bool(own) and share / listed < min(OUT, FELL * pointed[place])
        out = ruled_out_by(trace, own) if gone else ""
        found.append(FaultPlace(place, place_words(build, place), share, own, out))
    return tuple(sorted(found, key=lambda one: (bool(one.out), -round(one.share, 9))))


def _places(build: Build) -> Iterator[str]:
    """Yield the id of every place that a build has."""
    for place in _ONE:
        if place != "booster" or build.booster.fitted:
            yield place
    for axle in AXLES:
        yield f"lines:{axle}"
        for index, _ in enumerate(build.valves.of(axle)):
            yield f"valve:{axle}[{index}]"
        for part in ("hose", "brake"):
            yield from (f"{part}:{axle}-{side}" for side in SIDES)


def places_of(build: Build, trace: Traced, cause: TraceCause) -> tuple[str, ...]:
    """Return the ids of the places where a cause can sit.

    trace: with the answers; cause: of the build. Source: the layout.
    """
    axles = [cause.axle] if cause.axle in ("front", "rear") else [str(axle) for axle in AXLES]
    if cause.place in _ONE:
        return (cause.place,)
    if cause.place == "lines":
        return tuple(f"lines:{axle}" for axle in axles)
    if cause.place == "valve":
        return _valves(build, cause, axles)
    answered = [axle for axle in axles if axle in _answers(trace)] if cause.wheel else []
    return tuple(
        f"{cause.place}:{axle}-{side}"
        for axle in answered or axles
        for side in sides_of(trace, cause)
    )


def _valves(build: Build, cause: TraceCause, axles: Sequence[str]) -> tuple[str, ...]:
    """Return the valves that a cause is about, else the line one is missing from."""
    found = [
        f"valve:{axle}[{index}]"
        for axle, index, valve in build.valves.placed()
        if axle in axles and any(valve_fits(valve, need) for need in cause.needs)
    ]
    return tuple(found) or tuple(f"lines:{axle}" for axle in axles)


def _answers(trace: Traced) -> set[str]:
    return {one for answers in trace.evidence.answers.values() for one in answers}


def sides_of(trace: Traced, cause: TraceCause) -> tuple[str, ...]:
    """Return the sides on which a cause can sit; trace: with the answers; cause: of the build.

    A vehicle pulls to the side that brakes more: a wheel that does little is across from it.
    Source: common practice.
    """
    told: set[str] = set()
    for sign, answers in trace.evidence.answers.items():
        for side in (one for one in answers if one in SIDES):
            across = sign == "pulls" and cause.wheel == "away"
            either = sign == "pulls" and cause.wheel == "either"
            told |= set(SIDES) if either else {OTHER_SIDE[side] if across else side}
    if cause.wheel is None or not told:
        return SIDES
    return tuple(side for side in SIDES if side in told)


def place_words(build: Build, place: str) -> str:
    """Return what a place is called; place: its id [text]."""
    if place in _WORDS:
        return _WORDS[place]
    kind, _, at = place.partition(":")
    if kind == "valve":
        axle, _, index = at.partition("[")
        valve = build.valves.of(next(one for one in AXLES if one == axle))[int(index[:-1])]
        return f"{kind_of(valve).name.lower()}, {axle}"
    if kind == "lines":
        return f"{at} lines"
    axle, _, side = at.partition("-")
    return f"{axle} {side} {kind}"


def shading(places: tuple[FaultPlace, ...]) -> dict[str, float]:
    """Return how dark each place is drawn, 0 to 1: its share beside the most there is [-]."""
    most = max((one.share for one in places), default=0.0)
    return {one.id: float(np.sqrt(one.share / most)) if most > 0.0 else 0.0 for one in places}
