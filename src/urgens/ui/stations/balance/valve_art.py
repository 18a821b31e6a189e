"""Valves as cross-sections, with their pistons where the press puts them."""

from collections.abc import Callable, Sequence

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QPainter

from urgens.document.kinds.valves.kind import Element
from urgens.ui.theme.paint import T, fluid, ink, pen

# px of a body
WIDE = 118.0
TALL = 74.0
BEHIND = 7.0  # px by which the other of a pair shows behind it


def body(painter: QPainter, at: QPointF, *, chosen: bool) -> QRectF:
    """Draw a valve's body with its middle at a point, and return it."""
    box = QRectF(at.x() - WIDE / 2, at.y() - TALL / 2, WIDE, TALL)
    ink(painter, pen(T.front if chosen else T.ink, 3 if chosen else 2), QColor(T.steel))
    painter.drawRoundedRect(box, 5, 5)
    return box


def chambers(painter: QPainter, box: QRectF, inlet: float, outlet: float) -> None:
    """Fill the inlet's and the outlet's side; both as shares of full pressure."""
    half = box.adjusted(8, 14, -8, -14)
    ink(painter, Qt.PenStyle.NoPen, fluid(inlet))
    painter.drawRect(QRectF(half.left(), half.top(), half.width() / 2 - 4, half.height()))
    painter.setBrush(fluid(outlet))
    painter.drawRect(QRectF(half.center().x() + 4, half.top(), half.width() / 2 - 4, half.height()))


def seat(painter: QPainter, box: QRectF, gap: float) -> None:
    """Draw the wall between the chambers and the stem that shuts it; `gap` 0 is shut, 1 open."""
    x, top, foot = box.center().x(), box.top() + 14, box.bottom() - 14
    middle = box.center().y()
    ink(painter, Qt.PenStyle.NoPen, QColor(T.metal))
    painter.drawRect(QRectF(x - 4, top, 8, middle - 7 - top))
    painter.drawRect(QRectF(x - 4, middle + 7, 8, foot - middle - 7))
    painter.setBrush(QColor(T.ink))
    head = x + 5 + 11 * gap
    painter.drawPolygon(
        [QPointF(head, middle), QPointF(head + 9, middle - 10), QPointF(head + 9, middle + 10)]
    )
    painter.drawRect(QRectF(head + 8, middle - 2.5, 16, 5))


def spring(painter: QPainter, start: QPointF, end: QPointF, turns: int = 6) -> None:
    """Draw a coil spring, level."""
    painter.setPen(pen(T.ink, 1.5))
    step = (end.x() - start.x()) / (2 * turns)
    points = [start]
    for index in range(1, 2 * turns):
        high = 6.0 if index % 2 else -6.0
        points.append(QPointF(start.x() + index * step, start.y() + high))
    painter.drawPolyline([*points, end])


def ball(painter: QPainter, box: QRectF, *, shut: bool) -> None:
    """Draw a ball on its ramp: at the foot, or rolled up to its seat."""
    left, foot, seat_at = box.left() + 11, box.bottom() - 14, box.center().x() - 5
    ink(painter, pen(T.ink, 1.5), QColor(T.metal))
    painter.drawPolygon([QPointF(left, foot), QPointF(seat_at, foot), QPointF(seat_at, foot - 12)])
    at = QPointF(seat_at - 7, box.center().y()) if shut else QPointF(left + 9, foot - 9)
    painter.setBrush(QColor(T.ink))
    painter.drawEllipse(at, 7, 7)


def adjuster(painter: QPainter, box: QRectF, *, shut: bool) -> None:
    """Draw the screw that sets a valve."""
    y = box.center().y()
    painter.setPen(pen(T.ink, 3))
    painter.drawLine(QPointF(box.right(), y), QPointF(box.right() + 9, y))
    painter.drawLine(QPointF(box.right() + 9, y - 8), QPointF(box.right() + 9, y + 8))


def lever(painter: QPainter, box: QRectF, *, shut: bool) -> None:
    """Draw the lever to the rear axle."""
    y = box.center().y()
    painter.setPen(pen(T.ink, 3))
    painter.drawLine(QPointF(box.right() - 8, box.bottom()), QPointF(box.right() - 26, y + 40))
    painter.drawLine(QPointF(box.right() - 26, y + 40), QPointF(box.left() + 12, y + 44))


def behind_spring(painter: QPainter, box: QRectF, *, shut: bool) -> None:
    """Draw the spring behind the piston."""
    y = box.center().y()
    spring(painter, QPointF(box.right() - 34, y), QPointF(box.right() - 8, y))


def poppet_spring(painter: QPainter, box: QRectF, *, shut: bool) -> None:
    """Draw the spring that holds a poppet on its seat."""
    y = box.center().y()
    spring(painter, QPointF(box.left() + 10, y), QPointF(box.center().x() - 6, y))


def check_disc(painter: QPainter, box: QRectF, *, shut: bool) -> None:
    """Draw the disc that keeps some pressure behind it."""
    ink(painter, pen(T.ink, 2), QColor(T.sheet))
    painter.drawEllipse(box.center(), 6, 6)


ELEMENTS: dict[Element, Callable[..., None]] = {
    "spring": behind_spring,
    "ball": ball,
    "adjuster": adjuster,
    "lever": lever,
    "poppet spring": poppet_spring,
    "check disc": check_disc,
}


def valve(
    painter: QPainter,
    drawing: Sequence[Element],
    at: QPointF,
    shares: tuple[float, float],
    *,
    chosen: bool,
    pair: bool = False,
) -> QRectF:
    """Draw a valve of its elements, with inlet and outlet as shares of full pressure."""
    if pair:  # the other circuit's, behind it
        body(painter, at + QPointF(BEHIND, -BEHIND), chosen=False)
    box = body(painter, at, chosen=chosen)
    inlet, outlet = shares
    chambers(painter, box, inlet, outlet)
    shut = outlet < inlet * (1 - 1e-9)
    seat(painter, box, 0.0 if shut else 1.0)
    for element in drawing:
        ELEMENTS[element](painter, box, shut=shut)
    return box
