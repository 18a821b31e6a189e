"""Which log is looked at, or set beside it: one segment a log."""

from functools import partial

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QHBoxLayout, QToolButton, QWidget

from urgens.document.proof import Log
from urgens.ui.widgets.cleared import clear
from urgens.ui.widgets.plain import button_words
from urgens.ui.widgets.segment import segment


class LogChoice(QWidget):
    """A row of logs by their files; `chosen` says whose place was pressed."""

    chosen = Signal(int)

    def __init__(self) -> None:
        super().__init__()
        self.buttons: list[QToolButton] = []
        self._shown: tuple[tuple[int, str], ...] = ()
        self._row = QHBoxLayout(self)
        self._row.setContentsMargins(0, 0, 0, 0)

    def show_logs(self, logs: tuple[Log, ...], place: int, without: int | None = None) -> None:
        """Show logs, one of them chosen, one of them left out."""
        shown = tuple((n, log.file) for n, log in enumerate(logs) if n != without)
        if shown != self._shown:
            self._shown = shown
            self._make()
        for (number, _), button in zip(shown, self.buttons, strict=True):
            button.setChecked(number == place)

    def _make(self) -> None:
        clear(self._row)
        self.buttons = []
        for place, name in self._shown:
            button = segment(button_words(name))
            button.setProperty("narrow", "true")
            button.clicked.connect(partial(self.chosen.emit, place))
            self.buttons.append(button)
            self._row.addWidget(button)
