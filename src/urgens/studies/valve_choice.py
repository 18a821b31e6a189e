"""Ways to balance a build, fitted and ranked over all load cases and surfaces."""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from typing import Any, Literal

import numpy as np
from numpy.typing import NDArray

from urgens.document import Build, with_changes
from urgens.document.bores import sold_bores
from urgens.document.brakes import brake_kind, piston_area
from urgens.document.brakes.disc import Disc
from urgens.document.cylinders.twin import TwinMaster
from urgens.physics import cylinder
from urgens.physics.arrays import Array
from urgens.physics.axle import Pair
from urgens.physics.valve_law import LoadSensingLaw, ReducingLaw
from urgens.physics.vehicle import Standing
from urgens.quantity import Quantity
from urgens.solve.adhesion_curve import Regulation
from urgens.solve.line_pressure import booster_output, pushrod_force
from urgens.solve.lock import AxleName, first_lock, first_rise_of_either
from urgens.solve.press import achieved
from urgens.solve.solution import ICE, WET, solve
from urgens.solve.system import System, system

Kind = Literal["none", "reducing", "limiting", "load-sensing", "bar", "bores", "pistons"]
MARGIN = 0.05  # of adhesion used at first lock, front above rear
KNEES = (5e5, 70e5)  # Pa: what such valves do
SLOPES = (0.2, 0.6)
WITHIN = 0.01  # of mean efficiency, in which no valve is the better choice
SCANNED = 60  # even steps beside every bend while searching; what is printed is solved in full
CLOSER = 1e-6  # of a step's change of excess, while searching
ROUNDS = 5  # of the grid, each closer around the best before
KNEE_STEP, SLOPE_STEP, OFFSET_STEP = 1e4, 0.01, 1e-4  # Pa, -, m: as fine as they can be set


@dataclass(frozen=True)
class Verdict:
    """How a build does: where the rear is first, margins missed, efficiency; all cases and roads.

    `rear_first` places of (load case, surface); efficiencies NaN where nothing locks.
    """

    rear_first: tuple[tuple[int, int], ...]
    missed: int
    mean_efficiency: float
    worst_efficiency: float

    @property
    def order(self) -> tuple[float, ...]:
        """What ranks it: fewer first, then better."""
        mean = -np.inf if np.isnan(self.mean_efficiency) else self.mean_efficiency
        return len(self.rear_first), self.missed, -mean


@dataclass(frozen=True)
class Candidate:
    """One way: its kind, the edits that make it, its verdict and the rules over all load cases.

    `knee` [Pa], `slope` [-], `bar_offset` [m]; `size` of the bore or piston as it is sold; None
    where not of its kind.
    """

    kind: Kind
    changes: dict[str, object]
    verdict: Verdict
    regulation: Regulation
    knee: float | None = None
    slope: float | None = None
    bar_offset: float | None = None
    size: Quantity | None = None


def judged_surfaces(build: Build) -> tuple[float, ...]:
    """Return the surfaces that are looked at where none are named; build: the document.

    Source: by definition.
    """
    return tuple(dict.fromkeys((ICE, WET, build.targets.surface)))


def verdict_of(build: Build, surfaces: Sequence[float], margin: float = MARGIN) -> Verdict:
    """Return how a build does in all its load cases.

    build: the document [object]; surfaces: tyre-road coefficients [-]; margin: wanted [-].
    Source: first lock.
    """
    made = system(build)
    cases = Standing(*(np.asarray(value)[:, None] for value in made.standing))
    lock = first_lock(made, cases, np.array(surfaces))
    rear = (lock.axle == AxleName.REAR) | lock.lifted
    apart = lock.front_used - lock.rear_used
    with np.errstate(invalid="ignore"):
        missed = np.isfinite(apart) & (apart < margin)
    known = lock.efficiency[np.isfinite(lock.efficiency)]
    return Verdict(
        rear_first=tuple(
            (int(case), int(road)) for case, road in zip(*np.nonzero(rear), strict=True)
        ),
        missed=int(missed.sum()),
        mean_efficiency=float(known.mean()) if known.size else float("nan"),
        worst_efficiency=float(known.min()) if known.size else float("nan"),
    )


def candidates(
    build: Build,
    surfaces: Sequence[float] | None = None,
    margin: float = MARGIN,
    progress: Callable[[float], bool] | None = None,
) -> tuple[Candidate, ...]:
    """Return ways to balance a build, the best first; each replaces what is in the rear circuit.

    build: the document [object]; surfaces: tyre-road coefficients, else the usual ones [-];
    margin: least front above rear adhesion used at first lock [-]; progress: told the share done,
    answers whether to go on [callable]. None of them where it was told to stop.
    Source: common practice: no rear first, then fewest margins missed, then mean efficiency;
    no valve goes first within `WITHIN`.
    """
    roads = tuple(judged_surfaces(build) if surfaces is None else surfaces)
    bare = with_changes(build, {"valves.rear": []})
    search = _Search(bare, roads, margin)
    found = [_made(build, "none", {}, roads, margin)]
    for number, fit in enumerate(FITS):
        if progress is not None and not progress(number / len(FITS)):
            return ()
        for kind, changes, figures in fit(search):
            found.append(_made(build, kind, changes, roads, margin, **figures))
    found.sort(key=lambda one: one.verdict.order)
    none = next(one for one in found if one.kind == "none")
    best = found[0].verdict
    if none.verdict.order[:2] == best.order[:2] and (
        none.verdict.mean_efficiency >= best.mean_efficiency - WITHIN
    ):
        found.remove(none)
        found.insert(0, none)
    return tuple(found)


Fit = Iterator[tuple[Kind, dict[str, object], dict[str, Any]]]


def _made(
    build: Build,
    kind: Kind,
    changes: dict[str, object],
    surfaces: tuple[float, ...],
    margin: float,
    **figures: Any,
) -> Candidate:
    """Return a candidate as it comes out in the document, solved in full."""
    edits: dict[str, object] = {"valves.rear": [], **changes}
    one = with_changes(build, edits)
    rules = [solve(one, load_case=case.name).regulation for case in one.vehicle.load_cases]
    regulation = Regulation(
        rear_below_front=all(rule.rear_below_front for rule in rules),
        adhesion_limit=all(rule.adhesion_limit for rule in rules),
    )
    return Candidate(kind, edits, verdict_of(one, surfaces, margin), regulation, **figures)


class _Search:
    """One build without a rear valve, and how any number of systems made of it do."""

    def __init__(self, bare: Build, surfaces: tuple[float, ...], margin: float) -> None:
        self.build, self.made = bare, system(bare)
        self._surfaces, self._margin = np.array(surfaces), margin
        self._cases = Standing(*(np.asarray(value)[:, None] for value in self.made.standing))

    def order(self, made: System, count: int) -> NDArray[np.intp]:
        """Return the order of systems, the best first.

        made: of arrays (c, 1, 1) [object]; count: how many, c [-].
        Source: as `candidates`, on a coarser scan.
        """
        found = first_rise_of_either(made, self._cases, self._surfaces, SCANNED, CLOSER)
        output = booster_output(made, pushrod_force(made, found.effort))
        z = achieved(made, output, self._cases, self._surfaces).deceleration
        well = z * self._cases.weight / (self._surfaces * self._cases.pressed)
        shape = (count, *np.broadcast_shapes(np.shape(found.locks)[-2:]))
        locks = np.broadcast_to(found.locks, shape)
        rear = np.broadcast_to(found.rear_first, shape) & locks
        apart = np.broadcast_to(found.front_used - found.rear_used, shape)
        missed = locks & (apart < self._margin)
        some = locks.sum(axis=(1, 2))
        mean = np.where(locks, well, 0.0).sum(axis=(1, 2)) / np.maximum(some, 1)
        return np.asarray(np.lexsort((-mean, missed.sum(axis=(1, 2)), rear.sum(axis=(1, 2)))))

    def fitted(
        self,
        ranges: Sequence[tuple[float, float]],
        points: Sequence[int],
        make: Callable[[Array], System],
    ) -> Array:
        """Return the best figures inside ranges.

        ranges: of each figure [SI]; points: of the first grid along each [-]; make: systems of
        figures (f, c, 1, 1) [object].
        Source: a grid, then closer ones around the best of it.
        """
        axes = [np.linspace(*ends, count) for ends, count in zip(ranges, points, strict=True)]
        best: Array = np.array([axis[0] for axis in axes])
        for _ in range(ROUNDS):
            grid = np.stack(np.meshgrid(*axes, indexing="ij"), axis=-1).reshape(-1, len(axes))
            best = grid[self.order(make(grid.T[..., None, None]), len(grid))[0]]
            axes = [
                np.linspace(max(at - step, low), min(at + step, high), 7)
                for at, step, (low, high) in zip(
                    best, ((a[1] - a[0] if a.size > 1 else 0.0) for a in axes), ranges, strict=True
                )
            ]
        return best


def _down(value: float, step: float) -> float:
    """Return a value as it can be set: less rear braking rather than more."""
    return float(np.floor(value / step + 1e-6) * step)


def _pressure(value: float) -> str:
    return f"{value / 1e5:.1f} bar"


def _reducing(search: _Search) -> Fit:
    def make(figures: Array) -> System:
        return search.made.with_rear_valves(ReducingLaw(figures[0], figures[1]))

    knee, slope = search.fitted((KNEES, SLOPES), (14, 9), make)
    knee, slope = _down(knee, KNEE_STEP), round(_down(slope, SLOPE_STEP), 2)
    valve = {"kind": "reducing", "knee": _pressure(knee), "slope": slope}
    yield "reducing", {"valves.rear": [valve]}, {"knee": knee, "slope": slope}


def _limiting(search: _Search) -> Fit:
    def make(figures: Array) -> System:
        return search.made.with_rear_valves(ReducingLaw(figures[0], 0.0))

    (knee,) = search.fitted((KNEES,), (40,), make)
    knee = _down(knee, KNEE_STEP)
    valve = {"kind": "limiting", "knee": _pressure(knee)}
    yield "limiting", {"valves.rear": [valve]}, {"knee": knee, "slope": 0.0}


def _load_sensing(search: _Search) -> Fit:
    """Fit both knees and the slope of a valve that feels the rear axle's load at rest."""
    loads = np.asarray(search.made.standing.rear_weight)
    light, heavy = float(loads.min()), float(loads.max())
    if heavy - light < 1.0:
        return

    def make(figures: Array) -> System:
        low, rise, slope = figures
        high = np.minimum(low + rise, KNEES[1])
        return search.made.with_rear_valves(
            LoadSensingLaw(light, heavy, low, high, slope, feels_load=False)
        )

    ranges = (KNEES, (0.0, KNEES[1] - KNEES[0]), SLOPES)
    low, rise, slope = search.fitted(ranges, (10, 8, 5), make)
    low, high = _down(low, KNEE_STEP), _down(min(low + rise, KNEES[1]), KNEE_STEP)
    slope = round(_down(slope, SLOPE_STEP), 2)
    points = [[f"{light:.1f} N", _pressure(low)], [f"{heavy:.1f} N", _pressure(max(low, high))]]
    valve = {"kind": "load-sensing", "points": points, "slope": slope, "follows": "static"}
    yield "load-sensing", {"valves.rear": [valve]}, {"knee": low, "slope": slope}


def _bar(search: _Search) -> Fit:
    """Fit where the bearing of a balance bar sits."""
    if search.made.bar_length is None:
        return
    length = float(search.made.bar_length)

    def make(figures: Array) -> System:
        return search.made.with_shares(*cylinder.bar_shares(length, figures[0]))

    (offset,) = search.fitted(((-length / 4, length / 4),), (41,), make)
    offset = -_down(-offset, OFFSET_STEP)  # towards the front, where it is rounded
    offset = min(offset, length / 4)
    yield "bar", {"master.bar_offset": f"{offset * 1e3:.1f} mm"}, {"bar_offset": offset}


def _bores(search: _Search) -> Fit:
    """Choose the rear cylinder's bore."""
    if not isinstance(search.build.master, TwinMaster):
        return
    bores = sold_bores()
    areas = cylinder.bore_area(np.array([bore.value for bore in bores]))[:, None, None]
    rear = replace(search.made.cylinders.rear, area=areas)
    made = replace(search.made, cylinders=Pair(search.made.cylinders.front, rear))
    best = bores[int(search.order(made, len(bores))[0])]
    yield "bores", {"master.rear_bore": best.text}, {"size": best}


def _pistons(search: _Search) -> Fit:
    """Choose the pistons of the rear brakes, all of one size."""
    brake = search.build.rear.brake
    sizes = brake_kind(brake).sold()
    count = len(brake.piston_diameters) if isinstance(brake, Disc) else 1
    areas = count * cylinder.bore_area(np.array([size.value for size in sizes]))
    share = (areas / piston_area(brake))[:, None, None]
    rear = search.made.ends.rear
    rear = replace(rear, torque_per_pressure=rear.torque_per_pressure * share)
    made = replace(search.made, ends=Pair(search.made.ends.front, rear))
    best = sizes[int(search.order(made, len(sizes))[0])]
    changes: dict[str, object] = {"rear.brake.cylinder_diameter": best.text}
    if isinstance(brake, Disc):
        changes = {"rear.brake.piston_diameters": [best.text] * count}
    yield "pistons", changes, {"size": best}


FITS = (_reducing, _limiting, _load_sensing, _bar, _bores, _pistons)
