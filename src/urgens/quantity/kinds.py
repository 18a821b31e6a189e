"""The kinds of quantity a build holds: what each measures and which units fit it."""

from dataclasses import dataclass

from urgens.quantity.units import (
    CUBIC_METRE,
    KELVIN,
    KILOGRAM,
    METRE,
    METRE_PER_SECOND,
    NEWTON,
    NUMBER,
    PASCAL,
    Exponents,
)


@dataclass(frozen=True, slots=True)
class QuantityKind:
    """A kind of quantity.

    `noun` is what an error calls it, `si` its SI unit, `units` the ones an error proposes and
    `example` something a builder could type. `bounds` are the smallest size above zero and the
    largest, in SI, that anything on a vehicle could have: beyond them it is a slip of the hand.
    """

    noun: str
    si: str
    exponents: Exponents
    units: tuple[str, ...]
    example: str
    bounds: tuple[float, float]
    takes_mass: bool = False  # a mass stands for its weight


LENGTH = QuantityKind(
    "a length", "m", METRE, ("in", "mm", "cm", "m", "ft"), "1-1/16 in", bounds=(1e-6, 1e4)
)
DISTANCE = QuantityKind("a distance", "m", METRE, ("ft", "m"), "210 ft", bounds=(1e-3, 1e6))
FORCE = QuantityKind(
    "a force", "N", NEWTON, ("lbf", "N", "kN", "kgf"), "75 lbf", bounds=(1e-3, 1e7)
)
LOAD = QuantityKind(
    "a load",
    "N",
    NEWTON,
    ("kg", "lb", "N", "kN", "lbf", "kgf"),
    "372 kg",
    bounds=(1e-1, 1e8),
    takes_mass=True,
)
PRESSURE = QuantityKind(
    "a pressure",
    "Pa",
    PASCAL,
    ("psi", "bar", "kPa", "MPa", "mbar", "inHg"),
    "275 psi",
    bounds=(1e-1, 1e12),
)
AREA = QuantityKind(
    "an area", "m^2", (2, 0, 0, 0), ("m^2", "cm^2", "in^2"), "0.10 m^2", bounds=(1e-9, 1e4)
)
VOLUME = QuantityKind(
    "a volume",
    "m^3",
    CUBIC_METRE,
    ("cm^3", "ml", "in^3", "fl_oz", "l"),
    "250 cm^3",
    bounds=(1e-12, 1e2),
)
COMPLIANCE = QuantityKind(
    "a volume per pressure",
    "m^3/Pa",
    (4, -1, 2, 0),
    ("cm^3/MPa", "in^3/psi"),
    "0.1 cm^3/MPa",
    bounds=(1e-20, 1e-6),
)
HOSE_EXPANSION = QuantityKind(
    "a volume per length and pressure",
    "m^3/m/Pa",
    (3, -1, 2, 0),
    ("cm^3/m/MPa", "in^3/ft/psi"),
    "0.30 cm^3/m/MPa",
    bounds=(1e-20, 1e-6),
)
SPEED = QuantityKind(
    "a speed", "m/s", METRE_PER_SECOND, ("mph", "km/h", "m/s"), "60 mph", bounds=(1e-3, 1e3)
)
TORQUE = QuantityKind(
    "a torque", "N.m", (2, 1, -2, 0), ("N.m", "lbf.ft", "lbf.in"), "320 lbf.ft", bounds=(1e-3, 1e7)
)

SPRING_RATE = QuantityKind(
    "a force per length",
    "N/m",
    (0, 1, -2, 0),
    ("lbf/in", "N/mm", "N/m"),
    "120 lbf/in",
    bounds=(1e-1, 1e9),
)
MASS = QuantityKind("a mass", "kg", KILOGRAM, ("kg", "lb", "g"), "7.5 kg", bounds=(1e-6, 1e7))
ANGLE = QuantityKind("an angle", "rad", NUMBER, ("deg", "°", "rad"), "12 deg", bounds=(1e-6, 1e3))
TIME = QuantityKind("a time", "s", (0, 0, 1, 0), ("s", "ms"), "0.5 s", bounds=(1e-6, 1e6))
TEMPERATURE = QuantityKind(
    "a temperature", "K", KELVIN, ("°C", "°F", "K"), "230 °C", bounds=(1.0, 5e3)
)

# Those that are shown in a unit system.
KINDS = (
    LENGTH,
    PRESSURE,
    FORCE,
    LOAD,
    TORQUE,
    AREA,
    VOLUME,
    COMPLIANCE,
    HOSE_EXPANSION,
    SPRING_RATE,
    DISTANCE,
    SPEED,
)
MASS_EXPONENTS = KILOGRAM
