"""What a builder types and reads: text in, SI inside, the text kept."""

from urgens.quantity.display import Shown, Units, UnitSystem, in_units, retype, show, written
from urgens.quantity.fraction import inch_fraction, nearest_fraction
from urgens.quantity.kinds import (
    ANGLE,
    AREA,
    COMPLIANCE,
    DISTANCE,
    FORCE,
    HOSE_EXPANSION,
    LENGTH,
    LOAD,
    MASS,
    PRESSURE,
    SPEED,
    TEMPERATURE,
    TIME,
    TORQUE,
    VOLUME,
    Kind,
)
from urgens.quantity.quantity import Quantity, QuantityError, parse

__all__ = [
    "ANGLE",
    "AREA",
    "COMPLIANCE",
    "DISTANCE",
    "FORCE",
    "HOSE_EXPANSION",
    "LENGTH",
    "LOAD",
    "MASS",
    "PRESSURE",
    "SPEED",
    "TEMPERATURE",
    "TIME",
    "TORQUE",
    "VOLUME",
    "Kind",
    "Quantity",
    "QuantityError",
    "Shown",
    "UnitSystem",
    "Units",
    "in_units",
    "inch_fraction",
    "nearest_fraction",
    "parse",
    "retype",
    "show",
    "written",
]
