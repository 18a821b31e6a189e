"""The air around the car."""

import numpy as np

from urgens.physics.arrays import Array, Floats

SEA_LEVEL_PRESSURE = 101325.0  # Pa
SEA_LEVEL_TEMPERATURE = 288.15  # K
LAPSE = 0.0065  # K/m
GAS_CONSTANT = 287.05287  # J/(kg K), of dry air
SEA_LEVEL_DENSITY = 1.225  # kg/m³
GRAVITY = 9.80665  # m/s²


def air_pressure(altitude: Floats) -> Array:
    """Return the pressure [Pa] of the standard atmosphere below 11 km.

    altitude: geopotential altitude [m].
    Source: ISO 2533, troposphere.
    """
    warmth = 1.0 - LAPSE * np.asarray(altitude, dtype=float) / SEA_LEVEL_TEMPERATURE
    return np.asarray(SEA_LEVEL_PRESSURE * warmth ** (GRAVITY / (LAPSE * GAS_CONSTANT)))


def vacuum_at(vacuum: Floats, altitude: Floats) -> Array:
    """Return what an engine's vacuum read at sea level is at altitude [Pa], none at least.

    vacuum: depression at sea level [Pa]; altitude: geopotential [m].
    Source: ISO 2533, with the absolute pressure in the manifold unchanged: an estimate.
    """
    lost = SEA_LEVEL_PRESSURE - air_pressure(altitude)
    return np.asarray(np.maximum(np.subtract(vacuum, lost), 0.0))
