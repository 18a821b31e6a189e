"""A steel line as the fluid flows through it."""

import numpy as np

from urgens.physics.arrays import Array, Floats


def pressure_drop(viscosity: Floats, length: Floats, flow: Floats, bore: Floats) -> Array:
    """Return the pressure lost along a line [Pa] while fluid flows; none at a held pedal.

    viscosity: dynamic [Pa·s]; length: [m]; flow: [m³/s]; bore: inside [m].
    Source: Hagen-Poiseuille, laminar.
    """
    return np.asarray(128.0 * np.multiply(viscosity, length) * flow / (np.pi * np.power(bore, 4)))
