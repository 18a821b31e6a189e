"""A box that says something, with our own mark."""

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QPainter, QPixmap
from PySide6.QtWidgets import QLabel, QMessageBox, QWidget

from urgens.guidance import Severity
from urgens.ui.theme.paint import T, face, outline
from urgens.ui.widgets.marks import severity_mark

SIDE = 40  # px of the mark


class Message(QMessageBox):
    """A box that says a fact, and more about it, as they are."""

    def __init__(
        self,
        icon: QMessageBox.Icon,
        title: str,
        fact: str,
        more: str = "",
        parent: QWidget | None = None,
    ) -> None:
        super().__init__(parent)
        self.setIcon(icon)
        self.setIconPixmap(_mark(icon, self.devicePixelRatioF()))
        self.setWindowTitle(title)
        self.setTextFormat(Qt.TextFormat.PlainText)
        self.setText(fact)
        self.setInformativeText(more)
        for part in self.findChildren(QLabel):  # Qt has no word for the second text's format
            part.setTextFormat(Qt.TextFormat.PlainText)


def _mark(icon: QMessageBox.Icon, ratio: float) -> QPixmap:
    """Return the mark of a warning, or a ring with a question in it."""
    side = round(SIDE * T.scale)
    made = QPixmap(round(side * ratio), round(side * ratio))
    made.setDevicePixelRatio(ratio)
    made.fill(Qt.GlobalColor.transparent)
    with QPainter(made) as painter:
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        middle, radius = QPointF(side / 2, side / 2), side * 0.42
        if icon is QMessageBox.Icon.Question:
            outline(painter, T.ink, 2.5)
            painter.drawEllipse(middle, radius, radius)
            painter.setFont(face(round(side * 0.55), 700))
            painter.drawText(QRectF(0, 0, side, side), Qt.AlignmentFlag.AlignCenter, "?")
        else:
            severity_mark(painter, Severity.WARNING, middle, radius)
    return made
