"""How parts, lines, ends and gauges of a plan are drawn: bodies by what they are inside."""

from collections.abc import Callable, Sequence
from math import cos, hypot, radians, sin

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QPainter, QPainterPath, QPen, QPolygonF

from urgens.document.circuits import REDUCING
from urgens.document.kinds.valves import LAID
from urgens.document.layout.layout import FittedPart
from urgens.ui.theme.paint import T, ink, outline, pen, width
from urgens.ui.widgets.board import write
from urgens.ui.widgets.schematic import SchematicPart

CASING = 10.0
CORE = 5.0
TICK = 2.5
TAG = 20.0  # px: how high a tag is
GLYPH = 16.0  # px: a seat's sign
DIAL = 15.0  # px: radius of a gauge
SWEEP = 240.0  # degrees from no pressure to the hardest press
SMALL = ("tee", "union", "adapter", "plug", "banjo", "light-switch", "sensor")


def line(painter: QPainter, path: QPainterPath, circuit: str, fluid: QColor | None) -> None:
    """Draw a line: its casing by circuit, in it the fluid; unfed it is empty and dotted."""
    if fluid is None:
        painter.strokePath(path, pen(T.muted, CORE, Qt.PenStyle.DotLine))
        return
    casing = {"front": T.front, "rear": T.rear}.get(circuit, T.ink)
    painter.strokePath(path, pen(casing, CASING))
    painter.strokePath(path, QPen(fluid, CORE))
    if circuit == "rear":
        ticks = QPen(QColor(T.rear), CORE)
        ticks.setCapStyle(Qt.PenCapStyle.FlatCap)
        ticks.setDashPattern([TICK / CORE, 2.2])
        painter.strokePath(path, ticks)


def screwed(painter: QPainter, path: QPainterPath) -> None:
    """Draw two parts screwed into each other: a short neck of metal."""
    painter.strokePath(path, pen(T.ink, CASING))
    painter.strokePath(path, pen(T.metal, CASING - 3.0))


def body(
    painter: QPainter,
    part: SchematicPart,
    fitted: FittedPart,
    *,
    chosen: bool,
    drum: bool,
    cylinder: str,
) -> None:
    """Draw a part round its middle; drum: of a wheel; cylinder: of which kind the master is."""
    wide, high = part.size
    box = QRectF(-wide / 2, -high / 2, wide, high)
    outline = pen(T.front if chosen else T.ink, 3 if chosen else 1.5)
    painter.setPen(outline)
    if fitted.kind == "hose":
        _hose(painter, part, outline)
    elif fitted.kind == "wheel-brake":
        _wheel(painter, box, outline, drum=drum, front=(fitted.wheel or "").startswith("front"))
    elif fitted.kind in SMALL:
        painter.setBrush(QColor(T.metal))
        painter.drawRoundedRect(box.adjusted(2, 2, -2, -2), 5, 5)
        _ports(painter, part)
    else:
        painter.setBrush(QColor(T.steel))
        painter.drawRoundedRect(box, 4, 4)
        if fitted.kind == "master":
            _cylinders(painter, box, cylinder)
        else:
            _INSIDE.get(fitted.kind, _nothing)(painter, box)
        _ports(painter, part)


def _ports(painter: QPainter, part: SchematicPart) -> None:
    ink(painter, pen(T.ink, 1.5), QColor(T.sheet))
    for port in part.ports:
        painter.drawEllipse(QPointF(*port.at), 4, 4)


def _hose(painter: QPainter, part: SchematicPart, outline: QPen) -> None:
    """Draw a hose as a wave between its two ends."""
    start, end = (QPointF(*port.at) for port in part.ports[:2])
    across, down = end.x() - start.x(), end.y() - start.y()
    far = hypot(across, down) or 1.0
    aside = QPointF(-down / far * 9.0, across / far * 9.0)
    way = QPointF(across, down)
    path = QPainterPath(start)
    path.cubicTo(start + way * 0.3 + aside * 2, start + way * 0.6 - aside * 2, end)
    painter.strokePath(path, QPen(outline.color(), CASING))
    painter.strokePath(path, pen(T.metal, CASING - 4.0))
    ink(painter, pen(T.ink, 1.5), QColor(T.metal))
    for end_ in (start, end):
        painter.drawEllipse(end_, 5, 5)


def _wheel(painter: QPainter, box: QRectF, outline: QPen, *, drum: bool, front: bool) -> None:
    painter.setBrush(QColor(T.ink))
    painter.drawRoundedRect(box, 6, 6)
    ink(painter, pen(T.front if front else T.rear, 2.5), QColor(T.steel))
    middle, half = box.center(), min(box.height() / 2 - 4, 12.0)
    if drum:
        painter.drawEllipse(middle, half, half)
        painter.drawLine(middle - QPointF(half, 0), middle + QPointF(half, 0))
    else:
        painter.drawRect(QRectF(middle.x() - 1.6 * half, middle.y() - half, 3.2 * half, 2 * half))
        painter.drawLine(middle - QPointF(0, half), middle + QPointF(0, half))
    painter.setPen(outline)


def _nothing(painter: QPainter, box: QRectF) -> None:
    """Draw nothing: the body is open from port to port."""


def _cylinders(painter: QPainter, box: QRectF, kind: str) -> None:
    """Draw one cylinder, or two side by side with their bar."""
    if kind != "twin":
        _cylinder(
            painter, box.adjusted(6, 8, -12, -8), (0.97,) if kind == "single" else (0.5, 0.97)
        )
        return
    half = box.height() / 2
    for top in (box.top(), box.top() + half):
        one = QRectF(box.left() + 6, top + 4, box.width() - 18, half - 8)
        _cylinder(painter, one, (0.97,))
    painter.setPen(pen(T.ink, 5))
    x = box.right() + 14
    painter.drawLine(QPointF(x, box.top() + 4), QPointF(x, box.bottom() - 4))


def _cylinder(painter: QPainter, inner: QRectF, pistons: Sequence[float]) -> None:
    """Draw chambers of fluid with their pistons, and the pushrod."""
    ink(painter, pen(T.ink, 1), QColor(T.fluid[1]))
    painter.drawRect(inner)
    painter.setPen(pen(T.ink, 4))
    for share in pistons:
        x = inner.left() + share * inner.width()
        painter.drawLine(QPointF(x, inner.top()), QPointF(x, inner.bottom()))
    y = inner.center().y()
    painter.drawLine(QPointF(inner.right(), y), QPointF(inner.right() + 28, y))


def _shuttle(painter: QPainter, box: QRectF) -> None:
    """Draw the shuttle between two sides."""
    middle = box.center()
    painter.setPen(pen(T.ink, 1.5))
    painter.drawLine(QPointF(middle.x(), box.top()), QPointF(middle.x(), box.bottom()))
    painter.setBrush(QColor(T.sheet))
    painter.drawEllipse(middle, 8, 8)
    painter.setPen(pen(T.ink, 3))
    painter.drawLine(middle - QPointF(5, 0), middle + QPointF(5, 0))


def _combined(painter: QPainter, box: QRectF) -> None:
    """Draw a shuttle between a metering and a reducing part."""
    for share in (0.24, 0.76):
        spot = QPointF(box.center().x(), box.top() + share * box.height())
        cell = QRectF(spot.x() - 9, spot.y() - 9, 18, 18)
        ink(painter, pen(T.ink, 1), QColor(T.fluid[1]))
        painter.drawRect(cell)
        painter.drawLine(cell.bottomLeft(), cell.topRight())
    _shuttle(painter, box)


def _reducing(painter: QPainter, box: QRectF) -> None:
    """Draw the line of pressure out over pressure in, with its knee."""
    inner = box.adjusted(10, 8, -10, -8)
    knee = QPointF(inner.left() + 0.5 * inner.width(), inner.top() + 0.4 * inner.height())
    painter.setPen(pen(T.ink, 2))
    painter.drawPolyline(QPolygonF([inner.bottomLeft(), knee, QPointF(inner.right(), inner.top())]))


def _held(painter: QPainter, box: QRectF) -> None:
    """Draw a line that waits before it rises."""
    inner = box.adjusted(10, 8, -10, -8)
    wait = QPointF(inner.left() + 0.45 * inner.width(), inner.bottom())
    painter.setPen(pen(T.ink, 2))
    painter.drawPolyline(QPolygonF([inner.bottomLeft(), wait, inner.topRight()]))


def _dial(painter: QPainter, box: QRectF) -> None:
    painter.setPen(pen(T.ink, 2))
    painter.drawArc(box.adjusted(5, 5, -5, -5), -30 * 16, 240 * 16)


def _tank(painter: QPainter, box: QRectF) -> None:
    full = box.adjusted(4, box.height() * 0.4, -4, -4)
    painter.fillRect(full, QColor(T.fluid[1]))


_INSIDE: dict[str, Callable[[QPainter, QRectF], None]] = {
    "switch": _shuttle, "combination": _combined, "gauge": _dial, "reservoir": _tank,
    **{kind: _reducing if kind in REDUCING else _held for kind in LAID},
}  # fmt: skip


def tag_width(words: str) -> float:
    """Return how wide a tag is [px]."""
    return GLYPH + width(words, 14, 500) + 12.0


def tag(painter: QPainter, box: QRectF, words: str, seat: str, *, bad: bool) -> None:
    """Draw what a port or an end is: the sign of its seat, and its thread."""
    edge = pen(T.danger, 1.5) if bad else pen(T.hair, 1)
    ink(painter, edge, QColor(T.danger_ground if bad else T.sheet))
    painter.drawRoundedRect(box, 3, 3)
    color = T.danger if bad else T.ink
    seat_sign(painter, QPointF(box.left() + 5 + GLYPH / 2, box.center().y()), seat, color)
    at = QPointF(box.left() + GLYPH + 8, box.center().y() + 5)
    write(painter, words, at, size=14, weight=500, color=color)


def seat_sign(painter: QPainter, middle: QPointF, seat: str, color: str) -> None:
    """Draw the sign of a seat: what of the tube's end is seen from the side."""
    x, y = middle.x(), middle.y()
    outline(painter, color, 1.4)
    tube = [QPointF(x - 7, y - 3), QPointF(x, y - 3)], [QPointF(x - 7, y + 3), QPointF(x, y + 3)]
    ends: dict[str, Sequence[tuple[float, float]]] = {
        "inverted": ((0, -3), (5, -6), (5, 6), (0, 3)),
        "37-degree": ((0, -3), (6, -6), (3, 0), (6, 6), (0, 3)),
        "taper": ((-1, -5), (6, -3), (6, 3), (-1, 5), (-1, -5)),
    }
    if seat == "banjo":
        painter.drawEllipse(QPointF(x + 1, y), 5, 5)
        painter.drawEllipse(QPointF(x + 1, y), 2, 2)
    elif seat == "bubble":
        painter.drawChord(QRectF(x - 4, y - 6, 10, 12), 90 * 16, -180 * 16)
    else:
        spots = [QPointF(x + dx, y + dy) for dx, dy in ends.get(seat, ())]
        painter.drawPolyline(QPolygonF(spots))
    if seat in ("inverted", "37-degree", "bubble"):
        for one, other in tube:
            painter.drawLine(one, other)


def number(painter: QPainter, at: QPointF, words: str, circuit: str, *, chosen: bool) -> None:
    """Draw the number of a line of the cut list."""
    color = {"front": T.front, "rear": T.rear}.get(circuit, T.ink)
    ink(painter, pen(color, 2), QColor(color if chosen else T.sheet))
    painter.drawEllipse(at, 11, 11)
    color = T.sheet if chosen else T.ink
    write(painter, words, at + QPointF(0, 5), size=14, weight=600, color=color, side="middle")


def gauge(painter: QPainter, at: QPointF, share: float) -> None:
    """Draw a gauge with its needle at a share of the hardest press."""
    ink(painter, pen(T.ink, 2), QColor(T.sheet))
    painter.drawEllipse(at, DIAL, DIAL)
    painter.setPen(pen(T.muted, 1.5))
    ring = QRectF(at.x() - DIAL + 4, at.y() - DIAL + 4, 2 * DIAL - 8, 2 * DIAL - 8)
    painter.drawArc(ring, -30 * 16, round(SWEEP * 16))
    turn = radians(210.0 - SWEEP * min(max(share, 0.0), 1.0))
    painter.setPen(pen(T.danger, 2))
    painter.drawLine(at, at + QPointF(cos(turn), -sin(turn)) * (DIAL - 4))


def ring(painter: QPainter, at: QPointF) -> None:
    """Draw a ring round what does not go together."""
    outline(painter, T.danger, 2.5)
    painter.drawEllipse(at, 14, 14)
