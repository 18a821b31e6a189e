"""The plan of the layout: seen from above, front on the left, coloured by the live pressure."""

from typing import Literal

from PySide6.QtCore import QPoint, QPointF, QRect, QRectF, Qt, Signal
from PySide6.QtGui import (
    QColor,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPainterPath,
    QResizeEvent,
    QWheelEvent,
)

from urgens.guidance.advice.by_hand import places_for
from urgens.guidance.words.parts import KINDS, port_name, thing_called
from urgens.physics.axle import Axle
from urgens.plumbing.branches import bad_joins
from urgens.quantity import PRESSURE, show
from urgens.ui.stations.plumb import plan_art
from urgens.ui.stations.plumb.plan_labels import PlanLabel
from urgens.ui.stations.plumb.plan_scene import PAD, ZOOMS, PlanScene
from urgens.ui.theme.paint import T, fluid, ink, outline, pen
from urgens.ui.widgets.board import write
from urgens.ui.widgets.marks import severity_mark
from urgens.ui.widgets.schematic import SchematicLine, SchematicPart


class PlanView(PlanScene):
    """Parts are dragged and chosen, lines follow; gauges are put on ports to look with."""

    placed = Signal(str, float, float)  # a part, and the share of the plan its middle is wanted at
    put_asked = Signal(str, str)  # a kind, and the place where it is wanted
    let_go_of = Signal()  # what was in the hand
    out_asked = Signal(str)  # a part, by Delete

    # --- a part in the hand ----------------------------------------------------------------

    def begin_placing(self, kind: str) -> None:
        """Take a part into the hand: where it may go is lit."""
        places = places_for(self._session.build, kind)
        lines = {one.where: self.schematic.route(one) for one in self.schematic.lines
                 if one.where in places.lines}  # fmt: skip
        ports = {
            name: self._px(port.at)
            for name in places.ports
            if (port := self._port(name)) is not None
        }
        self.placing.begin(kind, places, lines, ports)
        self.viewport().setMouseTracking(True)
        self.viewport().update()

    def end_placing(self) -> None:
        """Let it go."""
        if self.placing.kind:
            self.placing.end()
            self.viewport().setMouseTracking(False)
            self.viewport().update()
            self.let_go_of.emit()

    def hover(self, at: QPoint) -> None:
        """Light the place nearest to a spot of the viewport [px]."""
        if self.placing.kind and self.placing.hover(self.mapToScene(at)):
            self._say_place()

    def put(self) -> None:
        """Put what is in the hand to the place that is lit."""
        if self.placing.kind and self.placing.at:
            self.put_asked.emit(self.placing.kind, self.placing.at)

    def _say_place(self) -> None:
        at, circuits = self.placing.at, self._laid.circuits
        words = port_name(circuits, at) if "." in at else thing_called(circuits, at)
        name = KINDS[self.placing.kind].lower()
        self.setAccessibleName(f"Plan of the layout: the {name} goes to: {words or 'nowhere yet'}")
        self.viewport().update()

    def mousePressEvent(self, event: QMouseEvent) -> None:
        if not self.placing.kind:
            super().mousePressEvent(event)
            return
        self.setFocus(Qt.FocusReason.MouseFocusReason)
        self.hover(event.position().toPoint())
        self.put()

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if self.placing.kind:
            self.hover(event.position().toPoint())
        else:
            super().mouseMoveEvent(event)

    def focusNextPrevChild(self, forward: bool) -> bool:
        """Let Tab go through the places of what is in the hand."""
        if not self.placing.kind:
            return super().focusNextPrevChild(forward)
        self.placing.step(1 if forward else -1)
        self._say_place()
        return True

    def _key_while_placing(self, key: Qt.Key) -> bool:
        """Take a key while a part is in the hand; tell whether it was one for it."""
        if key in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.put()
        elif key == Qt.Key.Key_Escape:
            self.end_placing()
        elif key in (Qt.Key.Key_Right, Qt.Key.Key_Down, Qt.Key.Key_Left, Qt.Key.Key_Up):
            self.placing.step(1 if key in (Qt.Key.Key_Right, Qt.Key.Key_Down) else -1)
            self._say_place()
        else:
            return False
        return True

    # --- moving and zooming ----------------------------------------------------------------

    def _wish(self, middle: QPointF) -> None:
        """Tell where the part that is held is wanted, once that is another step of the grid."""
        made = self._laid.plan.parts[self.where]
        across, down = self._laid.plan.size
        corner = tuple(
            round((at - start) / self.pitch - size / 2)
            for at, start, size in zip(middle.toTuple(), self.origin, made.size, strict=True)
        )
        if corner == made.at:
            return
        share = (
            min(max((corner[0] + made.size[0] / 2) / across, 0.0), 0.999),
            min(max((corner[1] + made.size[1] / 2) / down, 0.0), 0.999),
        )
        self.placed.emit(self.where, *share)

    @property
    def zoomed(self) -> bool:
        """Whether it is drawn larger than fits."""
        return self._zoom > 0

    def zoom(self, step: int) -> None:
        """Draw it larger or smaller by steps; 0 lets it fit."""
        self._zoom = min(max(self._zoom + step, 0), len(ZOOMS) - 1) if step else 0
        self.show_layout()
        item = self.items_by_place.get(self.where)
        if self._zoom and item is not None:
            self.centerOn(item)

    def wheelEvent(self, event: QWheelEvent) -> None:
        if event.modifiers() & Qt.KeyboardModifier.ControlModifier:
            self.zoom(1 if event.angleDelta().y() > 0 else -1)
            event.accept()
        else:
            super().wheelEvent(event)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        steps = {"+": 1, "-": -1, "0": 0}
        if self.placing.kind and self._key_while_placing(Qt.Key(event.key())):
            return
        if event.key() == Qt.Key.Key_Delete and self.where in self._laid.circuits.parts:
            self.out_asked.emit(self.where)
        elif event.text() in steps:
            self.zoom(steps[event.text()])
        else:
            super().keyPressEvent(event)

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        if self.schematic.parts:
            self.show_layout()

    # --- drawing ---------------------------------------------------------------------------

    def _fluid(self, line: str) -> QColor | None:
        found = self._pressures.get(line)
        return None if found is None else fluid(found / self._hardest)

    def draw_line(self, painter: QPainter, line: SchematicLine, path: QPainterPath) -> None:
        """Draw a line by what is in it and whose circuit it is."""
        if line not in self._numbered():
            plan_art.screwed(painter, path)
            return
        fed = self._laid.circuits.fed[line.where]
        circuit = next(iter(fed)) if len(fed) == 1 else ""
        plan_art.line(painter, path, circuit, self._fluid(line.where))

    def draw_part(self, painter: QPainter, part: SchematicPart) -> None:
        """Draw a part, and the mark of what is found of it."""
        fitted = self._laid.circuits.parts[part.where]
        axle = self._session.build.axle(Axle((fitted.wheel or "front").partition("-")[0]))
        drum = not axle.brake.has_pads
        chosen = self.is_chosen(part.where)
        kind = self._session.build.master.kind
        plan_art.body(painter, part, fitted, chosen=chosen, drum=drum, cylinder=kind)
        if chosen and self.hasFocus():
            wide, high = part.size
            outline(painter, T.front, 2)
            painter.drawRoundedRect(
                QRectF(-wide / 2 - 5, -high / 2 - 5, wide + 10, high + 10), 6, 6
            )

    def drawBackground(self, painter: QPainter, rect: QRectF | QRect) -> None:
        """Paint the vehicle's outline, and which way it faces."""
        super().drawBackground(painter, rect)
        across = self.extent[0]
        wheels = [self._body(part) for part in self._wheels()]
        if not wheels:
            return
        top, foot = (min(b[1] for b in wheels), max(b[1] + b[3] for b in wheels))
        high = wheels[0][3]
        body = QRectF(PAD, top + high, across - 2 * PAD, foot - top - 2 * high)
        ink(painter, pen(T.hair, 1.5), QColor(T.paper))
        painter.drawRoundedRect(body, 40, 40)
        at = QPointF(body.left() + 10, body.center().y())
        painter.setPen(pen(T.muted, 1.5))
        painter.drawLine(at, at + QPointF(22, 0))
        for y in (-4, 4):
            painter.drawLine(at, at + QPointF(7, y))
        write(painter, "front", at + QPointF(28, 5), size=14)

    def drawForeground(self, painter: QPainter, rect: QRectF | QRect) -> None:
        """Paint words, numbers and gauges over everything."""
        for line in self._numbered():
            fed = self._laid.circuits.fed[line.where]
            circuit = next(iter(fed)) if len(fed) == 1 else ""
            words, own = line.where.removeprefix("L"), self.is_chosen(line.where)
            at = self.numbers.get(line.where) or self._middle(line)
            plan_art.number(painter, QPointF(*at), words, circuit, chosen=own)
        for said in self.words:
            self._write_words(painter, said)
        for bad in bad_joins(self._laid.plumbing):
            port = self._port(bad.port)
            if port is not None:
                plan_art.ring(painter, QPointF(*self._px(port.at)))
        for part in self._wheels():
            self._write_wheel(painter, part)
        for part in self._marked():
            severity_mark(painter, self.marks[part.where], QPointF(*self._mark_at(part)), 9)
        for name in self._shown_gauges:
            self._draw_gauge(painter, name)
        self.placing.draw(painter)

    @staticmethod
    def _write_words(painter: QPainter, words: PlanLabel) -> None:
        box = QRectF(*words.box)
        if words.seat is not None:
            plan_art.tag(painter, box, words.text, words.seat, bad=words.bad)
            return
        at = QPointF(box.left(), box.bottom() - 0.25 * box.height())
        write(painter, words.text, at, size=words.size, weight=words.weight, color=words.color)

    def _write_wheel(self, painter: QPainter, part: SchematicPart) -> None:
        fitted = self._laid.circuits.parts[part.where]
        (left, top, wide, _), right = self._wheel_words(part)
        x = left if right else left + wide
        front = (fitted.wheel or "").startswith("front")
        color = T.front if front else T.rear
        side: Literal["left", "right"] = "left" if right else "right"
        write(painter, part.name, QPointF(x, top + 14), size=15, weight=600, color=color,
              side=side)  # fmt: skip
        found = self._at(f"{part.where}.{next(iter(fitted.ports), '')}")
        said = "not fed" if found is None else str(show(found, PRESSURE, self._session.units))
        ink = T.danger if found is None else T.ink
        write(painter, said, QPointF(x, top + 32), size=15, weight=600, color=ink, side=side)

    def _draw_gauge(self, painter: QPainter, name: str) -> None:
        port, at = self._port(name), QPointF(*self._gauge_at(name))
        assert port is not None
        painter.setPen(pen(T.ink, 2))
        painter.drawLine(QPointF(*self._px(port.outside)), at)
        found = self._at(name)
        plan_art.gauge(painter, at, (found or 0.0) / self._hardest)
        said = "no line" if found is None else str(show(found, PRESSURE, self._session.units))
        spot = at + QPointF(plan_art.DIAL + 5, 5)
        write(painter, said, spot, size=15, weight=700, color=T.ink)

    # --- taken out of the window -----------------------------------------------------------

    @property
    def build_name(self) -> str:
        """The name of the build whose layout it is."""
        return self._session.build.name

    def paint_whole(self, painter: QPainter, box: QRectF) -> None:
        """Paint all of the plan into a box, without what is chosen."""
        chosen, self.where = self.where, ""
        whole = self.sceneRect()
        for paint in (self.drawBackground, None, self.drawForeground):
            painter.save()
            if paint is None:
                self.scene().render(painter, box, whole)
            else:
                painter.scale(box.width() / whole.width(), box.height() / whole.height())
                paint(painter, whole)
            painter.restore()
        self.where = chosen
