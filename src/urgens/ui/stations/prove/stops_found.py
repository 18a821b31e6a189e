"""What the Stops page shows, worked out away from the hand from one immutable build."""

from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime

import numpy as np

from urgens.bench.proof_state import NextOnRoad, on_road, stops_of
from urgens.bench.road.drives import Drive, StopTrial, drives, foot_over_lock, trial
from urgens.bench.road.simulation import StoppedError
from urgens.bench.road.torque import hold
from urgens.bench.stops.adjusters import Adjuster, adjuster
from urgens.bench.stops.posterior import Posterior, posterior, prior
from urgens.bench.stops.rear_first_chance import least_rear_factor
from urgens.document import Build
from urgens.physics.arrays import Array
from urgens.solve.line_pressure import pushrod_force
from urgens.solve.roads import every_road
from urgens.solve.rolling_forces import rolling_lines
from urgens.solve.system import System, system

POINTS = 80
DRAWS = 160
EDGES = (0.025, 0.975)
SPEED = 27.8  # m/s: 100 km/h


@dataclass(frozen=True)
class Band:
    """The brake line in the pressures plane, as the brakes do it: middle and edges [Pa]."""

    front: Array
    low: Array
    middle: Array
    high: Array


@dataclass(frozen=True)
class Above:
    """Two stops from above: at the setting that is next, and at one at which the rear is first."""

    here: Drive
    here_setting: float | None
    rear: Drive | None
    rear_setting: float | None


@dataclass(frozen=True)
class StopsFound:
    """All of it: what is known of the brakes, what is next, the bands, and the nearest to it."""

    known: Posterior
    road: NextOnRoad | None
    before: Band
    after: Band
    nearest: tuple[str, float] | None
    above: Above


def worked_out(build: Build, goes_on: Callable[[float], bool]) -> StopsFound | None:
    """Return what the page shows of a build, None where it was told to stop."""
    stops, first = stops_of(build), prior(build)
    known = posterior(build, stops, first)
    if not goes_on(0.2):
        return None
    road = on_road(build, known, ahead=False)
    setting = None if road is None else road.advice.setting
    made = _set(build, adjuster(build), setting)
    before = _band(made, posterior(build, (), first))
    after = _band(made, known)
    if not goes_on(0.4):
        return None
    nearest = None if road is None else _nearest(build, road, known)
    try:
        above = _above(build, made, setting, lambda: goes_on(0.6))
    except StoppedError:
        return None
    ahead = on_road(build, known, now=datetime.now(), goes_on=lambda: goes_on(0.9))
    return StopsFound(known, ahead, before, after, nearest, above)


def _set(build: Build, turned: Adjuster | None, setting: float | None) -> System:
    if turned is None or setting is None:
        return system(build)
    return system(build, over={turned.path: setting})


def _band(system: System, posterior: Posterior) -> Band:
    """Return the brake line over the factors' spread, in pressures of brakes as reckoned."""
    efforts = np.linspace(0.0, 1.3 * float(system.max_effort), 240)
    lines = rolling_lines(system, pushrod_force(system, efforts), system.case(0))
    front = np.maximum.accumulate(lines.front) + 1e-6 * np.arange(efforts.size)
    rear = np.broadcast_to(lines.rear, front.shape)
    wanted = np.linspace(0.0, float(np.interp(float(system.max_effort), efforts, front)), POINTS)
    pairs = zip(*posterior.draws(DRAWS), strict=True)
    drawn = np.array([b * np.interp(wanted / a, front, rear) for a, b in pairs])
    low, high = np.quantile(drawn, EDGES, axis=0)
    return Band(wanted, low, drawn.mean(axis=0), high)


def _nearest(build: Build, road: NextOnRoad, posterior: Posterior) -> tuple[str, float] | None:
    """Return the load case and the road on which the rear is nearest to locking first."""
    made = _set(build, road.advice.turned, road.advice.setting)
    roads = np.array(every_road(build))
    front = np.array([posterior.of_front[0]])
    least = np.array([least_rear_factor(made, made.case(case), roads, front)[0]
                      for case in range(len(made.case_names))])  # fmt: skip
    case, column = np.unravel_index(int(np.argmin(least)), least.shape)
    if not np.isfinite(least[case, column]):
        return None
    return made.case_names[int(case)], float(roads[column])


def _above(
    build: Build, system: System, setting: float | None, goes_on: Callable[[], bool]
) -> Above:
    surface, turned = build.targets.surface, adjuster(build)
    trials = [_over(trial(build, system, 0, surface, SPEED, hold(0.0)), goes_on)]
    rear = None if turned is None else _rear_first(build, turned)
    if rear is not None and turned is not None:
        other = _set(build, turned, turned.values[-1])
        case, road = rear
        trials.append(_over(trial(build, other, case, road, SPEED, hold(0.0)), goes_on))
    found = drives(trials, goes_on=goes_on)
    if rear is None or turned is None:
        return Above(found[0], setting, None, None)
    return Above(found[0], setting, found[1], turned.values[-1])


def _over(one: StopTrial, goes_on: Callable[[], bool]) -> StopTrial:
    """Return a stop with a foot at which only the first axle locks, where there is one."""
    return one._replace(foot=foot_over_lock(one, goes_on))


def _rear_first(build: Build, turned: Adjuster) -> tuple[int, float] | None:
    """Return the load case and road on which most rear share locks the rear soonest."""
    made = _set(build, turned, turned.values[-1])
    roads = np.array(every_road(build))
    dry = roads >= 0.5 * roads[-1]  # slow ones take long, and show the same
    least = np.array([least_rear_factor(made, made.case(case), roads[dry], np.ones(1))[0]
                      for case in range(len(made.case_names))])  # fmt: skip
    case, column = np.unravel_index(int(np.argmin(least)), least.shape)
    return (int(case), float(roads[dry][column])) if least[case, column] < 1.0 else None
