"""One step of stops on two wheels that can lock: floats for one alone, arrays for many at once.

Source: single-track model: Gillespie, Fundamentals of Vehicle Dynamics; Wong, Theory of Ground
Vehicles (from memory).
"""

import math
from collections.abc import Callable
from typing import Any, NamedTuple

import numpy as np

from urgens.physics.slip import PEAK_SIDE, PEAK_SLIP

LOAD_LAG = 0.15  # s, of the load that moves forward: assumed
STANDS = 0.3  # m/s: where a stop ends
TINY = 1e-9  # m/s
FOLLOWED = 1.8  # rate times step that the method follows: under 2.78 for order 4

Number = Any  # a float of one stop, or an array (n,) of many: the same words work out both
Pair = tuple[Number, Number]  # of the front axle and the rear one


class Numbers(NamedTuple):
    """What numbers are worked out with; `ahead` goes from a state by a change for a time."""

    hypot: Callable[[Number, Number], Number]
    atan: Callable[[Number], Number]
    sin: Callable[[Number], Number]
    cos: Callable[[Number], Number]
    larger: Callable[[Number, Number], Number]
    smaller: Callable[[Number, Number], Number]
    choose: Callable[[Any, Number, Number], Number]
    any: Callable[[Any], bool]
    state: Callable[[tuple[Number, ...]], Any]
    ahead: Callable[[Any, float, Any], Any]


def _go(state: Any, time: float, change: Any) -> Any:
    u, v, yaw, front, rear = state
    du, dv, turning, slowing_front, slowing_rear = change
    return (u + time * du, v + time * dv, yaw + time * turning,
            front + time * slowing_front, rear + time * slowing_rear)  # fmt: skip


ALONE = Numbers(
    math.hypot, math.atan, math.sin, math.cos, max, min,
    lambda which, one, other: one if which else other, bool, tuple, _go,
)  # fmt: skip
TOGETHER = Numbers(
    np.hypot, np.arctan, np.sin, np.cos, np.maximum, np.minimum, np.where, np.any, np.array,
    lambda state, time, change: state + time * change,
)  # fmt: skip


class AxleTrack(NamedTuple):
    """One axle of a stop.

    `lever` [m] from the centre of gravity, backwards negative; `resting` load [N], and what it
    `gains` a g [N]; `grip` [-]; `wing` [kg/m], its downforce over the speed squared; `spin` [1/kg],
    how fast a newton on the tread turns it; `turns` [1/(kg·m)], how fast a newton across turns the
    vehicle; `shape`, `stiffness` of its tyres [-].
    """

    lever: Number
    resting: Number
    gains: Number
    grip: Number
    wing: Number
    spin: Number
    turns: Number
    shape: Number
    stiffness: Number


class VehicleBody(NamedTuple):
    """What moves: both axles, `lighter` [1/kg] what a newton accelerates, `weight` [N]."""

    front: AxleTrack
    rear: AxleTrack
    lighter: Number
    weight: Number


class _Held(NamedTuple):
    """What counts for a whole step as it is at its start, of one axle.

    Slip in units of its peak by a sliding speed along and across [s/m]; the most it passes [N]; how
    far the step can follow the tread [-]; the way it turns, 0 where it stands [-].
    """

    by_slip: Number
    by_side: Number
    most: Number
    follow: Number
    way: Number


class RoadStep(NamedTuple):
    """Where a step ends: `state`, load followed `felt` [g], power lost at its start [W]."""

    state: Any
    felt: Number
    power: Number


def advance(
    body: VehicleBody, state: Any, felt: Number, brakes: tuple[Pair, Pair], step: float, by: Numbers
) -> RoadStep:
    """Return a state one step on; a wheel that would turn the other way stands.

    body: what moves; state: speeds along and across [m/s], yaw rate [rad/s], speeds of
    both treads [m/s]; felt: deceleration that the load has followed [g]; brakes: how fast they
    would stop the treads at the step's start and at its end [m/s²]; step: [s]; by: numbers used.
    Source: Runge and Kutta's method of order 4. The load follows by its own exact law. A tread that
    finds its slip faster than a step is long (a slow, heavy vehicle) is slowed to what a step can
    follow: where it ends is the same.
    """
    before, after = brakes
    middle = 0.5 * (before[0] + after[0]), 0.5 * (before[1] + after[1])
    held = (_held(body.front, state, state[3], felt, step, by),
            _held(body.rear, state, state[4], felt, step, by))  # fmt: skip
    k1, forces = _change(body, state, held, before, by)
    k2, _ = _change(body, by.ahead(state, 0.5 * step, k1), held, middle, by)
    k3, _ = _change(body, by.ahead(state, 0.5 * step, k2), held, middle, by)
    k4, _ = _change(body, by.ahead(state, step, k3), held, after, by)
    made = by.ahead(by.ahead(state, step / 6.0, k1), step / 3.0, k2)
    made = by.ahead(by.ahead(made, step / 3.0, k3), step / 6.0, k4)
    u, v, yaw, front, rear = made
    front = by.choose(front * held[0].way < 0.0, 0.0, front)
    rear = by.choose(rear * held[1].way < 0.0, 0.0, rear)
    now = -(forces[0][2] + forces[1][2]) / body.weight
    followed = felt - math.expm1(-step / LOAD_LAG) * (now - felt)
    return RoadStep(
        by.state((u, v, yaw, front, rear)), followed, _power(body, state, forces, before)
    )


def _held(
    axle: AxleTrack, state: Any, tread: Number, felt: Number, step: float, by: Numbers
) -> _Held:
    u = state[0]
    side = state[1] + state[2] * axle.lever
    by_speed = 1.0 / by.larger(by.hypot(u, side), STANDS)
    load = axle.resting + axle.gains * felt + axle.wing * (u * u)
    most = axle.grip * by.larger(load, 0.0)
    by_slip = by_speed * (1.0 / PEAK_SLIP)
    quick = most * axle.shape * axle.stiffness * axle.spin * step * by_slip
    follow = 1.0
    if by.any(quick > FOLLOWED):  # the tread's own rate at no slip: less of it beyond
        bend = axle.stiffness * by.hypot(u - tread, side) * by_slip
        quick = quick * by.cos(axle.shape * by.atan(bend)) / (1.0 + bend * bend)
        follow = FOLLOWED / by.larger(quick, FOLLOWED)
    way = by.choose(tread > 0.0, 1.0, by.choose(tread < 0.0, -1.0, 0.0))
    return _Held(by_slip, by_speed * (1.0 / PEAK_SIDE), most, follow, way)


def _change(
    body: VehicleBody, state: Any, held: tuple[_Held, _Held], brakes: Pair, by: Numbers
) -> tuple[Any, tuple[tuple[Number, ...], tuple[Number, ...]]]:
    """Return how fast a state changes, and how both treads slide [m/s] with their forces [N]."""
    u, v, yaw, front, rear = state
    ahead = _force(body.front, u - front, v + yaw * body.front.lever, held[0], by)
    behind = _force(body.rear, u - rear, v + yaw * body.rear.lever, held[1], by)
    change = (
        (ahead[2] + behind[2]) * body.lighter + yaw * v,
        (ahead[3] + behind[3]) * body.lighter - yaw * u,
        ahead[3] * body.front.turns + behind[3] * body.rear.turns,
        _turning(body.front, ahead[2], brakes[0], held[0], by),
        _turning(body.rear, behind[2], brakes[1], held[1], by),
    )
    return by.state(change), (ahead, behind)


def _force(
    axle: AxleTrack, along: Number, across: Number, held: _Held, by: Numbers
) -> tuple[Number, ...]:
    """Return how a tread slides, with its force against that way, by the slip both ways."""
    slip = by.hypot(along * held.by_slip, across * held.by_side)
    used = by.sin(axle.shape * by.atan(axle.stiffness * slip))
    size = -held.most * used / (by.hypot(along, across) + TINY)
    return along, across, along * size, across * size


def _turning(axle: AxleTrack, force: Number, brake: Number, held: _Held, by: Numbers) -> Number:
    """Return how fast a tread's speed changes [m/s²]: one that stands is held by its brake."""
    push = -axle.spin * force
    stands = push - by.smaller(by.larger(push, -brake), brake)
    return by.choose(held.way == 0.0, stands, push - brake * held.way) * held.follow


def _power(
    body: VehicleBody,
    state: Any,
    forces: tuple[tuple[Number, ...], tuple[Number, ...]],
    brakes: Pair,
) -> Number:
    """Return what brakes and sliding treads take [W]."""
    taken = brakes[0] / body.front.spin * abs(state[3]) + brakes[1] / body.rear.spin * abs(state[4])
    for along, across, lengthwise, sideways in forces:
        taken = taken - along * lengthwise - across * sideways
    return taken
