"""A cylinder taken apart: its parts in the order in which they go in, cups with their lips."""

from collections.abc import Iterator
from typing import Literal

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QPainter, QPainterPath

from urgens.ui.theme.paint import T, ink, pen
from urgens.ui.widgets.board import arrow, write

Part = Literal["spring", "cup", "piston", "rear-cup", "back-cup", "ring", "stop"]
ACROSS: dict[Part, float] = {"spring": 46.0, "cup": 16.0, "piston": 50.0, "rear-cup": 16.0,
                             "back-cup": 16.0, "ring": 10.0, "stop": 10.0}  # fmt: skip
BODY, GAP, TALL = 74.0, 10.0, 54.0  # px of the bore's mouth; between parts; of a piston
LIP = 7.0  # px of a cup
HIGH, ABOVE = 216.0, 26.0  # px: with the words; by how much the parts stand over the middle
ONE: tuple[Part, ...] = ("spring", "cup", "piston", "rear-cup", "ring")
# The inner piston's other cup holds the outer chamber's pressure: its lips look the other way.
TWO: tuple[Part, ...] = ("spring", "cup", "piston", "back-cup", "stop", *ONE)
CUPS = ("cup", "rear-cup", "back-cup")
NAMED = {"spring": "spring", "cup": "cup", "piston": "piston", "rear-cup": "rear cup",
         "back-cup": "cup, turned", "ring": "ring", "stop": "stop screw"}  # fmt: skip


def parts_of(chambers: int) -> tuple[Part, ...]:
    """Return the parts of a cylinder from the bottom of its bore; chambers: one or two."""
    return ONE if chambers == 1 else TWO


def counted(chambers: int) -> str:
    """Return how many of each a kit has, in words."""
    parts = parts_of(chambers)
    cups = sum(part in CUPS for part in parts)
    told = [(parts.count("piston"), "piston"), (cups, "cup"), (parts.count("spring"), "spring"),
            (parts.count("stop"), "stop screw"), (1, "ring")]  # fmt: skip
    return ", ".join(f"{n} {what}{'s' if n > 1 else ''}" for n, what in told if n)


def draw_exploded(painter: QPainter, box: QRectF, chambers: int) -> None:
    """Draw the parts in a box, as large as it has room for them."""
    parts = parts_of(chambers)
    long = BODY + sum(ACROSS[part] + GAP for part in parts)
    scale = min(box.width() / (long + 40.0), box.height() / HIGH, 1.4)
    painter.save()
    painter.translate(box.center() - QPointF(0, ABOVE * scale))
    painter.scale(scale, scale)
    x = -long / 2.0
    _bore(painter, x)
    x += BODY + GAP
    for part in parts:
        _draw(painter, part, x + ACROSS[part] / 2.0)
        x += ACROSS[part] + GAP
    _named(painter, parts, -long / 2.0 + BODY + GAP)
    ink(painter, Qt.PenStyle.NoPen, QColor(T.ink))
    arrow(painter, QPointF(-long / 2.0 + BODY + 8.0, -TALL / 2.0 - 26.0), QPointF(1, 0), 7)
    write(painter, "lips towards the pressure", QPointF(0, -TALL / 2.0 - 38.0), size=15,
          weight=600, color=T.ink, side="middle")  # fmt: skip
    painter.restore()


def _named(painter: QPainter, parts: tuple[Part, ...], x: float) -> None:
    """Write the names under the parts, in two rows, so that none covers the next."""
    for place, part in enumerate(parts):
        middle = x + ACROSS[part] / 2.0
        y = TALL / 2.0 + 24.0 + (20.0 if place % 2 else 0.0)
        write(painter, NAMED[part], QPointF(middle, y), size=14, side="middle")
        x += ACROSS[part] + GAP
    told = counted(2 if len(parts) > len(ONE) else 1)
    write(painter, told, QPointF(0, TALL / 2.0 + 74.0), size=16, weight=600, color=T.ink,
          side="middle")  # fmt: skip
    write(painter, "of each cylinder, usually: what came out of yours goes before it",
          QPointF(0, TALL / 2.0 + 94.0), size=14, side="middle")  # fmt: skip


def _bore(painter: QPainter, x: float) -> None:
    ink(painter, pen(T.ink, 2), QColor(T.steel))
    outer = QRectF(x, -TALL / 2.0 - 12.0, BODY, TALL + 24.0)
    painter.drawRoundedRect(outer, 5, 5)
    painter.fillRect(QRectF(x + 14, -TALL / 2.0, BODY - 14, TALL), QColor(T.sheet))


def _draw(painter: QPainter, part: Part, x: float) -> None:
    half = TALL / 2.0
    if part == "piston":
        ink(painter, pen(T.ink, 2), QColor(T.metal))
        painter.drawRect(QRectF(x - 25, -half + 3, 50, TALL - 6))
        painter.fillRect(QRectF(x - 8, -half + 12, 16, TALL - 24), QColor(T.steel))
    elif part in CUPS:
        ink(painter, pen(T.ink, 2), QColor(T.ink))
        painter.drawPath(_cup(x, half, -1.0 if part == "back-cup" else 1.0))
    elif part == "spring":
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setPen(pen(T.ink, 2))
        painter.drawPolyline([*_spring(x, half)])
    else:
        painter.setPen(pen(T.ink, 4))
        painter.drawLine(QPointF(x, -half), QPointF(x, half))


def _cup(x: float, half: float, way: float) -> QPainterPath:
    """Return a cup whose lips look into the bore, towards the pressure; way: -1 the other way."""
    lip = way * LIP
    path = QPainterPath(QPointF(x + lip, -half + 8))
    for point in (QPointF(x - lip, -half), QPointF(x - lip, -half + 9), QPointF(x, -half + 14),
                  QPointF(x, half - 14), QPointF(x - lip, half - 9), QPointF(x - lip, half),
                  QPointF(x + lip, half - 8)):  # fmt: skip
        path.lineTo(point)
    path.closeSubpath()
    return path


def _spring(x: float, half: float) -> Iterator[QPointF]:
    turns = 5
    for turn in range(2 * turns + 1):
        along = x - 22 + 44.0 * turn / (2 * turns)
        yield QPointF(along, (half - 10) * (1 if turn % 2 else -1))
