"""What a bore and a pedal ratio have to keep: the windows of the sizing map, first missed first."""

from dataclasses import dataclass, replace
from enum import IntEnum

import numpy as np

from urgens.document import Build
from urgens.physics.arrays import Array, Bools
from urgens.physics.vehicle import StaticVehicle
from urgens.solve.bracket import first_rise
from urgens.solve.half_failed import HalfFailed, half_failed
from urgens.solve.line_pressure import pushrod_force
from urgens.solve.rear_first import rear_first_anywhere
from urgens.solve.roads import every_road
from urgens.solve.rolling_forces import rolling_lines
from urgens.solve.system import System
from urgens.solve.travel import bar_tilt

LOWEST_MANUAL = 5.0  # pedal ratio without a booster; common practice
HIGHEST_BOOSTED = 5.5  # above it a boosted pedal is too light and too long; common practice
CLOSE = 1e-9  # of what an end of a region is looked for in
HALF_STEPS = 96  # of all ratios: a sixteenth between 3 and 9
PARTS = 16  # a step with a change in it is cut into, again and again
HALF_CLOSE = 1e-7  # of a ratio: how closely a change is known then
TILTS = 101  # efforts at which a bar's tilt is looked at


class MissedWindow(IntEnum):
    """The first window that is missed, in the order in which they are looked at."""

    FITS = 0
    EFFORT = 1
    PRESSURE = 2
    TRAVEL = 3
    STROKE = 4
    HALF_FAILED = 5
    RATIO = 6
    HOLD = 7  # where a driveline to hold is given
    BAR = 8
    BALANCE = 9  # of twin cylinders: which bores go together

    @property
    def word(self) -> str:
        """What it is called in print."""
        return self.name.lower().replace("_", "-")

    @property
    def bit(self) -> int:
        """Its place among those that are missed together."""
        return 1 << int(self)


@dataclass(frozen=True)
class Ends:
    """Between which ratios a window is met, bore by bore (b, 1) [-]."""

    start: Array
    end: Array

    @property
    def edges(self) -> Array:
        """Where it begins and ends (b, 2) [-]."""
        return np.concatenate([self.start, self.end], axis=1)

    def holds(self, ratios: Array) -> Bools:
        """Return where it is met (b, r); ratios: (r,), or bore by bore (b, r) [-]."""
        return np.asarray((ratios >= self.start) & (ratios <= self.end))


@dataclass(frozen=True)
class Turns:
    """At which ratios a window is met and missed by turns, bore by bore.

    `met` (b, 1): whether it is before the first of them; `edges` (b, n) [-] rise, inf where a bore
    has no more.
    """

    met: Bools
    edges: Array

    def holds(self, ratios: Array) -> Bools:
        """Return where it is met (b, r); ratios: bore by bore (b, r) [-]."""
        passed = np.sum(ratios[:, :, np.newaxis] >= self.edges[:, np.newaxis, :], axis=-1)
        return np.asarray(self.met ^ (passed % 2 == 1))


def boosted(build: Build) -> bool:
    """Return whether a booster is fitted and works."""
    return build.booster.fitted and build.booster.works


def ratio_ends(build: Build, foot: float, force: Array) -> Ends:
    """Return between which ratios a pedal goes with its booster, or without one.

    foot: the comfortable force on the pushrod for each of the ratio [N]; force: on the pushrod for
    the wanted deceleration (b, 1) [N].
    Source: common practice: without a booster a ratio of 5 and more, but where the wanted
    deceleration takes no more than the comfortable foot; with one no more than 5.5.
    """
    none, free = np.full(np.shape(force), -np.inf), np.full(np.shape(force), np.inf)
    if boosted(build):
        return Ends(none, np.full(np.shape(force), HIGHEST_BOOSTED))
    return Ends(np.minimum(LOWEST_MANUAL, np.nan_to_num(force / foot, nan=np.inf)), free)


def half_turns(
    system: System, standing: StaticVehicle, surface: float, span: tuple[float, float]
) -> Turns:
    """Return at which ratios either half lost begins or ceases to leave what the rule keeps.

    system: of all bores, at a ratio of 1; standing: one load case [N, -]; surface: tyre-road
    coefficient [-]; span: lowest and highest ratio [-].
    Stretches narrower than a step of `HALF_STEPS` may be missed.
    Source: `solve.half_failed`, step by step: what is left rises with the ratio, falls wherever an
    axle locks and keeps less (Gillespie, from memory), and rises again.
    """
    shape = np.shape(system.cylinders.front.area)

    def holds(ratios: Array) -> Bools:
        everywhere = StaticVehicle(*(np.broadcast_to(value, ratios.shape) for value in standing))
        return halves_hold(half_failed(replace(system, pedal_ratio=ratios), everywhere, surface))

    tried = np.linspace(*span, HALF_STEPS + 1)
    held = holds(np.broadcast_to(tried.reshape(-1, 1, 1), (tried.size, *shape)))
    turns = held[1:] != held[:-1]
    order = np.argsort(~turns, axis=0, kind="stable")[: max(turns.sum(axis=0).max(), 1)]
    turned = np.take_along_axis(turns, order, axis=0)
    low, high = tried[order], tried[order + 1]
    before = np.take_along_axis(held[:-1], order, axis=0)
    shares = np.linspace(0.0, 1.0, PARTS + 1).reshape(-1, 1, 1, 1)
    while np.any(turned & (high - low > HALF_CLOSE)):
        probes = low + shares * (high - low)
        first = np.argmax(holds(probes) != before, axis=0)[np.newaxis]
        low, high = (
            np.take_along_axis(probes, np.maximum(first - back, 0), axis=0)[0] for back in (1, 0)
        )
    changes = np.where(turned, high, np.inf)
    return Turns(held[0], np.moveaxis(changes[..., 0], 0, -1))


def bar_end(system: System, standing: StaticVehicle, most: float, angle: float) -> Array:
    """Return the force on the pushrod from which a bar tilts too far (b, 1) [N], inf: none.

    system: of all bores of twin cylinders, at a ratio of 1; standing: one load case [N, -]; most:
    force up to which it is looked at [N]; angle: that the bar allows [rad].
    """
    forces = np.linspace(0.0, most, TILTS)

    def over(force: Array) -> Array:
        lines = rolling_lines(system, force, standing)
        return np.asarray(np.abs(bar_tilt(system, lines.front, lines.rear)) - angle)

    tried = over(forces[:, None, None])
    rises = np.any(tried > 0.0, axis=0)
    return np.where(rises, first_rise(over, forces, tried, rises, CLOSE), np.inf)


def pairs_in_balance(build: Build, system: System) -> Bools:
    """Return which pairs of bores leave the front first with every load on every road (b, 1).

    build: of twin cylinders; system: of all pairs, at one ratio.
    """
    roads = every_road(build)
    rear = rear_first_anywhere(system, system.standing, roads[0], roads[-1])
    shape = (*np.shape(system.cylinders.front.area)[:-1], len(system.case_names))
    return np.asarray(~np.broadcast_to(rear, shape).any(axis=-1, keepdims=True))


def halves_hold(halves: tuple[HalfFailed, ...]) -> Bools:
    """Return where either half lost leaves what the rule keeps; halves: of one build or many."""
    return np.asarray(np.logical_and.reduce([half.meets_rule for half in halves]))


def hardest_force(system: System, ratio: float) -> float:
    """Return the force of the hardest foot on the pushrod at a ratio [N]; ratio: [-]."""
    return float(pushrod_force(replace(system, pedal_ratio=ratio), system.max_effort))
