"""Markers on a plot, all painted by one light item in scene coordinates."""

from dataclasses import dataclass
from enum import Enum

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QPainter
from PySide6.QtWidgets import QGraphicsItem, QStyleOptionGraphicsItem, QWidget

from urgens.ui.theme.paint import T, ink, pen
from urgens.ui.widgets.marks import disc, square


class MarkerShape(Enum):
    """What a marker looks like."""

    DOT = "dot"
    OPEN = "open"
    FRONT = "front"
    REAR = "rear"
    FOOT = "foot"


@dataclass(frozen=True)
class Marker:
    """A marker at a point in data coordinates."""

    shape: MarkerShape
    at: tuple[float, float]


class MarkerLayer(QGraphicsItem):
    """Paints markers over the curves and under the notes."""

    def __init__(self) -> None:
        super().__init__()
        self.setZValue(800)
        self.setAcceptedMouseButtons(Qt.MouseButton.NoButton)
        self._points: list[tuple[MarkerShape, QPointF]] = []
        self._bounds = QRectF()

    def show_points(self, points: list[tuple[MarkerShape, QPointF]], bounds: QRectF) -> None:
        """Show shapes at points of the scene, inside `bounds`."""
        if bounds != self._bounds:
            self.prepareGeometryChange()
            self._bounds = bounds
        self._points = points
        self.update()

    def boundingRect(self) -> QRectF:
        return self._bounds.adjusted(-21, -21, 21, 21)

    def paint(
        self, painter: QPainter, option: QStyleOptionGraphicsItem, widget: QWidget | None = None
    ) -> None:
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        for shape, point in self._points:
            painter.save()
            painter.translate(point)
            painter.scale(T.scale, T.scale)
            _paint(painter, shape, QPointF(0, 0))
            painter.restore()


def _paint(painter: QPainter, shape: MarkerShape, point: QPointF) -> None:
    if shape is MarkerShape.FOOT:
        ink(painter, pen(T.ink, 2), QColor(T.sheet))
        painter.drawEllipse(point, 12, 12)
        painter.setBrush(QColor(T.fluid[1]))
        painter.drawEllipse(point, 6.5, 6.5)
        return
    painter.setPen(Qt.PenStyle.NoPen)
    if shape is MarkerShape.DOT:
        painter.setBrush(QColor(T.ink))
        painter.drawEllipse(point, 3.5, 3.5)
        return
    painter.setBrush(QColor(T.sheet))
    if shape is MarkerShape.OPEN:
        painter.setPen(pen(T.ink, 1.5))
        painter.drawEllipse(point, 3.5, 3.5)
        return
    if shape is MarkerShape.FRONT:
        painter.drawEllipse(point, 9, 9)
        disc(painter, point, 7)
    else:
        painter.drawRect(QRectF(point.x() - 8, point.y() - 8, 16, 16))
        square(painter, point, 6.5)
