"""The vehicle: loads, deceleration, grip used and locking.

Source: force and moment balance of the braked vehicle, as in Gillespie, Fundamentals of Vehicle
Dynamics, chapter 3, and Limpert, Brake Design and Safety (both from memory).
"""

from collections.abc import Sequence
from typing import NamedTuple

import numpy as np

from urgens.physics.arrays import Array, Bools, Floats
from urgens.physics.atmosphere import SEA_LEVEL_DENSITY


class StaticVehicle(NamedTuple):
    """A vehicle as it stands and as the air presses on it; all of shapes that broadcast.

    `front_weight`, `rear_weight` axle loads at rest [N]; `transfer` centre-of-gravity height
    over wheelbase [-]; `front_press`, `rear_press` downforce [N]; `front_grip`, `rear_grip` the
    axles' grip factors: an axle's coefficient over the road's [-].
    """

    front_weight: Floats
    rear_weight: Floats
    transfer: Floats
    front_press: Floats = 0.0
    rear_press: Floats = 0.0
    front_grip: Floats = 1.0
    rear_grip: Floats = 1.0

    @property
    def weight(self) -> Floats:
        """Weight of the vehicle [N], which is what decelerates."""
        return self.front_weight + self.rear_weight

    @property
    def pressed(self) -> Floats:
        """Load of the vehicle on the road [N], with downforce."""
        return self.weight + self.front_press + self.rear_press

    @property
    def lifts(self) -> Floats:
        """Deceleration at which the rear wheels leave the ground [g]; inf where none does."""
        still = np.maximum(self.rear_weight + self.rear_press, 0.0)
        with np.errstate(divide="ignore"):
            return np.divide(still, self.weight * self.transfer)

    @property
    def plain(self) -> "StaticVehicle":
        """As published rules look at a vehicle: no downforce, all tyres alike."""
        return self._replace(front_press=0.0, rear_press=0.0, front_grip=1.0, rear_grip=1.0)


def downforce(speed: Floats, lift_area: Floats) -> Array:
    """Return the downforce [N] on an axle.

    speed: [m/s].
    lift_area: lift coefficient times area, down positive [m²].
    Source: dynamic pressure of standard air, 1.225 kg/m³ (ISO 2533).
    """
    return np.asarray(0.5 * SEA_LEVEL_DENSITY * np.square(speed) * lift_area)


def axle_loads(standing: StaticVehicle, deceleration: Floats) -> tuple[Array, Array]:
    """Return front and rear axle load [N]; a lifted rear comes out negative.

    standing: the vehicle at rest [N, -].
    deceleration: [g].
    Source: moments about the tyre contact.
    """
    shift = deceleration * standing.weight * standing.transfer
    front = standing.front_weight + standing.front_press + shift
    rear = standing.rear_weight + standing.rear_press - shift
    return np.asarray(front), np.asarray(rear)


def demand(front_force: Floats, rear_force: Floats, standing: StaticVehicle) -> Array:
    """Return the deceleration [g] while all wheels roll.

    front_force: of both front wheels [N].
    rear_force: of both rear wheels [N].
    standing: the vehicle at rest [N, -].
    Source: Newton's second law.
    """
    return np.asarray((front_force + rear_force) / standing.weight)


def adhesion(force: Floats, load: Floats) -> Array:
    """Return the adhesion used [-]; NaN where the axle carries nothing.

    force: of both wheels of the axle [N].
    load: on the axle [N].
    Source: definition.
    """
    carries = np.greater(load, 0.0)
    return np.where(carries, force / np.where(carries, load, 1.0), np.nan)


def road_used(
    forces: tuple[Floats, Floats], loads: tuple[Floats, Floats], standing: StaticVehicle
) -> tuple[Array, Array]:
    """Return the road's coefficient [-] that each axle needs; NaN where it carries nothing.

    forces: of the front and the rear axle [N].
    loads: on them [N].
    standing: the vehicle at rest [N, -].
    """
    front, rear = (adhesion(f, n) for f, n in zip(forces, loads, strict=True))
    return front / standing.front_grip, rear / standing.rear_grip


class Achieved(NamedTuple):
    """Deceleration on a surface [g] and which axles are limited by it."""

    deceleration: Array
    front_locked: Bools
    rear_locked: Bools


def achieved(
    front_force: Floats,
    rear_force: Floats,
    standing: StaticVehicle,
    surface: Floats,
) -> Achieved:
    """Return what the surface gives at most.

    front_force: that the front brakes could give [N].
    rear_force: that the rear brakes could give [N].
    standing: the vehicle at rest [N, -].
    surface: tyre-road coefficient [-].
    The four states in closed form; the one that is consistent is the root of the force balance.
    A rear that leaves the ground ends it, however much more the road gives.
    Source: force balance with each axle's force limited to its coefficient times its load.
    """
    found = states(front_force, rear_force, standing, surface)
    return consistent(found, [(front_force, rear_force)] * 4, standing, surface)


class States(NamedTuple):
    """Decelerations [g] with no axle sliding, the front alone, the rear alone, both."""

    rolling: Array
    front_only: Array
    rear_only: Array
    both: Array


def states(
    front_force: Floats,
    rear_force: Floats,
    standing: StaticVehicle,
    surface: Floats,
    kept: Floats = 1.0,
    fall: Floats = 0.0,
) -> States:
    """Return the decelerations of the four states, whichever of them there is.

    front_force, rear_force, standing, surface: as in `achieved` [N, -]; kept: share of its
    coefficient that a locked axle keeps [-]; fall: what the rear force loses for each g, where a
    valve behind feels the load [N].
    """
    weight, rear_mu = standing.weight, kept * surface * standing.rear_grip
    rear_still = standing.rear_weight + standing.rear_press
    rear_only = (front_force + rear_mu * rear_still) / (
        weight * (1.0 + rear_mu * standing.transfer)
    )
    return States(
        rolling=np.asarray((front_force + rear_force) / (weight + fall)),
        front_only=front_slides(rear_force, standing, surface, kept, fall),
        # A lifted rear passes nothing on, and the whole load stands on the front.
        rear_only=np.where(rear_only > standing.lifts, front_force / weight, rear_only),
        both=attainable(standing, kept * surface),
    )


def front_slides(
    rear_force: Floats,
    standing: StaticVehicle,
    surface: Floats,
    kept: Floats = 1.0,
    fall: Floats = 0.0,
) -> Array:
    """Return the deceleration [g] while the front alone slides; inf where the vehicle tips first.

    rear_force, standing, surface, kept, fall: as in `states` [N, -].
    """
    front_mu = kept * surface * standing.front_grip
    front_still = standing.front_weight + standing.front_press
    pitches = np.less(front_mu * standing.transfer, 1.0)
    left = np.where(pitches, 1.0 - front_mu * standing.transfer, 1.0)
    slides = (front_mu * front_still + rear_force) / (standing.weight * left + fall)
    return np.where(pitches, slides, np.inf)


def consistent(
    states: States,
    forces: Sequence[tuple[Floats, Floats]],
    standing: StaticVehicle,
    surface: Floats,
) -> Achieved:
    """Return the state that is what it says: what rolls is below its grip, what slides above.

    states: their decelerations [g]; forces: that both brakes could give in each of them [N];
    standing: the vehicle at rest [N, -]; surface: tyre-road coefficient [-].
    A rear that leaves the ground ends it.
    """
    (front, rear), (_, rear_beside), (front_beside, _), _ = forces
    held = grip(standing, states.rolling, surface)
    front_over, rear_over = np.asarray(front >= held[0]), np.asarray(rear >= held[1])
    rear_holds = rear_beside < grip(standing, states.front_only, surface)[1]
    front_holds = front_beside < grip(standing, states.rear_only, surface)[0]
    front_alone: Bools = np.asarray(front_over & rear_holds)
    rear_alone = rear_over & ~front_alone & front_holds
    rolls = ~(front_over | rear_over)
    both = ~(rolls | front_alone | rear_alone)
    one = np.where(front_alone, states.front_only, states.rear_only)
    deceleration = np.where(rolls, states.rolling, np.where(both, states.both, one))
    return ended_by_lift(Achieved(deceleration, front_alone | both, rear_alone | both), standing)


class Path(NamedTuple):
    """How the foot came there: whether an axle `locked` on the way, and whether the rear first.

    `rolled_again`: whether the rear, first, did so when the front locked too; None: as it is there.
    """

    locked: Bools
    rear_first: Bools
    rolled_again: Bools | None = None


def followed(
    states: States,
    forces: Sequence[tuple[Floats, Floats]],
    standing: StaticVehicle,
    surface: Floats,
    kept: Floats,
    path: Path,
) -> Achieved:
    """Return the state that a foot going up from rest comes to.

    states, forces: as in `consistent` [g, N]; standing: the vehicle at rest [N, -]; surface:
    tyre-road coefficient [-]; kept: share of it that a locked axle keeps [-]; path: which axle
    locked first on the way [-].
    That axle stays locked while its brakes ask for more than it keeps, and rolls below that; the
    other locks where its brakes come to all that its tyres pass while the first slides. A rear
    that locked first may roll again when the front locks too: less deceleration loads it.
    Source: force balance of each state; a tyre that slides passes less than one that rolls
    (Gillespie, Fundamentals of Vehicle Dynamics, from memory).
    """
    held = [grip(standing, z, surface) for z in states]
    first = path.locked & ~path.rear_first & (forces[1][0] > kept * held[1][0])
    rear = path.locked & path.rear_first & (forces[2][1] > kept * held[2][1])
    front_too = rear & (forces[2][0] >= held[2][0])
    again = path.rolled_again
    if again is None:
        again = forces[3][1] <= kept * held[3][1]
    front = first | (front_too & again)
    both: Bools = np.asarray((front & (forces[1][1] >= held[1][1])) | (front_too & ~again))
    one = np.where(front, states.front_only, np.where(rear, states.rear_only, states.rolling))
    deceleration = np.where(both, states.both, one)
    rear_slides = both | (rear & ~front)
    return ended_by_lift(Achieved(deceleration, front | both, rear_slides), standing)


def ended_by_lift(achieved: Achieved, standing: StaticVehicle) -> Achieved:
    """Return what is achieved, no more than lifts the rear wheels; the front does not lock then.

    achieved: by the force balance alone [g]; standing: the vehicle at rest [N, -].
    Source: moments about the front tyre contact.
    """
    lifts = np.asarray(standing.lifts)
    lifted: Bools = np.asarray(achieved.deceleration >= lifts)
    return Achieved(
        np.minimum(achieved.deceleration, lifts),
        achieved.front_locked & (achieved.deceleration <= lifts),
        achieved.rear_locked | lifted,
    )


def attainable(standing: StaticVehicle, surface: Floats) -> Array:
    """Return the deceleration [g] with both axles at their limit on a surface.

    standing: the vehicle at rest [N, -].
    surface: tyre-road coefficient [-].
    Where the rear carries nothing then, the front's coefficient on the whole load.
    Source: force balance, each axle's coefficient times its load at that deceleration.
    """
    front_mu, rear_mu = surface * standing.front_grip, surface * standing.rear_grip
    front_still = standing.front_weight + standing.front_press
    rear_still = standing.rear_weight + standing.rear_press
    left = 1.0 - (front_mu - rear_mu) * standing.transfer
    held = np.greater(left, 0.0)
    both = (front_mu * front_still + rear_mu * rear_still) / standing.weight
    both = np.where(held, both / np.where(held, left, 1.0), np.inf)
    lifted = front_mu * standing.pressed / standing.weight
    return np.where(both > standing.lifts, lifted, both)


def grip(standing: StaticVehicle, deceleration: Floats, surface: Floats) -> tuple[Array, Array]:
    """Return the largest force [N] each axle can pass; a lifted rear's load stands in front.

    standing: the vehicle at rest [N, -].
    deceleration: [g].
    surface: tyre-road coefficient [-].
    Source: Coulomb friction on the axle loads.
    """
    front, rear = _carried(standing, deceleration)
    return surface * standing.front_grip * front, surface * standing.rear_grip * rear


def _carried(standing: StaticVehicle, deceleration: Floats) -> tuple[Array, Array]:
    """Return front and rear axle load [N], with a lifted rear's in front."""
    front, rear = axle_loads(standing, deceleration)
    return np.minimum(front, standing.pressed), np.maximum(rear, 0.0)


def ideal_forces(standing: StaticVehicle, deceleration: Floats) -> tuple[Array, Array]:
    """Return the axle forces [N] at which both axles use the same share of their grip.

    standing: the vehicle at rest [N, -].
    deceleration: [g].
    Source: each axle's force is the same road's coefficient times grip factor and load.
    """
    front, rear = _carried(standing, deceleration)
    front, rear = standing.front_grip * front, standing.rear_grip * rear
    road = deceleration * standing.weight / (front + rear)
    return np.asarray(road * front), np.asarray(road * rear)


def stopping_distance(speed: Floats, deceleration: Floats, delay: Floats = 0.0) -> Array:
    """Return the distance [m] to a stop; inf without deceleration.

    speed: at the start [m/s].
    deceleration: [g].
    delay: reaction and build-up time [s].
    Source: kinematics of constant deceleration.
    """
    slow = 2.0 * 9.80665 * np.asarray(deceleration, dtype=float)
    with np.errstate(divide="ignore", invalid="ignore"):
        braking = np.where(slow > 0.0, np.square(speed) / slow, np.inf)
    return np.asarray(np.multiply(speed, delay) + braking)


def in_a_corner(standing: StaticVehicle, surface: Floats, lateral: Floats) -> StaticVehicle:
    """Return the vehicle with the grip that cornering leaves; NaN where it leaves none.

    standing: the vehicle at rest [N, -].
    surface: tyre-road coefficient [-].
    lateral: acceleration to the side [g].
    Source: friction circle of each axle, an estimate.
    """
    left = (
        braking_coefficient_in_a_corner(surface * grip_factor, lateral) / surface
        for grip_factor in (standing.front_grip, standing.rear_grip)
    )
    front, rear = left
    return standing._replace(front_grip=front, rear_grip=rear)


def braking_coefficient_in_a_corner(surface: Floats, lateral: Floats) -> Array:
    """Return the coefficient [-] a friction circle leaves for braking; NaN beyond its edge.

    surface: tyre-road coefficient [-].
    lateral: acceleration to the side [g].
    Source: friction circle, an estimate.
    """
    left = np.square(surface) - np.square(lateral)
    return np.asarray(np.sqrt(np.where(left >= 0.0, left, np.nan)))


def front_lock_line(standing: StaticVehicle, surface: Floats, rear: Floats) -> Array:
    """Return the front axle force [N] at which the front locks, over the rear's.

    standing: load cases [N, -]; surface: tyre-road coefficient [-]; rear: axle force [N].
    Infinite where the load that moves forward outruns what the front takes.
    Source: Limpert, Brake Design and Safety, lines of constant front friction (from memory).
    """
    own = np.multiply(surface, standing.front_grip)
    moved = own * standing.transfer
    load = standing.front_weight + standing.front_press + standing.transfer * np.asarray(rear)
    with np.errstate(divide="ignore", invalid="ignore"):
        return np.asarray(np.where(moved < 1.0, own * load / (1.0 - moved), np.inf))


def rear_lock_line(standing: StaticVehicle, surface: Floats, front: Floats) -> Array:
    """Return the rear axle force [N] at which the rear locks, over the front's; none below zero.

    standing: load cases [N, -]; surface: tyre-road coefficient [-]; front: axle force [N].
    Source: Limpert, Brake Design and Safety, lines of constant rear friction (from memory).
    """
    load = standing.rear_weight + standing.rear_press - standing.transfer * np.asarray(front)
    own = np.multiply(surface, standing.rear_grip)
    return np.asarray(own * np.maximum(load, 0.0) / (1.0 + own * standing.transfer))
