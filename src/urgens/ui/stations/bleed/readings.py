"""What a step asks to be read: words to choose, figures to type, and what they should be."""

from functools import partial
from typing import Any

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QHBoxLayout, QLineEdit, QToolButton, QVBoxLayout, QWidget

from urgens.document.ledger.records import WORDS, ProcedureRun
from urgens.guidance.condition.limits import limits_of
from urgens.guidance.procedures import ProcedureStep
from urgens.guidance.procedures.facts import said
from urgens.guidance.procedures.step_readings import (
    CLEARANCE,
    HALF_LOST,
    TOLD,
    YES_NO,
    clearance_words,
    expected,
    taken,
    unit_of,
)
from urgens.guidance.words.figures import FigureWords
from urgens.quantity import FORCE, QuantityError, retype
from urgens.ui.session import Session
from urgens.ui.widgets.cleared import clear
from urgens.ui.widgets.layouts import spaced, tight
from urgens.ui.widgets.segment import segment
from urgens.ui.widgets.worded import passing, worded

# What is asked beside a reading, where there are wheels to ask it of.
BESIDE = {"bubbles": ("bubbles", "colour", "amount", "clicks")}
ASKED = {"amount": "caught", "clicks": "clicks", "ok": "in order", "lamp": "lamp"}
HELP = ("working", "out")  # of the booster, while a travel was read
STROKE = {"Stroke 1": "stroke-1", "Stroke 2": "stroke-2", "Stroke 3": "stroke-3"}
FIELD = 70  # px


class Readings(QWidget):
    """The fields of one step; what cannot be is said under them, and nothing is taken then."""

    typed = Signal()

    def __init__(self, session: Session) -> None:
        super().__init__()
        self._session = session
        self._step: ProcedureStep | None = None
        self._procedure = ""
        self._record: ProcedureRun | None = None
        self.values: dict[str, str] = {}  # as typed or chosen
        self.fields: dict[str, QWidget] = {}
        self._places = QHBoxLayout()
        self._places.setSpacing(8)
        self.should, self.refused = worded("", "muted"), passing()
        column = tight(QVBoxLayout(self), 2)
        column.addLayout(self._places)
        column.addWidget(self.should)
        column.addWidget(self.refused)
        session.press_changed.connect(self.follow_press)

    def show_step(
        self, procedure: str, step: ProcedureStep | None, record: ProcedureRun | None
    ) -> None:
        """Ask for what a step reads, as far as it is typed already; record: of the run so far."""
        self._procedure, self._step, self._record = procedure, step, record
        clear(self._places)
        self.fields = {}
        self.refused.setText("")
        asked = step.record.field if step is not None and step.record is not None else ""
        names = () if asked in ("", "strokes") else BESIDE.get(asked, (asked,))
        if asked == "travel" and self._whole and self._session.build.booster.fitted:
            names = ("booster", *names)  # its help decides what the travel is judged by
        # What comes is another thing at each wheel; all else is read once.
        apart = step is not None and asked in BESIDE and len(step.wheels) > 1
        for wheel in step.wheels if apart and step is not None else ("",):
            self._places.addLayout(self._place(wheel, names))
        self._places.addStretch()
        self.follow_press()
        self.setVisible(bool(self.fields) or bool(self.should.text()))

    @property
    def _asker(self) -> str:
        """The proof that a step belongs to, else the procedure."""
        step = self._step
        return (step.proof if step is not None else "") or self._procedure

    @property
    def _whole(self) -> bool:
        """Whether a travel is one of the whole vehicle: no half of it is lost for it."""
        return self._asker != HALF_LOST

    def _place(self, wheel: str, names: tuple[str, ...]) -> QVBoxLayout:
        """Return the fields of one wheel, or of all: words in rows of their own, then figures."""
        column, figures = QVBoxLayout(), QHBoxLayout()
        column.setSpacing(2)
        figures.setSpacing(6)
        if wheel:
            column.addWidget(worded(said(wheel), "heading"))
        for name in names:
            if name in WORDS or name in TOLD or name == "booster":
                row = spaced(QHBoxLayout(), 0)
                self._words(row, wheel, name)
                row.addStretch()
                column.addLayout(row)
            else:
                self._figure(figures, wheel, name)
        column.addLayout(figures)
        return column

    def _words(self, row: QHBoxLayout, wheel: str, name: str) -> None:
        if not wheel:  # beside each other there is only room for the words themselves
            row.addWidget(worded(ASKED.get(name, name), "muted"))
        key = f"{wheel} {name}".strip()
        for word in HELP if name == "booster" else WORDS.get(name, tuple(YES_NO)):
            button = segment(word)
            button.setProperty("narrow", "true")
            button.setAccessibleName(f"{wheel.replace('-', ' ')} {ASKED.get(name, name)}: {word}")
            button.setChecked(self.values.get(key) == word)
            button.clicked.connect(partial(self.read, key, word))
            self.fields[f"{key} {word}"] = button
            row.addWidget(button)

    def _figure(self, row: QHBoxLayout, wheel: str, name: str) -> None:
        key, unit = f"{wheel} {name}".strip(), unit_of(name, self._session.units)
        field = QLineEdit(self.values.get(key, ""))
        field.setAccessibleName(f"{wheel.replace('-', ' ')} {ASKED.get(name, name)} {unit}".strip())
        if name != "note":
            field.setMaximumWidth(FIELD)
        field.textChanged.connect(partial(self._type, key))
        self.fields[key] = field
        row.addWidget(worded(ASKED.get(name, name), "muted"))
        row.addWidget(field)
        if unit:
            row.addWidget(worded(unit, "muted"))

    def _type(self, key: str, typed: str) -> None:
        self.values[key] = typed
        self.refused.setText("")
        self.typed.emit()

    def read(self, key: str, word: str) -> None:
        """Take what was seen."""
        self.values[key] = word
        for name, field in self.fields.items():
            if isinstance(field, QToolButton) and name.startswith(f"{key} "):
                field.setChecked(name == f"{key} {word}")
        if key == "booster":
            self.follow_press()
        self.typed.emit()

    def follow_press(self) -> None:
        """Say what should be read with the foot as it presses now."""
        session, step = self._session, self._step
        words = ""
        if step is not None:
            shown = FigureWords(session.units)
            if self._procedure == CLEARANCE and step.action == "check":
                words = clearance_words(self._record, shown)
            else:
                words = expected(session.solution, session.presses, self._asker, step, shown)
            if "booster working" in self.fields:
                words = self._with_help(words)
        self.should.setText(words)
        self.should.setVisible(bool(words))

    def _with_help(self, words: str) -> str:
        """Return what a travel should be with the help that is noted; words: with all of it."""
        session, help_ = self._session, self.values.get("booster")
        if help_ is None:
            return f"{words}, booster working; not judged until you note whether it worked"
        if help_ == "working":
            return f"{words}, booster working"
        shown = FigureWords(session.units)
        travel = limits_of(session.build).travel_without_help(session.effort)
        if travel is None:
            return "without the booster nothing is computed at this foot"
        foot = shown.force(session.effort)
        return f"should be about {shown.typed_length(travel)} at {foot}, without the booster"

    def entries(self, strokes: int) -> list[dict[str, Any]] | None:
        """Return what was read as entries of a record, once for each wheel of the step.

        None where something of it cannot be, which is then said.
        """
        step, session = self._step, self._session
        if step is None:
            return []
        read: list[dict[str, Any]] = []
        for key, typed in self.values.items():
            wheel, _, name = key.rpartition(" ")
            if name == "booster":
                continue  # it goes with the travel
            try:
                value = taken(session.build, name, typed, session.units)
            except QuantityError as refused:
                self._refuse(key, str(refused))
                return None
            if value is not None:
                read += self._of_wheels(name, value, (wheel,) if wheel else step.wheels)
        if step.action == "stroke" and strokes:
            read += self._of_wheels("strokes", float(strokes), step.wheels)
        return read

    def _of_wheels(self, name: str, value: object, wheels: tuple[str, ...]) -> list[dict[str, Any]]:
        """Return one reading as an entry for each wheel, or one alone where it is at none."""
        entry: dict[str, Any] = {"field": name, "value": value}
        if name == "travel" and self._step is not None and self._whole:
            text = self._step.text
            if self.values.get("booster"):
                entry["booster"] = self.values["booster"]
            entry["effort"] = retype(self._session.effort, FORCE, self._session.units)
            entry["when"] = next(
                (w for words, w in STROKE.items() if text.startswith(words)), "now"
            )
        return [{**entry, "wheel": wheel} for wheel in wheels] or [entry]

    def _refuse(self, key: str, words: str) -> None:
        wheel, _, name = key.rpartition(" ")
        place = f"{said(wheel)}, " if wheel else ""
        self.refused.setText(f"{place}{ASKED.get(name, name)}: {words}.".capitalize())
        field = self.fields.get(key)
        if field is not None:
            field.setFocus()
