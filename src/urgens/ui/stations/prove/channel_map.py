"""Which column of a log is which channel, and in which unit."""

from collections.abc import Callable
from functools import partial

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QGridLayout, QLabel, QMenu, QToolButton, QWidget

from urgens.bench.logs.channels import CHANNELS, Mapped
from urgens.bench.logs.read import ReadLog
from urgens.ui.widgets.cleared import clear
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.plain import button_words
from urgens.ui.widgets.worded import worded, wrapped

NO_COLUMN = "none"
LONGEST = 18  # letters of a column's name that are shown


class ChannelMap(QWidget):
    """One row a channel; `column_told` and `unit_told` say what was chosen for which."""

    column_told = Signal(str, str)
    unit_told = Signal(str, str)

    def __init__(self) -> None:
        super().__init__()
        self.log: ReadLog | None = None
        self.columns: dict[str, QToolButton] = {}
        self.units: dict[str, QToolButton] = {}
        self.questions: dict[str, QLabel] = {}
        self.wanted: set[str] = set()
        self.more = QToolButton()
        self._rows = tight(QGridLayout(self))
        self._rows.setColumnStretch(0, 1)

    def show_log(self, log: ReadLog | None) -> None:
        """Show the channels of a log, and those that were asked for."""
        self.log = log
        clear(self._rows)
        self.columns, self.units, self.questions = {}, {}, {}
        if log is None:
            return
        row = 0
        for name in CHANNELS:
            mapped = log.channels.get(name)
            if mapped is None and name not in self.wanted:
                continue
            self._show_channel(log, name, mapped, row)
            row += 1
            if name in log.questions:
                label = wrapped("warned", log.questions[name])
                self.questions[name] = label
                self._rows.addWidget(label, row, 0, 1, 3)
                row += 1
        self._rows.addWidget(self._more(log), row, 0, 1, 3)

    def _show_channel(self, log: ReadLog, name: str, mapped: Mapped | None, row: int) -> None:
        kind = CHANNELS[name]
        self._rows.addWidget(worded(kind.title, "small"), row, 0)
        chosen = mapped.column if mapped else NO_COLUMN
        choices = (NO_COLUMN, *log.file.names)
        column = _menu(chosen, choices, partial(self.column_told.emit, name))
        column.setAccessibleName(f"{kind.title}: column {column.text()}")
        self.columns[name] = column
        self._rows.addWidget(column, row, 1)
        if mapped is not None:
            unit = _menu(mapped.unit, kind.units, partial(self.unit_told.emit, name))
            unit.setAccessibleName(f"{kind.title}: in {mapped.unit}")
            self.units[name] = unit
            self._rows.addWidget(unit, row, 2)

    def _more(self, log: ReadLog) -> QToolButton:
        """Return the button that brings a channel which is not mapped yet."""
        self.more = QToolButton()
        self.more.setProperty("role", "kind")
        self.more.setText("Another channel")
        self.more.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
        menu = QMenu(self.more)
        for name, kind in CHANNELS.items():
            if name not in log.channels:
                menu.addAction(kind.title, partial(self.want, name))
        self.more.setMenu(menu)
        return self.more

    def want(self, name: str) -> None:
        """Bring a row for a channel that has no column yet."""
        self.wanted.add(name)
        self.show_log(self.log)


def _menu(words: str, choices: tuple[str, ...], act: Callable[[str], None]) -> QToolButton:
    button = QToolButton()
    button.setProperty("role", "kind")
    button.setText(button_words(words if len(words) < LONGEST else f"{words[: LONGEST - 2]}…"))
    button.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
    menu = QMenu(button)
    for one in choices:
        menu.addAction(button_words(one), partial(act, one))
    button.setMenu(menu)
    return button
