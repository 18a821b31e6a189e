"""The items of a schematic's scene: a part with its ports, a line between two ports."""

from typing import Protocol

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QPainter, QPainterPath, QPainterPathStroker, QPen
from PySide6.QtWidgets import (
    QApplication,
    QGraphicsItem,
    QGraphicsSceneMouseEvent,
    QStyleOptionGraphicsItem,
    QWidget,
)

from urgens.ui.theme.paint import T
from urgens.ui.widgets.plain import point_out
from urgens.ui.widgets.schematic.model import SchematicLine, SchematicPart, Spot
from urgens.ui.widgets.schematic.paths import path_of

AROUND = 12.0  # px around a part that its words and its mark may take
HIT = 14.0  # px across a line that a hand can hit


class ItemTarget(Protocol):
    """What items tell the view, and ask of it."""

    def is_chosen(self, where: str) -> bool: ...
    def choose(self, where: str) -> None: ...
    def ask(self, where: str) -> None: ...
    def draw_part(self, painter: QPainter, part: SchematicPart) -> None: ...
    def draw_line(self, painter: QPainter, line: SchematicLine, path: QPainterPath) -> None: ...
    def take(self) -> None: ...
    def pull(self, middle: QPointF) -> None: ...
    def let_go(self) -> None: ...


class PartItem(QGraphicsItem):
    """A part; drawn by the view round its own middle."""

    def __init__(self, hands: ItemTarget, part: SchematicPart) -> None:
        super().__init__()
        self._hands = hands
        self._grip = QPointF()  # from the middle to where it is held
        self._taken = False  # by this press; what was put back is not taken hold of again
        self.setZValue(10)
        self.part = part
        self.show_part(part)

    def show_part(self, part: SchematicPart) -> None:
        """Show the part as it is now."""
        if part.size != self.part.size:
            self.prepareGeometryChange()
        self.part = part
        self.setPos(*part.at)
        point_out(self, part.name)
        shape = Qt.CursorShape.OpenHandCursor if part.movable else Qt.CursorShape.PointingHandCursor
        self.setCursor(shape)
        self.update()

    @property
    def body(self) -> QRectF:
        """The part's own outline, around its middle."""
        wide, high = self.part.size
        return QRectF(-wide / 2, -high / 2, wide, high)

    def boundingRect(self) -> QRectF:
        return self.body.adjusted(-AROUND, -3 * AROUND, 8 * AROUND, 3 * AROUND)

    def shape(self) -> QPainterPath:
        path = QPainterPath()
        path.addRect(self.body)
        return path

    def paint(
        self, painter: QPainter, option: QStyleOptionGraphicsItem, widget: QWidget | None = None
    ) -> None:
        self._hands.draw_part(painter, self.part)

    def mousePressEvent(self, event: QGraphicsSceneMouseEvent) -> None:
        self._hands.choose(self.part.where)
        self._grip, self._taken = event.scenePos() - self.pos(), False

    def mouseMoveEvent(self, event: QGraphicsSceneMouseEvent) -> None:
        if not self.part.movable:
            return
        way = event.screenPos() - event.buttonDownScreenPos(Qt.MouseButton.LeftButton)
        if not self._taken and way.manhattanLength() >= QApplication.startDragDistance():
            self._taken = True
            self._hands.take()
        if self._taken:
            self._hands.pull(event.scenePos() - self._grip)

    def mouseReleaseEvent(self, event: QGraphicsSceneMouseEvent) -> None:
        self._hands.let_go()

    def mouseDoubleClickEvent(self, event: QGraphicsSceneMouseEvent) -> None:
        self._hands.ask(self.part.where)


class LineItem(QGraphicsItem):
    """A line from port to port, behind the parts."""

    def __init__(self, hands: ItemTarget, line: SchematicLine, corners: tuple[Spot, ...]) -> None:
        super().__init__()
        self._hands = hands
        self.line, self._path = line, QPainterPath()
        self.show_line(line, corners)

    def show_line(self, line: SchematicLine, corners: tuple[Spot, ...]) -> None:
        """Show the line as it runs now."""
        self.prepareGeometryChange()
        self.line = line
        self._path = path_of(corners, line.hops)
        point_out(self, line.name)
        self.update()

    def boundingRect(self) -> QRectF:
        return self._path.boundingRect().adjusted(-HIT, -HIT, HIT, HIT)

    def shape(self) -> QPainterPath:
        stroker = QPainterPathStroker()
        stroker.setWidth(HIT)
        return stroker.createStroke(self._path)

    def paint(
        self, painter: QPainter, option: QStyleOptionGraphicsItem, widget: QWidget | None = None
    ) -> None:
        painter.setBrush(Qt.BrushStyle.NoBrush)
        if self._hands.is_chosen(self.line.where):
            halo = QColor(T.front)
            halo.setAlphaF(0.3)
            painter.strokePath(self._path, QPen(halo, HIT))
        self._hands.draw_line(painter, self.line, self._path)

    def mousePressEvent(self, event: QGraphicsSceneMouseEvent) -> None:
        self._hands.choose(self.line.where)

    def mouseDoubleClickEvent(self, event: QGraphicsSceneMouseEvent) -> None:
        self._hands.ask(self.line.where)
