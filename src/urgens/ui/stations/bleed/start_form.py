"""What is told before a run begins: who is there, which bottle, why it is begun all the same."""

from datetime import date
from typing import Any

from PySide6.QtCore import Signal
from PySide6.QtWidgets import (
    QButtonGroup,
    QGridLayout,
    QHBoxLayout,
    QLineEdit,
    QToolButton,
    QWidget,
)

from urgens.guidance.procedures.people import MOST
from urgens.ui.session import Session
from urgens.ui.widgets.segment import segment
from urgens.ui.widgets.worded import passing, worded

OLD = 365  # days that a bottle once opened stands, at most; common practice
OLD_BOTTLE = "That bottle was opened over a year ago: it has drawn water. Take a fresh one."
NO_CLASS = "Which class is in it is not told yet: choose it under Measure, Facts; then the bottle."
AHEAD = "That day is still to come: read the bottle again."
FIELDS = (
    ("people", "Who is there", "names, with commas between"),
    ("batch", "Fluid's batch", "as on the bottle"),
    ("opened", "Bottle opened on", "year-month-day, or today"),
    ("reason", "Begin all the same, because", "the reason is kept in the record"),
)


class StartForm(QWidget):
    """Fields for the record; what is not told is left out of it."""

    counted = Signal()

    def __init__(self, session: Session) -> None:
        super().__init__()
        self._session = session
        self.fields: dict[str, QLineEdit] = {}
        self.people: dict[int, QToolButton] = {}
        self.refused = passing()
        grid = QGridLayout(self)
        grid.setContentsMargins(0, 4, 0, 4)
        grid.setColumnStretch(1, 1)
        grid.addWidget(worded("People", "muted"), 0, 0)
        grid.addLayout(self._people(), 0, 1)
        self._labels = {}
        for row, (name, words, hint) in enumerate(FIELDS, start=1):
            field = QLineEdit()
            field.setPlaceholderText(hint)
            field.setAccessibleName(words)
            self._labels[name] = worded(words, "muted")
            self.fields[name] = field
            grid.addWidget(self._labels[name], row, 0)
            grid.addWidget(field, row, 1)
        grid.addWidget(self.refused, len(FIELDS) + 1, 0, 1, 2)

    def _people(self) -> QHBoxLayout:
        row, group = QHBoxLayout(), QButtonGroup(self)
        for count in range(1, MOST + 1):
            button = segment(f"{count}")
            button.setProperty("narrow", "true")
            button.setAccessibleName(f"{count} people" if count > 1 else "one person")
            button.clicked.connect(self.counted)
            group.addButton(button)
            self.people[count] = button
            row.addWidget(button)
        row.addStretch()
        return row

    @property
    def count(self) -> int:
        """How many people come."""
        return next((n for n, one in self.people.items() if one.isChecked()), 1)

    @count.setter
    def count(self, count: int) -> None:
        self.people[min(max(count, 1), MOST)].setChecked(True)

    def ask(self, *, fluid: bool, reason: bool) -> None:
        """Ask for what this procedure needs to be told."""
        shown = {"people": True, "batch": fluid, "opened": fluid, "reason": reason}
        for name, there in shown.items():
            self._labels[name].setVisible(there)
            self.fields[name].setVisible(there)

    @property
    def reason(self) -> str:
        """Why it is begun all the same, empty where that is not asked."""
        field = self.fields["reason"]
        return "" if field.isHidden() else field.text().strip()

    def told(self) -> dict[str, Any] | None:
        """Return what is told as a record has it; None where something cannot be, which is said."""
        typed = {name: field.text().strip() for name, field in self.fields.items()}
        made: dict[str, Any] = {}
        names = [name.strip() for name in typed["people"].split(",") if name.strip()]
        if names:
            made["people"] = names
        fluid, asked = self._session.build.fluid, not self.fields["batch"].isHidden()
        if asked and fluid is None and (typed["batch"] or typed["opened"]):
            self._refuse(NO_CLASS)  # else what was typed would be lost without a word
            return None
        if asked and fluid is not None:
            opened = self._opened(typed["opened"])
            if opened is None:
                return None
            made["fluid"] = {"class": fluid.grade, **opened}
            if typed["batch"]:
                made["fluid"]["batch"] = typed["batch"]
        if self.reason:
            made["moved_without_proof"] = self.reason
        self.refused.setText("")
        return made

    def _opened(self, typed: str) -> dict[str, str] | None:
        if not typed:
            return {}
        try:
            day = date.today() if typed == "today" else date.fromisoformat(typed)
        except ValueError:
            return self._refuse(f'"{typed}" is no date; write year-month-day: 2026-05-31')
        if day > date.today():
            return self._refuse(AHEAD)
        if (date.today() - day).days > OLD:
            return self._refuse(OLD_BOTTLE)
        return {"opened": day.isoformat()}

    def _refuse(self, words: str) -> dict[str, str] | None:
        self.refused.setText(words)
        self.fields["opened"].setFocus()
        return None
