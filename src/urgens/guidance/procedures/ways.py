"""The way of the fluid to each wheel of a layout: what it goes through, and how much each holds."""

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from urgens.document import Build
from urgens.document.circuits import Circuits, Passage, circuits_of
from urgens.document.kinds.brakes import piston_area
from urgens.document.kinds.brakes.disc import Disc
from urgens.document.layout.layout import FittedPart
from urgens.document.layout.line_sheets import routed
from urgens.document.layout.threads import thread_table
from urgens.document.practice import practice
from urgens.guidance.procedures.facts import FARTHEST, Facts
from urgens.guidance.procedures.step import Wheel
from urgens.physics.arrays import Array
from urgens.physics.axle import Axle

# Assumed, as nothing of a layout tells it; said wherever it is counted.
BODY = 0.5e-6  # m³ inside a tee, a valve, a switch
HIGH_KEEPS = 0.3  # of a brake's fluid that stays above a screw which is not at the top
DEAD_END = 0.2e-6  # m³ inside a sensor, a gauge or a plugged port


@dataclass(frozen=True)
class Ways:
    """What fluid goes through to each wheel, in order, and what each of it holds [m³].

    `kept` is what stays as air at each wheel whatever is pushed [m³], `dead` at dead ends of each
    wheel's circuit; `tubes` the lengths and bores of each way's lines and hoses [m].
    """

    through: Mapping[Wheel, tuple[str, ...]]
    holds: Mapping[str, float]
    kept: Mapping[Wheel, float]
    dead: Mapping[Wheel, float]
    tubes: Mapping[Wheel, tuple[Array, Array]]

    def volume(self, wheel: Wheel) -> float:
        """Return what stands in the way to a wheel [m³]."""
        return sum(self.holds[name] for name in self.through[wheel])


def ways_of(build: Build) -> Ways | None:
    """Return the ways of a layout; None where a line of them is not drawn, or there is none.

    Source: the layout; volumes of tubes and hoses by their bores, the rest as assumed here.
    """
    laid = circuits_of(build)
    if laid is None:
        return None
    volumes = _volumes(build, laid)
    if volumes is None:
        return None
    holds, tubes = volumes
    through: dict[Wheel, tuple[str, ...]] = {}
    for wheel in FARTHEST:
        part = laid.wheels.get(wheel)
        found = None if part is None else _through(laid, part)
        if found is None:
            return None
        through[wheel] = found
    kept = {
        wheel: HIGH_KEEPS * holds[laid.wheels[wheel].id]
        if laid.wheels[wheel].bleeder_at_top is False else 0.0
        for wheel in FARTHEST
    }  # fmt: skip
    own = {
        wheel: _columns([tubes[name] for name in through[wheel] if name in tubes])
        for wheel in FARTHEST
    }
    return Ways(through, holds, kept, _dead(laid), own)


def _columns(tubes: list[tuple[float, float]]) -> tuple[Array, Array]:
    rows = np.array(tubes).reshape(-1, 2)
    return rows[:, 0], rows[:, 1]


def _volumes(
    build: Build, laid: Circuits
) -> tuple[dict[str, float], dict[str, tuple[float, float]]] | None:
    """Return what each line and part holds [m³], and each tube's length and bore [m]."""
    made = {one.line.id: one for one in routed(laid.plumbing)}
    holds: dict[str, float] = {}
    tubes: dict[str, tuple[float, float]] = {}
    for line in laid.plumbing.lines:
        if line.direct:
            holds[line.id] = 0.0
            continue
        tube = None if line.tube is None else thread_table().tube(line.tube)
        if line.id not in made or made[line.id].sheet is None or tube is None:
            return None
        tubes[line.id] = made[line.id].length, tube.bore.value
    for place in laid.neighbours:  # a shuttle keeps its sides apart
        holds[_name(place)] = _inside(build, laid.parts[place.part])
    for part in laid.plumbing.parts:
        if part.kind == "hose" and part.bore and part.free_length:
            tubes[part.id] = part.free_length.value, part.bore.value
    holds |= {name: np.pi / 4.0 * bore**2 * length for name, (length, bore) in tubes.items()}
    return holds, tubes


def _name(place: Passage) -> str:
    return f"{place.part} {place.side}".strip()


def _inside(build: Build, part: FittedPart) -> float:
    """Return what a part holds [m³], as assumed; the cylinder is bled before its wheels."""
    if part.wheel is not None:
        brake = build.axle(Axle(part.wheel.partition("-")[0])).brake
        one_side = isinstance(brake, Disc) and brake.caliper == "sliding"
        depth = practice()["behind_pistons"].value
        return depth * piston_area(brake) * (1.0 if one_side else 2.0)
    return 0.0 if part.kind in ("master", "reservoir", "plug", "hose") else BODY


def _through(laid: Circuits, wheel: FittedPart) -> tuple[str, ...] | None:
    """Return the lines and parts from an outlet of the cylinder to a wheel, by the shortest way."""
    before: dict[Passage, tuple[Passage, str]] = {}
    waiting = [*laid.outlets]
    seen = set(waiting)
    while waiting:
        here = waiting.pop(0)
        if here.part == wheel.id:
            return _back(here, before, set(laid.outlets))
        for there, line in laid.neighbours[here]:
            if there not in seen:
                seen.add(there)
                before[there] = here, line
                waiting.append(there)
    return None


def _back(
    end: Passage, before: Mapping[Passage, tuple[Passage, str]], outlets: set[Passage]
) -> tuple[str, ...]:
    found: list[str] = []
    here = end
    while here not in outlets:
        there, line = before[here]
        found += [_name(here), line]
        here = there
    return tuple(reversed(found))


def _dead(laid: Circuits) -> dict[Wheel, float]:
    """Return what dead ends keep, shared by the wheels of their circuits [m³]."""
    found: dict[Wheel, float] = dict.fromkeys(FARTHEST, 0.0)
    for end in Facts(laid.build).dead_ends:
        for wheel in end.wheels:
            found[wheel] += DEAD_END / len(end.wheels)
    return found
