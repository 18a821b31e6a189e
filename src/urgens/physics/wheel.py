"""What turns with the wheels: the brakes stop it beside the vehicle."""

import numpy as np

from urgens.physics.arrays import Array, Floats
from urgens.physics.atmosphere import GRAVITY

WHEEL_INERTIA = 1.2  # kg·m² of each wheel with its tyre and disc or drum: assumed
AXLE_INERTIA = 2.0 * WHEEL_INERTIA


def turning_share(weight: Floats, radius: Floats) -> Array:
    """Return what an axle's wheels add to the vehicle's mass while they roll [-].

    weight: of the vehicle [N]; radius: rolling radius of the axle's tyres [m].
    Source: kinetic energy: J/r² of both wheels beside the mass (Gillespie, Fundamentals of
    Vehicle Dynamics, from memory).
    """
    return np.asarray(AXLE_INERTIA * GRAVITY / (weight * np.square(radius)))
