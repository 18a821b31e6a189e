"""The view of a schematic: one thing chosen, by mouse or key; what is movable is moved."""

from typing import Any

from PySide6.QtCore import QPointF, Qt, Signal
from PySide6.QtGui import (
    QColor,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPainterPath,
    QPaintEvent,
    QTransform,
)
from PySide6.QtWidgets import QGraphicsScene, QGraphicsView, QWidget

from urgens.ui.theme.paint import T, ink, pen
from urgens.ui.widgets.board import write
from urgens.ui.widgets.drag import Steps, WidgetDrag
from urgens.ui.widgets.schematic.items import LineItem, PartItem
from urgens.ui.widgets.schematic.model import Schematic, SchematicLine, SchematicPart

OUTER = 9.0
INNER = 5.0
GRID = 10.0  # px of the usual scale
WAYS = {
    Qt.Key.Key_Left: (-1, 0),
    Qt.Key.Key_Right: (1, 0),
    Qt.Key.Key_Up: (0, -1),
    Qt.Key.Key_Down: (0, 1),
}


class SchematicView(QGraphicsView):
    """Shows a `Schematic`; a subclass works it out, and draws its parts.

    Nothing moves by itself: `moved` tells where a part is wanted, whoever listens changes the
    build, and what is shown follows from that.
    """

    chosen = Signal(str)  # where it stands in the build
    asked = Signal(str)  # the same, by Enter or a double click: to be looked at closely
    moved = Signal(str, QPointF)  # where, and the middle that is wanted

    def __init__(self, steps: Steps, name: str, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setScene(QGraphicsScene(self))
        self.setAccessibleName(name)
        self._name = name
        self.schematic = Schematic()
        self.where = ""  # what is chosen
        self.step = GRID  # px that an arrow key moves a part
        self.items_by_place: dict[str, PartItem | LineItem] = {}
        self._drag = WidgetDrag(self, steps, moved=self._wish)
        self.setFrameShape(self.Shape.NoFrame)
        self.setBackgroundBrush(QColor(T.sheet))
        self.setRenderHint(QPainter.RenderHint.Antialiasing)
        self.setViewportUpdateMode(self.ViewportUpdateMode.FullViewportUpdate)
        self.setAlignment(Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignTop)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setVerticalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.viewport().setFocusPolicy(Qt.FocusPolicy.NoFocus)  # it would be one more stop of Tab

    def show_schematic(self, schematic: Schematic, shrunk: float = 1.0) -> None:
        """Show it, shrunk where it would not fit; an item lives as long as its place does."""
        self.schematic = schematic
        for where in set(self.items_by_place) - set(schematic.places()):
            self.scene().removeItem(self.items_by_place.pop(where))
        for part in schematic.parts:
            item = self.items_by_place.get(part.where)
            if isinstance(item, PartItem):
                item.show_part(part)
            else:
                self._add(part.where, PartItem(self, part))
        for line in schematic.lines:
            item, route = self.items_by_place.get(line.where), schematic.route(line)
            if isinstance(item, LineItem):
                item.show_line(line, route)
            else:
                self._add(line.where, LineItem(self, line, route))
        if self.where not in self.items_by_place:
            self.where = ""
        self.setTransform(QTransform.fromScale(T.scale * shrunk, T.scale * shrunk))
        self.setSceneRect(0, 0, self.width() / (T.scale * shrunk), self.height() / T.scale / shrunk)
        self.viewport().update()

    def _add(self, where: str, item: PartItem | LineItem) -> None:
        old = self.items_by_place.pop(where, None)
        if old is not None:
            self.scene().removeItem(old)
        self.items_by_place[where] = item
        self.scene().addItem(item)

    # --- what is chosen --------------------------------------------------------------------

    def is_chosen(self, where: str) -> bool:
        """Tell whether it is what is chosen."""
        return where == self.where

    def choose(self, where: str) -> None:
        """Choose what stands there in the build; tell it."""
        self.mark(where)
        self.chosen.emit(where)

    def mark(self, where: str) -> None:
        """Show as chosen what stands there in the build, if it is here."""
        self.where = where if where in self.items_by_place else ""
        item = self.items_by_place.get(self.where)
        said = f"{self._name}: {item.toolTip()}" if item is not None else self._name
        self.setAccessibleName(said)
        self.viewport().update()

    def ask(self, where: str) -> None:
        """Tell that it is to be looked at closely."""
        self.asked.emit(where)

    # --- moving ----------------------------------------------------------------------------

    def take(self) -> None:
        """Take hold of the part that is chosen."""
        self._drag.begin()

    def pull(self, middle: QPointF) -> None:
        """Draw along the part that is held."""
        self._drag.move(middle)

    def let_go(self) -> None:
        """Let go of the part that is held."""
        self._drag.end()

    def _wish(self, middle: QPointF) -> None:
        x, y = (round(along / GRID) * GRID for along in (middle.x(), middle.y()))
        if (x, y) != self.schematic.part(self.where).at:
            self.moved.emit(self.where, QPointF(x, y))

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self.setFocus(Qt.FocusReason.MouseFocusReason)
        super().mousePressEvent(event)
        event.accept()  # beside everything as well, where it only takes the focus

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        super().mouseReleaseEvent(event)
        event.accept()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        key = Qt.Key(event.key())
        if key in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and self.where:
            self.ask(self.where)
        elif key in WAYS and self.schematic.places():
            self._step(WAYS[key])
        else:
            event.ignore()  # what the view would do with it, such as scrolling, is not wanted

    def _step(self, way: tuple[int, int]) -> None:
        """Move what is chosen by one step of the grid, or choose the next that is not movable."""
        item = self.items_by_place.get(self.where)
        if isinstance(item, PartItem) and item.part.movable:
            x, y = item.part.at
            self._wish(QPointF(x + way[0] * self.step, y + way[1] * self.step))
        else:
            self._next(1 if sum(way) > 0 else -1)

    def _next(self, step: int) -> bool:
        """Choose the next in order; tell whether there is one."""
        places = self.schematic.places()
        now = (
            places.index(self.where) if self.where in places else (-1 if step > 0 else len(places))
        )
        there = 0 <= now + step < len(places)
        if there:
            self.choose(places[now + step])
        return there

    def focusNextPrevChild(self, forward: bool) -> bool:
        """Let Tab go through what is movable here before it leaves."""
        movable = any(part.movable for part in self.schematic.parts)
        if movable and self._next(1 if forward else -1):
            return True
        return super().focusNextPrevChild(forward)

    # --- drawing ---------------------------------------------------------------------------

    def paintEvent(self, event: QPaintEvent) -> None:
        super().paintEvent(event)
        if self.hasFocus() and not self.where:  # else what is chosen has the ring
            with QPainter(self.viewport()) as painter:
                painter.setPen(pen(T.front, 2))
                painter.drawRect(self.viewport().rect().adjusted(1, 1, -1, -1))

    def draw_line(self, painter: QPainter, line: SchematicLine, path: QPainterPath) -> None:
        """Draw a line along its path; a subclass has its own way."""
        painter.strokePath(path, pen(T.ink, OUTER))
        painter.strokePath(path, pen(line.color or T.metal, INNER))

    def draw_part(self, painter: QPainter, part: SchematicPart) -> None:
        """Draw a part round its middle; a subclass has its own way."""
        item: Any = self.items_by_place[part.where]
        own = self.is_chosen(part.where)
        ink(
            painter,
            pen(T.front if own and self.hasFocus() else T.ink, 2.5 if own else 1.5),
            QColor(T.metal),
        )
        painter.drawRoundedRect(item.body, 4, 4)
        painter.setBrush(QColor(T.sheet))
        for port in part.ports:
            painter.drawEllipse(QPointF(*port.at), 4, 4)
        write(painter, part.name, QPointF(0, item.body.bottom() + 16), size=14, side="middle")
