"""A figure of the build, shown and changed where it stands on a drawing."""

import math
import re
from dataclasses import dataclass

from PySide6.QtCore import Qt
from PySide6.QtGui import QFocusEvent, QHideEvent, QKeyEvent, QMouseEvent
from PySide6.QtWidgets import QWidget

from urgens.document import BuildChange, value_at
from urgens.document.catalogue import NOTHING, Figure, figure, named
from urgens.document.edits.edit import UNITS
from urgens.physics.friction_code import friction_range
from urgens.physics.tyre import size_code
from urgens.quantity import (
    DISTANCE,
    LENGTH,
    QuantityError,
    QuantityKind,
    ShownFigure,
    completed,
    natural_step,
    nearest_fraction,
    number_of,
    other_unit,
    parse,
    printed,
    retype,
    shown,
    unit_shown,
)
from urgens.quantity.as_shown import unit_typed
from urgens.ui.session import Session
from urgens.ui.theme.paint import metrics
from urgens.ui.widgets.dimension_label import SAID, DimensionLabel, Knowledge
from urgens.ui.widgets.evidence_keys import EvidenceKeys, state_of_key

_ROLL_OUT = re.compile(r"(?P<turns>[1-9])\s*turns?\s*(?:[:=,]|of)?\s*(?P<way>\d.*)")
_LENGTH = re.compile(r"\d\s*(?:in|mm|cm|m|ft|\"|″)\s*$")
_NOT_A_LETTER = (
    Qt.KeyboardModifier.ControlModifier
    | Qt.KeyboardModifier.AltModifier
    | Qt.KeyboardModifier.MetaModifier
)


@dataclass(frozen=True)
class Spot:
    """Where a figure of the build stands on a drawing, and how large; the catalogue says the rest.

    A text longer than `widest` px elides.
    """

    path: str
    size: int = 20
    color: str | None = None
    widest: int | None = None


class FigureLabel(DimensionLabel):
    """Follows one figure of the session's build, and changes it."""

    def __init__(self, session: Session, spot: Spot, parent: QWidget) -> None:
        build = session.build
        self._spot, self._session = spot, session
        self._figure: Figure = figure(build, spot.path)
        self._keys: EvidenceKeys | None = None
        self._typed_anew = False
        name = named(build, spot.path)
        super().__init__(name, self._take, size=spot.size, color=spot.color, parent=parent)
        self.stepped.connect(self._step)
        self.refresh()

    @property
    def path(self) -> str:
        """Where its figure stands in the build."""
        return self._spot.path

    def refresh(self) -> None:
        """Show the figure as it is now."""
        build = self._session.build
        self._figure = one = figure(build, self.path)
        self.rename(named(build, self.path))
        self.explain(f"{one.entry.help}. Found out by: {one.entry.settled}.{self._of_unit}")
        units = one.shown_in(self._session.units)
        self.set_value(self._fitting(shown(one.value, one.kind, units)), one.text)
        if one.value is None:
            self.set_known(Knowledge.MISSING if one.entry.wanted else Knowledge.YES)
        else:
            self.set_known(*self._evidence())

    def _fitting(self, text: ShownFigure) -> ShownFigure:
        """Return what is shown, its end left out where it would be too wide."""
        if self._spot.widest is None:
            return text
        font = metrics(self._spot.size, 600, condensed=False)
        fits = font.elidedText(text.number, Qt.TextElideMode.ElideRight, self._spot.widest)
        return ShownFigure(fits, text.unit)

    @property
    def _is_assumed(self) -> bool:
        """Whether it is a default that does something, as the sheet marks it too."""
        one = self._figure
        return not one.is_given and not isinstance(one.value, str) and one.number not in NOTHING

    def _evidence(self) -> tuple[Knowledge, str]:
        """Return what the build says is known about the figure, and its words."""
        said = self._session.build.evidence.get(self.path)
        if said is None and self._is_assumed:
            return Knowledge.ASSUMED, "assumed: nobody has typed it"
        if said is None:
            return Knowledge.YES, ""
        spread = "" if said.spread is None else f" ±{said.spread.lstrip('± ')}"
        note = f": {said.note}" if said.note else ""
        return SAID[said.state], f"{said.state}{spread}{note}"

    def _take(self, typed: str) -> None:
        """Put what is typed into the build; raises QuantityError or BuildErrors."""
        value: object = typed.strip()
        if self.path.endswith(".pad_friction") and typed.strip()[:1].isalpha():
            self._take_code(typed.strip().upper())
            return
        if self.path.endswith((".tyre.size", ".tyre.rolling_radius")):
            self._take_tyre(typed.strip())
            return
        kind = self._figure.kind
        if kind is None:
            value = self._number(typed)
        elif isinstance(kind, QuantityKind):
            value = completed(typed, kind, self._figure.shown_in(self._session.units))
        values = {self.path: value}
        other = self.other_unit
        if other is not None and unit_typed(typed) == other and self._session.setup is None:
            values[UNITS] = self._with_unit(other)  # a set-up changes figures alone
        self._put(str(value), values)

    def _put(self, typed: str, values: dict[str, object], known: object = None) -> None:
        said = {} if known is None else dict.fromkeys(values, known)
        self._session.take(BuildChange(f"{self.name} {typed}", values, said))
        self._typed_anew = True

    def _number(self, typed: str) -> float:
        value = number_of(typed)
        if value is None:
            raise QuantityError(
                f'"{typed}" is not a number', f"write the {self.name} as a plain number"
            )
        return int(value) if self._figure.whole and value.is_integer() else value

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
                f"{code} says only that it is above {low:g}", "write the number its maker gives"
            )
        known = {
            "state": "stamped",
            "spread": f"{(high - low) / 2:g}",
            "note": f"friction code {code}, SAE J866",
            "readings": {"kind": "friction-code", "code": code},
        }
        self._put(code, {self.path: round((low + high) / 2, 4)}, known)

    def _take_tyre(self, typed: str) -> None:
        """Take a size code, a rolling radius, or a roll-out such as "2 turns 3.58 m"."""
        place = self.path.rpartition(".")[0]
        rolled = _ROLL_OUT.fullmatch(typed)
        if rolled is not None:
            way = completed(rolled["way"], DISTANCE, self._session.units)
            radius = parse(way, DISTANCE).value / (2.0 * math.pi * int(rolled["turns"]))
            turned = {"kind": "roll-out", "turns": int(rolled["turns"]), "way": way}
            known = {"state": "measured", "note": f"rolled out: {typed}", "readings": turned}
            value = retype(radius, LENGTH, self._session.units)
            self._put(typed, {f"{place}.rolling_radius": value}, known)
            return
        try:
            size_code(typed)
        except ValueError:
            if self._figure.kind == "text" and _LENGTH.search(typed) is None:
                self._put(typed, {f"{place}.size": typed})
            else:
                typed = completed(typed, LENGTH, self._session.units)
                self._put(typed, {f"{place}.rolling_radius": typed})
            return
        tyre = value_at(self._session.build, place)
        kept = tyre.model_dump(mode="json", exclude_unset=True, exclude={"rolling_radius"})
        self._put(typed, {place: {**kept, "size": typed}})

    # --- a unit of its own -----------------------------------------------------------------

    @property
    def other_unit(self) -> str | None:
        """The unit it could be shown in as well, None where there is none."""
        kind = self._figure.kind
        if not isinstance(kind, QuantityKind) or self._figure.entry.units is not None:
            return None
        return other_unit(kind, self._figure.shown_in(self._session.units))

    @property
    def _of_unit(self) -> str:
        other = self.other_unit
        return "" if other is None else f" In {printed(other)}: click its unit, or Shift+U."

    def turn_unit(self) -> None:
        """Show this figure in its other unit, in this build, whatever the rest is shown in."""
        other = self.other_unit
        if other is None:
            return
        change = BuildChange(f"{self.name} in {other}", {UNITS: self._with_unit(other)})
        self._session.make(change, in_setup=False)

    def _with_unit(self, name: str) -> dict[str, str]:
        """Return the units of the build's figures with another one for this."""
        kept = {path: one for path, one in self._session.build.units.items() if path != self.path}
        assert isinstance(self._figure.kind, QuantityKind)
        usual = unit_shown(self._figure.kind, self._session.units)
        return kept if name == usual else {**kept, self.path: name}

    def mousePressEvent(self, event: QMouseEvent) -> None:
        at = event.position().x() / self.scale
        left = event.button() == Qt.MouseButton.LeftButton
        if left and self.editor is None and self.other_unit and at >= self.unit_starts:
            self.setFocus(Qt.FocusReason.MouseFocusReason)
            self.turn_unit()
        else:
            super().mousePressEvent(event)

    # --- what is known of it ---------------------------------------------------------------

    @property
    def takes_the_same(self) -> bool:
        """A figure that is typed is no longer only assumed or planned, also where it stays."""
        return self.known in (Knowledge.ASSUMED, Knowledge.PLANNED)

    def say(self, state: str) -> None:
        """Say what is known about the figure; that is all there was to ask."""
        self._session.settle(self.path, state)
        self._hide_keys()

    def _show_keys(self) -> None:
        """Show beside the figure, while it has the focus, what can be said of it."""
        told = self._session.build.evidence.get(self.path)
        if self._keys is None:
            self._keys = EvidenceKeys(self.window())
            self._keys.said.connect(self.say)
        others = [one for one in self.window().findChildren(DimensionLabel)
                  if one is not self and one.isVisible()]  # fmt: skip
        self._keys.show_beside(self, "" if told is None else told.state, others)

    def _hide_keys(self) -> None:
        keys, self._keys = self._keys, None
        if keys is not None:
            keys.hide()
            keys.deleteLater()

    @property
    def _can_be_said(self) -> bool:
        return self._figure.value is not None and not self._figure.entry.wish

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_U and event.modifiers() == Qt.KeyboardModifier.ShiftModifier:
            self.turn_unit()  # without shift the window turns all of them
            return
        if event.key() == Qt.Key.Key_Escape and self._keys is not None:
            self._hide_keys()
            return
        state = state_of_key(event.text()) if event.text() else None
        if state is not None and self._can_be_said and not event.modifiers() & _NOT_A_LETTER:
            self.say(state)
        else:
            super().keyPressEvent(event)

    def focusInEvent(self, event: QFocusEvent) -> None:
        super().focusInEvent(event)
        if self._can_be_said and self.editor is None and self._typed_anew | self.takes_the_same:
            self._show_keys()

    def focusOutEvent(self, event: QFocusEvent) -> None:
        super().focusOutEvent(event)
        self._typed_anew = False
        self._hide_keys()

    def hideEvent(self, event: QHideEvent) -> None:
        super().hideEvent(event)
        self._hide_keys()

    def _step(self, steps: int) -> None:
        typed = self._stepped(steps)
        if typed is not None:
            self.attempt(lambda: self._take(typed))

    def _stepped(self, steps: int) -> str | None:
        """Return the figure so many natural steps on, as typed; None where there is no step."""
        one, units = self._figure, self._session.units
        if one.kind == "text" or one.value is None:
            return None
        if one.kind is None:
            return f"{round(one.number + one.step * steps, 4):g}"
        step = natural_step(one.kind, one.shown_in(units))
        moved = (round(one.number / step) + steps) * step
        if moved <= 0 and one.low >= 0:
            return None
        if one.kind is LENGTH and unit_shown(LENGTH, units) == "in" and one.entry.units is None:
            return f"{nearest_fraction(moved)} in"
        return retype(moved, one.kind, one.shown_in(units))
