"""A line over the bench's foot for a while: what happened out of sight."""

from PySide6.QtCore import QPoint, Qt
from PySide6.QtGui import QHideEvent, QMouseEvent
from PySide6.QtWidgets import QLabel, QWidget

from urgens.ui.widgets.timers import once

LASTS = 7000  # ms
EDGE = 12  # px from the bench's left and lower edge


class Toast(QLabel):
    """Says one line over a widget, until it has been read, or is clicked."""

    def __init__(self, over: QWidget) -> None:
        super().__init__(over.parentWidget())
        self._over = over
        self.setTextFormat(Qt.TextFormat.PlainText)
        self.setProperty("role", "toast")
        self.setWordWrap(True)
        self.setAccessibleName("What happened")
        self._gone = once(self, LASTS, self.hide)
        self.hide()

    def say(self, words: str) -> None:
        """Show a line for a while; it takes no focus."""
        if not self._over.isVisible():
            return
        self.setText(words)
        self.setAccessibleDescription(words)
        wide = min(self._over.width() - 2 * EDGE, self.fontMetrics().horizontalAdvance(words) + 40)
        self.resize(wide, self.heightForWidth(wide))
        foot = self._over.geometry().bottomLeft() + QPoint(EDGE, -EDGE)
        self.move(foot.x(), foot.y() - self.height())
        self.show()
        self.raise_()
        self._gone.start()

    def hideEvent(self, event: QHideEvent) -> None:
        self._gone.stop()

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self.hide()
