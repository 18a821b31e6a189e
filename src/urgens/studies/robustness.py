"""How sure it is that the front locks first: many builds, drawn from what is known of each."""

import math
import os
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, replace
from typing import NamedTuple

import numpy as np

from urgens.document import Build
from urgens.physics import vehicle
from urgens.physics.arrays import Array, Bools
from urgens.physics.vehicle import StaticVehicle
from urgens.solve.achieved import achieved
from urgens.solve.bracket import first_rise
from urgens.solve.first_rise import Rise, first_rise_of_either
from urgens.solve.line_pressure import booster_output, pushrod_force
from urgens.solve.roads import every_road
from urgens.solve.rolling_forces import axle_forces
from urgens.solve.system import System, system
from urgens.studies.draws import Spread, drawn, laid, spreads

DRAWS = 100_000
SEED = 1
WORKERS = min(os.cpu_count() or 1, 4)
CHUNK = 10_000  # draws solved at a time: their arrays stay near the processor
BLOCK = 100_000  # draws held at a time: more of them take no more memory
NEAR = 1e-4  # of a step's change of excess: closer than that is a root
PERCENTILES = (5.0, 50.0, 95.0)
NEAR_LIMIT = 0.8  # of the surface, at which the inputs' influence is looked at


@dataclass(frozen=True)
class Robustness:
    """What draws came to, for one load case.

    `rear_first` shares and `efficiency` percentiles by surface; NaN where nothing locked.
    `sensitivity`: what share of the influence each input has, the largest first. Percentiles and
    influence are those of the first hundred thousand draws, shares of all.
    """

    draws: int
    load_case: str
    surfaces: tuple[float, ...]
    rear_first: tuple[float, ...]
    efficiency: tuple[tuple[float, float, float], ...]
    sensitivity: tuple[tuple[str, float], ...]


def robustness(
    build: Build,
    case: int = 0,
    draws: int = DRAWS,
    seed: int = SEED,
    progress: Callable[[float], bool] | None = None,
) -> Robustness | None:
    """Return how often the rear locks first under the spread of all figures.

    case: place of the load case [-]; draws: how many [-]; seed: of
    the draws, the same one gives the same answer [-]; progress: told the share done, answers
    whether to go on [callable]. None where it was told to stop.
    Source: Monte Carlo; first lock of every draw, influence by squared rank correlation.
    """
    surfaces = every_road(build)
    figures, chance = spreads(build, case), np.random.default_rng(seed)
    first: tuple[Array, _Block] | None = None
    counted = np.zeros(len(surfaces))
    for start in range(0, draws, BLOCK):
        values = drawn(build, figures, min(BLOCK, draws - start), chance)
        told = _Told(start / draws, values.shape[1] / draws, progress)
        block = _block(build, figures, values, case, surfaces, told)
        if block is None:
            return None
        counted += block.rear_first.sum(axis=0)
        first = first or (values, block)
    assert first is not None  # there is one draw at least
    values, block = first
    return Robustness(
        draws=draws,
        load_case=build.vehicle.load_cases[case].name,
        surfaces=surfaces,
        rear_first=tuple((counted / draws).tolist()),
        efficiency=tuple(_percentiles(block, s) for s in range(len(surfaces))),
        sensitivity=_influence(figures, values, block.margin),
    )


@dataclass(frozen=True)
class _Told:
    """How far all draws are, of which this block is a share; whether to go on."""

    done: float
    share: float
    progress: Callable[[float], bool] | None

    def goes_on(self, part: float) -> bool:
        """Tell whether to go on, this block so far; part: of it [-]."""
        return self.progress is None or self.progress(self.done + part * self.share)


class _Block(NamedTuple):
    """What came out, draw by draw and surface by surface; the margin draw by draw."""

    rear_first: Bools
    locks: Bools
    efficiency: Array
    margin: Array


def _percentiles(block: _Block, surface: int) -> tuple[float, float, float]:
    """Return how well the draws that lock use a surface's grip; NaN where none does."""
    locks = block.locks[:, surface]
    if not locks.any():
        return (np.nan, np.nan, np.nan)
    low, middle, high = np.percentile(block.efficiency[locks, surface], PERCENTILES).tolist()
    return (low, middle, high)


def _block(
    build: Build,
    figures: tuple[Spread, ...],
    values: Array,
    case: int,
    surfaces: tuple[float, ...],
    told: _Told,
) -> _Block | None:
    """Return what came out, solved several chunks at a time; None where told to stop."""
    parts = [values[:, start : start + CHUNK] for start in range(0, values.shape[1], CHUNK)]
    with ThreadPoolExecutor(WORKERS) as pool:  # NumPy lets go of the interpreter in its loops
        waiting = [pool.submit(_outcome, build, figures, part, case, surfaces) for part in parts]
        outcomes = []
        for done, one in enumerate(waiting):
            if not told.goes_on(done / len(parts)):
                pool.shutdown(cancel_futures=True)
                return None
            outcomes.append(one.result())
    return _Block(*(np.concatenate(each) for each in zip(*outcomes, strict=True)))


def _outcome(
    build: Build, figures: tuple[Spread, ...], values: Array, case: int, surfaces: tuple[float, ...]
) -> _Block:
    """Return, draw by draw and surface by surface, who locks first, if at all, how well.

    And the rear's adhesion used above the front's near the limit of the last surface.
    """
    made, standing = _systems(build, figures, values, case)
    found = first_rise_of_either(made, standing, np.array(surfaces), NEAR)
    output = booster_output(made, pushrod_force(made, found.effort))
    z = achieved(made, output, standing, np.array(surfaces)).deceleration
    efficiency = z / vehicle.attainable(standing, np.array(surfaces))
    shape = (values.shape[1], len(surfaces))
    rear_first = np.broadcast_to(found.rear_first & found.locks, shape)
    locks, well = np.broadcast_to(found.locks, shape), np.broadcast_to(efficiency, shape)
    return _Block(rear_first, locks, well, _margin(made, standing, surfaces[-1], found))


def _systems(
    build: Build, figures: tuple[Spread, ...], values: Array, case: int
) -> tuple[System, StaticVehicle]:
    """Return one system of all draws (d, 1), and the loads of one case (d, 1)."""
    made = system(build, over=laid(build, figures, values[:, :, None]))
    shape = (values.shape[1], 1)
    standing = StaticVehicle(
        *(np.broadcast_to(np.asarray(v)[..., case], shape) for v in made.standing)
    )
    return replace(made, standing=standing), standing


def _margin(system: System, standing: StaticVehicle, surface: float, scan: Rise) -> Array:
    """Return the rear's adhesion used less the front's near the limit [-]; NaN out of reach."""
    wanted = NEAR_LIMIT * surface

    def excess(effort: Array) -> Array:
        forces = axle_forces(system, pushrod_force(system, effort), standing)
        return np.asarray(vehicle.demand(*forces, standing) - wanted)

    over = np.asarray(vehicle.demand(*scan.scanned, standing) - wanted)
    rises = over[-1] >= 0.0
    effort = first_rise(excess, scan.efforts, over, rises, NEAR)
    forces = axle_forces(system, pushrod_force(system, effort), standing)
    loads = vehicle.axle_loads(standing, vehicle.demand(*forces, standing))
    front, rear = vehicle.road_used(forces, loads, standing)
    shape = np.shape(standing.front_weight)
    return np.broadcast_to(np.where(rises, rear - front, np.nan), shape)[:, 0]


def _influence(
    figures: tuple[Spread, ...], values: Array, margin: Array
) -> tuple[tuple[str, float], ...]:
    """Return each input's share of the squared rank correlation with the margin."""
    known = np.isfinite(margin)
    if known.sum() < 3 or not figures:
        return tuple((figure.path, 0.0) for figure in figures)
    target = _ranks(margin[known])
    squared = np.array([_correlation(_ranks(row[known]), target) ** 2 for row in values])
    whole = float(squared.sum())
    shares = squared / whole if whole > 0 else squared
    order = np.argsort(-shares, kind="stable")
    return tuple((figures[i].path, float(shares[i])) for i in order)


def _ranks(values: Array) -> Array:
    ranks = np.empty(values.size)
    ranks[np.argsort(values, kind="stable")] = np.arange(values.size, dtype=float)
    return ranks - (values.size - 1) / 2.0


def _correlation(one: Array, other: Array) -> float:
    scale = math.sqrt(float(one @ one) * float(other @ other))
    return float(one @ other) / scale if scale > 0 else 0.0
