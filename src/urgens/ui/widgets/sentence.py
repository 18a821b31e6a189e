"""A fact and its reason in at most a few lines, painted without laying the window out again."""

from html import escape

from PySide6.QtCore import QPointF, QSize, Qt, Signal
from PySide6.QtGui import QColor, QPainter, QPaintEvent, QResizeEvent, QStaticText
from PySide6.QtWidgets import QSizePolicy, QWidget

from urgens.ui.theme.paint import T, face

# px of the letters
SHORT = 16
SMALL = 14
# px of height
ONE_LINE = 24.0
TWO_LINES = 44.0


class Sentence(QWidget):
    """Bold fact, muted reason: one line of 16 px, or as many of 14 px as it takes, never cut."""

    height_wanted = Signal(int)

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self._fact, self._reason = "", ""
        self._laid, self._size = QStaticText(), SHORT

    def sizeHint(self) -> QSize:
        return QSize(200, round(TWO_LINES))

    @property
    def text(self) -> str:
        """All its words."""
        return f"{self._fact} {self._reason}".strip()

    def set_words(self, fact: str, reason: str) -> None:
        """Show these words."""
        self._fact, self._reason = fact, reason
        self.setAccessibleName(self.text)
        self._lay()

    def _lay(self) -> None:
        for size in (SHORT, SMALL):
            self._size = round(size * T.scale)
            self._laid = QStaticText(
                f'<b>{escape(self._fact)}</b> <span style="color:{T.muted}">'
                f"{escape(self._reason)}</span>"
            )
            self._laid.setTextFormat(Qt.TextFormat.RichText)
            self._laid.setTextWidth(self.width())
            self._laid.prepare(font=face(self._size))
            if self._laid.size().height() <= ONE_LINE * T.scale:
                break
        self.height_wanted.emit(round(max(self._laid.size().height(), TWO_LINES * T.scale)) + 8)
        self.update()

    def resizeEvent(self, event: QResizeEvent) -> None:
        self._lay()

    def paintEvent(self, event: QPaintEvent) -> None:
        with QPainter(self) as painter:
            painter.setFont(face(self._size))
            painter.setPen(QColor(T.ink))
            top = max((self.height() - self._laid.size().height()) / 2, 0.0)
            painter.drawStaticText(QPointF(0, top), self._laid)
