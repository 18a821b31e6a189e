"""What a step asks to be read: words to choose, figures to type, and what they should be."""

from functools import partial
from typing import Any

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QHBoxLayout, QLineEdit, QToolButton, QVBoxLayout, QWidget

from urgens.document.records import WORDS, Record
from urgens.guidance.procedures import Step
from urgens.guidance.read_at_step import (
    CLEARANCE,
    TOLD,
    YES_NO,
    clearance_words,
    expected,
    taken,
    unit_of,
)
from urgens.guidance.words import Words
from urgens.quantity import FORCE, QuantityError, retype
from urgens.ui.session import Session
from urgens.ui.widgets.cleared import clear
from urgens.ui.widgets.segment import segment
from urgens.ui.widgets.worded import worded, wrapped

# What is asked beside a reading, where there are wheels to ask it of.
BESIDE = {"bubbles": ("bubbles", "colour", "amount", "clicks")}
ASKED = {"amount": "caught", "clicks": "adjuster clicks", "ok": "in order", "lamp": "lamp"}
STROKE = {"Stroke 1": "stroke-1", "Stroke 2": "stroke-2", "Stroke 3": "stroke-3"}
FIELD = 90  # px


class Readings(QWidget):
    """The fields of one step; what cannot be is said under them, and nothing is taken then."""

    typed = Signal()

    def __init__(self, session: Session) -> None:
        super().__init__()
        self._session = session
        self._step: Step | None = None
        self._procedure = ""
        self._record: Record | None = None
        self.values: dict[str, str] = {}  # as typed or chosen
        self.fields: dict[str, QWidget] = {}
        self._row = QHBoxLayout()
        self._row.setSpacing(6)
        self.should, self.refused = worded("", "muted"), wrapped("danger")
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(2)
        column.addLayout(self._row)
        column.addWidget(self.should)
        column.addWidget(self.refused)
        session.press_changed.connect(self.follow_press)

    def show_step(self, procedure: str, step: Step | None, record: Record | None) -> None:
        """Ask for what a step reads, as far as it is typed already; record: of the run so far."""
        self._procedure, self._step, self._record = procedure, step, record
        clear(self._row)
        self.fields = {}
        self.refused.hide()
        asked = step.record.field if step is not None and step.record is not None else ""
        for name in () if asked in ("", "strokes") else BESIDE.get(asked, (asked,)):
            self._row.addWidget(worded(ASKED.get(name, name), "muted"))
            if name in WORDS or name in TOLD:
                self._words(name)
            else:
                self._figure(name)
        self._row.addStretch()
        self.setVisible(bool(self.fields))
        self.follow_press()

    def _words(self, name: str) -> None:
        for word in WORDS.get(name, tuple(YES_NO)):
            button = segment(word)
            button.setProperty("narrow", "true")
            button.setAccessibleName(f"{ASKED.get(name, name)}: {word}")
            button.setChecked(self.values.get(name) == word)
            button.clicked.connect(partial(self.read, name, word))
            self.fields[f"{name} {word}"] = button
            self._row.addWidget(button)

    def _figure(self, name: str) -> None:
        field = QLineEdit(self.values.get(name, ""))
        unit = unit_of(name, self._session.units)
        field.setAccessibleName(f"{ASKED.get(name, name)} {unit}".strip())
        if name != "note":
            field.setMaximumWidth(FIELD)
        field.textChanged.connect(partial(self._type, name))
        self.fields[name] = field
        self._row.addWidget(field)
        if unit:
            self._row.addWidget(worded(unit, "muted"))

    def _type(self, name: str, typed: str) -> None:
        self.values[name] = typed
        self.refused.hide()
        self.typed.emit()

    def read(self, name: str, word: str) -> None:
        """Take what was seen."""
        self.values[name] = word
        for key, field in self.fields.items():
            if isinstance(field, QToolButton) and key.startswith(f"{name} "):
                field.setChecked(key == f"{name} {word}")
        self.typed.emit()

    def follow_press(self) -> None:
        """Say what should be read with the foot as it presses now."""
        session, step = self._session, self._step
        words = ""
        if step is not None and self.fields:
            shown = Words(session.units)
            if self._procedure == CLEARANCE and step.action == "check":
                words = clearance_words(self._record, shown)
            else:
                words = expected(session.solution, session.presses, self._procedure, step, shown)
        self.should.setText(words)
        self.should.setVisible(bool(words))

    def entries(self, strokes: int) -> list[dict[str, Any]] | None:
        """Return what was read as entries of a record, once for each wheel of the step.

        None where something of it cannot be, which is then said.
        """
        step, session = self._step, self._session
        if step is None:
            return []
        found: dict[str, Any] = {}
        for name, typed in self.values.items():
            try:
                value = taken(session.build, name, typed, session.units)
            except QuantityError as refused:
                self._refuse(name, str(refused))
                return None
            if value is not None:
                found[name] = value
        if step.action == "stroke" and strokes:
            found.setdefault("strokes", float(strokes))
        more: dict[str, Any] = {}
        if "travel" in found:
            effort = retype(session.effort, FORCE, session.units)
            when = next((w for said, w in STROKE.items() if step.text.startswith(said)), "now")
            more = {"effort": effort, "when": when}
        wheels = step.wheels or (None,)
        return [
            {"field": field, "value": value} | (more if field == "travel" else {})
            | ({"wheel": wheel} if wheel else {})
            for field, value in found.items()
            for wheel in wheels
        ]  # fmt: skip

    def _refuse(self, name: str, words: str) -> None:
        self.refused.setText(f"{ASKED.get(name, name).capitalize()}: {words}.")
        self.refused.show()
        field = self.fields.get(name)
        if field is not None:
            field.setFocus()
