"""The units of the build file: their size in SI and their dimension.

Definitions: the international yard and pound (1959), the standard acceleration of gravity
(CGPM 1901), SI Brochure for the rest; the inch of mercury is the conventional one at 0 °C.
"""

import re
from dataclasses import dataclass
from functools import lru_cache

from urgens.quantity.spelling import SPELLINGS

Exponents = tuple[int, int, int, int]  # of metre, kilogram, second, kelvin

INCH = 0.0254  # m, exact
POUND = 0.45359237  # kg, exact
STANDARD_GRAVITY = 9.80665  # m/s², exact
POUND_FORCE = POUND * STANDARD_GRAVITY  # N
PSI = POUND_FORCE / INCH**2  # Pa
INCH_OF_MERCURY = 3386.389  # Pa, at 0 °C

NUMBER: Exponents = (0, 0, 0, 0)
METRE: Exponents = (1, 0, 0, 0)
CUBIC_METRE: Exponents = (3, 0, 0, 0)
KILOGRAM: Exponents = (0, 1, 0, 0)
NEWTON: Exponents = (1, 1, -2, 0)
PASCAL: Exponents = (-1, 1, -2, 0)
METRE_PER_SECOND: Exponents = (1, 0, -1, 0)
KELVIN: Exponents = (0, 0, 0, 1)


@dataclass(frozen=True, slots=True)
class Unit:
    """A unit: `factor`, then `offset`, turn a number of it into SI."""

    factor: float
    exponents: Exponents
    offset: float = 0.0


_UNITS: dict[str, Unit] = {
    **{name: Unit(factor, METRE) for name, factor in {
        "m": 1.0, "cm": 1e-2, "mm": 1e-3, "in": INCH, "ft": 12 * INCH}.items()},
    **{name: Unit(factor, KILOGRAM) for name, factor in {
        "kg": 1.0, "g": 1e-3, "lb": POUND}.items()},
    **{name: Unit(factor, NEWTON) for name, factor in {
        "N": 1.0, "kN": 1e3, "lbf": POUND_FORCE, "kgf": STANDARD_GRAVITY}.items()},
    **{name: Unit(factor, PASCAL) for name, factor in {
        "Pa": 1.0, "kPa": 1e3, "MPa": 1e6, "GPa": 1e9, "bar": 1e5, "mbar": 1e2,
        "psi": PSI, "inHg": INCH_OF_MERCURY, "mmHg": INCH_OF_MERCURY / 25.4}.items()},
    **{name: Unit(factor, CUBIC_METRE) for name, factor in {
        "l": 1e-3, "L": 1e-3, "ml": 1e-6, "fl_oz": 29.5735295625e-6}.items()},
    **{name: Unit(factor, METRE_PER_SECOND) for name, factor in {
        "mph": 1609.344 / 3600.0}.items()},
    "Nm": Unit(1.0, (2, 1, -2, 0)),
    "s": Unit(1.0, (0, 0, 1, 0)),
    "ms": Unit(1e-3, (0, 0, 1, 0)),
    "h": Unit(3600.0, (0, 0, 1, 0)),
    "K": Unit(1.0, KELVIN),
    "°C": Unit(1.0, KELVIN, 273.15),
    "°F": Unit(5.0 / 9.0, KELVIN, 459.67 * 5.0 / 9.0),
    "km": Unit(1e3, METRE),
    "deg": Unit(0.017453292519943295, NUMBER),
    "°": Unit(0.017453292519943295, NUMBER),
    "rad": Unit(1.0, NUMBER),
}  # fmt: skip

_ANY_CASE = {name.lower(): name for name in reversed(_UNITS)}  # none differs by case alone


def _named(name: str) -> Unit | None:
    """Return a unit by its name in any case, or by another spelling of it."""
    found = _UNITS.get(name)
    if found is None:
        lower = " ".join(name.lower().replace(".", " ").split())
        found = _UNITS.get(_ANY_CASE.get(lower, SPELLINGS.get(lower, "")))
    return found


_TOKENS = re.compile(r"\s*([/*·.-])\s*|(?<=\w)\s+(?=\w)")
_FACTOR = re.compile(r"(?P<name>[A-Za-z_°]+)(?:\^?(?P<power>[1-9])|(?P<mark>[²³]))?")


@lru_cache(maxsize=512)
def unit(text: str) -> Unit | None:
    """Return the unit written as `text` ("psi", "cm^3/MPa", "lbf.ft"), or None if it is none."""
    alone = _named(text.strip())
    if alone is not None:
        return alone
    spelt = SPELLINGS.get(text.strip().lower())
    if spelt is not None:
        return unit(spelt)
    factor, exponents = 1.0, [0, 0, 0, 0]
    sign = 1
    for token in filter(None, _TOKENS.split(text.strip())):
        if token in ("*", "·", ".", "-"):
            sign = 1  # read from left to right: a/b.c is (a/b) times c
            continue
        if token == "/":
            sign = -1
            continue
        match = _FACTOR.fullmatch(token)
        base = _named(match["name"]) if match else None
        if match is None or base is None or base.offset:  # no product of a temperature scale
            return None
        power = sign * int(match["power"] or {"²": 2, "³": 3}.get(match["mark"] or "", 1))
        factor *= base.factor**power
        exponents = [e + power * b for e, b in zip(exponents, base.exponents, strict=True)]
    length, mass, time, warmth = exponents
    return Unit(factor, (length, mass, time, warmth))
