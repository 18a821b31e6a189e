"""What a bore and a pedal ratio have to keep: the windows of the sizing map, first missed first."""

from collections.abc import Callable
from dataclasses import dataclass, replace
from enum import IntEnum

import numpy as np

from urgens.document import Build
from urgens.physics.arrays import Array, Bools, Floats
from urgens.physics.vehicle import StaticVehicle
from urgens.solve.bracket import first_rise
from urgens.solve.half_failed import HalfFailed, half_failed, half_failed_reach
from urgens.solve.line_pressure import pushrod_force
from urgens.solve.rear_first import rear_first_anywhere
from urgens.solve.roads import every_road
from urgens.solve.rolling_forces import rolling_lines
from urgens.solve.system import System
from urgens.solve.travel import bar_tilt

LOWEST_MANUAL = 5.0  # pedal ratio without a booster; common practice
HIGHEST_BOOSTED = 5.5  # above it a boosted pedal is too light and too long; common practice
CLOSE = 1e-9  # of what an end of a region is looked for in
TINY = 1e-15  # g: what is left is still enough where it is just what is asked
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

    def holds(self, ratios: Array) -> Bools:
        """Return where it is met (b, r); ratios: (r,) [-]."""
        return np.asarray((ratios[None, :] >= self.start) & (ratios[None, :] <= self.end))


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


def half_ends(
    system: System, standing: StaticVehicle, surface: float, span: tuple[float, float]
) -> Ends:
    """Return between which ratios either half lost leaves a pedal, and what the rule keeps.

    system: of all bores, at a ratio of 1; standing: one load case [N, -]; surface: tyre-road
    coefficient [-]; span: lowest and highest ratio [-].
    Source: what is left rises with the ratio until an axle locks and keeps less; the pedal's
    travel rises all the way.
    """
    shape = np.shape(system.cylinders.front.area)
    everywhere = StaticVehicle(*(np.broadcast_to(value, shape) for value in standing))

    def too_far(ratio: Array) -> Array:
        made = replace(system, pedal_ratio=ratio)
        return np.asarray(half_failed_reach(made, everywhere, surface) - 1.0)

    def enough(ratio: Array, kept: Floats = system.locked_grip) -> Array:
        made = replace(system, pedal_ratio=ratio, locked_grip=kept)
        halves = half_failed(made, everywhere, surface)
        return np.asarray(np.min([half.z - half.asks.z for half in halves], axis=0))

    start, end = _first(enough, shape, span), _first(too_far, shape, span)
    most = np.full(shape, span[1])
    falls = enough(most) < 0.0
    if falls.any():
        falls = falls & (enough(most, 1.0) >= 0.0)
    if not falls.any():
        return Ends(start, end)
    start = np.where(falls, _first(lambda ratio: enough(ratio, 1.0), shape, span), start)
    low = np.clip(start * (1.0 + CLOSE), *span)
    there = enough(low) >= 0.0
    lost = first_rise(
        lambda ratio: -enough(ratio) - TINY,
        np.stack([low, most]),
        -np.stack([enough(low), enough(most)]) - TINY,
        falls & there,
        CLOSE,
    )
    start = np.where(falls & ~there, np.inf, start)
    return Ends(start, np.where(falls & there, np.minimum(end, lost), end))


def _first(
    function: Callable[[Array], Array], shape: tuple[int, ...], span: tuple[float, float]
) -> Array:
    """Return the ratio from which a function is zero or more, inf where it never is (b, 1)."""
    ends = np.array(span)
    over = np.stack([function(np.full(shape, end)) for end in ends])
    rises = over[-1] >= 0.0
    found = first_rise(function, ends, over, rises, CLOSE)
    return np.where(over[0] >= 0.0, -np.inf, np.where(rises, found, np.inf))


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
