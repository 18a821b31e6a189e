"""The pedal read again: now, after an hour, next morning, on the first three strokes."""

from functools import partial
from typing import Any

from PySide6.QtCore import Signal
from PySide6.QtWidgets import (
    QButtonGroup,
    QGridLayout,
    QLineEdit,
    QPushButton,
    QToolButton,
    QWidget,
)

from urgens.document import BuildChange
from urgens.document.edits.edit import dumped
from urgens.guidance.procedures.step_readings import taken, unit_of
from urgens.quantity import FORCE, QuantityError, retype, show
from urgens.ui.session import Session
from urgens.ui.stations.bleed.readings import HELP
from urgens.ui.stations.bleed.run import now
from urgens.ui.widgets.segment import segment
from urgens.ui.widgets.worded import passing, worded, wrapped

TIMES = {
    "now": "now", "hour": "after an hour", "morning": "next morning",
    "stroke-1": "stroke 1", "stroke-2": "stroke 2", "stroke-3": "stroke 3",
}  # fmt: skip
IN_A_ROW = 2


class TravelForm(QWidget):
    """Adds a travel at the foot of the press to the last run that has ended."""

    kept = Signal()

    def __init__(self, session: Session) -> None:
        super().__init__()
        self._session = session
        self.when: dict[str, QToolButton] = {}
        self.field, self.keep = QLineEdit(), QPushButton("Keep it")
        self.field.setAccessibleName("Pedal travel")
        self.keep.setProperty("role", "quiet")
        self.keep.clicked.connect(self.take)
        self.field.returnPressed.connect(self.take)
        self.at, self.refused = wrapped("muted"), passing()
        grid, group = QGridLayout(self), QButtonGroup(self)
        grid.setContentsMargins(0, 0, 0, 0)
        for place, (when, words) in enumerate(TIMES.items()):
            button = segment(words)
            button.setProperty("narrow", "true")
            button.setChecked(when == "now")
            button.clicked.connect(partial(self.field.setFocus))
            group.addButton(button)
            self.when[when] = button
            grid.addWidget(button, place // IN_A_ROW, place % IN_A_ROW)
        row = len(TIMES) // IN_A_ROW
        self.help = {word: segment(f"booster {word}") for word in HELP}
        with_help = QButtonGroup(self)
        for column, button in enumerate(self.help.values()):
            button.setProperty("narrow", "true")
            button.clicked.connect(partial(self.field.setFocus))
            with_help.addButton(button)
            grid.addWidget(button, row, column)
        row += 1
        grid.addWidget(self.at, row, 0, 1, IN_A_ROW)
        grid.addWidget(self.field, row + 1, 0)
        self.unit = worded("", "muted")
        grid.addWidget(self.unit, row + 1, 1)
        grid.addWidget(self.keep, row + 2, 0)
        grid.addWidget(self.refused, row + 3, 0, 1, IN_A_ROW)
        session.press_changed.connect(self.show_press)

    def show_press(self) -> None:
        """Say at which foot it is read, and what is computed there."""
        session, units = self._session, self._session.units
        self.unit.setText(unit_of("travel", units))
        self.at.setText(f"Travel at {show(session.effort, FORCE, units)}: pull the press to it")
        there = self.index is not None
        for widget in (self.field, self.keep, *self.when.values(), *self.help.values()):
            widget.setEnabled(there)
        for button in self.help.values():
            button.setVisible(session.build.booster.fitted)

    @property
    def index(self) -> int | None:
        """The run that it is added to, the last that has ended; None where there is none."""
        ended = [i for i, one in enumerate(self._session.base.records) if one.ended is not None]
        return ended[-1] if ended else None

    def take(self) -> None:
        """Keep what is typed."""
        session, index = self._session, self.index
        if index is None:
            return
        try:
            value = taken(session.build, "travel", self.field.text(), session.units)
        except QuantityError as refused:
            self._refuse(f"{refused}.")
            return
        if value is None:
            self._refuse("Type what the rule reads.")
            return
        record = session.base.records[index]
        when = next(name for name, button in self.when.items() if button.isChecked())
        entry: dict[str, Any] = {
            "at": max(now(), record.started.isoformat(timespec="minutes")), "step": record.step,
            "field": "travel", "value": value, "when": when,
            "effort": retype(session.effort, FORCE, session.units),
        }  # fmt: skip
        chosen = [word for word, button in self.help.items() if button.isChecked()]
        if chosen and session.build.booster.fitted:
            entry["booster"] = chosen[0]
        rows: list[dict[str, Any]] = dumped(session.base)["records"]
        rows[index]["entries"] = [*rows[index].get("entries", []), entry]
        self.refused.setText("")
        self.field.clear()
        label = f"Travel {TIMES[when]}"
        session.make(BuildChange(label, {"records": rows}), in_setup=False)
        self.kept.emit()

    def _refuse(self, words: str) -> None:
        self.refused.setText(words)
        self.field.setFocus()
