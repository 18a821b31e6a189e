"""The cylinder on the bench: level in its vice, loops back under the fluid, what pushes it."""

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QPainter, QPainterPath

from urgens.guidance.procedures.workshop import Workshop
from urgens.ui.theme.paint import T, ink, outline, pen
from urgens.ui.widgets.board import arrow, write

SIZE = (420.0, 200.0)  # px that it is drawn in
BORE, TANK, FLANGE = QRectF(110, 104, 190, 40), QRectF(140, 34, 130, 56), QRectF(300, 88, 12, 72)
LEVELS = {"unknown": 0.0, "full": 0.5, "used": 0.42}  # of the reservoir, filled half on the bench


def draw_bench(
    painter: QPainter, at: QPointF, stands: Workshop, chambers: int, *, pushed: bool
) -> None:
    """Draw it around a middle; pushed: whether it is stroked now."""
    fitted = {thing for thing, _ in stands.fitted}
    painter.save()
    painter.translate(at - QPointF(SIZE[0] / 2, SIZE[1] / 2))
    painter.setPen(pen(T.ink, 3))
    painter.drawLine(QPointF(20, 188), QPointF(400, 188))
    _vice(painter)
    ink(painter, pen(T.ink, 2), QColor(T.steel))
    painter.drawRoundedRect(BORE, 4, 4)
    painter.drawRect(FLANGE)
    level = LEVELS[stands.states["level"]]
    _tank(painter, level, filter_in=("filter", ()) not in stands.away)
    _inside(painter, wet=level > 0.0, depth=0.55 if pushed else 0.85)
    for number in range(chambers):
        outlet = QPointF(BORE.left() + 40 + number * 80, BORE.bottom())
        if "loops" in fitted:
            _loop(painter, outlet, number)
        else:
            ink(painter, pen(T.ink, 2), QColor(T.ink))
            painter.drawRect(QRectF(outlet.x() - 6, outlet.y(), 12, 9))
    _rod(painter, pushed=pushed)
    words = "loops under the fluid" if "loops" in fitted else "outlets plugged"
    write(painter, words, QPointF(22, 178), size=15, weight=600, color=T.ink)
    painter.restore()


def _vice(painter: QPainter) -> None:
    """Draw the jaws at the flange, never at the bore."""
    ink(painter, pen(T.ink, 2), QColor(T.metal))
    painter.drawRect(QRectF(286, 150, 14, 38))
    painter.drawRect(QRectF(312, 150, 14, 38))
    painter.drawRect(QRectF(270, 176, 72, 12))


def _tank(painter: QPainter, level: float, *, filter_in: bool) -> None:
    ink(painter, pen(T.ink, 2), QColor(T.sheet))
    painter.drawRoundedRect(TANK, 6, 6)
    high = TANK.height() * level
    box = TANK.adjusted(3, 3, -3, -3)
    painter.fillRect(QRectF(box.left(), box.bottom() - high, box.width(), high), QColor(T.fluid[1]))
    neck = QRectF(TANK.center().x() - 26, TANK.top() - 10, 52, 12)
    ink(painter, pen(T.ink, 2), QColor(T.sheet))
    painter.drawRect(neck)
    if filter_in:
        painter.fillRect(neck.adjusted(4, 3, -4, 8), QColor(T.muted))
    for x in (TANK.left() + 32, TANK.right() - 32):
        ink(painter, pen(T.ink, 2), QColor(T.steel))
        painter.drawRect(QRectF(x - 8, TANK.bottom(), 16, BORE.top() - TANK.bottom()))


def _inside(painter: QPainter, *, wet: bool, depth: float) -> None:
    inner = BORE.adjusted(5, 5, -5, -5)
    inner.setWidth(inner.width() * depth)
    painter.fillRect(inner, QColor(T.fluid[1] if wet else T.sheet))


def _loop(painter: QPainter, outlet: QPointF, number: int) -> None:
    """Draw a tube from an outlet round to under the fluid."""
    left = BORE.left() - 34 - number * 22
    end = QPointF(TANK.left() + 28 + number * 24, TANK.bottom() - 8)
    path = QPainterPath(outlet)
    path.cubicTo(outlet + QPointF(0, 34), QPointF(left, BORE.bottom() + 30), QPointF(left, 90))
    path.cubicTo(QPointF(left, 10), QPointF(end.x(), 0), end)
    outline(painter, T.ink, 7)
    painter.drawPath(path)
    painter.setPen(pen(T.fluid[1], 4))
    painter.drawPath(path)


def _rod(painter: QPainter, *, pushed: bool) -> None:
    start = QPointF(FLANGE.right() - (26 if pushed else 0), BORE.center().y())
    painter.setPen(pen(T.ink, 6, Qt.PenStyle.SolidLine))
    painter.drawLine(start, QPointF(390, start.y()))
    if pushed:
        ink(painter, Qt.PenStyle.NoPen, QColor(T.ink))
        arrow(painter, QPointF(340, start.y() - 16), QPointF(1, 0), 7)
        write(painter, "full, slow", QPointF(352, start.y() - 22), size=15, weight=600, color=T.ink)
