"""Reading what a builder typed: fractions, mixed fractions, feet and inches, units."""

import math
import re
from dataclasses import dataclass
from functools import lru_cache

from urgens.quantity.kinds import MASS_EXPONENTS, QuantityKind
from urgens.quantity.spelling import (
    FOOT_MARKS,
    INCH_MARKS,
    with_plain_fractions,
    with_pounds_of_force,
)
from urgens.quantity.units import STANDARD_GRAVITY, Unit, unit

_NUMBER = re.compile(
    r"""(?P<sign>[-+−]?)\s*
    (?: (?P<whole>\d+)(?:\s+|-\s*)(?P<over>\d+)\s*/\s*(?P<under>\d+)
      | (?P<num>\d+)\s*/\s*(?P<den>\d+)
      | (?P<decimal>(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?)
    )\s*(?P<unit>.*)""",
    re.VERBOSE | re.DOTALL,
)
_FEET_AND_INCHES = re.compile(
    r"(?P<feet>\d+)\s*(?:ft|foot|feet|'|′|’|‘)\s*(?P<inches>\d.*?)\s*"
    r"(?:in|inch|inches|\"|″|''|”|“|′′|’’)",
    re.IGNORECASE,
)
# A minus behind a space: of a whole number and a fraction, which a size has as well.
_LESS = re.compile(
    r"(?P<whole>\d+)\s+[-−]\s*(?P<over>\d+)\s*/\s*(?P<under>[1-9]\d*)(?P<unit>[^\d/]*)"
)
SIZES = 3  # whole inches up to which such a pair may be one size that is sold
_COMMA = re.compile(r"(?<=\d),(?=\d)")
# What may be thousands as well: three digits behind, and no nought before
_THOUSANDS = re.compile(r"(?<![\d.,])[1-9]\d{0,2}(?:,\d{3})+(?![\d,])")
LONGEST = 60  # characters; nothing a builder types for one figure is longer


class QuantityError(ValueError):
    """A figure that cannot be read: what is wrong, and what would be right."""

    def __init__(self, problem: str, remedy: str) -> None:
        super().__init__(f"{problem}; {remedy}")
        self.problem = problem
        self.remedy = remedy


@dataclass(frozen=True, slots=True)
class Quantity:
    """A figure as typed: `text` is kept, `value` is in the SI unit of `kind`."""

    text: str
    value: float
    kind: QuantityKind


@lru_cache(maxsize=4096)
def parse(text: str, kind: QuantityKind) -> Quantity:
    """Read `text` as a quantity of `kind`.

    Raises QuantityError where there is no number, no unit, an unknown unit or another dimension.
    """
    typed = with_plain_fractions(text)
    remedy = (
        f'write {kind.noun} with its unit ({_listed(kind.units)}), for example "{kind.example}"'
    )
    if not typed:
        raise QuantityError("nothing is typed here", remedy)
    if len(typed) > LONGEST:
        raise QuantityError(f'"{typed[:20]}…" is {len(typed)} characters long', remedy)
    typed = with_point(typed)
    both = _FEET_AND_INCHES.fullmatch(typed)
    if both:
        inches = parse(f"{both['inches']} in", kind)
        return Quantity(text, parse(f"{both['feet']} ft", kind).value + inches.value, kind)
    less = less_a_fraction(typed)
    if less != typed:
        return Quantity(text, parse(less, kind).value, kind)
    match = _NUMBER.fullmatch(typed)
    if match is None:
        raise QuantityError(f'"{typed}" is not a figure', remedy)
    factor, offset = _unit(match["unit"].strip(), typed, kind, remedy)
    value = _number(match, typed, remedy) * factor + offset
    smallest, largest = kind.bounds
    if not math.isfinite(value) or abs(value) > largest:
        raise QuantityError(f'"{typed}" is larger than anything on a vehicle', remedy)
    if 0 < abs(value) < smallest:
        raise QuantityError(f'"{typed}" is smaller than anything on a vehicle', remedy)
    return Quantity(text, value, kind)


def with_point(text: str) -> str:
    """Return a text with a point for each decimal comma; text: as typed.

    Raises QuantityError where it may be one between thousands as well. Source: ISO 80000-1 has
    both signs for decimals, and neither for thousands.
    """
    thousands = _THOUSANDS.search(text)
    if thousands is not None:
        found = thousands[0]
        whole, point = found.replace(",", ""), found.replace(",", ".", 1).replace(",", "")
        raise QuantityError(f'"{found}" can be read in two ways', f"write {whole}, or {point}")
    return _COMMA.sub(".", text)


def decimal(text: str) -> float:
    """Return a number with a decimal point or comma [-]; text: as typed.

    Raises ValueError where it is none, in words where it can be read in two ways.
    Source: by definition.
    """
    return float(with_point(text.strip().replace("−", "-")))


def less_a_fraction(text: str) -> str:
    """Return a whole number less a fraction worked out; another text as it is.

    text: as typed, "48 - 3/4 in". Raises QuantityError where it may be one size that is sold.
    Source: arithmetic.
    """
    less = _LESS.fullmatch(with_plain_fractions(text))
    if less is None:
        return text
    whole, over, under = (int(less[name]) for name in ("whole", "over", "under"))
    if whole <= SIZES:
        rest = f"{whole * under - over}/{under}"
        raise QuantityError(
            f'"{text}" can be read in two ways', f"write {whole}-{over}/{under}, or {rest}"
        )
    return f"{whole - over / under:.9g} {less['unit'].strip()}".strip()


def _number(match: re.Match[str], typed: str, remedy: str) -> float:
    """Return the number in front of the unit."""
    under = match["under"] or match["den"]
    if under is not None and int(under) == 0:
        raise QuantityError(f'"{typed}" divides by zero', remedy)
    if match["whole"] is not None:
        size = int(match["whole"]) + int(match["over"]) / int(match["under"])
    elif match["num"] is not None:
        size = int(match["num"]) / int(match["den"])
    else:
        size = float(match["decimal"])
    return -size if match["sign"] in ("-", "−") else size


def _unit(name: str, typed: str, kind: QuantityKind, remedy: str) -> tuple[float, float]:
    """Return factor and offset from the unit called `name` to the SI unit of `kind`."""
    if not name:
        raise QuantityError(f'"{typed}" has no unit', remedy)
    name = "in" if name in INCH_MARKS else "ft" if name in FOOT_MARKS else name
    found: Unit | None = unit(name)
    if found is None:
        raise QuantityError(f'"{name}" is not a unit known here', remedy)
    in_force = with_pounds_of_force(name)
    if found.exponents != kind.exponents and in_force is not None and not kind.takes_mass:
        found = unit(in_force) or found
    if found.exponents == kind.exponents:
        return found.factor, found.offset
    if kind.takes_mass and found.exponents == MASS_EXPONENTS:
        return found.factor * STANDARD_GRAVITY, 0.0
    raise QuantityError(f'"{typed}" is not {kind.noun}', remedy)


def _listed(words: tuple[str, ...]) -> str:
    return words[0] if len(words) == 1 else ", ".join(words[:-1]) + " or " + words[-1]
