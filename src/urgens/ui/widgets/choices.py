"""One of several, each a segment with words of its own."""

from collections.abc import Mapping
from functools import partial
from typing import Any

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import QBoxLayout, QToolButton, QWidget

from urgens.ui.widgets.cleared import clear
from urgens.ui.widgets.plain import button_words
from urgens.ui.widgets.segment import segment

_WAY = {Qt.Orientation.Horizontal: QBoxLayout.Direction.LeftToRight,
        Qt.Orientation.Vertical: QBoxLayout.Direction.TopToBottom}  # fmt: skip


class SegmentRow(QWidget):
    """A row or a column of segments; `chosen` says which was pressed.

    What is down is what was last shown, so that who answers `chosen` shows it anew.
    """

    chosen = Signal(object)

    def __init__(self, way: Qt.Orientation = Qt.Orientation.Horizontal) -> None:
        super().__init__()
        self.buttons: dict[Any, QToolButton] = {}
        self._row = QBoxLayout(_WAY[way], self)
        self._row.setContentsMargins(0, 0, 0, 0)
        self._row.setSpacing(2)

    def show_choices(self, words: Mapping[Any, str], chosen: object) -> None:
        """Show what there is to choose from, by its key, and which one is chosen."""
        if list(words) != list(self.buttons):
            self._make(words)
        for key, button in self.buttons.items():
            button.setText(button_words(words[key]))
            button.setChecked(key == chosen)

    def _make(self, words: Mapping[Any, str]) -> None:
        clear(self._row)
        self.buttons = {}
        for key in words:
            button = segment("")
            button.setProperty("narrow", "true")
            button.clicked.connect(partial(self._press, key))
            self.buttons[key] = button
            self._row.addWidget(button)

    def _press(self, key: object) -> None:
        self.buttons[key].setChecked(True)  # a second press does not take it back
        self.chosen.emit(key)
