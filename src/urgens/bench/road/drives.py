"""Stops of builds on the test road, and what comes of each."""

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import NamedTuple

import numpy as np

from urgens.bench.road.simulation import LONGEST, STEP, UNEVEN, Car, Driven, drive
from urgens.bench.road.torque import Foot, Pressed, Torques, hold, pressed
from urgens.document import Build
from urgens.physics.arrays import Array
from urgens.physics.atmosphere import GRAVITY
from urgens.physics.axle import Axle
from urgens.physics.slip import SlipCurve, curve
from urgens.physics.standards import mean_fully_developed_deceleration
from urgens.physics.vehicle import StaticVehicle
from urgens.solve.lock import first_lock
from urgens.solve.system import System

OVER = 1.12  # of the foot that locks an axle: a little over it
STEP_UP, NEAR = 1.1, 0.01  # of a foot: steps in which one that locks is looked for, and how near
NEVER = float("inf")
BETWEEN = 0.8, 0.1  # of the first speed: where a mean deceleration is taken


class StopTrial(NamedTuple):
    """One stop to be made: a system, its loads, the road's coefficient, a speed [m/s], a foot.

    `wheelbase` [m], `wings` lift areas [m²], `kept` by a locked wheel of its coefficient [-].
    """

    made: System
    standing: StaticVehicle
    surface: float
    speed: float
    foot: Foot
    wheelbase: float
    wings: tuple[float, float]
    kept: float


@dataclass(frozen=True)
class Drive:
    """One stop on the test road: rows in time (t,) and what came of it.

    Times [s], `foot` [N], pressures `front`, `rear` [Pa] at the brakes, `speed` [m/s], treads'
    speeds `front_speed`, `rear_speed` [m/s], `deceleration` [g], path `along`, `across` [m] and
    `heading` [rad]. `distance` [m], `mean_deceleration` [g], `locked` axles with the times at which
    they locked, in order, `energy_error` [-].
    """

    time: Array
    foot: Array
    front: Array
    rear: Array
    speed: Array
    front_speed: Array
    rear_speed: Array
    deceleration: Array
    along: Array
    across: Array
    heading: Array
    distance: float
    mean_deceleration: float | None
    locked: tuple[tuple[Axle, float], ...]
    energy_error: float

    @property
    def turned(self) -> float:
        """The heading at the end [rad]."""
        return float(self.heading[-1])

    @property
    def stands(self) -> bool:
        """Whether it came to a stand in the time there was."""
        return bool(self.time[-1] < LONGEST)


def trial(
    build: Build, system: System, case: int, surface: float, speed: float, foot: Foot
) -> StopTrial:
    """Return a stop of a build to be made.

    system: its system, or one that differs from it; case: place of its load
    case [-]; surface: tyre-road coefficient [-]; speed: [m/s]; foot: in time.

    The build's wings, and what its locked tyres keep.
    """
    wings = build.vehicle.downforce
    areas = (0.0, 0.0)
    if wings is not None:
        areas = wings.front_cl_area.value, wings.rear_cl_area.value
    wheelbase = build.vehicle.wheelbase.value
    kept = build.targets.locked_grip
    return StopTrial(system, system.case(case), surface, speed, foot, wheelbase, areas, kept)


def drives(
    trials: Sequence[StopTrial],
    step: float = STEP,
    uneven: float = UNEVEN,
    goes_on: Callable[[], bool] | None = None,
    to_lock: bool = False,
) -> tuple[Drive, ...]:
    """Return stops on the test road, made all at once.

    trials: one or more; step: of time [s]; uneven: yaw rate at the start [rad/s].
    goes_on: asked now and then whether to go on [callable]; to_lock: whether they end soon after an
    axle locks [-].
    Raises StoppedError where it is told not to.
    """
    brakes = [pressed(t.made, t.standing, t.foot, LONGEST) for t in trials]
    curves = [curve(t.kept) for t in trials]
    shapes = SlipCurve(
        np.array([one.shape for one in curves]), np.array([one.stiffness for one in curves])
    )
    speeds = np.array([t.speed for t in trials])
    torques = Torques(brakes, [t.standing for t in trials])
    went = drive(_cars(trials), torques, speeds, shapes, step, uneven, goes_on, to_lock)
    return tuple(_one(went, index, brake) for index, brake in enumerate(brakes))


def _cars(trials: Sequence[StopTrial]) -> Car:
    standings = [t.standing for t in trials]

    def of(name: str) -> Array:
        return np.array([float(getattr(one, name)) for one in standings])

    front, rear, transfer = of("front_weight"), of("rear_weight"), of("transfer")
    weight = front + rear
    surface = np.array([t.surface for t in trials])
    wheelbase = np.array([t.wheelbase for t in trials])
    return Car(
        weight=weight,
        levers=np.stack([wheelbase * rear / weight, -wheelbase * front / weight], axis=1),
        radii=np.array([[float(end.rolling_radius) for end in t.made.ends] for t in trials]),
        resting=np.stack([front, rear], axis=1),
        transfer=transfer * weight,
        grips=surface[:, None] * np.stack([of("front_grip"), of("rear_grip")], axis=1),
        wings=np.array([t.wings for t in trials]),
    )


def _one(went: Driven, index: int, brake: Pressed) -> Drive:
    """Return one of the stops, no longer than it lasted."""
    last = int(np.searchsorted(went.time, went.ended[index], side="left")) + 1
    time = np.minimum(went.time[:last], went.ended[index])

    def row(values: Array) -> Array:
        return np.asarray(values[:last, index])

    lines = [np.interp(time, brake.times, _middle(brake, axle)) for axle in (0, 1)]
    moments = [(axle, float(at)) for axle, at in zip(Axle, went.locked_at[:, index], strict=True)]
    locked = sorted((one for one in moments if one[1] < NEVER), key=lambda one: one[1])
    speed, along = np.hypot(row(went.speed), row(went.side)), row(went.along)
    way = np.concatenate(([0.0], np.cumsum(np.hypot(np.diff(along), np.diff(row(went.across))))))
    stands = went.ended[index] < LONGEST
    return Drive(
        time=time,
        foot=np.interp(time, brake.times, brake.foot),
        front=lines[0],
        rear=lines[1],
        speed=speed,
        front_speed=np.abs(went.wheels[:last, 0, index]),
        rear_speed=np.abs(went.wheels[:last, 1, index]),
        deceleration=row(went.deceleration),
        along=along,
        across=row(went.across),
        heading=row(went.heading),
        distance=float(went.distance[index]) if stands else NEVER,
        mean_deceleration=fully_developed(speed, way) if stands else None,
        locked=tuple(locked),
        energy_error=float(went.energy_error[index]),
    )


def fully_developed(speed: Array, way: Array) -> float | None:
    """Return the mean fully developed deceleration [g], None where it never got there.

    speed: falling, shape (t,) [m/s]; way: rising (t,) [m].
    Source: UN Regulation No. 13-H, Annex 3: between 0.8 and 0.1 of the first speed (from memory).
    """
    first, last = BETWEEN[0] * speed[0], BETWEEN[1] * speed[0]
    if speed[0] <= 0.0 or speed.min() > last:
        return None
    falling = np.minimum.accumulate(speed)[::-1]
    begin, end = (float(np.interp(at, falling, way[::-1])) for at in (first, last))
    found = mean_fully_developed_deceleration(first, last, begin, end)
    return float(found) / GRAVITY


def _middle(brake: Pressed, axle: int) -> Array:
    """Return the pressure at an axle's brakes in time, at the rear load at rest."""
    place = min(int(np.argmin(np.abs(brake.loads - brake.loads[-1] / 1.2))), brake.loads.size - 1)
    return np.asarray(brake.lines[axle, place])


def foot_to_lock(trial: StopTrial, goes_on: Callable[[], bool] | None = None) -> Foot:
    """Return the least foot, held, at which an axle locks; the hardest where none does.

    trial: the stop, its foot the ramp; goes_on: asked now and then whether to go on [callable].

    From the standing first lock on: wheels that turn take some of the brakes, so that they lock at
    a harder foot. By halving, to a hundredth.
    """
    most, ramp = float(trial.made.max_effort), trial.foot.ramp
    first = _locks_at(trial)[0]
    low = high = most if math.isnan(first) else min(first, most)
    while high < most and not _locks(trial, high, goes_on):
        low, high = high, min(max(STEP_UP * high, NEAR * most), most)
    while high - low > NEAR * high:
        middle = 0.5 * (low + high)
        low, high = (low, middle) if _locks(trial, middle, goes_on) else (middle, high)
    return hold(high, ramp)


def foot_over_lock(trial: StopTrial, goes_on: Callable[[], bool] | None = None) -> Foot:
    """Return a foot that is a little over the one that locks an axle, and locks no other.

    trial: the stop, its foot the ramp; goes_on: asked now and then whether to go on [callable].

    By 12 %, but no more than half way to where the other axle locks as well.
    """
    least = foot_to_lock(trial, goes_on)
    effort, second = float(least.efforts[-1]), _locks_at(trial)[1]
    over = OVER * effort
    if second > effort:  # not where it is unknown
        over = min(over, 0.5 * (effort + second))
    return hold(over, trial.foot.ramp)


def _locks_at(trial: StopTrial) -> tuple[float, float]:
    """Return the foot of the first and the second lock, at rest [N]; NaN where there is none."""
    found = first_lock(trial.made, trial.standing, np.array([trial.surface]))
    return float(found.effort[0]), float(found.second_effort[0])


def _locks(trial: StopTrial, effort: float, goes_on: Callable[[], bool] | None) -> bool:
    held = trial._replace(foot=hold(effort, trial.foot.ramp))
    [found] = drives([held], goes_on=goes_on, to_lock=True)
    return bool(found.locked)
