"""Inch fractions, as they are stamped on cylinders."""

from fractions import Fraction

from urgens.quantity.units import INCH

TOLERANCE = 0.0005  # in; closer than bores are made


def inch_fraction(length: float, denominator: int = 64) -> str | None:
    """Return `length` [m] as an inch fraction ("1-1/16"), or None where no fraction is near.

    `denominator` [-] is the finest fraction of an inch that is tried.
    """
    inches = length / INCH
    sixty_fourths = round(inches * denominator)
    if sixty_fourths <= 0 or abs(inches - sixty_fourths / denominator) > TOLERANCE:
        return None
    return _mixed(Fraction(sixty_fourths, denominator))


def nearest_fraction(length: float, denominator: int = 16) -> str:
    """Return `length` [m] as the nearest inch fraction on a rule ("2-1/4").

    `denominator` [-] is the finest fraction of an inch on the rule.
    """
    return _mixed(Fraction(round(length / INCH * denominator), denominator))


def _mixed(inches: Fraction) -> str:
    whole, rest = divmod(inches, 1)
    if not rest:
        return str(whole)
    return f"{whole}-{rest}" if whole else str(rest)
