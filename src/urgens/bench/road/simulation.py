"""Stops in time on a test road: a vehicle on two wheels, each of which can lock, from above."""

import math
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, NamedTuple

import numpy as np

from urgens.bench.road.single_track import (
    ALONE,
    STANDS,
    TOGETHER,
    AxleTrack,
    Numbers,
    Pair,
    VehicleBody,
    advance,
)
from urgens.bench.road.torque import Torques
from urgens.physics.arrays import Array, Bools
from urgens.physics.atmosphere import GRAVITY, SEA_LEVEL_DENSITY
from urgens.physics.slip import PEAK_SLIP, SlipCurve
from urgens.physics.wheel import AXLE_INERTIA

STEP = 1e-3  # s
LONGEST = 15.0  # s
UNEVEN = math.radians(0.5)  # rad/s of yaw that stand for the road's unevenness
STRAIGHT = math.radians(10.0)  # of heading: once it turns, wheels stand for other reasons
PAST_PEAK = 2.0 * PEAK_SLIP  # from there on a wheel goes on until it stands
LOCKED_ABOVE = 1.0  # m/s: at a walk a wheel that stands says nothing
BLOCK = 100  # steps that are made before it is looked at how they went
EVERY = 10  # steps between two rows that are kept
FEW = 10  # stops that go quicker one by one, with plain numbers
# Places in a row of a state
_U = 0
_V = 1
_YAW = 2
_TREADS = slice(3, 5)
_FELT = 5


class StoppedError(Exception):
    """Nobody waits for the stop any more."""


def _always() -> bool:
    return True


class _Told(NamedTuple):
    """Whether to go on, asked now and then; whether to end once an axle has locked."""

    goes_on: Callable[[], bool]
    to_lock: bool


class Car(NamedTuple):
    """What moves, one row a stop (n,): [N], [m], [-], [m²].

    `levers` (n, 2) from the centre of gravity to each axle, backwards negative; `radii` (n, 2);
    `resting` (n, 2) axle loads; `transfer` of weight per g; `grips` (n, 2) coefficients; `wings`
    (n, 2) lift areas.
    """

    weight: Array
    levers: Array
    radii: Array
    resting: Array
    transfer: Array
    grips: Array
    wings: Array

    @property
    def yaw_inertia(self) -> Array:
        """Of the vehicle (n,) [kg·m²]: a mass at each axle: common practice."""
        return np.asarray(self.weight / GRAVITY * self.levers[:, 0] * -self.levers[:, 1])

    def body(self, of: SlipCurve) -> VehicleBody:
        """Return what moves as steps take it; of: the tyres' curve (n,)."""
        front, rear = (self._axle(place, of) for place in (0, 1))
        return VehicleBody(front, rear, GRAVITY / self.weight, self.weight)

    def _axle(self, place: int, of: SlipCurve) -> AxleTrack:
        return AxleTrack(
            lever=self.levers[:, place],
            resting=self.resting[:, place],
            gains=self.transfer * (1.0, -1.0)[place],
            grip=self.grips[:, place],
            wing=0.5 * SEA_LEVEL_DENSITY * self.wings[:, place],
            spin=np.square(self.radii[:, place]) / AXLE_INERTIA,
            turns=self.levers[:, place] / self.yaw_inertia,
            shape=np.broadcast_to(of.shape, self.weight.shape),
            stiffness=np.broadcast_to(of.stiffness, self.weight.shape),
        )


@dataclass(frozen=True)
class Driven:
    """How stops went: rows in time (t,) [s] of each stop (n,).

    `speed` [m/s], `side` speed [m/s], `yaw` rate [rad/s], `wheels` (t, 2, n) speeds of the tread
    [m/s], `along`, `across` [m] and `heading` [rad] of the path, `deceleration` [g] along the
    vehicle. `ended` (n,) [s] where each stop ends, `distance` (n,) [m] on its way, `locked_at`
    (2, n) [s] when each axle locked first, its wheels past their peak for good and the vehicle
    still straight, inf where it did not; `energy_error` (n,) what brakes and tyres did beside what
    the vehicle lost [-].
    """

    time: Array
    speed: Array
    side: Array
    yaw: Array
    wheels: Array
    along: Array
    across: Array
    heading: Array
    deceleration: Array
    ended: Array
    distance: Array
    locked_at: Array
    energy_error: Array


def drive(
    car: Car,
    torques: Torques,
    speed: Array,
    curve: SlipCurve,
    step: float = STEP,
    uneven: float = UNEVEN,
    goes_on: Callable[[], bool] | None = None,
    to_lock: bool = False,
) -> Driven:
    """Return how stops go; many of them run at once.

    car: what moves (n,); torques: of the brakes in time; speed: at the start (n,)
    [m/s]; curve: of the tyres (n,); step: of time [s]; uneven: yaw rate at the start
    [rad/s]; goes_on: asked now and then whether to go on [callable]; to_lock: whether they end
    soon after an axle locks [-].
    Raises StoppedError where it is told not to.
    """
    start = np.stack([speed, np.zeros_like(speed), np.full_like(speed, uneven), speed, speed])
    body = car.body(curve)
    told = _Told(goes_on or _always, to_lock)
    if speed.size > FEW:
        by_torque = car.radii / AXLE_INERTIA
        tracks = [_Track(car, start, step)]

        def braking(time: float, felt: Array) -> Pair:
            front, rear = (torques.at(time, felt) * by_torque).T
            return front, rear

        _run(tracks[0], body, start, braking, TOGETHER, told)
    else:
        tracks = [_one_by_one(car, body, torques, start, place, step, told)
                  for place in range(speed.size)]  # fmt: skip
    return _told(tracks, step)


def _one_by_one(
    car: Car,
    body: VehicleBody,
    torques: Torques,
    start: Array,
    place: int,
    step: float,
    told: "_Told",
) -> "_Track":
    """Return how one of the stops went, worked out with plain numbers."""
    own = Car(*(each[place : place + 1] for each in car))
    front, rear = (AxleTrack(*(float(one[place]) for one in axle)) for axle in body[:2])
    alone = VehicleBody(front, rear, float(body.lighter[place]), float(body.weight[place]))
    by_front, by_rear = (float(radius) / AXLE_INERTIA for radius in car.radii[place])
    at = torques.alone(place)

    def braking(time: float, felt: Any) -> Pair:
        torque = at(time, felt)
        return torque[0] * by_front, torque[1] * by_rear

    track = _Track(own, start[:, place : place + 1], step)
    _run(track, alone, tuple(start[:, place].tolist()), braking, ALONE, told)
    return track


def _run(
    track: "_Track",
    body: VehicleBody,
    state: Any,
    braking: Callable[[float, Any], Pair],
    by: Numbers,
    told: "_Told",
) -> None:
    """Make steps until all stops have come to their end, or none will; raises StoppedError."""
    step, felt = track.step, 0.0 * state[0]
    before, most = braking(0.0, felt), int(LONGEST / track.step)
    for first in range(1, most + 1, BLOCK):
        states, powers = [], []
        for number in range(first, min(first + BLOCK, most + 1)):
            after = braking(number * step, felt)
            made = advance(body, state, felt, (before, after), step, by)
            before, state, felt = after, made.state, made.felt
            states.append((*state, felt))
            powers.append(made.power)
        shape = (len(states), 6, -1)
        track.add(np.array(states).reshape(shape), np.array(powers).reshape(len(powers), -1))
        if not track.moving.any() or (told.to_lock and track.locked.all()):
            return
        if not told.goes_on():
            raise StoppedError


class _Track:
    """How stops went so far: rows that are kept, when each ended, when each axle locked.

    A row is a state: speeds along and across, yaw rate, both treads' speeds, and the load felt.
    """

    def __init__(self, car: Car, start: Array, step: float) -> None:
        count = start.shape[1]
        self.step, self.every = step, max(round(EVERY * STEP / step), 1)
        self.moving: Bools = np.ones(count, dtype=bool)
        self.ended, self.locked_at = np.full(count, LONGEST), np.full((2, count), np.inf)
        self.last = np.concatenate((start, np.zeros((1, count))))
        self._car, self._start = car, self.last
        self._rows, self._made = [self.last[None]], 0
        self._work, self._power = np.zeros(count), np.zeros(count)
        self._heading = np.zeros(count)

    @property
    def locked(self) -> Bools:
        """Of which stops an axle has locked (n,)."""
        return np.asarray(np.isfinite(self.locked_at).any(axis=0))

    def add(self, states: Array, powers: Array) -> None:
        """Take steps as they went (b, 6, n), with the power lost at the start of each (b, n)."""
        going = np.hypot(states[:, _U], states[:, _V])
        slow, places = going <= STANDS, np.arange(len(states))[:, None]
        end = np.where(slow.any(axis=0), slow.argmax(axis=0), len(states))
        lasts = self.moving & (places <= end)
        heading = self._heading + self.step * np.cumsum(states[:, _YAW], axis=0)
        self._heading = heading[-1]
        straight = np.abs(heading) < STRAIGHT
        slides = states[:, _TREADS] < (1.0 - PAST_PEAK) * states[:, None, _U]
        stands = slides & (lasts & straight & (going > LOCKED_ABOVE))[:, None]
        times = (self._made + 1 + stands.argmax(axis=0)) * self.step
        found = stands.any(axis=0) & np.isinf(self.locked_at)
        self.locked_at = np.where(found, times, self.locked_at)
        self._add_work(powers, lasts)
        stops = self.moving & (end < len(states))
        self.ended = np.where(stops, (self._made + 1 + end) * self.step, self.ended)
        final = states[np.minimum(end, len(states) - 1), :, np.arange(end.size)].T
        self.last = np.where(self.moving, final, self.last)
        kept = (self._made + 1 + places[:, 0]) % self.every == 0
        self._rows.append(np.where(lasts[:, None], states, self.last)[kept])
        self.moving = self.moving & ~stops
        self._made += len(states)

    def _add_work(self, powers: Array, lasts: Bools) -> None:
        """Add what was lost from the step before the first one to the start of the last."""
        before = np.concatenate((self._power[None], powers[:-1]))
        counts = lasts if self._made else lasts & (np.arange(len(powers))[:, None] > 0)
        self._work = self._work + (0.5 * self.step) * ((before + powers) * counts).sum(axis=0)
        self._power = powers[-1]

    def rows(self, count: int) -> Array:
        """Return so many rows, those after the end as the end was (count, 6, n)."""
        made = np.concatenate(self._rows)[:count]
        after = np.broadcast_to(self.last, (count - len(made), *self.last.shape))
        return np.concatenate((made, after))

    @property
    def energy_error(self) -> Array:
        """What brakes and tyres did beside what the vehicle lost (n,) [-]."""
        lost = self._energy(self._start) - self._energy(self.last)
        return np.asarray(np.abs(self._work / lost - 1.0))

    def _energy(self, row: Array) -> Array:
        """Return what moves and turns [J], of each stop."""
        car = self._car
        going = np.square(row[_U]) + np.square(row[_V])
        wheels = (AXLE_INERTIA * np.square(row[_TREADS] / car.radii.T)).sum(axis=0)
        yaw = car.yaw_inertia * np.square(row[_YAW])
        return np.asarray(0.5 * (car.weight / GRAVITY * going + yaw + wheels))


def _told(tracks: list[_Track], step: float) -> Driven:
    """Return rows of states as how the stops went; the path follows from speeds and yaw."""
    ended = np.concatenate([one.ended for one in tracks])
    every = tracks[0].every * step
    count = max(math.ceil(float(ended.max()) / every - 1e-9), 1) + 1
    rows = np.concatenate([one.rows(count) for one in tracks], axis=-1)
    time = np.minimum(np.arange(count) * every, max(float(ended.max()), every))
    shares = np.clip((ended - time[:-1, None]) / np.diff(time)[:, None], 0.0, 1.0)
    gaps = shares * np.diff(time)[:, None]

    def gathered(rate: Array) -> Array:
        steps = 0.5 * (rate[1:] + rate[:-1]) * gaps
        return np.concatenate((np.zeros((1, rate.shape[1])), np.cumsum(steps, axis=0)))

    u, v, yaw = (rows[:, place] for place in (_U, _V, _YAW))
    heading = gathered(yaw)
    along = gathered(u * np.cos(heading) - v * np.sin(heading))
    across = gathered(u * np.sin(heading) + v * np.cos(heading))
    way = gathered(np.hypot(u, v))[-1]
    locked_at = np.concatenate([one.locked_at for one in tracks], axis=-1)
    error = np.concatenate([one.energy_error for one in tracks])
    path = (along, across, heading)
    felt = rows[:, _FELT]
    return Driven(time, u, v, yaw, rows[:, _TREADS], *path, felt, ended, way, locked_at, error)
