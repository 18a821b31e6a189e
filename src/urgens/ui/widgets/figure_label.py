"""A figure of the build, shown and changed where it stands on a drawing."""

import math
import re
from dataclasses import dataclass
from typing import Literal

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QWidget

from urgens.document import value_at
from urgens.physics.friction_code import friction_range
from urgens.physics.tyre import size_code
from urgens.quantity import (
    ANGLE,
    AREA,
    DISTANCE,
    FORCE,
    LENGTH,
    LOAD,
    PRESSURE,
    SPRING_RATE,
    Kind,
    Quantity,
    QuantityError,
    Shown,
    Units,
    UnitSystem,
    nearest_fraction,
    parse,
    printed,
    retype,
    show,
    unit_shown,
)
from urgens.ui.session import Session
from urgens.ui.theme.paint import metrics
from urgens.ui.widgets.dimension_label import DimensionLabel, Known

_TYPED = re.compile(r"(?P<number>.*\d)\s*(?P<unit>\D+)")
_ROLL_OUT = re.compile(r"(?P<turns>[1-9])\s*turns?\s*(?:[:=,]|of)?\s*(?P<way>\d.*)")
_LENGTH = re.compile(r"\d\s*(?:in|mm|cm|m|ft|\"|″)\s*$")
_INCH_MARKS = ('"', "″", "''")
STEPS = {  # natural steps, as a builder reads his tools: SI
    (LENGTH, UnitSystem.INCH): parse("1/16 in", LENGTH).value,
    (LENGTH, UnitSystem.METRIC): 1e-3,
    (LOAD, UnitSystem.INCH): parse("10 lb", LOAD).value,
    (LOAD, UnitSystem.METRIC): parse("5 kg", LOAD).value,
    (PRESSURE, UnitSystem.INCH): parse("5 psi", PRESSURE).value,
    (PRESSURE, UnitSystem.METRIC): 0.5e5,
    (FORCE, UnitSystem.INCH): parse("1 lbf", FORCE).value,
    (FORCE, UnitSystem.METRIC): 5.0,
    (SPRING_RATE, UnitSystem.INCH): parse("5 lbf/in", SPRING_RATE).value,
    (SPRING_RATE, UnitSystem.METRIC): 1e3,
    (ANGLE, UnitSystem.INCH): parse("0.5 deg", ANGLE).value,
    (ANGLE, UnitSystem.METRIC): parse("0.5 deg", ANGLE).value,
    (AREA, UnitSystem.INCH): 0.01,
    (AREA, UnitSystem.METRIC): 0.01,
}
NUMBER_STEP = 0.01


@dataclass(frozen=True)
class Figure:
    """A figure on a drawing: where it stands in the build, its name, what it measures.

    `kind` None is a pure number, "text" a code such as a tyre's.
    """

    path: str
    name: str
    kind: Kind | Literal["text"] | None = None
    size: int = 20
    color: str | None = None
    widest: int | None = None  # px; a longer text elides
    units: tuple[str, str] | None = None  # of its own, inch and metric: vacuum is read in inHg
    optional: bool = False  # nothing is missing where it is not given
    step: float = NUMBER_STEP  # of a pure number

    def shown_in(self, units: Units) -> Units:
        """Return the units this figure is shown in."""
        if self.units is None or not isinstance(self.kind, Kind):
            return units
        name = self.units[0 if units.system is UnitSystem.INCH else 1]
        return Units(units.system, ((self.kind, name), *units.overrides))


def shown(value: object, kind: Kind | Literal["text"] | None, units: Units) -> Shown:
    """Return a figure as a builder reads it: as it was typed where its unit is the one shown."""
    if value is None:
        return Shown("—", "")
    if not isinstance(value, Quantity):
        return Shown(value if isinstance(value, str) else f"{value:g}", "")
    unit = unit_shown(value.kind, units)
    typed = _TYPED.fullmatch(value.text.strip())
    if typed is not None:
        named = "in" if typed["unit"].strip() in _INCH_MARKS else typed["unit"].strip()
        if named == unit and "ft" not in typed["number"]:
            return Shown(typed["number"], printed(unit))
    figure = show(value.value, value.kind, units)
    if "." in figure.number:
        return Shown(figure.number.rstrip("0").rstrip("."), figure.unit)
    return figure


class FigureLabel(DimensionLabel):
    """Follows one figure of the session's build, and changes it."""

    def __init__(self, session: Session, figure: Figure, parent: QWidget) -> None:
        super().__init__(
            figure.name, self._take, size=figure.size, color=figure.color, parent=parent
        )
        self.figure = figure
        self._session = session
        self.stepped.connect(self._step)
        self.refresh()

    def refresh(self) -> None:
        """Show the figure as it is now."""
        value = value_at(self._session.build, self.figure.path)
        typed = value.text if isinstance(value, Quantity) else value
        typed = "" if typed is None else typed if isinstance(typed, str) else f"{typed:g}"
        units = self.figure.shown_in(self._session.units)
        self.set_value(self._fitting(shown(value, self.figure.kind, units)), typed)
        if value is None:
            self.set_known(Known.YES if self.figure.optional else Known.MISSING)
        else:
            self.set_known(*self._evidence())

    def _fitting(self, text: Shown) -> Shown:
        """Return what is shown, its end left out where it would be too wide."""
        if self.figure.widest is None:
            return text
        font = metrics(self.figure.size, 600, condensed=False)
        fits = font.elidedText(text.number, Qt.TextElideMode.ElideRight, self.figure.widest)
        return Shown(fits, text.unit)

    def _evidence(self) -> tuple[Known, str]:
        """Return what the build says is known about the figure, and its words."""
        said = self._session.build.evidence.get(self.figure.path)
        if said is None:
            return Known.YES, ""
        spread = "" if said.spread is None else f" ±{said.spread.lstrip('± ')}"
        note = f": {said.note}" if said.note else ""
        known = Known.ASSUMED if said.state == "assumed" else Known.SETTLED
        return known, f"{said.state}{spread}{note}"

    def _take(self, typed: str) -> None:
        """Put what is typed into the build; raises QuantityError or BuildErrors."""
        figure = self.figure
        value: object = typed.strip()
        if figure.path.endswith(".pad_friction") and typed.strip()[:1].isalpha():
            self._take_code(typed.strip().upper())
            return
        if ".tyre." in figure.path:
            self._take_tyre(typed.strip())
            return
        if figure.kind is None:
            try:
                value = float(typed)
            except ValueError:
                raise QuantityError(
                    f'"{typed}" is not a number', f"write the {figure.name} as a plain number"
                ) from None
        self._session.edit(figure.path, value, f"{figure.name} {typed}")

    def _take_code(self, code: str) -> None:
        """Take the letters on a pad's edge: the middle of their class, and its width as spread."""
        try:
            low, high = friction_range(code)
        except ValueError:
            raise QuantityError(
                f'"{code}" is no friction code', "write a number, or the letters on the pad: FF"
            ) from None
        if math.isinf(high):
            raise QuantityError(
                f"{code} says only that it is above {low:g}",
                "write the number its maker gives",
            )
        known = {
            "state": "stamped",
            "spread": f"{(high - low) / 2:g}",
            "note": f"friction code {code}, SAE J866",
        }
        path = self.figure.path
        changes = {path: round((low + high) / 2, 4), f'evidence["{path}"]': known}
        self._session.edit_all(changes, f"{self.figure.name} {code}")

    def _take_tyre(self, typed: str) -> None:
        """Take a size code, a rolling radius, or a roll-out such as "2 turns 3.58 m"."""
        place = self.figure.path.rpartition(".")[0]
        rolled = _ROLL_OUT.fullmatch(typed)
        if rolled is not None:
            way = parse(rolled["way"], DISTANCE).value
            radius = way / (2.0 * math.pi * int(rolled["turns"]))
            known = {"state": "measured", "note": f"rolled out: {typed}"}
            path = f"{place}.rolling_radius"
            changes = {
                path: retype(radius, LENGTH, self._session.units),
                f'evidence["{path}"]': known,
            }
            self._session.edit_all(changes, f"{self.figure.name} {typed}")
            return
        try:
            size_code(typed)
        except ValueError:
            sized = self.figure.kind == "text" and _LENGTH.search(typed) is None
            field = "size" if sized else "rolling_radius"
            self._session.edit(f"{place}.{field}", typed, f"{self.figure.name} {typed}")
            return
        tyre = {"size": typed}
        measured = f"{place}.rolling_radius"
        changes = {place: tyre, "evidence": self._session.known_but(measured)}
        self._session.edit_all(changes, f"{self.figure.name} {typed}")

    def _step(self, steps: int) -> None:
        figure, units = self.figure, self._session.units
        value = value_at(self._session.build, figure.path)
        if figure.kind == "text" or value is None:
            return
        if figure.kind is None:
            self._take(f"{round(value + self.figure.step * steps, 4):g}")
            return
        step = STEPS.get((figure.kind, units.system))
        if step is None:
            return
        moved = (round(value.value / step) + steps) * step
        if moved <= 0:
            return
        if figure.kind is LENGTH and unit_shown(LENGTH, units) == "in":
            self._take(f"{nearest_fraction(moved)} in")
        else:
            self._take(retype(moved, figure.kind, units))
