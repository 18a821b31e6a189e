"""A handle on a plot that can be dragged, or moved with the arrow keys."""

from typing import Any

from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QColor, QPainter, QPainterPath, QPolygonF
from PySide6.QtWidgets import QGraphicsItem, QStyleOptionGraphicsItem, QWidget

from urgens.ui.theme.paint import T, ink, pen
from urgens.ui.widgets.drag import WidgetDrag
from urgens.ui.widgets.plane import HANDLE_HALF
from urgens.ui.widgets.plotting import pg


class Handle(pg.GraphicsObject):
    """A diamond or a disc at a point of the data.

    Its drag is told where the hand is; whoever listens moves it, so that it never shows what is
    not.
    """

    started = Signal()

    def __init__(self, box: pg.ViewBox, drag: WidgetDrag, color: str, *, diamond: bool) -> None:
        super().__init__()
        self.drag = drag
        self.setFlag(QGraphicsItem.GraphicsItemFlag.ItemIgnoresTransformations)
        self.setZValue(900)
        self.setCursor(Qt.CursorShape.OpenHandCursor)
        self._box = box
        self._color = color
        self._diamond = diamond
        self._over = False
        self.focused = False

    def boundingRect(self) -> QRectF:
        half = HANDLE_HALF * T.scale
        return QRectF(-half, -half, 2 * half, 2 * half)

    def shape(self) -> QPainterPath:
        path = QPainterPath()
        path.addEllipse(self.boundingRect())
        return path

    def paint(
        self, painter: QPainter, option: QStyleOptionGraphicsItem, widget: QWidget | None = None
    ) -> None:
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.scale(T.scale, T.scale)
        if self._over or self.drag.held or self.focused:
            halo = QColor(self._color)
            halo.setAlphaF(0.18)
            ink(painter, pen(T.front, 2) if self.focused else Qt.PenStyle.NoPen, halo)
            painter.drawEllipse(QPointF(0, 0), HANDLE_HALF - 2, HANDLE_HALF - 2)
        ink(painter, pen(self._color, 2.5), QColor(T.sheet))
        if self._diamond:
            reach = 10.0
            painter.drawPolygon(
                QPolygonF(
                    [QPointF(0, -reach), QPointF(reach, 0), QPointF(0, reach), QPointF(-reach, 0)]
                )
            )
        else:
            painter.drawEllipse(QPointF(0, 0), 7.5, 7.5)

    def set_focused(self, focused: bool) -> None:
        """Show whether the arrow keys move this handle."""
        if focused != self.focused:
            self.focused = focused
            self.update()

    def hoverEvent(self, event: Any) -> None:
        over = not event.isExit() and event.acceptDrags(Qt.MouseButton.LeftButton)
        if over != self._over:
            self._over = over
            self.update()

    def mouseDragEvent(self, event: Any) -> None:
        if event.button() != Qt.MouseButton.LeftButton:
            event.ignore()
            return
        event.accept()
        if event.isStart():
            self.drag.begin()
            self.started.emit()
        self.drag.move(self._box.mapSceneToView(event.scenePos()))
        if event.isFinish():
            self.drag.end()
        self.update()
