"""What the builder noted as open: stand-in parts, things noticed, "later"; a form for another."""

from collections.abc import Callable
from datetime import date
from functools import partial
from typing import Any

from PySide6.QtWidgets import (
    QCheckBox,
    QGridLayout,
    QLineEdit,
    QPushButton,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from urgens.document import BuildChange
from urgens.document.edits.edit import dumped
from urgens.document.ledger.records import OpenItem
from urgens.ui.session import Session
from urgens.ui.widgets.buttons import push_button
from urgens.ui.widgets.cleared import clear
from urgens.ui.widgets.fields import hinted_field
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.plain import button_words
from urgens.ui.widgets.segment import segment
from urgens.ui.widgets.worded import passing, worded, wrapped

NONE = "Nothing is noted as open: a stand-in part, something noticed, something for later."
HINTS = (
    ("what", "What is open", "stand-in hose, front left"),
    ("place", "Where", "a part, a line, or in words"),
    ("due", "Due on", "year-month-day, or nothing"),
    ("easy_while", "Easy while out", "engine, axle, dash, or nothing"),
)


class OpenItems(QWidget):
    """Two rows for each item, and a form."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.fields: dict[str, QLineEdit] = {}
        self.holds = QCheckBox("It holds the vehicle until it is done")
        self.add, self.refused = QPushButton("Add it"), passing()
        self.buttons: dict[tuple[int, str], QToolButton | QPushButton] = {}
        self._shown: tuple[tuple[OpenItem, ...], date] | None = None
        self._grid = QGridLayout()
        self._grid.setVerticalSpacing(4)
        column = tight(QVBoxLayout(self), 4)
        column.addLayout(self._grid)
        column.addWidget(worded("Note another", "heading"))
        for name, words, hint in HINTS:
            field = self.fields[name] = hinted_field(words, hint, self.take)
            column.addWidget(worded(words, "muted"))
            column.addWidget(field)
        self.add.setProperty("role", "quiet")
        self.add.clicked.connect(self.take)
        for widget in (self.holds, self.add, self.refused):
            column.addWidget(widget)

    def show_items(self) -> None:
        """Show the items as they are now, those that hold the vehicle first."""
        shown = self.session.base.open_items, date.today()
        if shown == self._shown:
            return
        self._shown = shown
        clear(self._grid)
        self.buttons = {}
        items = list(enumerate(self.session.base.open_items))
        items.sort(key=lambda item: (item[1].done is not None, not item[1].holds_vehicle))
        if not items:
            self._grid.addWidget(wrapped("muted", NONE), 0, 0)
        for row, (index, item) in enumerate(items):
            self._row(2 * row, index, item)

    def _row(self, row: int, index: int, item: OpenItem) -> None:
        words = item.what + (f", {item.place}" if item.place else "")
        more = [f"due {item.due}"] if item.due is not None else []
        if item.easy_while:
            more.append(f"easy while the {item.easy_while} is out")
        if item.done is not None:
            more = [f"done {item.done}"]
        elif item.due is not None and item.due < date.today():
            more = [f"was due {item.due}"]
        label = wrapped("muted" if item.done else "body", "; ".join([words, *more]))
        self._grid.addWidget(label, row, 0, 1, 3)
        holds = segment("holds it")
        holds.setProperty("narrow", "true")
        holds.setAccessibleName(f"{item.what} holds the vehicle")
        holds.setChecked(item.holds_vehicle)
        done = segment("done")
        done.setProperty("narrow", "true")
        done.setAccessibleName(f"{item.what} is done")
        done.setChecked(item.done is not None)
        gone = push_button(button_words("Take out"), "small")
        gone.setAccessibleName(f"Take {item.what} out of the list")
        acts: tuple[tuple[str, Any, Callable[[], None]], ...] = (
            ("holds", holds, partial(self._turn, index, "holds_vehicle")),
            ("done", done, partial(self._turn, index, "done")),
            ("gone", gone, partial(self._drop, index)),
        )
        for column, (name, button, act) in enumerate(acts):
            button.clicked.connect(act)
            self.buttons[index, name] = button
            self._grid.addWidget(button, row + 1, column)

    # --- into the build --------------------------------------------------------------------

    def _rows(self) -> list[dict[str, Any]]:
        rows: list[dict[str, Any]] = dumped(self.session.base).get("open_items", [])
        return rows

    def _put(self, rows: list[dict[str, Any]], label: str) -> None:
        self.session.make(BuildChange(label, {"open_items": rows}), in_setup=False)
        self.show_items()

    def _turn(self, index: int, what: str) -> None:
        rows = self._rows()
        item = self.session.base.open_items[index]
        if what == "done":
            rows[index]["done"] = None if item.done is not None else date.today().isoformat()
            said = "open again" if item.done is not None else "done"
        else:
            rows[index]["holds_vehicle"] = not item.holds_vehicle
            said = "holds the vehicle" if not item.holds_vehicle else "does not hold the vehicle"
        self._put(rows, f"{item.what} {said}")

    def _drop(self, index: int) -> None:
        rows = self._rows()
        gone = rows.pop(index)
        self._put(rows, f"{gone['what']} taken out")

    def take(self) -> None:
        """Add what is typed."""
        typed = {name: field.text().strip() for name, field in self.fields.items()}
        if not typed["what"]:
            self._refuse("Say what is open.", "what")
            return
        made: dict[str, Any] = {"what": typed["what"], "holds_vehicle": self.holds.isChecked()}
        made |= {name: typed[name] for name in ("place", "easy_while") if typed[name]}
        if typed["due"]:
            try:
                made["due"] = date.fromisoformat(typed["due"]).isoformat()
            except ValueError:
                self._refuse(f'"{typed["due"]}" is no date; write 2026-05-31.', "due")
                return
        self.refused.setText("")
        for field in self.fields.values():
            field.clear()
        self.holds.setChecked(False)
        self._put([*self._rows(), made], f"Open: {typed['what']}")

    def _refuse(self, words: str, name: str) -> None:
        self.refused.setText(words)
        self.fields[name].setFocus()
