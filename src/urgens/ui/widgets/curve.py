"""Curves and areas of a plot as plain path items, which Qt paints without help."""

import numpy as np
from numpy.typing import NDArray
from PySide6.QtCore import Qt
from PySide6.QtGui import QBrush, QColor, QPainter
from PySide6.QtWidgets import QGraphicsPathItem, QStyleOptionGraphicsItem, QWidget

from urgens.ui.theme.paint import T, curve_pen, ink
from urgens.ui.widgets.plotting import pg

Points = NDArray[np.float64]


class PlotCurve(QGraphicsPathItem):
    """A line through points in data coordinates."""

    def __init__(
        self, color: str, width: float = 1.0, style: Qt.PenStyle = Qt.PenStyle.SolidLine
    ) -> None:
        super().__init__()
        self.name = ""  # what its figures are called where they are written out
        self.set_look(color, width, style)
        self.points: tuple[Points, Points] = (np.empty(0), np.empty(0))

    def set_look(self, color: str, width: float, style: Qt.PenStyle) -> None:
        """Draw in a colour, so many px wide at the usual scale, in a style."""
        self._look = (color, width * T.scale, style)
        self.setPen(curve_pen(*self._look, 1.0))  # the bounds follow it

    def set_points(self, x: Points, y: Points) -> None:
        """Draw the line through these points; NaN breaks it."""
        self.points = np.asarray(x, dtype=float), np.asarray(y, dtype=float)
        self.setPath(pg.arrayToQPath(*self.points, connect="finite"))

    def paint(
        self, painter: QPainter, option: QStyleOptionGraphicsItem, widget: QWidget | None = None
    ) -> None:
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        device = painter.device()
        ink(
            painter,
            curve_pen(*self._look, device.devicePixelRatio() if device else 1.0),
            self.brush(),
        )
        painter.drawPath(self.path())


class Area(PlotCurve):
    """What lies between two lines over the same points."""

    def __init__(self, color: str) -> None:
        super().__init__(color, 0)
        self.setBrush(QBrush(QColor(color)))

    def set_between(self, x: Points, low: Points, high: Points) -> None:
        """Fill from `low` to `high`."""
        self.set_points(np.concatenate((x, x[::-1])), np.concatenate((low, high[::-1])))
