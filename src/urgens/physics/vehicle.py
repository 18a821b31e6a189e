"""The vehicle: loads, deceleration, grip used and locking.

Source: force and moment balance of the braked vehicle, as in Gillespie, Fundamentals of Vehicle
Dynamics, chapter 3, and Limpert, Brake Design and Safety (both from memory).
"""

from typing import NamedTuple

import numpy as np

from urgens.physics.arrays import Array, Bools, Floats
from urgens.physics.atmosphere import SEA_LEVEL_DENSITY


class Standing(NamedTuple):
    """A vehicle as it stands and as the air presses on it; all of shapes that broadcast.

    `front_weight`, `rear_weight` axle loads at rest [N]; `transfer` centre-of-gravity height
    over wheelbase [-]; `front_press`, `rear_press` downforce [N].
    """

    front_weight: Floats
    rear_weight: Floats
    transfer: Floats
    front_press: Floats = 0.0
    rear_press: Floats = 0.0

    @property
    def weight(self) -> Floats:
        """Weight of the vehicle [N], which is what decelerates."""
        return self.front_weight + self.rear_weight

    @property
    def pressed(self) -> Floats:
        """Load of the vehicle on the road [N], with downforce."""
        return self.weight + self.front_press + self.rear_press


def downforce(speed: Floats, lift_area: Floats) -> Array:
    """Return the downforce [N] on an axle.

    speed: [m/s].
    lift_area: lift coefficient times area, down positive [m²].
    Source: dynamic pressure of standard air, 1.225 kg/m³ (ISO 2533).
    """
    return np.asarray(0.5 * SEA_LEVEL_DENSITY * np.square(speed) * lift_area)


def axle_loads(standing: Standing, deceleration: Floats) -> tuple[Array, Array]:
    """Return front and rear axle load [N]; a lifted rear comes out negative.

    standing: the vehicle at rest [N, -].
    deceleration: [g].
    Source: moments about the tyre contact.
    """
    shift = deceleration * standing.weight * standing.transfer
    front = standing.front_weight + standing.front_press + shift
    rear = standing.rear_weight + standing.rear_press - shift
    return np.asarray(front), np.asarray(rear)


def demand(front_force: Floats, rear_force: Floats, standing: Standing) -> Array:
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


class Achieved(NamedTuple):
    """Deceleration on a surface [g] and which axles are limited by it."""

    deceleration: Array
    front_locked: Bools
    rear_locked: Bools


def achieved(
    front_force: Floats, rear_force: Floats, standing: Standing, surface: Floats
) -> Achieved:
    """Return what the surface lets the brakes achieve.

    front_force: that the front brakes could give [N].
    rear_force: that the rear brakes could give [N].
    standing: the vehicle at rest [N, -].
    surface: tyre-road coefficient [-].
    The four states in closed form; the one that is consistent is the root of the force balance.
    Source: force balance with each axle's force limited to surface times load.
    """
    weight, transfer = standing.weight, standing.transfer
    front_still = standing.front_weight + standing.front_press
    rear_still = standing.rear_weight + standing.rear_press
    rolling = demand(front_force, rear_force, standing)
    pitches = np.less(surface * transfer, 1.0)  # else the vehicle tips before the front slides
    left = np.where(pitches, 1.0 - surface * transfer, 1.0)
    slides = (surface * front_still + rear_force) / (weight * left)
    front_only = np.where(pitches, slides, np.inf)
    rear_only = (front_force + surface * rear_still) / (weight * (1.0 + surface * transfer))
    # A lifted rear passes nothing on, and the whole load stands on the front.
    lift = rear_still / (weight * transfer)
    rear_only = np.where(rear_only > lift, front_force / weight, rear_only)
    both = surface * standing.pressed / weight

    front_grip, rear_grip = grip(standing, rolling, surface)
    front_over, rear_over = front_force >= front_grip, rear_force >= rear_grip
    _, rear_grip_front_only = grip(standing, front_only, surface)
    front_grip_rear_only, _ = grip(standing, rear_only, surface)
    rolls = ~(front_over | rear_over)
    front_alone = front_over & (rear_force < rear_grip_front_only)
    rear_alone = rear_over & ~front_alone & (front_force < front_grip_rear_only)
    locked_both = ~(rolls | front_alone | rear_alone)
    one_locked = np.where(front_alone, front_only, rear_only)
    deceleration = np.where(rolls, rolling, np.where(locked_both, both, one_locked))
    return Achieved(deceleration, front_alone | locked_both, rear_alone | locked_both)


def grip(standing: Standing, deceleration: Floats, surface: Floats) -> tuple[Array, Array]:
    """Return the largest force [N] each axle can pass; a lifted rear's load stands in front.

    standing: the vehicle at rest [N, -].
    deceleration: [g].
    surface: tyre-road coefficient [-].
    Source: Coulomb friction on the axle loads.
    """
    front, rear = axle_loads(standing, deceleration)
    return surface * np.minimum(front, standing.pressed), surface * np.maximum(rear, 0.0)


def ideal_forces(standing: Standing, deceleration: Floats) -> tuple[Array, Array]:
    """Return the axle forces [N] at which both axles use the same adhesion.

    standing: the vehicle at rest [N, -].
    deceleration: [g].
    Source: each axle's force is deceleration times its load (without downforce).
    """
    front, rear = axle_loads(standing, deceleration)
    share = deceleration * standing.weight / standing.pressed
    return np.asarray(share * front), np.asarray(share * np.maximum(rear, 0.0))


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


def braking_coefficient_in_a_corner(surface: Floats, lateral: Floats) -> Array:
    """Return the coefficient [-] a friction circle leaves for braking; NaN beyond its edge.

    surface: tyre-road coefficient [-].
    lateral: acceleration to the side [g].
    Source: friction circle, an estimate.
    """
    left = np.square(surface) - np.square(lateral)
    return np.asarray(np.sqrt(np.where(left >= 0.0, left, np.nan)))


def front_lock_line(standing: Standing, surface: Floats, rear: Floats) -> Array:
    """Return the front axle force [N] at which the front locks, over the rear's.

    standing: load cases [N, -]; surface: tyre-road coefficient [-]; rear: axle force [N].
    Infinite where the load that moves forward outruns what the front takes.
    Source: Limpert, Brake Design and Safety, lines of constant front friction (from memory).
    """
    moved = np.multiply(surface, standing.transfer)
    load = standing.front_weight + standing.front_press + standing.transfer * np.asarray(rear)
    with np.errstate(divide="ignore", invalid="ignore"):
        return np.asarray(np.where(moved < 1.0, surface * load / (1.0 - moved), np.inf))


def rear_lock_line(standing: Standing, surface: Floats, front: Floats) -> Array:
    """Return the rear axle force [N] at which the rear locks, over the front's; none below zero.

    standing: load cases [N, -]; surface: tyre-road coefficient [-]; front: axle force [N].
    Source: Limpert, Brake Design and Safety, lines of constant rear friction (from memory).
    """
    load = standing.rear_weight + standing.rear_press - standing.transfer * np.asarray(front)
    moved = np.multiply(surface, standing.transfer)
    return np.asarray(surface * np.maximum(load, 0.0) / (1.0 + moved))
