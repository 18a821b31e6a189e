"""Something noted by hand: a symptom, a service, a change that no figure shows, a note."""

from datetime import datetime
from typing import Any

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QLineEdit, QPushButton, QVBoxLayout, QWidget

from urgens.quantity.day import typed_time
from urgens.ui.widgets.choices import SegmentRow
from urgens.ui.widgets.fields import hinted_field
from urgens.ui.widgets.layouts import spaced
from urgens.ui.widgets.worded import passing, worded

KINDS = {"symptom": "symptom", "service": "service", "note": "note", "change": "change"}
FIELDS = (
    ("what", "What", "brakes pulled to the left"),
    ("why", "More about it", "wet road, cold brakes"),
    ("at", "When", "2026-05-31 14:10, or nothing for now"),
)


class HistoryForm(QWidget):
    """Asks for an entry; `made` gives it as JSON."""

    made = Signal(object)

    def __init__(self) -> None:
        super().__init__()
        self.kind = "symptom"
        self.kinds = SegmentRow()
        self.kinds.chosen.connect(self._choose)
        self.fields: dict[str, QLineEdit] = {}
        self.refused, self.add = passing(), QPushButton("Note it")
        self.add.setProperty("role", "quiet")
        self.add.clicked.connect(self.take)
        column = spaced(QVBoxLayout(self), 4, (0, 0, 8, 0))
        column.addWidget(self.kinds)
        for name, words, hint in FIELDS:
            field = self.fields[name] = hinted_field(words, hint, self.take)
            column.addWidget(worded(words, "muted"))
            column.addWidget(field)
        column.addWidget(self.add)
        column.addWidget(self.refused)
        self._choose(self.kind)

    def _choose(self, kind: object) -> None:
        self.kind = str(kind)
        self.kinds.show_choices(KINDS, self.kind)

    def take(self) -> None:
        """Give what is typed, or say what it lacks."""
        typed = {name: field.text().strip() for name, field in self.fields.items()}
        if not typed["what"]:
            self._refuse("Say what it was.", "what")
            return
        try:
            at = typed_time(typed["at"]) if typed["at"] else datetime.now()
        except ValueError:
            self._refuse(f'"{typed["at"]}" is no time; write 2026-05-31 14:10.', "at")
            return
        when = at.isoformat(timespec="minutes")
        entry: dict[str, Any] = {"at": when, "what": typed["what"], "kind": self.kind}
        if typed["why"]:
            entry["why"] = typed["why"]
        self.refused.setText("")
        for field in self.fields.values():
            field.clear()
        self.made.emit(entry)

    def _refuse(self, words: str, name: str) -> None:
        self.refused.setText(words)
        self.fields[name].setFocus()
