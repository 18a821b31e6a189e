"""Small drawings of terms that words alone leave open."""

from collections.abc import Callable

from PySide6.QtCore import QPointF, QRectF, QSize, Qt
from PySide6.QtGui import QColor, QPainter, QPaintEvent

from urgens.ui.theme.paint import T, ink, outline, pen
from urgens.ui.widgets.board import arrow, write
from urgens.ui.widgets.painted import Painted

WIDE, HIGH = 330.0, 190.0  # px


class TermDrawing(Painted):
    """One of `DRAWINGS` by its name; nothing where it has none."""

    def __init__(self) -> None:
        super().__init__()
        self.name = ""
        self.setFixedSize(self.scaled(WIDE, HIGH))

    def sizeHint(self) -> QSize:
        return self.scaled(WIDE, HIGH)

    def show_drawing(self, name: str) -> None:
        """Draw another one, or hide where there is none; name: of it [text]."""
        self.name = name
        self.setVisible(bool(name))
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        if self.name:
            with self.begin() as painter:
                DRAWINGS[self.name](painter)


def _pressures(painter: QPainter, named: str) -> None:
    """Out of a valve against into it: level with it up to the knee, then at the slope."""
    start, knee, end = QPointF(40, 160), QPointF(140, 80), QPointF(270, 44)
    painter.setPen(pen(T.hair, 1.5))
    painter.drawLine(start, QPointF(300, 160))
    painter.drawLine(start, QPointF(40, 20))
    painter.setPen(pen(T.muted, 1.5, Qt.PenStyle.DotLine))
    painter.drawLine(knee, QPointF(215, 20))
    painter.setPen(pen(T.rear, 3))
    painter.drawPolyline([start, knee, end])
    write(painter, "into the valve", QPointF(300, 180), side="right")
    write(painter, "out of it", QPointF(46, 30))
    if named == "knee":
        ink(painter, pen(T.ink, 2), QColor(T.sheet))
        painter.drawEllipse(knee, 6, 6)
        write(painter, "knee", knee + QPointF(10, 20), size=17, weight=600, color=T.ink)
        return
    painter.setPen(pen(T.ink, 1.5))
    corner = QPointF(end.x(), knee.y())
    painter.drawLine(knee, corner)
    painter.drawLine(corner, end)
    write(painter, "rise into it", QPointF(205, 98), side="middle")
    write(painter, "rise out", QPointF(276, 68))
    write(painter, "slope", QPointF(276, 44), size=17, weight=600, color=T.ink)


def _knee(painter: QPainter) -> None:
    _pressures(painter, "knee")


def _slope(painter: QPainter) -> None:
    _pressures(painter, "slope")


def _shoes(painter: QPainter) -> None:
    """Two shoes in their drum, which drags one on as it turns and pushes the other off."""
    middle, radius = QPointF(110, 95), 74.0
    outline(painter, T.ink, 2)
    painter.drawEllipse(middle, radius, radius)
    inner = QRectF(middle.x() - 62, middle.y() - 62, 124, 124)
    painter.setPen(pen(T.rear, 9))
    painter.drawArc(inner, 115 * 16, 130 * 16)
    painter.setPen(pen(T.steel, 9))
    painter.drawArc(inner, -65 * 16, 130 * 16)
    ink(painter, pen(T.ink, 2), QColor(T.fluid[1]))
    painter.drawRect(QRectF(middle.x() - 20, middle.y() - 58, 40, 14))
    ink(painter, Qt.PenStyle.NoPen, QColor(T.ink))
    painter.drawEllipse(QPointF(middle.x(), middle.y() + 54), 6, 6)
    tip = QPointF(middle.x() - 30, 10)
    painter.setPen(pen(T.ink, 2))
    painter.drawLine(tip, QPointF(middle.x() + 30, 10))
    ink(painter, Qt.PenStyle.NoPen, QColor(T.ink))
    arrow(painter, tip, QPointF(1, 0))
    write(painter, "the drum turns", QPointF(196, 20))
    write(painter, "leading: dragged on", QPointF(196, 84), weight=600, color=T.rear)
    write(painter, "trailing: pushed off", QPointF(196, 110), weight=600, color=T.muted)


def _adhesion(painter: QPainter) -> None:
    """Brake force of an axle beside the load on it, and the most that the road passes."""
    for x, high, color, words in ((70, 120, T.hair, "load"), (160, 72, T.front, "brake force")):
        painter.fillRect(QRectF(x - 26, 160 - high, 52, high), QColor(color))
        write(painter, words, QPointF(x, 180), side="middle")
    painter.setPen(pen(T.danger, 2, Qt.PenStyle.DashLine))
    painter.drawLine(QPointF(124, 160 - 96), QPointF(250, 160 - 96))
    write(painter, "locks here", QPointF(200, 56), color=T.danger)
    write(painter, "force over load: 0.6", QPointF(200, 120), weight=600, color=T.front)


DRAWINGS: dict[str, Callable[[QPainter], None]] = {
    "knee": _knee,
    "slope": _slope,
    "shoes": _shoes,
    "adhesion": _adhesion,
}
