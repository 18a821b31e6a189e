"""Every bore with every pedal ratio: what each gives, and what it misses."""

from dataclasses import dataclass, fields, replace
from enum import IntEnum

import numpy as np

from urgens.document import Build
from urgens.document.kinds.cylinders.twin import TwinMaster
from urgens.physics import cylinder, vehicle
from urgens.physics.arrays import Array
from urgens.physics.axle import Pair
from urgens.physics.valve_law import at_rest
from urgens.physics.vehicle import StaticVehicle
from urgens.solve.bracket import first_rise
from urgens.solve.half_failed import half_failed
from urgens.solve.launch_hold import hold_effort
from urgens.solve.line_pressure import booster_output, line_pressures, pushrod_force
from urgens.solve.press import axle_forces, rolling_lines
from urgens.solve.system import System, system
from urgens.solve.travel import strokes, travel

MANUAL = (5.0, 7.0)  # pedal ratios that are usual
BOOSTED = (3.5, 5.0)  # common practice
# At which a ratio counts half
LEAST = 2.5
MOST = 9.0
BOTH = 2  # axes of a figure of bores and ratios
SCANNED = 600  # steps of force on the pushrod
RATIOS: Array = np.round(np.arange(3.0, 8.05, 0.1), 1)


class MissedWindow(IntEnum):
    """The first window that is missed, in the order in which they are looked at."""

    FITS = 0
    EFFORT = 1
    PRESSURE = 2
    TRAVEL = 3
    STROKE = 4
    HALF_FAILED = 5
    HOLD = 6  # where a driveline to hold is given

    @property
    def word(self) -> str:
        """What it is called in print."""
        return self.name.lower().replace("_", "-")


@dataclass(frozen=True)
class SizingMap:
    """What bores (rows) and ratios (columns) give; all arrays but the first three are of both.

    `bores`, `rear_bores` [m] alike but for twin cylinders, `ratios` [-]; `pressure` at the front
    outlet at the comfortable effort [Pa]; `effort` for the wanted deceleration [N], NaN where the
    largest effort does not reach it; `pedal_travel` at that effort, else at the comfortable one
    [m], NaN past the floor; `stroke_used` of the fullest chamber [-]; `half_failed_travel` of the
    worse half [m], NaN out of reach or on a single cylinder; `verdict` of Verdict; `score` [-];
    `hold_effort` that holds the launch [N], NaN where none does, None where nothing asks for it.
    """

    bores: Array
    rear_bores: Array
    ratios: Array
    pressure: Array
    effort: Array
    pedal_travel: Array
    stroke_used: Array
    half_failed_travel: Array
    verdict: Array
    score: Array
    hold_effort: Array | None = None

    def ranked(self) -> list[tuple[int, int]]:
        """Return rows and columns of what fits, best first, ties to the smaller bore.

        Source: by definition.
        """
        rows, columns = np.nonzero(self.verdict == MissedWindow.FITS)
        order = np.lexsort((self.ratios[columns], self.bores[rows], -self.score[rows, columns]))
        return [(int(rows[i]), int(columns[i])) for i in order]

    def part(self, rows: slice, columns: slice) -> "SizingMap":
        """Return the map of some bores and ratios alone; rows, columns: which [-].

        Source: by definition.
        """
        of_both = {
            field.name: values[rows, columns]
            for field in fields(self)
            if (values := getattr(self, field.name)) is not None and values.ndim == BOTH
        }
        return replace(self, bores=self.bores[rows], rear_bores=self.rear_bores[rows],
                       ratios=self.ratios[columns], **of_both)  # fmt: skip


def sizing_map(
    build: Build, case: int, bores: Array, rear_bores: Array, ratios: Array
) -> SizingMap:
    """Return what every bore gives with every ratio on a build.

    case: place of the load case [-]; bores, rear_bores: (b,) [m],
    the same for one bore; ratios: (r,) [-]. The pedal keeps its pivot to pad.

    As `solve.press` and `solve.travel`; windows are the build's targets.
    """
    base = system(build)
    standing = base.case(case)
    made = of_all(base, bores, rear_bores, ratios)
    targets, shape = build.targets, (bores.size, ratios.size)
    hardest = float(ratios.max())
    effort = _effort(made, ratios, force_wanted(build, made, standing, hardest))
    comfortable = targets.comfortable_effort.value
    pressed = np.where(np.isnan(effort), comfortable, effort)
    at_comfort = line_pressures(
        made, booster_output(made, pushrod_force(made, comfortable)), at_rest(standing)
    ).master_front
    lines = rolling_lines(made, pushrod_force(made, pressed), standing)
    found = travel(made, pressed, lines.front, lines.rear)
    chambers = zip(strokes(made, lines.front, lines.rear), made.volumes.chambers, strict=True)
    used = np.max([np.broadcast_to(s / chamber.stroke, shape) for s, chamber in chambers], axis=0)
    pad = np.where(found.floor_ends, np.nan, found.pad)
    half = _half_failed_travel(build, made, standing, shape)
    pressure = np.broadcast_to(at_comfort, shape)
    windows = _windows(build, effort, pressure, pad, used, half)
    hold, inside = None, [met for met, _ in windows]
    if holds_are_wanted(build):
        hold = _effort(made, ratios, force_that_holds(build, made, standing, hardest))
        inside += [np.ones(shape, dtype=bool)] * (MissedWindow.HOLD - 1 - len(inside))
        inside.append(~np.isnan(hold))
    first = np.argmax([*np.logical_not(inside), np.ones(shape, dtype=bool)], axis=0)
    return SizingMap(
        bores=bores,
        rear_bores=rear_bores,
        ratios=ratios,
        pressure=pressure,
        effort=effort,
        pedal_travel=np.broadcast_to(pad, shape),
        stroke_used=used,
        half_failed_travel=half,
        verdict=np.where(first == len(inside), MissedWindow.FITS, first + 1),
        score=np.mean([np.clip(score, 0.0, 1.0) for _, score in windows], axis=0)
        * usual(ratios, boosted=build.booster.works and build.booster.fitted),
        hold_effort=hold,
    )


def usual(ratios: Array, *, boosted: bool) -> Array:
    """Return how usual pedal ratios are [-]: 1 in practice's own range, down to a half far away.

    ratios: any shape [-]; boosted: whether a booster works [bool].
    Source: common practice: 5 to 7 without a booster, 3.5 to 5 with one.
    """
    low, high = BOOSTED if boosted else MANUAL
    return np.asarray(np.interp(ratios, (LEAST, low, high, MOST), (0.5, 1.0, 1.0, 0.5)))


def _effort(system: System, ratios: Array, force: Array) -> Array:
    """Return the effort [N] that makes a force on the rod, NaN where max_effort does not."""
    effort = force / (system.pedal_efficiency * ratios[None, :])
    return np.where(effort <= system.max_effort, effort, np.nan)


def holds_are_wanted(build: Build) -> bool:
    """Return whether the map has a window for the launch."""
    return build.vehicle.launch is not None


def of_all(base: System, bores: Array, rear_bores: Array, ratios: Array) -> System:
    """Return one system for all: bores down, ratios across.

    base: the build's system; bores, rear_bores: (b,) [m]; ratios: (r,) [-].
    """
    areas = [cylinder.bore_area(b)[:, None] for b in (bores, rear_bores)]
    one_bore = base.cylinders.rear is base.cylinders.front
    front = replace(base.cylinders.front, area=areas[0])
    rear = front if one_bore else replace(base.cylinders.rear, area=areas[1])
    areas = [areas[0]] * 2 if one_bore else areas
    chambers = tuple(
        replace(chamber, area=area)
        for chamber, area in zip(base.volumes.chambers, areas, strict=False)
    )
    return replace(
        base,
        pedal_ratio=ratios[None, :],
        cylinders=Pair(front, rear),
        volumes=replace(base.volumes, chambers=chambers),
    )


def force_wanted(build: Build, system: System, standing: StaticVehicle, largest: float) -> Array:
    """Return the force on the pushrod for the wanted deceleration (b, 1) [N]; NaN where none does.

    system: system of all bores; standing: one load case [N, -].
    largest: ratio at which the largest effort may push [-]. It is the same at any ratio.
    """
    one = replace(system, pedal_ratio=1.0)
    most = float(pushrod_force(one, system.max_effort)) * largest
    forces = np.linspace(0.0, most, SCANNED + 1)

    def excess(pushrod: Array) -> Array:
        z = vehicle.demand(*axle_forces(one, pushrod, standing), standing)
        return np.asarray(z - build.targets.deceleration)

    over = excess(forces[:, None, None])
    reached = over[-1] >= 0.0
    return np.where(reached, first_rise(excess, forces, over, reached), np.nan)


def force_that_holds(
    build: Build, system: System, standing: StaticVehicle, largest: float
) -> Array:
    """Return the force on the pushrod that holds the launch (b, 1) [N]; NaN where none does.

    build: one with a launch; system: system of all bores; standing: one load
    case [N, -]; largest: as in `force_wanted` [-].
    """
    one = replace(system, pedal_ratio=1.0, max_effort=system.max_effort * largest)
    shape = np.shape(system.cylinders.front.area)
    return hold_effort(build, one, standing, shape) * system.pedal_efficiency


def _half_failed_travel(
    build: Build, system: System, standing: StaticVehicle, shape: tuple[int, int]
) -> Array:
    """Return the worse half's travel [m] at the largest effort; NaN for a single cylinder."""
    if build.master.one_chamber:
        return np.full(shape, np.nan)
    everywhere = StaticVehicle(*(np.broadcast_to(value, shape) for value in standing))
    halves = half_failed(system, everywhere, build.targets.surface)
    return np.maximum(*(half.pedal_travel for half in halves))  # NaN where either is out of reach


def _windows(
    build: Build, effort: Array, pressure: Array, pad: Array, used: Array, half: Array
) -> list[tuple[Array, Array]]:
    """Return, for each window in order, where it is met and how well [-]."""
    low, high = (quantity.value for quantity in build.targets.pressure_window)
    middle, half_width = (low + high) / 2, (high - low) / 2
    floor, most = build.pedal.travel_available.value, build.targets.max_effort.value
    windows = [
        (~np.isnan(effort), 1.0 - np.nan_to_num(effort, nan=most) / most),
        ((pressure >= low) & (pressure <= high), 1.0 - np.abs(pressure - middle) / half_width),
        (~np.isnan(pad), 1.0 - np.nan_to_num(pad, nan=floor) / floor),
        (used <= 1.0 - build.targets.stroke_reserve, 1.0 - used),
    ]
    if not build.master.one_chamber:
        windows.append((~np.isnan(half), 1.0 - np.nan_to_num(half, nan=floor) / floor))
    return windows


def rear_bores_of(build: Build, bores: Array) -> Array:
    """Return the rear bores [m] that go with front ones: apart by as much as the build's are.

    bores: (b,) [m].
    Source: common practice: the same bore but for twin cylinders.
    """
    master = build.master
    if not isinstance(master, TwinMaster):
        return bores
    return np.asarray(bores + master.rear_bore.value - master.front_bore.value)
