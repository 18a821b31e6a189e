"""A part in the hand over the plan: where it may go is lit, the nearest place is chosen."""

from itertools import pairwise
from math import hypot

from PySide6.QtCore import QPointF
from PySide6.QtGui import QColor, QPainter, QPainterPath

from urgens.guidance.advice.by_hand import PlacesFor
from urgens.ui.theme.paint import T, ink, pen
from urgens.ui.widgets.schematic.model import Spot

NEAR = 40.0  # px of the usual scale from a place that is still it
LIT, CHOSEN = 70, 160  # of 255: how strongly places are lit
WIDE = 16.0  # px
RING = 11.0


class Placing:
    """What is in the hand, where it may go, and the place that is chosen now."""

    def __init__(self) -> None:
        self.lines: dict[str, tuple[Spot, ...]] = {}
        self.ports: dict[str, Spot] = {}
        self.places, self.kind, self.at = PlacesFor(), "", ""

    def begin(
        self,
        kind: str,
        places: PlacesFor,
        lines: dict[str, tuple[Spot, ...]],
        ports: dict[str, Spot],
    ) -> None:
        """Take a part of a kind into the hand; lines, ports: where those it may go to are drawn."""
        self.kind, self.places, self.lines, self.ports = kind, places, lines, ports
        self.at = ""

    def end(self) -> None:
        """Let it go."""
        self.begin("", PlacesFor(), {}, {})

    def hover(self, spot: QPointF) -> bool:
        """Choose the place nearest to a spot, none far from all; tell whether it is another."""
        before = self.at
        far = {name: self._far(name, (spot.x(), spot.y())) for name in self.places.every}
        nearest = min(far, key=lambda name: far[name], default="")
        self.at = nearest if nearest and far[nearest] < NEAR else ""
        return self.at != before

    def step(self, by: int) -> None:
        """Choose the next place, or the one before."""
        every = self.places.every
        if every:
            now = every.index(self.at) if self.at in every else (-1 if by > 0 else 0)
            self.at = every[(now + by) % len(every)]

    def _far(self, name: str, spot: Spot) -> float:
        if name in self.ports:
            x, y = self.ports[name]
            return hypot(spot[0] - x, spot[1] - y) * 0.8  # a port is meant before the line in it
        return min((_to_stretch(spot, a, b) for a, b in pairwise(self.lines.get(name, ()))),
                   default=float("inf"))  # fmt: skip

    def draw(self, painter: QPainter) -> None:
        """Light every place, the chosen one more."""
        for name, corners in self.lines.items():
            path = QPainterPath(QPointF(*corners[0]))
            for corner in corners[1:]:
                path.lineTo(QPointF(*corner))
            painter.strokePath(path, pen(_lit(chosen=name == self.at), WIDE))
        for name, spot in self.ports.items():
            chosen = name == self.at
            ink(painter, pen(T.front, 2), QColor(_lit(chosen=chosen)))
            painter.drawEllipse(QPointF(*spot), RING + 3 * chosen, RING + 3 * chosen)


def _lit(*, chosen: bool) -> str:
    return f"#{CHOSEN if chosen else LIT:02x}{QColor(T.front).name()[1:]}"


def _to_stretch(spot: Spot, one: Spot, other: Spot) -> float:
    """Return how far a spot is from a straight stretch."""
    (x, y), (x1, y1), (x2, y2) = spot, one, other
    long = (x2 - x1) ** 2 + (y2 - y1) ** 2
    along = 0.0 if not long else ((x - x1) * (x2 - x1) + (y - y1) * (y2 - y1)) / long
    along = min(max(along, 0.0), 1.0)
    return hypot(x - x1 - along * (x2 - x1), y - y1 - along * (y2 - y1))
