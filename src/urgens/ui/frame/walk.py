"""A walk of one minute through the window, one card at a time; it can be left at any time."""

from collections.abc import Callable
from dataclasses import dataclass

from PySide6.QtCore import QPoint, QRect, Qt, Signal
from PySide6.QtGui import QColor, QKeyEvent, QPainter, QPaintEvent
from PySide6.QtWidgets import QFrame, QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from urgens.ui.theme.paint import T, ink, pen
from urgens.ui.widgets.worded import worded, wrapped

CARD = 380  # px of the card
GAP = 14  # between it and what it speaks of
RING = 4  # px around that


@dataclass(frozen=True)
class WalkStop:
    """One stop of the walk: what is looked at, what is said of it, what is shown for it first."""

    target: Callable[[], QWidget]
    title: str
    words: str
    before: Callable[[], None] = lambda: None


class _Ring(QWidget):
    """A ring around what is spoken of; it lets every press through."""

    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent)
        self.setAttribute(Qt.WidgetAttribute.WA_TransparentForMouseEvents)

    def paintEvent(self, event: QPaintEvent) -> None:
        with QPainter(self) as painter:
            ink(painter, pen(T.front, 3), QColor(0, 0, 0, 0))
            painter.drawRoundedRect(self.rect().adjusted(2, 2, -2, -2), 6, 6)


class Walk(QFrame):
    """The card of the walk, beside what it speaks of; Esc leaves it, Enter goes on."""

    ended = Signal()

    def __init__(self, parent: QWidget, stops: tuple[WalkStop, ...]) -> None:
        super().__init__(parent)
        self.setProperty("role", "panel")
        self._stops = stops
        self.at = 0
        self.ring = _Ring(parent)
        self.count, self.title, self.words = (
            worded("", "small"), wrapped("sentence"), wrapped(""),
        )  # fmt: skip
        self.on, self.leave = QPushButton("Go on"), QPushButton("Leave the walk")
        self.on.setProperty("role", "primary")
        self.leave.setProperty("role", "quiet")
        self.on.clicked.connect(self.go_on)
        self.leave.clicked.connect(self.end)
        column = QVBoxLayout(self)
        for widget in (self.count, self.title, self.words):
            column.addWidget(widget)
        row = QHBoxLayout()
        row.addWidget(self.leave)
        row.addStretch()
        row.addWidget(self.on)
        column.addLayout(row)
        self.setFixedWidth(CARD)
        self._show()

    def go_on(self) -> None:
        """Go to the next stop; after the last one the walk is done."""
        if self.at + 1 == len(self._stops):
            self.end()
            return
        self.at += 1
        self._show()

    def end(self) -> None:
        """Leave the walk; nothing of it stays."""
        self.ring.deleteLater()
        self.ring.hide()
        self.hide()
        self.ended.emit()
        self.deleteLater()

    def _show(self) -> None:
        stop = self._stops[self.at]
        stop.before()
        last = self.at + 1 == len(self._stops)
        self.count.setText(f"{self.at + 1} of {len(self._stops)}")
        self.title.setText(stop.title)
        self.words.setText(stop.words)
        self.on.setText("Done" if last else "Go on")
        self.setAccessibleName(f"{stop.title}: {stop.words}")
        self._place(stop.target())
        self.ring.show()
        self.show()
        self.ring.raise_()
        self.raise_()
        self.on.setFocus()

    def _place(self, target: QWidget) -> None:
        """Put the ring around the target, and the card where there is room beside it."""
        window = self.parentWidget()
        assert window is not None  # it was made for one
        box = QRect(target.mapTo(window, QPoint(0, 0)), target.size())
        box = box.adjusted(-RING, -RING, RING, RING).intersected(window.rect())
        self.ring.setGeometry(box)
        self.adjustSize()
        wide, high = self.width(), self.height()
        spots = (
            QPoint(box.right() + GAP, box.top()), QPoint(box.left() - GAP - wide, box.top()),
            QPoint(box.left(), box.top() - GAP - high), QPoint(box.left(), box.bottom() + GAP),
        )  # fmt: skip
        room = window.rect()
        for spot in spots:
            card = QRect(spot, self.size())
            card.moveTop(min(max(card.top(), 8), room.height() - high - 8))
            if room.contains(card) and not card.intersects(box):
                self.move(card.topLeft())
                return
        self.move((room.width() - wide) // 2, (room.height() - high) // 2)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape:
            self.end()
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.go_on()
        else:
            super().keyPressEvent(event)
