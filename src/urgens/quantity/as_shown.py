"""A figure as a builder reads it: as it was typed, where that is in the unit shown."""

import re
from typing import Literal

from urgens.quantity.display import (
    ShownFigure,
    Units,
    UnitSystem,
    in_units,
    printed,
    show,
    unit_shown,
)
from urgens.quantity.kinds import QuantityKind
from urgens.quantity.quantity import Quantity, parse
from urgens.quantity.spelling import FOOT_MARKS, INCH_MARKS

_BRACED = re.compile(r"\{([^}]+)\}")
_TYPED = re.compile(r"(?P<number>.*\d)\s*(?P<unit>\D+)")


def in_words(words: str, kind: QuantityKind, units: Units | UnitSystem) -> str:
    """Return words in which each {quantity} is written in the units shown.

    words: "about {130 psi}" [text]; kind: of all of them.
    Raises QuantityError where one is none.
    Source: by definition.
    """
    return _BRACED.sub(lambda found: str(show(parse(found[1], kind).value, kind, units)), words)


def shown(
    value: object, kind: QuantityKind | Literal["text"] | None, units: Units | UnitSystem
) -> ShownFigure:
    """Return a figure as typed where its unit is the one shown, else converted.

    value: of a build, None where there is none [any]; kind: of it.
    Source: common practice: nobody reads 15/16 in as 0.9375.
    """
    if value is None:
        return ShownFigure("—", "")
    if not isinstance(value, Quantity):
        return ShownFigure(value if isinstance(value, str) else f"{value:g}", "")
    unit = unit_shown(value.kind, units)
    typed, named = _TYPED.fullmatch(value.text.strip()), unit_typed(value.text)
    if typed is not None:
        if named == unit and any(mark in typed["number"] for mark in FOOT_MARKS):
            return ShownFigure(value.text.strip(), "")  # 9'7" says its units itself
        if named == unit and "ft" not in typed["number"]:
            return ShownFigure(_with_thousands(typed["number"]), printed(unit))
    figure = show(value.value, value.kind, units)
    if value.value and not figure.number.strip("0.−-"):  # smaller than is usually shown
        return ShownFigure(f"{value.value / in_units(value.kind, units):.2g}", figure.unit)
    if "." in figure.number:
        return ShownFigure(figure.number.rstrip("0").rstrip("."), figure.unit)
    return figure


def unit_typed(text: str) -> str:
    """Return the unit that a figure is typed with, an inch mark as inches; empty without one.

    text: as typed. Source: by definition.
    """
    typed = _TYPED.fullmatch(text.strip())
    if typed is None:
        return ""
    return "in" if typed["unit"].strip() in INCH_MARKS else typed["unit"].strip()


def _with_thousands(number: str) -> str:
    """Return a plain number as typed, its thousands apart as in every other figure."""
    whole, point, rest = number.partition(".")
    return f"{int(whole):,}{point}{rest}" if whole.isdigit() and len(whole) > 3 else number
