"""Curves and areas of a plot as plain path items, which Qt paints without help."""

import numpy as np
import pyqtgraph as pg
from numpy.typing import NDArray
from PySide6.QtGui import QBrush, QColor, QPainter, QPen
from PySide6.QtWidgets import QGraphicsPathItem, QStyleOptionGraphicsItem, QWidget

Points = NDArray[np.float64]


class Curve(QGraphicsPathItem):
    """A line through points in data coordinates."""

    def __init__(self, pen: QPen) -> None:
        super().__init__()
        self.setPen(pen)
        self.points: tuple[Points, Points] = (np.empty(0), np.empty(0))

    def set_points(self, x: Points, y: Points) -> None:
        """Draw the line through these points; NaN breaks it."""
        self.points = np.asarray(x, dtype=float), np.asarray(y, dtype=float)
        self.setPath(pg.arrayToQPath(*self.points, connect="finite"))

    def paint(
        self,
        painter: QPainter,
        option: QStyleOptionGraphicsItem,
        widget: QWidget | None = None,
    ) -> None:
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        super().paint(painter, option, widget)


class Area(Curve):
    """What lies between two lines over the same points."""

    def __init__(self, color: str) -> None:
        super().__init__(QPen(QColor(color), 0))
        self.setBrush(QBrush(QColor(color)))

    def set_between(self, x: Points, low: Points, high: Points) -> None:
        """Fill from `low` to `high`."""
        self.set_points(np.concatenate((x, x[::-1])), np.concatenate((low, high[::-1])))
