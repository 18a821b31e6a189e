"""Drum brakes."""

import numpy as np

from urgens.physics.arrays import Array, Floats


def torque_per_pressure(
    cylinder_area: Floats, shoe_factor: Floats, drum_radius: Floats, efficiency: Floats = 1.0
) -> Array:
    """Return one wheel's torque per pressure above the threshold [m³].

    cylinder_area: of one wheel-cylinder piston [m²].
    shoe_factor: drum friction force of both shoes over the force on one shoe tip, C* [-].
    drum_radius: [m].
    efficiency: share of the force that the cylinder's seals leave [-].
    Source: definition of the shoe factor C*, Limpert, Brake Design and Safety (from memory).
    """
    return np.asarray(shoe_factor * cylinder_area * drum_radius * efficiency)


def shoe_moments(
    friction: Floats, radius: Floats, hinge_distance: Floats, heel: Floats, toe: Floats
) -> tuple[Array, Array]:
    """Return the moments of friction and of normal force about the hinge, for p_a w = 1 [m²].

    friction: lining coefficient [-]; radius: of the drum [m]; hinge_distance: hinge to drum
    centre [m]; heel: angle at which the lining starts [rad]; toe: at which it ends [rad].
    The largest pressure is at the toe, or at 90° where the lining goes beyond.
    Source: Shigley, Mechanical Engineering Design, internal expanding rim brakes (from memory),
    with the integrals in closed form.
    """
    scale = radius / _sine_at_largest(toe)
    turned = np.cos(heel) - np.cos(toe)
    halves = (np.square(np.sin(toe)) - np.square(np.sin(heel))) / 2.0
    frictional = friction * scale * (radius * turned - hinge_distance * halves)
    span = np.subtract(toe, heel) / 2.0 - (np.sin(2.0 * toe) - np.sin(2.0 * heel)) / 4.0
    return np.asarray(frictional), np.asarray(scale * hinge_distance * span)


def _sine_at_largest(toe: Floats) -> Array:
    return np.asarray(np.where(np.less(toe, np.pi / 2.0), np.sin(toe), 1.0))


def pinned_shoe_factor(
    friction: Floats,
    radius: Floats,
    hinge_distance: Floats,
    arm: Floats,
    heel: Floats,
    toe: Floats,
    *,
    two_leading: bool = False,
) -> Array:
    """Return the shoe factor C* of two pinned shoes pushed with equal force [-].

    friction: lining coefficient [-]; radius: of the drum [m]; hinge_distance: hinge to drum
    centre [m]; arm: hinge to the actuating force [m]; heel: lining starts [rad]; toe: lining
    ends [rad]; two_leading: both shoes lead instead of one leading and one trailing [bool].
    Raises ValueError where a leading shoe grabs: there is no figure for it.
    Source: Shigley, Mechanical Engineering Design, internal expanding rim brakes (from memory).
    """
    frictional, normal = shoe_moments(friction, radius, hinge_distance, heel, toe)
    if np.any(normal <= frictional):
        raise ValueError("the leading shoe grabs")
    drag = friction * np.square(radius) * (np.cos(heel) - np.cos(toe)) / _sine_at_largest(toe)
    leading = drag * arm / ((normal - frictional) * radius)
    trailing = drag * arm / ((normal + frictional) * radius)
    return np.asarray(2.0 * leading if two_leading else leading + trailing)
