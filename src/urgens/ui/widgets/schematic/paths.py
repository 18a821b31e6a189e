"""A line's way as a path: rounded where it turns, a bow where it goes over another line."""

from collections.abc import Sequence
from math import hypot

from PySide6.QtCore import QPointF, QRectF
from PySide6.QtGui import QPainterPath

from urgens.ui.widgets.schematic.model import Spot

ROUND = 8.0  # px: radius of a corner
BOW = 8.0  # px: of a bow


def path_of(corners: Sequence[Spot], hops: Sequence[Spot] = ()) -> QPainterPath:
    """Return the path through corners; hops: where level stretches go over upright lines."""
    path = QPainterPath(QPointF(*corners[0]))
    for index, corner in enumerate(corners[1:], start=1):
        before = corners[index - 1]
        after = corners[index + 1] if index + 1 < len(corners) else None
        end = corner if after is None else _towards(corner, before)
        for hop in _on(hops, before, corner):
            _bow(path, hop, rightward=corner[0] > before[0])
        path.lineTo(QPointF(*end))
        if after is not None:
            path.quadTo(QPointF(*corner), QPointF(*_towards(corner, after)))
    return path


def _towards(corner: Spot, other: Spot) -> Spot:
    """Return the spot where the rounding of a corner begins, no more than half way to another."""
    across, down = other[0] - corner[0], other[1] - corner[1]
    far = hypot(across, down) or 1.0
    share = min(ROUND, far / 2) / far
    return corner[0] + share * across, corner[1] + share * down


def _on(hops: Sequence[Spot], start: Spot, end: Spot) -> list[Spot]:
    """Return the hops on a level stretch, in the order in which they are come to."""
    if start[1] != end[1]:
        return []
    low, high = sorted((start[0], end[0]))
    found = sorted(hop for hop in hops if hop[1] == start[1] and low < hop[0] < high)
    return found if end[0] > start[0] else found[::-1]


def _bow(path: QPainterPath, at: Spot, *, rightward: bool) -> None:
    x, y = at
    path.lineTo(QPointF(x - BOW if rightward else x + BOW, y))
    box = QRectF(x - BOW, y - BOW, 2 * BOW, 2 * BOW)
    path.arcTo(box, 180.0 if rightward else 0.0, -180.0 if rightward else 180.0)
