"""Any number of systems at once: what each does, and which windows and wishes it misses."""

from collections.abc import Mapping
from dataclasses import dataclass, replace

import numpy as np

from urgens.document import Build
from urgens.physics.arrays import Array, Bools
from urgens.physics.valve_law import at_rest
from urgens.physics.vehicle import StaticVehicle, demand
from urgens.solve.achieved import achieved
from urgens.solve.ball import rolling
from urgens.solve.bracket import crossing
from urgens.solve.half_failed import half_failed
from urgens.solve.launch_hold import hold_effort
from urgens.solve.line_pressure import booster_output, line_pressures, pushrod_force
from urgens.solve.rear_first import rear_first_anywhere
from urgens.solve.roads import ICE
from urgens.solve.rolling_forces import axle_forces, rolling_lines
from urgens.solve.system import System, system
from urgens.solve.travel import strokes, travel
from urgens.studies.sizing_windows import boosted, ratio_ends
from urgens.studies.unlimited import margin_of
from urgens.studies.wishes.wanted import LEAST, SENSE, Wishes

QUICK = ("effort", "travel", "floor")  # wishes that are known at once
Numbers = Mapping[str, Array]  # rows of figures by path (m,) [SI]


@dataclass(frozen=True)
class Quick:
    """What is known of rows at once (m,): figures of wishes by name [SI], and which windows hold.

    Those are pressure, stroke and ratio.
    """

    figures: dict[str, Array]
    windows: dict[str, Bools]

    @property
    def holds(self) -> Bools:
        """Where all of them hold."""
        return np.asarray(np.logical_and.reduce([*self.windows.values()]))


@dataclass(frozen=True)
class Slow:
    """What takes longer, of rows (m,): figures of wishes by name [SI], margin [-], what holds.

    `holds` is the front first within reach of the foot, with any load on any road. A half that is
    lost and finds no hold before the floor has no figure.
    """

    figures: dict[str, Array]
    margin: Array
    holds: Bools


def rows_of(build: Build, numbers: Numbers) -> tuple[System, StaticVehicle]:
    """Return one system of rows (m, 1) and its load cases (c,) or (m, c).

    numbers: of the rows by path (m,) [SI]. Source: by definition.
    """
    columns = {path: np.asarray(values).reshape(-1, 1) for path, values in numbers.items()}
    made = system(build, over=columns)
    across = (np.asarray(one) for one in made.standing)
    standing = StaticVehicle(*(one[:, 0] if one.ndim > 2 else one for one in across))
    return replace(made, standing=standing), standing


def quick(build: Build, numbers: Numbers, count: int) -> Quick:
    """Return what rows do that is known at once.

    build: whose targets are the wishes; numbers: of the rows (m,) [SI]; count: m [-].
    Source: as `studies.sizing`, by any figure.
    """
    made, standing = rows_of(build, numbers)
    first = StaticVehicle(*(np.asarray(values)[..., :1] for values in standing))
    targets, shape = build.targets, (count, 1)
    effort = _effort(build, made, first, shape)
    comfortable = targets.comfortable_effort.value
    at_comfort = line_pressures(
        made, booster_output(made, pushrod_force(made, comfortable)), at_rest(first)
    ).master_front
    pressed = np.where(np.isnan(effort), comfortable, effort)
    lines = rolling_lines(made, pushrod_force(made, pressed), first)
    found = travel(made, pressed, lines.front, lines.rear)
    chambers = zip(strokes(made, lines.front, lines.rear), made.volumes.chambers, strict=True)
    used = np.max([np.broadcast_to(s / chamber.stroke, shape) for s, chamber in chambers], axis=0)
    low, high = (quantity.value for quantity in targets.pressure_window)
    foot = comfortable * float(made.pedal_efficiency)
    force = pushrod_force(made, pressed)
    ends = ratio_ends(build, foot, force)
    ratio = np.broadcast_to(made.pedal_ratio, shape)
    windows = {
        "pressure": (at_comfort >= low) & (at_comfort <= high),
        "stroke": used <= 1.0 - targets.stroke_reserve,
        "ratio": (ratio >= ends.start) & (ratio <= ends.end),
    }
    pad = np.where(np.isnan(effort), np.nan, found.pad)
    left = build.pedal.travel_available.value - pad
    rows = {"effort": effort, "travel": pad, "floor": left}
    return Quick(
        {name: np.broadcast_to(one, shape)[:, 0] for name, one in rows.items()},
        {name: np.broadcast_to(one, shape)[:, 0] for name, one in windows.items()},
    )


def _effort(build: Build, made: System, first: StaticVehicle, shape: tuple[int, int]) -> Array:
    """Return the foot for the wanted deceleration (m, 1) [N], NaN where the hardest is short."""
    wanted, most = build.targets.deceleration, float(np.max(made.max_effort))
    rolls = rolling(made, first)

    def excess(effort: Array) -> Array:
        forces = axle_forces(rolls, pushrod_force(rolls, effort), first)
        return np.asarray(np.broadcast_to(demand(*forces, first) - wanted, shape))

    low, high = np.zeros(shape), np.full(shape, most)
    below, above = excess(low), excess(high)
    reached = (above >= 0.0) & (below < 0.0)
    above = np.where(reached, above, 1.0)
    found = crossing(excess, low, high, np.where(reached, below, -1.0), above)
    return np.where(reached, found, np.nan)


def slow(build: Build, numbers: Numbers, count: int, wishes: Wishes) -> Slow:
    """Return what rows do that takes longer.

    build: whose targets are the wishes; numbers: of the rows (m,) [SI]; count: m [-]; wishes: of
    which what is asked for is worked out.
    Source: as `solve.half_failed`, `solve.rear_first`, `studies.unlimited`.
    """
    made, standing = rows_of(build, numbers)
    cases = (count, len(made.case_names))
    everywhere = StaticVehicle(*(np.broadcast_to(one, cases) for one in standing))
    rows: dict[str, Array] = {}
    if not build.master.one_chamber:
        halves = half_failed(made, everywhere, build.targets.surface)
        left = [np.where(half.reached, half.z, np.nan) for half in halves]
        rows["half-lost"] = np.min(np.minimum(*left), axis=1)
    if wishes.unboosted is not None:
        rows["unboosted"] = _unboosted(build, made, everywhere)
    if wishes.hold is not None:
        first = system(build).case(0)  # nothing that may change is a load
        rows["hold"] = hold_effort(build, made, first, (count, 1))[:, 0]
    rear = rear_first_anywhere(made, standing, ICE, max(build.targets.surface, ICE))
    holds = ~np.broadcast_to(rear, cases).any(axis=1)
    margin = np.broadcast_to(margin_of(made, standing, build.targets.surface)[0], (count,))
    return Slow(rows, margin, holds & np.isfinite(margin))


def _unboosted(build: Build, made: System, everywhere: StaticVehicle) -> Array:
    """Return what the hardest foot leaves without assist, with the worst load (m,) [g]."""
    bare = made if not boosted(build) else replace(
        made, booster=replace(made.booster, assist_limit=np.zeros_like(made.booster.assist_limit))
    )  # fmt: skip
    output = booster_output(bare, pushrod_force(bare, bare.max_effort))
    z = achieved(bare, output, everywhere, build.targets.surface).deceleration
    return np.asarray(np.broadcast_to(z, np.shape(everywhere.front_weight)).min(axis=1))


def short(name: str, value: Array, wish: float) -> Array:
    """Return by what share of a wish rows miss it (m,) [-], 0 where they keep it, inf: no value.

    name: of the wish [text]; value: what rows do (m,) [SI]; wish: what is wanted [SI].
    Source: by definition.
    """
    away = (value - wish) if SENSE[name] > LEAST else (wish - value)
    tight = np.maximum(away, 0.0)
    share = tight / wish if wish > 0.0 else np.where(tight > 0.0, np.inf, 0.0)
    return np.where(np.isnan(value), np.inf, share)
