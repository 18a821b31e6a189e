"""Disc brakes."""

import numpy as np

from urgens.physics.arrays import Array, Floats


def effective_radius(inner: Floats, outer: Floats) -> Array:
    """Return the radius [m] at which the pad's friction acts, with uniform wear.

    inner: of the pad [m].
    outer: of the pad [m].
    Source: Shigley, Mechanical Engineering Design, caliper brakes, uniform wear (from memory).
    """
    return np.asarray(np.add(inner, outer) / 2.0)


def even_pressure_radius(inner: Floats, outer: Floats) -> Array:
    """Return the radius [m] at which the pad's friction acts, with even pressure: a new pad.

    inner: of the pad [m].
    outer: of the pad [m].
    Source: Shigley, Mechanical Engineering Design, disc clutches, uniform pressure (from memory).
    """
    cubes = np.power(outer, 3) - np.power(inner, 3)
    return np.asarray(2.0 / 3.0 * cubes / (np.square(outer) - np.square(inner)))


def clamp_force(pressure: Floats, piston_area: Floats, threshold: Floats = 0.0) -> Array:
    """Return the force on each pad [N].

    pressure: at the wheel [Pa].
    piston_area: of all pistons on one side of the disc [m²].
    threshold: pressure taken up before the pads press [Pa].
    Source: Pascal's law.
    """
    return np.asarray(np.maximum(np.subtract(pressure, threshold), 0.0) * piston_area)


def torque_per_pressure(
    piston_area: Floats, friction: Floats, radius: Floats, efficiency: Floats = 1.0
) -> Array:
    """Return one wheel's torque per pressure above the threshold [m³].

    piston_area: of all pistons on one side of the disc [m²].
    friction: pad coefficient [-].
    radius: effective radius [m].
    efficiency: share of the force that guides and seals leave [-].
    Source: Coulomb friction on two pad faces.
    """
    return np.asarray(2.0 * friction * piston_area * radius * efficiency)
