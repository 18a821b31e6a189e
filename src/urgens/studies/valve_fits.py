"""What could balance a build, each kind fitted over all its load cases and roads."""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from typing import Any, Literal

import numpy as np
from numpy.typing import NDArray

from urgens.document import Build
from urgens.document.kinds.bores import sold_bores
from urgens.document.kinds.brakes import brake_kind, piston_area
from urgens.document.kinds.brakes.disc import Disc
from urgens.document.kinds.valves.adjustable import Adjustable
from urgens.document.tables import reducing_valve_table
from urgens.physics import cylinder
from urgens.physics.arrays import Array, Bools
from urgens.physics.axle import Pair
from urgens.physics.valve import adjusted_knee
from urgens.physics.valve_law import LoadSensingLaw, ReducingLaw
from urgens.physics.vehicle import attainable, demand
from urgens.quantity import Quantity
from urgens.solve.achieved import achieved
from urgens.solve.first_rise import first_rise_of_either
from urgens.solve.line_pressure import booster_output, pushrod_force
from urgens.solve.rear_first import swept
from urgens.solve.rolling_forces import axle_forces
from urgens.solve.system import System, system

Kind = Literal["none", "reducing", "limiting", "load-sensing", "bar", "bores", "pistons"]
# A load-sensing valve comes with its linkage, pistons for both ends of the axle.
PARTS: dict[Kind, int] = {"none": 0, "bar": 0, "reducing": 1, "limiting": 1, "bores": 1,
                          "load-sensing": 2, "pistons": 2}  # fmt: skip
KNEES = (5e5, 70e5)  # Pa: what such valves do
SLOPES = (0.2, 0.6)
CLOSER = 1e-6  # of a step's change of excess, while searching
ROUNDS = 6  # closer grids: how many
AROUND = 2.0  # closer grids: steps beside the best
CLOSE = 9  # closer grids: points of each
# Pa, -, m: as fine as they can be set
KNEE_STEP = 1e4
SLOPE_STEP = 0.01
OFFSET_STEP = 1e-4
LOADS_APART = 1.0  # N: what a valve that feels the load has to tell apart
SETTINGS = 4  # of an adjustable valve in a turn: quarters, as a hand sets them

Changes = dict[str, object]


@dataclass(frozen=True)
class FittedWay:
    """One way, fitted: its kind, the edits that make it, its figures; what is sold beside it.

    `knee`, `heavy` with the heaviest load [Pa], `slope` [-], `bar_offset` [m]; `size` of the bore
    or piston as it is sold; None where not of its kind.
    """

    kind: Kind
    changes: Changes
    knee: float | None = None
    slope: float | None = None
    bar_offset: float | None = None
    size: Quantity | None = None
    sold: "FittedWay | None" = None
    heavy: float | None = None

    @property
    def parts(self) -> int:
        """How many parts are bought and fitted for it; a setting of what is there is none."""
        if self.kind == "reducing" and "valves.rear" not in self.changes:
            return 0
        return PARTS[self.kind]


class Search:
    """One build without a rear valve, and how any number of systems made of it do."""

    def __init__(self, bare: Build, surfaces: Sequence[float], margin: float, now: Build) -> None:
        self.build, self.made, self.now = bare, system(bare), now
        self._surfaces, self._margin = np.array(surfaces), margin
        self._cases = self.made.cases
        self._wanted = bare.targets.deceleration

    @property
    def kept(self) -> list[dict[str, Any]]:
        """The rear circuit's valves that change nothing on apply, and so stay."""
        return [v.model_dump(mode="json") for v in self.build.valves.rear]

    def order(self, system: System, count: int) -> NDArray[np.intp]:
        """Return the order of systems, the best first.

        system: of arrays (c, 1, 1); count: how many, c [-].
        """
        found = first_rise_of_either(system, self._cases, self._surfaces, CLOSER)
        output = booster_output(system, pushrod_force(system, found.effort))
        z = achieved(system, output, self._cases, self._surfaces).deceleration
        well = z / attainable(self._cases, self._surfaces)
        shape = (count, *np.broadcast_shapes(np.shape(found.locks)[-2:]))
        locks = np.broadcast_to(found.locks, shape)
        ends = float(self._surfaces.min()), float(self._surfaces.max())
        sweep = swept(system, self._cases)
        rear, above = sweep.rear_first(*ends), sweep.rear_above().any(axis=(-2, -1))
        apart = np.broadcast_to((found.front_used - found.rear_used) / self._surfaces, shape)
        missed = locks & (apart < self._margin)
        some = locks.sum(axis=(1, 2))
        mean = np.where(locks, well, 0.0).sum(axis=(1, 2)) / np.maximum(some, 1)
        keys = (
            -mean,
            missed.sum(axis=(1, 2)),
            np.broadcast_to(above, count),
            np.broadcast_to(self._short(system), count),
            np.broadcast_to(rear, (count, *rear.shape[-2:])).sum(axis=(1, 2)),
        )
        return np.asarray(np.lexsort(keys))

    def _short(self, system: System) -> Bools:
        """Return which systems do not reach the wanted deceleration in the first load case."""
        first = self.made.case(0)
        forces = axle_forces(system, pushrod_force(system, system.max_effort), first)
        short = np.asarray(demand(*forces, first) < self._wanted)
        return np.asarray(short.reshape(short.shape[0] if short.ndim else 1, -1)[:, 0])

    def fitted(
        self,
        ranges: Sequence[tuple[float, float]],
        points: Sequence[int],
        make: Callable[[Array], System],
    ) -> Array:
        """Return the best figures inside ranges.

        ranges: of each figure [SI]; points: of the first grid along each [-]; make: systems of
        figures (f, c, 1, 1).
        Source: a grid, then closer ones around the best of it, wide enough to follow a ridge on
        which less slope pays for more knee.
        """
        axes = [np.linspace(*ends, count) for ends, count in zip(ranges, points, strict=True)]
        best: Array = np.array([axis[0] for axis in axes])
        close = CLOSE if len(axes) < 3 else CLOSE - 2
        for _ in range(ROUNDS):
            grid = np.stack(np.meshgrid(*axes, indexing="ij"), axis=-1).reshape(-1, len(axes))
            best = grid[self.order(make(grid.T[..., None, None]), len(grid))[0]]
            axes = [
                np.linspace(max(at - AROUND * step, low), min(at + AROUND * step, high), close)
                for at, step, (low, high) in zip(
                    best, ((a[1] - a[0] if a.size > 1 else 0.0) for a in axes), ranges, strict=True
                )
            ]
        return best


def without_valve(build: Build) -> Changes:
    """Return the edit that leaves the rear circuit only what changes nothing on apply.

    Source: a residual valve works on release.
    """
    kept = [v.model_dump(mode="json") for v in build.valves.rear if v.keeps_pressure]
    return {"valves.rear": kept}


def _down(value: float, step: float) -> float:
    """Return a value as it can be set: less rear braking rather than more."""
    return float(np.floor(value / step + 1e-6) * step)


def _pressure(value: float) -> str:
    return f"{value / 1e5:.1f} bar"


def _reducing(search: Search) -> Iterator[FittedWay]:
    """Fit knee and slope freely, and choose from what is sold."""

    def make(figures: Array) -> System:
        return search.made.with_rear_valves(ReducingLaw(figures[0], figures[1]))

    knee, slope = search.fitted((KNEES, SLOPES), (14, 9), make)
    knee, slope = _down(knee, KNEE_STEP), round(_down(slope, SLOPE_STEP), 2)
    valve = {"kind": "reducing", "knee": _pressure(knee), "slope": slope}
    sold = list(sold_reducing(search))
    figures = np.array([[one.knee for one in sold], [one.slope for one in sold]], dtype=float)
    best = sold[int(search.order(make(figures[..., None, None]), len(sold))[0])]
    yield FittedWay("reducing", _behind(search, valve), knee=knee, slope=slope, sold=best)


def _behind(search: Search, valve: dict[str, Any]) -> Changes:
    return {"valves.rear": [*search.kept, valve]}


def sold_reducing(search: Search) -> Iterator[FittedWay]:
    """Yield reducing valves as they are sold, and every setting of an adjustable one.

    search: of a build. The one that is fitted, where it is adjustable, comes before those that
    would be bought.
    """
    own = [(i, v) for i, v in enumerate(search.now.valves.rear) if isinstance(v, Adjustable)]
    table = reducing_valve_table()
    if len(own) == 1 and len(search.now.valves.rear) == len(search.kept) + 1:
        (index, valve) = own[0]
        for turns, knee in _settings(valve):
            changes: Changes = {f"valves.rear[{index}].turns": turns}
            yield FittedWay("reducing", changes, knee=knee, slope=valve.slope)
    for text in table.knees:
        for slope in table.slopes:
            fixed = {"kind": "reducing", "knee": text.text, "slope": slope}
            yield FittedWay("reducing", _behind(search, fixed), knee=text.value, slope=slope)
    bought = table.adjustable.model_dump(mode="json")
    for turns, knee in _settings(table.adjustable):
        one = _behind(search, {**bought, "turns": turns})
        yield FittedWay("reducing", one, knee=knee, slope=table.adjustable.slope)


def _settings(valve: Adjustable) -> Iterator[tuple[float, float]]:
    """Yield the settings of a valve with their knees [Pa]."""
    low, high = valve.settings[0], valve.settings[-1]
    steps = int((high - low) * SETTINGS)
    turns = [low + step / SETTINGS for step in range(steps + 1)]
    knees = [row[1].value for row in valve.table]
    for setting in valve.settings if valve.counted == "notches" else turns:
        yield setting, float(adjusted_knee(setting, valve.settings, knees))


def _limiting(search: Search) -> Iterator[FittedWay]:
    def make(figures: Array) -> System:
        return search.made.with_rear_valves(ReducingLaw(figures[0], 0.0))

    (knee,) = search.fitted((KNEES,), (40,), make)
    yield limiting_way(search, knee)


def limiting_way(search: Search, knee: float) -> FittedWay:
    """Return a limiting valve as it can be set; search: of a build; knee: its pressure [Pa]."""
    knee = _down(knee, KNEE_STEP)
    valve = {"kind": "limiting", "knee": _pressure(knee)}
    return FittedWay("limiting", _behind(search, valve), knee=knee, slope=0.0)


def _load_sensing(search: Search) -> Iterator[FittedWay]:
    """Fit both knees and the slope of a valve that feels the rear axle's load at rest."""
    loads = np.asarray(search.made.standing.rear_weight)
    light, heavy = float(loads.min()), float(loads.max())
    if heavy - light < LOADS_APART:
        return

    def make(figures: Array) -> System:
        low, rise, slope = figures
        high = np.minimum(low + rise, KNEES[1])
        return search.made.with_rear_valves(
            LoadSensingLaw(light, heavy, low, high, slope, feels_load=False)
        )

    ranges = (KNEES, (0.0, KNEES[1] - KNEES[0]), SLOPES)
    low, rise, slope = search.fitted(ranges, (10, 8, 5), make)
    yield load_sensing_way(search, low, min(low + rise, KNEES[1]), slope)


def load_sensing_way(search: Search, low: float, high: float, slope: float) -> FittedWay:
    """Return a valve that feels the load at rest, as it can be set.

    search: of a build; low, high: its knees with the lightest and the heaviest load [Pa]; slope:
    its slope [-].
    """
    loads = np.asarray(search.made.standing.rear_weight)
    low, high, slope = _down(low, KNEE_STEP), _down(high, KNEE_STEP), _down(slope, SLOPE_STEP)
    high, slope = max(low, high), round(slope, 2)
    points = [[f"{loads.min():.1f} N", _pressure(low)], [f"{loads.max():.1f} N", _pressure(high)]]
    valve = {"kind": "load-sensing", "points": points, "slope": slope, "follows": "static"}
    return FittedWay("load-sensing", _behind(search, valve), knee=low, slope=slope, heavy=high)


def fit_bar(search: Search) -> Iterator[FittedWay]:
    """Fit where the bearing of a balance bar sits; nothing without one.

    search: of a build.
    """
    if search.made.bar_length is None:
        return
    length = float(search.made.bar_length)

    def make(figures: Array) -> System:
        return search.made.with_shares(*cylinder.bar_shares(length, figures[0]))

    (offset,) = search.fitted(((-length / 4, length / 4),), (41,), make)
    yield bar_way(search, offset)


def bar_way(search: Search, offset: float) -> FittedWay:
    """Return a bar set as it can be; search: of a build with one; offset: of its bearing [m]."""
    assert search.made.bar_length is not None
    offset = -_down(-offset, OFFSET_STEP)  # towards the front, where it is rounded
    offset = min(offset, float(search.made.bar_length) / 4)
    changes = {**without_valve(search.now), "master.bar_offset": f"{offset * 1e3:.1f} mm"}
    return FittedWay("bar", changes, bar_offset=offset)


def _bores(search: Search) -> Iterator[FittedWay]:
    """Choose the rear cylinder's bore."""
    if not search.build.master.has_bar:
        return
    bores = sold_bores()
    areas = cylinder.bore_area(np.array([bore.value for bore in bores]))[:, None, None]
    rear = replace(search.made.cylinders.rear, area=areas)
    made = replace(search.made, cylinders=Pair(search.made.cylinders.front, rear))
    yield bore_way(search, bores[int(search.order(made, len(bores))[0])])


def bore_way(search: Search, bore: Quantity) -> FittedWay:
    """Return another rear cylinder; search: of a build with two; bore: as it is sold [m]."""
    changes = {**without_valve(search.now), "master.rear_bore": bore.text}
    return FittedWay("bores", changes, size=bore)


def _pistons(search: Search) -> Iterator[FittedWay]:
    """Choose the pistons of the rear brakes, all of one size."""
    brake = search.build.rear.brake
    sizes = brake_kind(brake).sold()
    count = len(brake.piston_diameters) if isinstance(brake, Disc) else 1
    areas = count * cylinder.bore_area(np.array([size.value for size in sizes]))
    share = (areas / piston_area(brake))[:, None, None]
    rear = search.made.ends.rear
    rear = replace(rear, torque_per_pressure=rear.torque_per_pressure * share)
    made = replace(search.made, ends=Pair(search.made.ends.front, rear))
    yield piston_way(search, sizes[int(search.order(made, len(sizes))[0])])


def piston_way(search: Search, size: Quantity) -> FittedWay:
    """Return other pistons behind; search: of a build; size: of all of them, as it is sold [m]."""
    brake = search.build.rear.brake
    changes: Changes = {"rear.brake.cylinder_diameter": size.text}
    if isinstance(brake, Disc):
        changes = {"rear.brake.piston_diameters": [size.text] * len(brake.piston_diameters)}
    return FittedWay("pistons", {**without_valve(search.now), **changes}, size=size)


FITS: dict[Kind, Callable[[Search], Iterator[FittedWay]]] = {
    "reducing": _reducing, "limiting": _limiting, "load-sensing": _load_sensing, "bar": fit_bar,
    "bores": _bores, "pistons": _pistons,
}  # fmt: skip
