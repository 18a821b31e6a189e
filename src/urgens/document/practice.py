"""Figures of the trade that sentences name: one table, said in the units that are shown."""

import re
from collections.abc import Mapping
from functools import cache

from urgens.data import practice_table
from urgens.document.model import TableRow
from urgens.quantity import (
    LENGTH,
    PRESSURE,
    SPEED,
    QuantityKind,
    Units,
    UnitSystem,
    parse,
    show,
    unit_shown,
)
from urgens.quantity.units import INCH

KINDS = {"mm": LENGTH, "bar": PRESSURE, "mbar": PRESSURE, "km/h": SPEED}
OF_INCHES = ("in", "psi", "mph")
EIGHTHS = {1: "⅛", 2: "¼", 3: "⅜", 4: "½", 5: "⅝", 6: "¾", 7: "⅞"}
_METRIC_THREAD = re.compile(r"M\s?\d+(?:\.\d+)?\s*[x×]\s*(\d+(?:\.\d+)?)", re.IGNORECASE)
_INCH_THREAD = re.compile(r"\d+(?:/\d+)?(?:\s?in)?\s*-\s*(\d+)")
# Of a pushrod whose own nobody has typed: common practice
USUAL_THREADS = ("M8 × 1.25", "3/8-24")


class PracticeFigure(TableRow):
    """A figure of the trade in the words of both unit systems, and what is found in practice."""

    says: str
    metric: str
    inch: str
    metric_range: str = ""
    inch_range: str = ""

    @property
    def kind(self) -> QuantityKind:
        """What it is a figure of."""
        return KINDS[self.metric.rpartition(" ")[2]]

    @property
    def value(self) -> float:
        """The figure as metric practice has it [SI]."""
        return parse(self.metric, self.kind).value

    def said(self, units: UnitSystem | Units) -> str:
        """Return the figure in words; units: to say it in."""
        shown = unit_shown(self.kind, units)
        if shown in OF_INCHES:
            return self.inch
        return self.metric if shown in KINDS else str(show(self.value, self.kind, units))

    def range_said(self, units: UnitSystem | Units) -> str:
        """Return what is found in practice, from and to; units: to say it in."""
        shown = unit_shown(self.kind, units)
        found = self.inch_range if shown in OF_INCHES else self.metric_range
        return found if found and shown in (*OF_INCHES, *KINDS) else self.said(units)


@cache
def practice() -> Mapping[str, PracticeFigure]:
    """Return the figures of the trade by their names.

    Source: common practice, as the file says.
    """
    return {name: PracticeFigure(**row) for name, row in practice_table().items()}


@cache
def practice_words(units: UnitSystem | Units) -> Mapping[str, str]:
    """Return what texts name by {name} and {name_range}; units: to say it in."""
    found = {name: one.said(units) for name, one in practice().items()}
    found |= {f"{name}_range": one.range_said(units) for name, one in practice().items()}
    return found


def pitch_of(thread: str) -> float | None:
    """Return the pitch of a thread [m], None where it is no thread.

    thread: as it is sold, such as M8 × 1.25 or 3/8-24 [text].
    Source: ISO 261 gives the pitch itself, ASME B1.1 the turns in an inch (from memory).
    """
    found = _METRIC_THREAD.fullmatch(thread.strip())
    if found is not None and float(found[1]) > 0.0:
        return float(found[1]) * 1e-3
    found = _INCH_THREAD.fullmatch(thread.strip())
    if found is not None and int(found[1]) > 0:
        return INCH / int(found[1])
    return None


def turns_of(gap: float, thread: str) -> str:
    """Return how far a nut is turned for a gap, in words: to an eighth of a turn.

    gap: wanted [m]; thread: of the rod, one that has a pitch [text].
    Source: a turn is a pitch.
    """
    pitch = pitch_of(thread)
    assert pitch is not None
    eighths = max(round(8.0 * gap / pitch), 1)
    whole, part = divmod(eighths, 8)
    if not whole:
        return f"{EIGHTHS[part]} of a turn of {thread}"
    turns = f"{whole}{EIGHTHS[part] if part else ''}"
    return f"{turns} turn{'s' if eighths > 8 else ''} of {thread}"
