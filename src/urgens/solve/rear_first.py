"""On which roads the rear locks first: all of them, from one sweep of the foot.

While all wheels roll the road does not matter: each axle needs some coefficient of it. On a road
that axle locks first which first needs as much as the road gives, so that the roads on which it is
the rear are those at which the largest need so far is the rear's.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property
from itertools import pairwise
from typing import NamedTuple

import numpy as np

from urgens.document import Build
from urgens.physics.arrays import Array, Bools, Floats
from urgens.physics.standards import DECELERATION_RANGE
from urgens.physics.vehicle import StaticVehicle, axle_loads, demand
from urgens.solve.ball import rolling
from urgens.solve.bends import scan_of_efforts
from urgens.solve.first_rise import EQUAL
from urgens.solve.line_pressure import pushrod_force
from urgens.solve.roads import every_road
from urgens.solve.rolling_forces import axle_forces
from urgens.solve.system import System

CURVED = 96  # even steps of effort where a valve feels the load: forces go no longer straight
BEFORE = 1.0 - 1e-9  # of the effort at which a booster jumps in: just before
JOINED = 1e-6  # of a coefficient: spans that are nearer are one


@dataclass(frozen=True)
class RearFirstSpan:
    """Roads on which the rear locks first with a load case, from and to [-]."""

    case: int
    low: float
    high: float


class _Line(NamedTuple):
    """What goes straight between two efforts: its value at the first, and its rise to the next."""

    start: Array
    rise: Array

    def reached(self, wanted: Floats = 0.0) -> Array:
        """Return at which share of the way it comes up to something; inf where it never does."""
        short = wanted - self.start
        with np.errstate(divide="ignore", invalid="ignore"):
            share = np.where(self.rise > 0.0, short / self.rise, np.inf)
        return np.where(short <= 0.0, 0.0, share)


def _line(values: Array) -> _Line:
    """Return the stretches between values at rising efforts."""
    return _Line(values[:-1], values[1:] - values[:-1])


class _Lead(NamedTuple):
    """How far the rear's need is above the front's, times both loads: of the second degree."""

    start: Array
    slope: Array
    bow: Array

    def at(self, share: Array) -> Array:
        return np.asarray(self.start + share * (self.slope + share * self.bow))

    def above_between(self, low: Array, high: Array) -> Bools:
        """Return where it is above zero somewhere between two shares of the way, or at one."""
        inside = low <= high
        low = np.where(inside, low, 0.0)
        with np.errstate(divide="ignore", invalid="ignore"):
            top = np.clip(np.nan_to_num(-self.slope / (2.0 * self.bow)), low, high)
        above = (self.at(low) > 0.0) | (self.at(high) > 0.0) | (self.at(top) > 0.0)
        return np.asarray(above & inside)


@dataclass(frozen=True)
class Sweep:
    """A system pressed ever harder, all wheels rolling: forces at rising efforts [N].

    Along the first axis; behind it the shape of load cases and of the system's figures.
    """

    front: Array
    rear: Array
    standing: StaticVehicle

    @cached_property
    def deceleration(self) -> Array:
        """What the brakes ask for [g]."""
        return demand(self.front, self.rear, self.standing)

    @cached_property
    def held(self) -> tuple[Array, Array]:
        """What either axle would pass on a road of coefficient 1 [N]."""
        front, rear = axle_loads(self.standing, self.deceleration)
        grips = self.standing.front_grip, self.standing.rear_grip
        return np.asarray(grips[0] * front), np.asarray(grips[1] * rear)

    @cached_property
    def _lines(self) -> tuple[_Line, _Line, _Line, _Line]:
        """Both axles' forces and what they would pass, on each stretch."""
        front, rear, *held = map(_line, (self.front, self.rear, *self.held))
        return front, rear, held[0], held[1]

    @cached_property
    def lead(self) -> _Lead:
        """How far the rear is above the front, on each stretch."""
        front, rear, front_held, rear_held = self._lines
        start = rear.start * front_held.start - front.start * rear_held.start
        slope = (rear.start * front_held.rise + rear.rise * front_held.start) - (
            front.start * rear_held.rise + front.rise * rear_held.start
        )
        bow = rear.rise * front_held.rise - front.rise * rear_held.rise
        return _Lead(start - EQUAL * front_held.start * np.abs(rear_held.start), slope, bow)

    def needed_before(self) -> Array:
        """Return the coefficient that was needed at most before each stretch [-]."""
        needs = []
        for force, held in zip((self.front, self.rear), self.held, strict=True):
            carries = held > 0.0
            needs.append(np.where(carries, force / np.where(carries, held, 1.0), np.inf))
        return np.asarray(np.maximum.accumulate(np.maximum(*needs), axis=0)[:-1])

    def _rear_needs(self, road: Floats) -> Array:
        """Return at which share of each stretch the rear needs all that a road gives."""
        _, rear, _, held = self._lines
        return _Line(rear.start - road * held.start, rear.rise - road * held.rise).reached()

    def by_road(self, low: float, high: float) -> tuple[Array, Array]:
        """Return between which shares of each stretch the rear needs more than anything before.

        low, high: coefficients of the roads that are asked about, which may be one [-]. From inf
        where a stretch has none.
        """
        before = self.needed_before()
        start = np.where(before < high, self._rear_needs(np.clip(before, low, high)), np.inf)
        return start, np.minimum(np.broadcast_to(self._rear_needs(high), start.shape), 1.0)

    def by_deceleration(self, low: float, high: float) -> tuple[Array, Array]:
        """Return between which shares of a stretch the brakes ask for so much; low, high: [g]."""
        asked = _line(self.deceleration)
        start = np.where(asked.start < high, asked.reached(low), np.inf)
        return start, np.minimum(asked.reached(high), 1.0)

    def rear_first(self, low: float, high: float) -> Bools:
        """Return whether the rear locks first on any road; low, high: between which [-].

        Source: each axle's need of the road; forces straight between the bends of the laws.
        """
        return np.asarray(self.lead.above_between(*self.by_road(low, high)).any(axis=0))

    def rear_above(self) -> Bools:
        """Return whether the rear needs more than the front from 0.15 to 0.8 g, within reach.

        Source: UN R13-H Annex 5 (from memory), each axle by its own grip.
        """
        between = self.by_deceleration(*DECELERATION_RANGE)
        return np.asarray(self.lead.above_between(*between).any(axis=0))


def judged_roads(build: Build, system: System) -> tuple[float, ...]:
    """Return the roads who locks first is judged on, rising [-].

    Every one that is scanned, and one inside each stretch between two of them on which the rear is
    first: what is right on all of them is right on every road from ice to the target's.
    system: of the build. Source: by definition.
    """
    scanned = every_road(build)
    between = [
        (span.low + span.high) / 2.0
        for span in rear_first_spans(system, system.standing, scanned[0], scanned[-1])
        if not any(span.low <= road <= span.high for road in scanned)
    ]
    return tuple(sorted({*scanned, *between}))


def swept(system: System, standing: StaticVehicle) -> Sweep:
    """Press a system ever harder, all wheels rolling.

    system: the system; standing: load cases, any shape [N, -].
    Source: force balance at efforts that step over no bend of the system's laws.
    """
    system = rolling(system, standing)
    columns = _columns(system, standing)
    efforts = scan_of_efforts(system, standing, columns, curved=CURVED)
    cracks = np.divide(system.booster.crack_force, system.pedal_ratio * system.pedal_efficiency)
    before = np.minimum(np.broadcast_to(cracks * BEFORE, efforts.shape[1:]), system.max_effort)
    efforts = np.sort(np.concatenate((efforts, before[np.newaxis])), axis=0)
    forces = axle_forces(system, pushrod_force(system, efforts), standing)
    shape = np.broadcast_shapes(efforts.shape, *(np.shape(one) for one in (*forces, *standing)))
    front, rear = (np.broadcast_to(one, shape) for one in forces)
    return Sweep(front, rear, standing)


def rear_first_anywhere(system: System, standing: StaticVehicle, low: float, high: float) -> Bools:
    """Return whether the rear locks first on any road between two.

    system: the system; standing: load cases, any shape [N, -], which is the shape of what comes
    back with that of the system's figures; low, high: tyre-road coefficients, which may be one [-].
    Source: each axle's need of the road; forces straight between the bends of the system's laws.
    """
    return swept(system, standing).rear_first(low, high)


def _columns(system: System, standing: StaticVehicle) -> int:
    """Return how many axes figures and loads have at most."""
    start = axle_forces(system, pushrod_force(system, 0.0), standing)
    shapes = (*map(np.shape, start), *map(np.shape, standing), np.shape(system.max_effort))
    return len(np.broadcast_shapes(*shapes))


def rear_first_spans(
    system: System, standing: StaticVehicle, low: float, high: float
) -> tuple[RearFirstSpan, ...]:
    """Return the roads on which the rear locks first, for each load case of one system.

    system: of single figures; standing: load cases (c,) [N, -]; low, high: tyre-road coefficients
    between which it is asked [-].
    Source: as `rear_first_anywhere`.
    """
    found = swept(system, standing)
    lead, ends = found.lead, found.by_road(low, high)
    above = lead.above_between(*ends)
    spans: list[RearFirstSpan] = []
    for stretch, case in np.argwhere(above):
        at = int(stretch), int(case)
        between = (float(ends[0][at]), float(ends[1][at]))
        for shares in _above(_Lead(*(one[at] for one in lead)), *between):
            start, end = (_need(found, at, share, low, high) for share in shares)
            spans.append(RearFirstSpan(at[1], start, end))
    return tuple(_joined(spans))


def _above(lead: _Lead, low: float, high: float) -> Iterator[tuple[float, float]]:
    """Yield between which shares of a stretch a lead is above zero."""
    start, slope, bow = map(float, lead)
    roots = np.roots([bow, slope, start]) if bow or slope else np.array([])
    inside = sorted(float(r.real) for r in roots if not r.imag and low < r.real < high)
    for one, other in pairwise((low, *inside, high)):
        middle = (one + other) / 2.0
        if start + middle * (slope + middle * bow) > 0.0:
            yield one, other


def _need(sweep: Sweep, at: tuple[int, int], share: float, low: float, high: float) -> float:
    """Return the coefficient that the rear needs at a share of a stretch, between two [-]."""
    force, held = (
        float(one[at] + share * (one[at[0] + 1, at[1]] - one[at]))
        for one in (sweep.rear, sweep.held[1])
    )
    return min(max(force / held, low), high) if held > 0.0 else high


def _joined(spans: list[RearFirstSpan]) -> Iterator[RearFirstSpan]:
    """Yield spans of which neighbours are one."""
    spans = sorted(spans, key=lambda one: (one.case, one.low))
    for place, one in enumerate(spans):
        if place and spans[place - 1].case == one.case:
            before = spans[place - 1]
            if one.low <= before.high + JOINED:
                spans[place] = RearFirstSpan(one.case, before.low, max(before.high, one.high))
                continue
            yield before
        elif place:
            yield spans[place - 1]
    yield from spans[-1:]
