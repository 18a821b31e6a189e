"""Stops in time on a test road: a vehicle on two wheels, each of which can lock, from above.

Source: single-track model: Gillespie, Fundamentals of Vehicle Dynamics; Wong, Theory of Ground
Vehicles (from memory); the brakes are those of the build's own system.
"""

import math
from collections.abc import Callable
from dataclasses import dataclass
from typing import NamedTuple

import numpy as np

from urgens.bench.torque import Torques
from urgens.physics.arrays import Array, Bools
from urgens.physics.atmosphere import GRAVITY, SEA_LEVEL_DENSITY
from urgens.physics.slip import PEAK_SIDE, PEAK_SLIP, Curve

STEP = 1e-3  # s
LOAD_LAG = 0.15  # s, of the load that moves forward: assumed
WHEEL_INERTIA = 1.2  # kg·m² of each wheel: assumed
LONGEST, STANDS = 15.0, 0.3  # s, m/s: where a stop ends
UNEVEN = math.radians(0.5)  # rad/s of yaw that stand for the road's unevenness
LOCKED_ABOVE = 1.0  # m/s: at a walk a wheel that stands says nothing
ASKED = 100  # steps between two questions whether to go on
EVERY = 10  # steps between two rows that are kept
TINY = 1e-9
FOLLOWED = 1.8  # rate times step that the method follows: under 2.78 for order 4
INERTIA = 2.0 * WHEEL_INERTIA
_U, _V, _YAW, _TREADS, _A = 0, 1, 2, slice(3, 5), 5  # places in the state
_BY_PEAK = np.array([[1.0 / PEAK_SLIP], [1.0 / PEAK_SIDE]])


class StoppedError(Exception):
    """Nobody waits for the stop any more."""


def _always() -> bool:
    return True


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


@dataclass(frozen=True)
class Driven:
    """How stops went: rows in time (t,) [s] of each stop (n,).

    `speed` [m/s], `side` speed [m/s], `yaw` rate [rad/s], `wheels` (t, n, 2) speeds of the tread
    [m/s], `along`, `across` [m] and `heading` [rad] of the path, `deceleration` [g] along the
    vehicle. `ended` (n,) [s] where each stop ends, `distance` (n,) [m] on its way, `locked_at`
    (n, 2) [s] when each axle locked first, inf where it did not; `energy_error` (n,) what brakes
    and tyres did beside what the vehicle lost [-].
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
    curve: Curve,
    step: float = STEP,
    uneven: float = UNEVEN,
    goes_on: Callable[[], bool] | None = None,
) -> Driven:
    """Return how stops go; all of them run at once.

    car: what moves (n,) [object]; torques: of the brakes in time [object]; speed: at the start (n,)
    [m/s]; curve: of the tyres [object]; step: of time [s]; uneven: yaw rate at the start [rad/s];
    goes_on: asked now and then whether to go on [callable].
    Raises StoppedError where it is told not to.
    Source: Runge and Kutta's method of order 4, of fixed step; each ends at 0.3 m/s or 15 s.
    """
    return _Run(car, torques, speed, curve, step, uneven).driven(goes_on or _always)


class _Run:
    """All stops of one call, step by step.

    A state has a row a stop: speeds along and across, yaw rate, speeds of the two treads, and the
    deceleration that the load has followed so far. How treads slide is linear in the state, and how
    fast the state changes is linear in the treads' forces: each is one product. The load follows
    within a step by its own exact law. A tread that finds its slip faster than a step is long (a
    slow, heavy vehicle) is slowed to what a step can follow: where it ends is the same.
    """

    def __init__(
        self, car: Car, torques: Torques, speed: Array, curve: Curve, step: float, uneven: float
    ) -> None:
        count = speed.size
        self._car, self._torques, self._step = car, torques, step
        self._shape, self._stiffness = (
            np.broadcast_to(np.asarray(one, dtype=float)[..., None], (count, 1)) for one in curve
        )
        self._mass = car.weight / GRAVITY
        self._yaw_inertia = self._mass * car.levers[:, 0] * -car.levers[:, 1]
        spin = np.square(car.radii) / INERTIA  # m/s² at the tread by a newton there
        self._brakes = car.radii / INERTIA  # and by a newton metre
        self._by_tread = 1.0 / spin
        self._by_weight, self._follows = -1.0 / car.weight, -math.expm1(-step / LOAD_LAG)
        self._sliding, self._pushing = self._linear(spin)
        self._aero = 0.5 * SEA_LEVEL_DENSITY * car.wings if car.wings.any() else None
        self._moves = car.transfer[:, None] * np.array([1.0, -1.0])
        self._steep = self._shape * self._stiffness * (step / PEAK_SLIP) * spin
        self._state = np.zeros((count, 6))
        self._state[:, _U], self._state[:, _YAW], self._state[:, _TREADS] = (
            speed, uneven, speed[:, None],
        )  # fmt: skip
        self._sign, self._rolls = np.ones((count, 2)), np.ones((count, 2), dtype=bool)
        self._all_roll = True
        self._moving: Bools = np.ones((count, 1), dtype=bool)
        self._last = np.zeros((count, 2, 2)), np.zeros((count, 2, 2))
        self._follow: Array | None = None

    def _linear(self, spin: Array) -> tuple[Array, Array]:
        """Return what makes sliding speeds of a state, and the change of a state of forces."""
        car, count = self._car, self._mass.size
        sliding, pushing = np.zeros((count, 6, 2, 2)), np.zeros((count, 2, 2, 6))
        for axle in (0, 1):
            sliding[:, _U, 0, axle], sliding[:, 3 + axle, 0, axle] = 1.0, -1.0
            sliding[:, _V, 1, axle], sliding[:, _YAW, 1, axle] = 1.0, car.levers[:, axle]
            pushing[:, 0, axle, _U] = pushing[:, 1, axle, _V] = 1.0 / self._mass
            pushing[:, 1, axle, _YAW] = car.levers[:, axle] / self._yaw_inertia
            pushing[:, 0, axle, 3 + axle] = -spin[:, axle]
        return sliding.reshape(count, 6, 4), pushing.reshape(count, 4, 6)

    def driven(self, goes_on: Callable[[], bool]) -> Driven:
        """Return how the stops went."""
        count, step = self._mass.size, self._step
        every = max(round(EVERY * STEP / step), 1)
        rows = [self._state]
        locked_at, ended = np.full((count, 2), np.inf), np.full(count, LONGEST)
        start, work = self._energy(), np.zeros(count)
        at_end = start.copy()
        brakes = self._braking(0.0)
        power, moved = np.zeros(count), np.zeros(count, dtype=bool)
        for number in range(1, int(LONGEST / step) + 1):
            time, state, before = number * step, self._state, brakes
            brakes = self._braking(time)
            self._advance(before, brakes)
            now = self._power(state, before)  # at the step's start, where the last one ended
            work += (0.5 * step) * (power + now) * moved
            if number % ASKED == 0 and not goes_on():
                raise StoppedError
            moving = self._moving[:, 0]
            power, moved = now, moving
            going = np.hypot(self._state[:, _U], self._state[:, _V])
            if not self._all_roll:
                stand = ~self._rolls & self._moving & (going[:, None] > LOCKED_ABOVE)
                locked_at[stand & np.isinf(locked_at)] = time
            if going.min() <= STANDS:
                stops = moving & (going <= STANDS)
                ended[stops], at_end[stops] = time, self._energy()[stops]
                moving = moving & ~stops
                self._moving = moving[:, None]
            if number % every == 0 or not moving.any():
                rows.append(self._state)
            if not moving.any():
                break
        at_end[moving] = self._energy()[moving]
        error = np.abs(work / (start - at_end) - 1.0)
        return _told(np.array(rows), every * step, ended, locked_at, error)

    def _braking(self, time: float) -> Array:
        """Return how fast the brakes would stop the treads [m/s²]; time: [s]."""
        return np.asarray(self._brakes * self._torques.at(time, self._state[:, _A]))

    def _advance(self, before: Array, after: Array) -> None:
        """Take one step; a wheel that would turn the other way stands."""
        state, step = self._state, self._step
        held, middle = self._held(state), 0.5 * (before + after)
        k1 = self._slopes(state, held, before)
        slid = self._last
        k2 = self._slopes(state + (0.5 * step) * k1, held, middle)
        k3 = self._slopes(state + (0.5 * step) * k2, held, middle)
        change = k2 + k3
        k4 = self._slopes(state + step * k3, held, after)
        self._last = slid
        change += change
        change += k1
        change += k4
        change *= (step / 6.0) * self._moving
        made = state + change
        treads = made[:, _TREADS]
        turned = treads * self._sign
        if turned.min() <= 0.0:
            treads[(turned < 0.0) & self._rolls] = 0.0
            self._rolls, self._sign = treads != 0.0, np.sign(treads)
            self._all_roll = bool(self._rolls.all())
        made[:, _A] = self._followed(state[:, _A])
        self._state = made

    def _followed(self, before: Array) -> Array:
        """Return the deceleration that the load has followed by the step's end [g]."""
        forces = self._last[1][:, 0]
        now = (forces[:, 0] + forces[:, 1]) * self._by_weight
        return np.asarray(before + self._follows * (now - before))

    def _held(self, state: Array) -> tuple[Array, Array]:
        """Return what counts for a step as it is at its start.

        Slip in units of its peak by a sliding speed [s/m], and the most each axle passes [N].
        """
        car, u = self._car, state[:, _U, None]
        side = state[:, _V, None] + state[:, _YAW, None] * car.levers
        by_speed = 1.0 / np.maximum(np.hypot(u, side), STANDS)
        load = car.resting + self._moves * state[:, _A, None]
        if self._aero is not None:
            load = load + self._aero * np.square(u)
        most = car.grips * np.maximum(load, 0.0)
        quick = most * self._steep * by_speed  # a tread's own rate, in steps
        self._follow = None
        if quick.max() > FOLLOWED:
            bend = self._stiffness * np.hypot(u - state[:, _TREADS], side)
            bend *= by_speed * (1.0 / PEAK_SLIP)
            quick *= np.cos(self._shape * np.arctan(bend)) / (1.0 + np.square(bend))
            self._follow = FOLLOWED / np.maximum(quick, FOLLOWED)
        return np.asarray(by_speed[:, None] * _BY_PEAK), -most

    def _slopes(self, state: Array, held: tuple[Array, Array], brakes: Array) -> Array:
        """Return how fast a state changes; held: of the step; brakes: would stop the treads so."""
        slides = np.matmul(state[:, None], self._sliding).reshape(-1, 2, 2)
        forces = self._forces(slides, held)
        self._last = slides, forces
        found: Array = np.matmul(forces.reshape(-1, 1, 4), self._pushing)[:, 0]
        treads = found[:, _TREADS]
        if self._all_roll:
            treads -= brakes * self._sign
        else:
            stands = np.minimum(np.maximum(treads, -brakes), brakes)
            treads -= np.where(self._rolls, brakes * self._sign, stands)
        if self._follow is not None:
            treads *= self._follow
        yaw = state[:, _YAW]
        found[:, _U] += yaw * state[:, _V]
        found[:, _V] -= yaw * state[:, _U]
        return found

    def _forces(self, slides: Array, held: tuple[Array, Array]) -> Array:
        """Return the treads' forces [N]: against the way they slide, by the slip both ways."""
        by_peak, most = held
        slip = slides * by_peak
        used = np.hypot(slip[:, 0], slip[:, 1])
        used *= self._stiffness
        np.arctan(used, used)
        used *= self._shape
        np.sin(used, used)
        used *= most
        used /= np.hypot(slides[:, 0], slides[:, 1]) + TINY
        return np.asarray(slides * used[:, None])

    def _power(self, state: Array, brakes: Array) -> Array:
        """Return what brakes and sliding treads took at a state [W], its forces just worked out."""
        slides, forces = self._last
        taken = brakes * self._by_tread * np.abs(state[:, _TREADS])
        slid = np.einsum("nij,nij->n", slides, forces)
        return np.asarray(taken[:, 0] + taken[:, 1] - slid)

    def _energy(self) -> Array:
        """Return what moves and turns [J], of each stop."""
        state = self._state
        going = np.square(state[:, _U]) + np.square(state[:, _V])
        wheels = (INERTIA * np.square(state[:, _TREADS] / self._car.radii)).sum(axis=1)
        yaw = self._yaw_inertia * np.square(state[:, _YAW])
        return np.asarray(0.5 * (self._mass * going + yaw + wheels))


def _told(rows: Array, every: float, ended: Array, locked_at: Array, error: Array) -> Driven:
    """Return rows of states as how the stops went; the path follows from speeds and yaw."""
    time = np.minimum(np.arange(len(rows)) * every, max(float(ended.max()), every))
    shares = np.clip((ended - time[:-1, None]) / np.diff(time)[:, None], 0.0, 1.0)
    gaps = shares * np.diff(time)[:, None]

    def gathered(rate: Array) -> Array:
        steps = 0.5 * (rate[1:] + rate[:-1]) * gaps
        return np.concatenate((np.zeros((1, rate.shape[1])), np.cumsum(steps, axis=0)))

    u, v, yaw = (rows[..., place] for place in (_U, _V, _YAW))
    heading = gathered(yaw)
    along = gathered(u * np.cos(heading) - v * np.sin(heading))
    across = gathered(u * np.sin(heading) + v * np.cos(heading))
    way = gathered(np.hypot(u, v))[-1]
    treads, felt = rows[..., _TREADS], rows[..., _A]
    path = (along, across, heading)
    return Driven(time, u, v, yaw, treads, *path, felt, ended, way, locked_at, error)
