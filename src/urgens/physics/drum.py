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
