"""Where the numbers of a route's corners stand: none on another, none on a corner."""

from collections.abc import Iterator

from PySide6.QtCore import QPointF, QRectF

from urgens.ui.theme.paint import width

HANDLE = 7.0  # px: half of a corner, as it is drawn
LINE = 17.0  # px: how high a line of words is
SAME = 14.0  # px; corners nearer than that have their numbers together


def numbers(corners: list[QPointF], within: QRectF) -> list[tuple[str, QRectF]]:
    """Return the numbers of corners and where they stand, none on another, none on a corner.

    A view from above or from the side shows corners behind one another at one spot: their numbers
    stand together.
    """
    groups: list[list[int]] = []
    for place, corner in enumerate(corners):
        near = (g for g in groups if (corners[g[0]] - corner).manhattanLength() < SAME)
        group = next(near, None)
        if group is None:
            groups.append([place])
        else:
            group.append(place)
    ground = [QRectF(c.x() - HANDLE, c.y() - HANDLE, 2 * HANDLE, 2 * HANDLE) for c in corners]
    found: list[tuple[str, QRectF]] = []
    middle = sum(corner.x() for corner in corners) / max(len(corners), 1)
    groups.sort(key=lambda group: -abs(corners[group[0]].x() - middle))  # the outer ones first
    for group in groups:
        outwards = corners[group[0]].x() >= middle
        words = ", ".join(str(place + 1) for place in group)
        body = ground[group[0]]
        for place in group[1:]:
            body = body.united(ground[place])
        boxes = list(_beside(body, width(words, 15, 600), 1 if outwards else -1))
        taken = (*ground, *(box for _, box in found))
        free = (b for b in boxes if within.contains(b) and not any(map(b.intersects, taken)))
        found.append((words, next(free, boxes[0])))
    return found


def _beside(body: QRectF, wide: float, way: int) -> Iterator[QRectF]:
    """Yield boxes of a line of words beside a body, the nearest first, outwards before inwards."""
    for off in (3.0, 20.0, 40.0, 60.0):
        sides = (body.right() + off, body.left() - wide - off)
        for left in sides[::way]:
            yield QRectF(left, body.top() - LINE, wide, LINE)
            yield QRectF(left, body.bottom(), wide, LINE)
        middle = body.center().x() - wide / 2
        yield QRectF(middle, body.top() - LINE - off, wide, LINE)
        yield QRectF(middle, body.bottom() + off, wide, LINE)
