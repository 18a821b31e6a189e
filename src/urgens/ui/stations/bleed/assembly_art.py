"""What goes on in which order: booster, cylinder, lines; a banjo's washers under its head."""

from collections.abc import Collection

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QPainter

from urgens.ui.theme.paint import T, ink, outline, pen
from urgens.ui.widgets.board import write

SIZE = (420.0, 190.0)  # px that it is drawn in
FIREWALL, MIDDLE = 250.0, 92.0  # px: where it stands, and the height of the rod
BANJO = "banjo bolts"


def draw_assembly(
    painter: QPainter, at: QPointF, there: Collection[str], now: str, *, boosted: bool
) -> None:
    """Draw it around a middle: what is there full, what is to come faint, what is on now in blue.

    there: things that are on; now: the thing of the step.
    """
    painter.save()
    painter.translate(at - QPointF(SIZE[0] / 2, SIZE[1] / 2))
    if now == BANJO:
        _banjo(painter)
    else:
        _firewall(painter)
        _pedal(painter)
        if boosted:
            _booster(painter, _color("booster", there, now))
        _cylinder(painter, _color("cylinder", there, now), boosted=boosted)
        _lines(painter, _color("lines", there, now), boosted=boosted)
    painter.restore()


def _color(thing: str, there: Collection[str], now: str) -> str:
    if thing == now:
        return str(T.front)
    return str(T.ink if thing in there else T.hair)


def _firewall(painter: QPainter) -> None:
    painter.setPen(pen(T.muted, 4))
    painter.drawLine(QPointF(FIREWALL, 14), QPointF(FIREWALL, 176))
    write(painter, "firewall", QPointF(FIREWALL + 8, 26), size=14)


def _pedal(painter: QPainter) -> None:
    painter.setPen(pen(T.ink, 6))
    pivot, pad = QPointF(330, 30), QPointF(372, 164)
    painter.drawLine(pivot, pad)
    painter.drawLine(pad - QPointF(12, 0), pad + QPointF(14, 6))
    painter.setPen(pen(T.ink, 4))
    painter.drawLine(QPointF(FIREWALL + 4, MIDDLE), QPointF(349, MIDDLE))
    ink(painter, pen(T.ink, 2), QColor(T.sheet))
    painter.drawEllipse(pivot, 6, 6)
    painter.drawEllipse(QPointF(349, MIDDLE), 5, 5)
    write(painter, "pin", QPointF(362, MIDDLE + 4), size=14)


def _booster(painter: QPainter, color: str) -> None:
    box = QRectF(FIREWALL - 62, MIDDLE - 58, 58, 116)
    ink(painter, pen(color, 3), QColor(T.sheet))
    painter.drawRoundedRect(box, 16, 16)
    write(painter, "booster", QPointF(box.center().x(), box.bottom() + 18), size=14, side="middle",
          color=color if color != T.hair else None)  # fmt: skip


def _cylinder(painter: QPainter, color: str, *, boosted: bool) -> None:
    right = FIREWALL - (66 if boosted else 4)
    ink(painter, pen(color, 3), QColor(T.sheet))
    painter.drawRect(QRectF(right - 10, MIDDLE - 34, 10, 68))
    painter.drawRoundedRect(QRectF(right - 112, MIDDLE - 18, 102, 36), 4, 4)
    painter.drawRoundedRect(QRectF(right - 100, MIDDLE - 60, 78, 32), 5, 5)
    for x in (right - 84, right - 42):
        painter.drawRect(QRectF(x - 5, MIDDLE - 28, 10, 10))
    write(painter, "cylinder", QPointF(right - 60, MIDDLE - 68), size=14, side="middle",
          color=color if color != T.hair else None)  # fmt: skip


def _lines(painter: QPainter, color: str, *, boosted: bool) -> None:
    right = FIREWALL - (66 if boosted else 4)
    outline(painter, color, 4)
    for number, x in enumerate((right - 84, right - 42)):
        painter.drawLine(QPointF(x, MIDDLE + 18), QPointF(x, MIDDLE + 52 + 16 * number))
        painter.drawLine(
            QPointF(x, MIDDLE + 52 + 16 * number), QPointF(18, MIDDLE + 52 + 16 * number)
        )
    write(painter, "lines", QPointF(20, MIDDLE + 44), size=14,
          color=color if color != T.hair else None)  # fmt: skip


def _banjo(painter: QPainter) -> None:
    """Draw a bolt, the larger washer under its head, the eye, the smaller washer, the port."""
    x = SIZE[0] / 2 - 60
    rows = (
        (20.0, 34.0, 60.0, T.metal, "bolt head"),
        (56.0, 6.0, 54.0, T.warn, "new washer, the larger"),
        (64.0, 30.0, 74.0, T.steel, "eye of the hose or line"),
        (96.0, 6.0, 44.0, T.warn, "new washer, the smaller"),
        (104.0, 56.0, 92.0, T.metal, "cylinder or caliper"),
    )  # fmt: skip
    ink(painter, Qt.PenStyle.NoPen, QColor(T.ink))
    painter.drawRect(QRectF(x - 9, 40, 18, 90))
    for top, tall, wide, color, words in rows:
        ink(painter, pen(T.ink, 2), QColor(color))
        painter.drawRect(QRectF(x - wide / 2, top, wide, tall))
        write(painter, words, QPointF(x + 64, top + tall / 2 + 5), size=15, color=T.ink)
