"""Fluid volumes and the strokes they take."""

import numpy as np

from urgens.physics.arrays import Array, Floats
from urgens.physics.atmosphere import SEA_LEVEL_PRESSURE

CLEARANCE_PRESSURE = 50e3  # Pa over which running clearance is taken up, so that curves are smooth


def brake_volume(
    pressure: Floats,
    clearance_volume: Floats,
    compliance: Floats,
    take_up: Floats = CLEARANCE_PRESSURE,
) -> Array:
    """Return the fluid [m³] one wheel brake takes.

    pressure: at the wheel [Pa].
    clearance_volume: to bring pads or shoes into contact [m³].
    compliance: volume per pressure of the parts that give way [m³/Pa].
    take_up: pressure at which the clearance is gone [Pa].
    Source: continuity; linear elastic parts.
    """
    share = np.minimum(np.divide(pressure, take_up), 1.0)
    return np.asarray(share * clearance_volume + np.multiply(compliance, pressure))


def hose_volume(pressure: Floats, length: Floats, expansion: Floats) -> Array:
    """Return the fluid [m³] hoses take by swelling.

    pressure: in them [Pa].
    length: [m].
    expansion: volume per length and pressure [m³/(m·Pa)].
    Source: linear expansion, as tested by FMVSS 106.
    """
    return np.asarray(np.multiply(expansion, length) * pressure)


def fluid_volume(pressure: Floats, volume: Floats, bulk_modulus: Floats) -> Array:
    """Return the volume [m³] by which the fluid itself shrinks.

    pressure: gauge [Pa].
    volume: of the fluid [m³].
    bulk_modulus: [Pa].
    Source: definition of the bulk modulus.
    """
    return np.asarray(np.divide(volume, bulk_modulus) * pressure)


def air_volume(pressure: Floats, trapped: Floats) -> Array:
    """Return the volume [m³] by which trapped air shrinks.

    pressure: gauge [Pa].
    trapped: air at atmospheric pressure [m³].
    Source: Boyle's law, isothermal.
    """
    return np.asarray(trapped * (1.0 - SEA_LEVEL_PRESSURE / np.add(SEA_LEVEL_PRESSURE, pressure)))


def wear_volume(piston_area: Floats, thickness: Floats) -> Array:
    """Return the fluid [m³] one disc brake takes from the reservoir as its two pads wear out.

    piston_area: all pistons of one side [m²]; thickness: of one pad's lining [m].
    Source: continuity; a sliding caliper's piston follows both pads, an opposed one has a second
    side that follows the other.
    """
    return np.asarray(2.0 * np.multiply(piston_area, thickness))
