"""Every bore with every pedal ratio: what each gives, and what it misses."""

from dataclasses import dataclass, fields, replace
from typing import Any

import numpy as np

from urgens.document import Build
from urgens.document.kinds.cylinders.twin import TwinMaster
from urgens.physics import cylinder, vehicle
from urgens.physics.arrays import Array, Bools
from urgens.physics.axle import Pair
from urgens.physics.valve_law import at_rest
from urgens.physics.vehicle import StaticVehicle
from urgens.solve.bracket import Places, first_rise
from urgens.solve.half_failed import half_failed
from urgens.solve.launch_hold import hold_effort
from urgens.solve.line_pressure import booster_output, line_pressures, pushrod_force
from urgens.solve.rolling_forces import axle_forces, rolling_lines
from urgens.solve.system import System, system
from urgens.solve.travel import strokes, travel
from urgens.studies.sizing_windows import (
    Ends,
    MissedWindow,
    bar_end,
    boosted,
    halves_hold,
    hardest_force,
    pairs_in_balance,
    ratio_ends,
)

MANUAL = (5.0, 7.0)  # pedal ratios that are usual
BOOSTED = (3.5, 5.0)  # common practice
# At which a ratio counts half
LEAST = 2.5
MOST = 9.0
PAIRS = ("in_balance", "bar_ratio")  # of a bore or pair, whatever the ratio
BOTH = 2  # axes of a figure of bores and ratios
SCANNED = 600  # steps of force on the pushrod
RATIOS: Array = np.round(np.arange(3.0, 8.05, 0.1), 1)


@dataclass(frozen=True)
class SizingMap:
    """What bores (rows) and ratios (columns) give; all arrays but the first three are of both.

    `bores`, `rear_bores` [m] alike but for twin cylinders, `ratios` [-]; `pressure` at the front
    outlet at the comfortable effort [Pa]; `effort` for the wanted deceleration [N], NaN where the
    largest effort does not reach it; `pedal_travel` at that effort, else at the comfortable one
    [m], NaN past the floor; `stroke_used` of the fullest chamber [-]; `half_failed_travel` of the
    worse half [m], NaN out of reach or on a single cylinder, `half_failed_holds` whether either
    leaves what the rule keeps; `verdict` of MissedWindow, the first that is missed, of all that
    are in `misses`, a bit each; `score` [-]; `in_balance` which bores of
    twin cylinders go together, `bar_ratio` up to which ratio their bar's angle does (b, 1), None of
    others; `hold_effort` that holds the launch [N], NaN where none does, None where nothing asks
    for it.
    """

    bores: Array
    rear_bores: Array
    ratios: Array
    pressure: Array
    effort: Array
    pedal_travel: Array
    stroke_used: Array
    half_failed_travel: Array
    half_failed_holds: Bools
    verdict: Array
    misses: Places
    score: Array
    hold_effort: Array | None = None
    in_balance: Bools | None = None
    bar_ratio: Array | None = None

    def ranked(self) -> list[tuple[int, int]]:
        """Return rows and columns of what fits, best first, ties to the smaller bore.

        Source: by definition.
        """
        rows, columns = np.nonzero(self.verdict == MissedWindow.FITS)
        order = np.lexsort((self.ratios[columns], self.bores[rows], -self.score[rows, columns]))
        return [(int(rows[i]), int(columns[i])) for i in order]

    def keeps(self, kind: MissedWindow, at: tuple[int, int]) -> bool:
        """Return whether a cell keeps a window; kind: which; at: its row and column [-].

        Source: by definition.
        """
        return not int(self.misses[at]) & kind.bit

    def better(self, kind: MissedWindow, now: int, own: int) -> tuple[int, int] | None:
        """Return row and column of the best that keeps a window and misses none that is kept now.

        kind: the window; now: bits of what is missed now [-]; own: row of the bore that is there,
        which stays where it can [-]. None where there is none.
        Source: fewest missed, then the bore that is there, then the score.
        """
        helps = (self.misses & kind.bit == 0) & (self.misses & ~now == 0)
        if not helps.any():
            return None
        rows, columns = np.nonzero(helps)
        missed = [int(one).bit_count() for one in self.misses[rows, columns]]
        order = np.lexsort((-self.score[rows, columns], rows != own, np.array(missed)))
        return int(rows[order[0]]), int(columns[order[0]])

    def part(self, rows: slice, columns: slice) -> "SizingMap":
        """Return the map of some bores and ratios alone; rows, columns: which [-].

        Source: by definition.
        """
        of_both: dict[str, Any] = {
            field.name: values[rows, columns]
            for field in fields(self)
            if field.name not in PAIRS
            and (values := getattr(self, field.name)) is not None
            and values.ndim == BOTH
        }
        of_both |= {
            name: values[rows] for name in PAIRS if (values := getattr(self, name)) is not None
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
    force = force_wanted(build, made, standing, hardest)
    effort = _effort(made, ratios, force)
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
    half, holds = _half_failed(build, made, standing, shape)
    pressure = np.broadcast_to(at_comfort, shape)
    windows = _windows(build, effort, pressure, pad, used, half, holds)
    met = {kind: inside for kind, (inside, _) in windows.items()}
    foot = comfortable * float(base.pedal_efficiency)
    met[MissedWindow.RATIO] = ratio_ends(build, foot, force).holds(ratios)
    hold = None
    if holds_are_wanted(build):
        hold = _effort(made, ratios, force_that_holds(build, made, standing, hardest))
        met[MissedWindow.HOLD] = ~np.isnan(hold)
    pair = pair_windows(build, of_all(base, bores, rear_bores, np.array([1.0])), standing)
    met |= {kind: ends.holds(ratios) for kind, ends in pair.items()}
    verdict, misses = np.full(shape, int(MissedWindow.FITS)), np.zeros(shape, dtype=np.intp)
    for kind in sorted(met, reverse=True):  # the first one missed is what counts
        verdict = np.where(met[kind], verdict, int(kind))
        misses = misses | np.where(met[kind], 0, kind.bit)
    bar, balance = (pair.get(kind) for kind in (MissedWindow.BAR, MissedWindow.BALANCE))
    return SizingMap(
        bores=bores,
        rear_bores=rear_bores,
        ratios=ratios,
        pressure=pressure,
        effort=effort,
        pedal_travel=np.broadcast_to(pad, shape),
        stroke_used=used,
        half_failed_travel=half,
        half_failed_holds=holds,
        verdict=verdict,
        misses=misses,
        score=np.mean([np.clip(score, 0.0, 1.0) for _, score in windows.values()], axis=0)
        * usual(ratios, boosted=boosted(build)),
        hold_effort=hold,
        in_balance=None if balance is None else np.isinf(balance.end),
        bar_ratio=None if bar is None else bar.end,
    )


def pair_windows(build: Build, system: System, standing: StaticVehicle) -> dict[MissedWindow, Ends]:
    """Return the windows of twin cylinders alone: their bar's angle, and which bores go together.

    system: of all pairs, at a ratio of 1; standing: one load case [N, -]. Each pair is looked at
    once, as hard as the foot may press with any ratio, so that every map says the same of it.
    """
    master = build.master
    if not isinstance(master, TwinMaster):
        return {}
    found = {}
    none = np.full(np.shape(system.cylinders.front.area), -np.inf)
    one = replace(system, pedal_ratio=1.0)
    if master.bar_max_angle is not None:
        most = hardest_force(system, MOST)
        force = bar_end(one, standing, most, master.bar_max_angle.value)
        foot = float(system.max_effort) * float(system.pedal_efficiency)
        found[MissedWindow.BAR] = Ends(none, force / foot)
    together = pairs_in_balance(build, replace(system, pedal_ratio=MOST))
    found[MissedWindow.BALANCE] = Ends(none, np.where(together, np.inf, -np.inf))
    return found


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
    if base.cylinders.front.step is not None:
        return _of_steps(base, areas[0], ratios)
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


def _of_steps(base: System, areas: Array, ratios: Array) -> System:
    """Return one system of all small bores, the large ones keeping their share of them."""
    share = areas / base.cylinders.front.area
    both = base.cylinders.front.sized(share)
    chambers = tuple(chamber.sized(share) for chamber in base.volumes.chambers)
    return replace(
        base,
        pedal_ratio=ratios[None, :],
        cylinders=Pair(both, both),
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


def _half_failed(
    build: Build, system: System, standing: StaticVehicle, shape: tuple[int, int]
) -> tuple[Array, Bools]:
    """Return the worse half's travel [m] at the largest effort, and whether both keep the rule.

    NaN, and kept, for a single cylinder, of which no half can be lost.
    """
    if build.master.one_chamber:
        return np.full(shape, np.nan), np.ones(shape, dtype=bool)
    everywhere = StaticVehicle(*(np.broadcast_to(value, shape) for value in standing))
    halves = half_failed(system, everywhere, build.targets.surface)
    # NaN where either is out of reach
    return np.maximum(*(half.pedal_travel for half in halves)), halves_hold(halves)


def _windows(
    build: Build,
    effort: Array,
    pressure: Array,
    pad: Array,
    used: Array,
    half: Array,
    holds: Bools,
) -> dict[MissedWindow, tuple[Bools, Array]]:
    """Return where each window that is met more or less well is met, and how well [-]."""
    low, high = (quantity.value for quantity in build.targets.pressure_window)
    middle, half_width = (low + high) / 2, (high - low) / 2
    floor, most = build.pedal.travel_available.value, build.targets.max_effort.value
    furthest = floor - build.targets.pedal_reserve.value
    within = np.nan_to_num(pad, nan=np.inf) <= furthest
    windows: dict[MissedWindow, tuple[Bools, Array]] = {
        MissedWindow.EFFORT: (~np.isnan(effort), 1.0 - np.nan_to_num(effort, nan=most) / most),
        MissedWindow.PRESSURE: (
            np.asarray((pressure >= low) & (pressure <= high)),
            1.0 - np.abs(pressure - middle) / half_width,
        ),
        MissedWindow.TRAVEL: (within, 1.0 - np.nan_to_num(pad, nan=floor) / floor),
        MissedWindow.STROKE: (used <= 1.0 - build.targets.stroke_reserve, 1.0 - used),
    }
    if not build.master.one_chamber:
        kept = 1.0 - np.nan_to_num(half, nan=floor) / floor
        windows[MissedWindow.HALF_FAILED] = (holds, kept)
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
