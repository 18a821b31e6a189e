"""A stop as it is entered at the car: large targets, and only what was seen."""

from collections.abc import Mapping
from functools import partial
from typing import Any

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import (
    QButtonGroup,
    QGridLayout,
    QHBoxLayout,
    QLineEdit,
    QPushButton,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from urgens.bench.sentences import counted_words
from urgens.bench.stops.adjusters import Adjuster, adjuster
from urgens.document.ledger.proof import MeasuredStop, Proof
from urgens.guidance.words.figures import FigureWords
from urgens.quantity import DISTANCE, FORCE, LENGTH, SPEED, TEMPERATURE, QuantityKind
from urgens.ui.session import Session
from urgens.ui.stations.prove.measured import now
from urgens.ui.stations.prove.number_label import NumberLabel
from urgens.ui.widgets.dimension_label import not_entered
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.segment import segment
from urgens.ui.widgets.typed_label import TypedLabel
from urgens.ui.widgets.worded import passing, worded, wrapped

LOCKED = {"none": "none", "front": "front", "rear": "rear", "both": "both", "unknown": "not seen"}
PULL = {"none": "straight", "left": "to the left", "right": "to the right"}
TYPED: tuple[tuple[str, str, QuantityKind], ...] = (
    ("speed", "From", SPEED), ("distance", "Distance", DISTANCE),
    ("distance_error", "within", DISTANCE), ("effort", "Foot", FORCE),
    ("front_temperature", "Front brakes after it", TEMPERATURE),
    ("rear_temperature", "Rear brakes after it", TEMPERATURE),
)  # fmt: skip
WET = 0.55  # of a dry road's coefficient: assumed, and typed over where it is known
WHY = "Reason to go on without"


class StopForm(QWidget):
    """Fields of one stop; `kept` tells the row that is to be written, `left` that none is."""

    kept = Signal(dict)
    left = Signal()
    dropped = Signal()

    def __init__(self, session: Session) -> None:
        super().__init__()
        self._session = session
        self._turned: Adjuster | None = None
        self._at = ""
        self.typed: dict[str, TypedLabel] = {}
        self.locked: dict[str, QToolButton] = {}
        self.pull: dict[str, QToolButton] = {}
        self.deceleration = NumberLabel("Deceleration", "g", (0.02, 2.5), size=34)
        self.surface = NumberLabel("Road, coefficient", "", (0.05, 2.0), size=26, step=0.05)
        self.setting = NumberLabel("Setting", "turns", (0.0, 1e4), size=34, step=0.5)
        self.offset = TypedLabel("Bar", LENGTH, session.units, self._nothing, signed=True, size=34)
        self.wet, self.counts = segment("wet road"), segment("it counts")
        self.note, self.reason = QLineEdit(), QLineEdit()
        self.held, self.refused = wrapped("muted"), passing()
        self.title = worded("", "sentence")
        self.proposed = QPushButton()
        self.proposed.setProperty("role", "quiet")
        self.proposed.clicked.connect(self.take_proposed)
        self._proposed: tuple[float | None, bool] = None, False
        self.keep, self.back, self.drop = QPushButton(), QPushButton(), QPushButton()
        self._lay_out()

    def _nothing(self) -> None:
        """Typing moves nothing else here."""

    def _lay_out(self) -> None:
        column = tight(QVBoxLayout(self), 10)
        column.addWidget(self.title)
        column.addWidget(self.proposed, 0, Qt.AlignmentFlag.AlignLeft)
        column.addLayout(self._figures())
        column.addWidget(worded("Which axle locked first", "heading"))
        column.addLayout(self._choice(LOCKED, self.locked, large=True))
        column.addWidget(worded("It went", "heading"))
        column.addLayout(self._choice(PULL, self.pull, large=False))
        column.addLayout(self._more())
        column.addWidget(self.held)
        column.addWidget(self.reason)
        column.addWidget(self.refused)
        column.addStretch()
        column.addLayout(self._buttons())

    def _figures(self) -> QGridLayout:
        grid, units = QGridLayout(), self._session.units
        grid.setHorizontalSpacing(28)
        for name, words, kind in TYPED:
            size = 34 if name in ("speed", "effort") else 26
            self.typed[name] = TypedLabel(words, kind, units, self._nothing, size=size)
        self._setting_word = worded("Setting", "caption")
        places: tuple[tuple[str, QWidget, int, int], ...] = (
            ("", self.setting, 0, 0), ("", self.offset, 0, 0),
            ("From", self.typed["speed"], 0, 1), ("Deceleration", self.deceleration, 0, 2),
            ("Foot", self.typed["effort"], 0, 3),
            ("or distance", self.typed["distance"], 1, 1),
            ("of it within ±", self.typed["distance_error"], 1, 2),
            ("Road taken for", self.surface, 1, 0),
            ("Front brakes after it", self.typed["front_temperature"], 1, 3),
            ("Rear brakes after it", self.typed["rear_temperature"], 1, 4),
        )  # fmt: skip
        grid.addWidget(self._setting_word, 0, 0)
        for words, field, row, place in places:
            if words:
                grid.addWidget(worded(words, "caption"), 2 * row, place)
            grid.addWidget(field, 2 * row + 1, place)
        grid.setColumnStretch(5, 1)
        return grid

    def _choice(
        self, words: Mapping[str, str], into: dict[str, QToolButton], *, large: bool
    ) -> QHBoxLayout:
        row, group = QHBoxLayout(), QButtonGroup(self)
        row.setSpacing(8)
        for name, said in words.items():
            button = segment(said)
            button.setProperty("target", "large" if large else "middle")
            group.addButton(button)
            into[name] = button
            row.addWidget(button)
        row.addStretch()
        return row

    def _more(self) -> QHBoxLayout:
        row = QHBoxLayout()
        for button in (self.wet, self.counts):
            button.setProperty("target", "middle")
            row.addWidget(button)
        self.note.setPlaceholderText("a note: pedal, wind, who watched")
        self.note.setAccessibleName("Note")
        self.reason.setPlaceholderText(WHY)
        self.reason.setAccessibleName(WHY)
        row.addWidget(self.note, 1)
        return row

    def _buttons(self) -> QHBoxLayout:
        row = QHBoxLayout()
        for button, words, act, share in (
            (self.keep, "Keep it\nEnter", self.take, 2),
            (self.back, "Back\nEsc", self.left.emit, 1),
            (self.drop, "Take it out", self.dropped.emit, 1),
        ):
            button.setText(words)
            button.setAccessibleName(words.replace("\n", ", "))
            button.setProperty("role", "work")
            button.setProperty("main", "true" if button is self.keep else "false")
            button.clicked.connect(partial(act))
            row.addWidget(button, share)
        return row

    # --- what stands in it -------------------------------------------------------------------

    def begin(self, number: int, setting: float | None, wet: bool, held: tuple[str, ...]) -> None:
        """Stand ready for a new stop; what is proposed [SI] is offered, and not taken as done."""
        build = self._session.build
        proof = build.proof or Proof()
        self._fresh(f"Stop {number}", held)
        self._at = ""
        self.typed["speed"].set_text(proof.speed.text)
        self.surface.set_number(build.targets.surface)
        self.wet.setChecked(False)
        self._proposed = setting, wet
        self._show_proposed()
        self.locked["unknown"].setChecked(True)
        self.pull["none"].setChecked(True)
        self.counts.setChecked(True)
        self._set(None)
        self.drop.hide()
        (self.proposed if self.proposed.isVisibleTo(self) else self.deceleration).setFocus()

    def _show_proposed(self) -> None:
        """Offer the setting and the road that are proposed, as one press."""
        setting, wet = self._proposed
        turned, said = self._turned, []
        if turned is not None and setting is not None:
            said.append(counted_words(turned, setting, FigureWords(self._session.units)))
        said += ["a wet road"] if wet else []
        self.proposed.setText(f"It was set and driven as proposed: {', '.join(said)}")
        self.proposed.setVisible(bool(said))

    def take_proposed(self) -> None:
        """Say that it was set as proposed, on the road that was proposed."""
        setting, wet = self._proposed
        self._set(setting)
        self.wet.setChecked(wet)
        if wet:
            self.surface.set_number(round(self._session.build.targets.surface * WET, 2))
        self.deceleration.setFocus()

    def show_stop(self, number: int, stop: MeasuredStop, held: tuple[str, ...]) -> None:
        """Show a stop that is on record, to be mended."""
        self._fresh(f"Stop {number}, {stop.at:%Y-%m-%d %H:%M}", held)
        self._at = stop.at.isoformat(timespec="seconds")
        for name, label in self.typed.items():
            found = getattr(stop, name)
            label.set_text("" if found is None else found.text)
        self.deceleration.set_number(stop.deceleration)
        self.surface.set_number(stop.surface)
        self.wet.setChecked(stop.wet)
        self.counts.setChecked(stop.counts)
        self.locked[stop.locked].setChecked(True)
        self.pull[stop.pull].setChecked(True)
        self.note.setText(stop.note)
        self.reason.setText(stop.moved_without_proof)
        turned = self._turned
        given = None if turned is None else stop.setting.get(turned.path)
        self._set(None if turned is None else turned.laid(given))
        self.drop.show()

    def _fresh(self, title: str, held: tuple[str, ...]) -> None:
        self._turned = adjuster(self._session.build)
        self.title.setText(title)
        self.proposed.hide()
        self.refused.setText("")
        for label in self.typed.values():
            label.show_in(self._session.units)
            label.set_text("")
        self.deceleration.set_number(None)
        self.note.clear()
        self.reason.clear()
        self.held.setText("Not yet: " + "; ".join(held) + "." if held else "")
        self.held.setVisible(bool(held))
        self.reason.setVisible(bool(held))

    def _set(self, setting: float | None) -> None:
        turned = self._turned
        by_length = turned is not None and turned.counted == "length"
        self._setting_word.setVisible(turned is not None)
        self.setting.setVisible(turned is not None and not by_length)
        self.offset.setVisible(by_length)
        if by_length:
            self.offset.show_in(self._session.units)
            self.offset.set_text("" if setting is None else f"{setting * 1e3:.4g} mm")
        else:
            self.setting.set_number(setting)

    # --- into the build ----------------------------------------------------------------------

    def row(self) -> dict[str, Any]:
        """Return the stop as JSON."""
        session = self._session
        made: dict[str, Any] = {
            "at": self._at or now(),
            "load_case": session.solution.case_name,
            "surface": self.surface.value or session.build.targets.surface,
            "locked": next(name for name, one in self.locked.items() if one.isChecked()),
            "pull": next(name for name, one in self.pull.items() if one.isChecked()),
            "wet": self.wet.isChecked(),
            "counts": self.counts.isChecked(),
        }
        turned = self._turned
        if turned is not None:
            length = self.offset.quantity
            value = self.setting.value if turned.counted != "length" else (
                None if length is None else length.text
            )  # fmt: skip
            made["setting"] = {} if value is None else {turned.path: value}
        for name, label in self.typed.items():
            if label.quantity is not None:
                made[name] = label.quantity.text
        if self.deceleration.value is not None:
            made["deceleration"] = self.deceleration.value
        for name, line in (("note", self.note), ("moved_without_proof", self.reason)):
            if line.text().strip():
                made[name] = line.text().strip()
        return made

    def take(self) -> None:
        """Hand the stop over, unless something holds the vehicle and no reason is given."""
        if not_entered(self) is not None:
            return
        if self.held.text() and not self.reason.text().strip() and not self._at:
            self.refused.setText(
                f"{self.held.text()} Prove it first, or write a reason to go on without."
            )
            self.reason.setFocus()
            return
        row = self.row()
        if self._turned is not None and not row["setting"]:
            self.refused.setText("Say what it was set to: a stop tells nothing of another setting.")
            (self.setting if self.setting.isVisibleTo(self) else self.offset).setFocus()
            return
        if row["locked"] == "unknown" and "deceleration" not in row and "distance" not in row:
            self.refused.setText("Say how hard it was, or who locked: else the stop says nothing.")
            self.deceleration.setFocus()
            return
        self.kept.emit(row)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.take()
        elif event.key() == Qt.Key.Key_Escape:
            self.left.emit()
        else:
            super().keyPressEvent(event)
