"""A button as wide as its room: the end of words that do not fit is left out, and pointed out."""

from PySide6.QtCore import QSize, Qt
from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import QPushButton, QSizePolicy

from urgens.ui.widgets.plain import button_words, point_out

BESIDE = 26  # px that a button needs beside its words


class ElidedButton(QPushButton):
    """Says all of its words to who points at it, or listens."""

    def __init__(self, words: str) -> None:
        super().__init__(button_words(words))
        self._words = words
        self.setAccessibleName(words)
        self.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Fixed)

    def minimumSizeHint(self) -> QSize:
        return QSize(60, super().minimumSizeHint().height())

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        room = self.width() - BESIDE
        shown = self.fontMetrics().elidedText(self._words, Qt.TextElideMode.ElideRight, room)
        self.setText(button_words(shown))
        point_out(self, "" if shown == self._words else self._words)
