"""The pedal that is pulled: drag the pad, see where each axle locks along its travel."""

import math

import numpy as np
from PySide6.QtCore import QLineF, QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QColor, QMouseEvent, QPainter, QPaintEvent, QPixmap, QPolygonF
from PySide6.QtWidgets import QSizePolicy, QWidget

from urgens.quantity import LENGTH
from urgens.quantity.display import in_units
from urgens.solve import AxleName
from urgens.ui.press.verdict import PressState, verdict
from urgens.ui.session import Session
from urgens.ui.theme.paint import T, face, fluid, hatch, ink, outline, pen
from urgens.ui.widgets.drag import PaintedDrag
from urgens.ui.widgets.marks import disc, square
from urgens.ui.widgets.motion import Motion
from urgens.ui.widgets.painted import Painted

NEWTON_PER_PIXEL = 2.0  # of pull; fixed, so that the hand learns it
PULL = QPointF(-0.9, 0.44)  # the way the pad goes, on screen
REST = math.radians(44)  # of the arm
FLOOR = math.radians(6)  # from straight down
GRIP = 40.0  # px around the pad that take hold of it
TICK_ROOM = 18.0  # px between two figures of the scale, at least
SCALE_OUT = 12.0  # px from the end of the arm to the travel scale
PIVOT_AT = 0.34  # of the width
TICKS = (1, 2, 5, 10, 20, 40, 50, 100, 200, 500)  # of the unit shown


class PedalView(Painted):
    """Draws pedal, cylinder and travel scale; dragging the pad changes the effort."""

    effort_dragged = Signal(float)

    def __init__(self, session: Session, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._session = session
        self._from = QPointF(), 0.0  # where and at which effort it was taken hold of
        self.drag = PaintedDrag(self, self, taken=self._taken, moved=self._pull)
        self._cache: tuple[object, QPixmap] | None = None
        self._locks: tuple[tuple[AxleName, float], ...] = ()
        self.setSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Expanding)
        self.setMinimumHeight(130)
        self.setFocusPolicy(Qt.FocusPolicy.ClickFocus)
        self.setAccessibleName("Brake pedal; drag the pad, or use the arrow keys")
        self.setMouseTracking(True)
        session.told.connect(self._find_locks)
        self._stroke = Motion(self, self.update)  # of the pad, as a share of its way to the floor
        session.press_changed.connect(self._follow)
        self._follow()
        self._find_locks()

    def sizeHint(self) -> QSize:
        return self.scaled(232, 300)

    # --- what is drawn ---------------------------------------------------------------------

    def _find_locks(self) -> None:
        solution = self._session.pressed_solution
        at = (solution.case, solution.road)
        first = AxleName(int(solution.lock.axle[at]))
        found = []
        if first is not AxleName.NONE:
            second = AxleName.REAR if first is AxleName.FRONT else AxleName.FRONT
            efforts = np.array([solution.lock.effort[at], solution.lock.second_effort[at]])
            travels = solution.travel(np.nan_to_num(efforts))
            for axle, effort, travel in zip((first, second), efforts, travels, strict=True):
                if not np.isnan(effort):
                    found.append((axle, self._share(float(travel))))
        self._locks = tuple(found)
        self.update()

    def _follow(self) -> None:
        """Let the pad go to where the press has it; under the hand it is there."""
        share = self._share(float(self._session.pressed.pedal_travel))
        self._stroke.go(share, at_once=self.drag.held)

    def _share(self, travel: float) -> float:
        """Return travel [m] as a share of the way to the floor; what ends early is at the end."""
        floor = float(self._session.pressed_solution.system.volumes.floor)
        return 1.0 if math.isnan(travel) else min(travel / floor, 1.0)

    @property
    def _pivot(self) -> QPointF:
        spare = self.down - self._arm - 58
        return QPointF(self.across * PIVOT_AT, 14 + max(spare, 0.0) * 0.4)

    @property
    def _arm(self) -> float:
        across = self.across * (1 - PIVOT_AT) / math.sin(REST) - 46
        return min(self.down - 72.0, across)

    def _at(self, share: float, radius: float) -> QPointF:
        angle = REST + (FLOOR - REST) * share
        return self._pivot + QPointF(math.sin(angle), math.cos(angle)) * radius

    @property
    def pad(self) -> QPointF:
        """Where the middle of the pad is now."""
        return self._at(self._stroke.value, self._arm - 14)

    def paintEvent(self, event: QPaintEvent) -> None:
        still = self._still()
        with QPainter(self) as painter:
            painter.drawPixmap(0, 0, still)
        with self.begin() as painter:
            share = self._stroke.value
            self._paint_used(painter, share)
            self._paint_ticks(painter)
            self._paint_hold(painter)
            pin = self._at(share, self._pin_radius())
            self._paint_cylinder(painter, pin)
            self._paint_arm(painter, share, ghost=False)
            ink(painter, pen(T.ink, 2), QColor(T.sheet))
            painter.drawEllipse(pin, 6.5, 6.5)
            painter.drawEllipse(self._pivot, 10, 10)
            painter.setBrush(QColor(T.ink))
            painter.drawEllipse(self._pivot, 2, 2)
            self._paint_effort(painter, share)
            self._paint_locks(painter)

    def _pin_radius(self) -> float:
        ratio = float(self._session.pressed_solution.system.pedal_ratio)
        return min(max(self._arm / ratio, 30.0), self._arm * 0.5)

    def _paint_hold(self, painter: QPainter) -> None:
        session = self._session
        outcome = verdict(session.pressed_solution, session.pressed, session.units).outcome
        bad = outcome in (PressState.REAR_LOCKED, PressState.REAR_FIRST)
        halo = QColor(T.danger if bad else T.fluid[1])
        halo.setAlphaF(0.28 if outcome is PressState.REAR_LOCKED else 0.2)
        ink(painter, Qt.PenStyle.NoPen, halo)
        painter.drawEllipse(self.pad, GRIP, GRIP)

    def _paint_arm(self, painter: QPainter, share: float, *, ghost: bool) -> None:
        end = self._at(share, self._arm)
        painter.save()
        painter.translate(self._pivot)
        painter.rotate(-math.degrees(REST + (FLOOR - REST) * share))
        length = math.hypot(end.x() - self._pivot.x(), end.y() - self._pivot.y())
        if ghost:
            ink(painter, Qt.PenStyle.NoPen, QColor(T.hair))
            painter.drawRoundedRect(QRectF(-4, 12, 8, length - 12), 3, 3)
        else:
            ink(painter, pen(T.ink, 2), QColor(T.metal))
            painter.drawRect(QRectF(-5.5, 0, 11, length - 20))
            ink(painter, Qt.PenStyle.NoPen, QColor(T.ink))
            painter.drawRoundedRect(QRectF(-7, length - 44, 17, 44), 3, 3)
            painter.setPen(pen(T.sheet, 2))
            for rib in range(4):
                y = length - 36 + rib * 10
                painter.drawLine(QLineF(3, y, 9, y))
        painter.restore()

    def _paint_cylinder(self, painter: QPainter, pin: QPointF) -> None:
        session = self._session
        pressed = session.pressed
        most = float(session.hardest.master_front)
        twin = session.build.master.has_bar
        boosted = session.build.booster.by_vacuum
        top = self._at(0.5, self._pin_radius()).y()
        body = QRectF(4, top - 17, 48, 34)
        rod_end = 70.0 if boosted else body.right()
        painter.setPen(pen(T.ink, 3))
        painter.drawLine(QPointF(rod_end, top), pin)
        if boosted:
            ink(painter, pen(T.ink, 2), QColor(T.steel))
            painter.drawRoundedRect(QRectF(body.right(), top - 26, 18, 52), 8, 8)
        bodies = [body]
        if twin:
            bodies = [QRectF(4, top - 22, 44, 19), QRectF(4, top + 3, 44, 19)]
            ink(painter, pen(T.ink, 2), QColor(T.ink))
            painter.drawRoundedRect(QRectF(body.right() + 1, top - 20, 5, 40), 2, 2)
        pressures = (float(pressed.master_front), float(pressed.master_rear))
        stroke = min(self._stroke.value, 1.0)
        for box, pressure in zip(bodies, pressures, strict=False):
            self._paint_bore(painter, box, pressure / most if most else 0.0, stroke)
        foot = bodies[-1].bottom()
        for x, mark, color in (
            (bodies[-1].left() + 10, disc, T.front),
            (bodies[-1].left() + 28, square, T.rear),
        ):
            painter.setPen(pen(color, 3))
            painter.drawLine(QPointF(x, foot), QPointF(x, foot + 14))
            mark(painter, QPointF(x, foot + 19), 5)

    def _paint_bore(self, painter: QPainter, box: QRectF, share: float, stroke: float) -> None:
        ink(painter, pen(T.ink, 2), QColor(T.steel))
        painter.drawRoundedRect(box, 3, 3)
        inner = box.adjusted(4, 4, -4, -4)
        piston = inner.left() + inner.width() * (0.85 - 0.45 * stroke)
        ink(painter, Qt.PenStyle.NoPen, fluid(share))
        painter.drawRect(QRectF(inner.left(), inner.top(), piston - inner.left(), inner.height()))
        painter.setBrush(QColor(T.ink))
        painter.drawRect(QRectF(piston, inner.top(), 4, inner.height()))

    def _paint_floor(self, painter: QPainter) -> None:
        foot = self._at(1.0, self._arm)
        x = foot.x() - 18
        wall = QPolygonF(
            [
                QPointF(x - 9, foot.y() - 64),
                QPointF(x, foot.y() - 64),
                QPointF(x, foot.y() + 6),
                QPointF(x - 9, foot.y() + 6),
            ]
        )
        ink(painter, Qt.PenStyle.NoPen, hatch(T.ink))
        painter.drawPolygon(wall)
        painter.setPen(pen(T.ink, 2))
        painter.drawLine(wall.at(1), wall.at(2))
        painter.setFont(face(14))
        painter.setPen(QColor(T.muted))
        painter.drawText(
            QRectF(x - 60, foot.y() - 10, 46, 18), Qt.AlignmentFlag.AlignRight, "floor"
        )

    def _still(self) -> QPixmap:
        """Return what does not move with the press: floor, scale and the arm at rest."""
        ratio = self.devicePixelRatioF()
        key = (self.size(), ratio, self._floor_shown())
        if self._cache is None or self._cache[0] != key:
            pixmap = QPixmap(self.size() * ratio)
            pixmap.setDevicePixelRatio(ratio)
            pixmap.fill(Qt.GlobalColor.transparent)
            with QPainter(pixmap) as painter:
                painter.setRenderHint(QPainter.RenderHint.Antialiasing)
                painter.scale(self.scale, self.scale)
                self._paint_floor(painter)
                painter.setPen(pen(T.hair, 11))
                self._paint_arc(painter, 1.0)
                self._paint_arm(painter, 0.0, ghost=True)
                self._paint_numbers(painter)
            self._cache = (key, pixmap)
        return self._cache[1]

    def _paint_used(self, painter: QPainter, share: float) -> None:
        if share <= 0:
            return
        most = float(self._session.hardest.master_front)
        pressure = float(self._session.pressed.master_front)
        outline(painter, fluid(0.5 + 0.5 * pressure / most if most else 0.5).name(), 11)
        self._paint_arc(painter, share)

    def _paint_arc(self, painter: QPainter, share: float) -> None:
        """Draw the pad's way from rest to a share of the way to the floor."""
        radius, pivot = self._arm + SCALE_OUT, self._pivot
        around = QRectF(pivot.x() - radius, pivot.y() - radius, 2 * radius, 2 * radius)
        start, swept = math.degrees(REST) - 90.0, math.degrees(FLOOR - REST) * share
        painter.drawArc(around, round(start * 16), round(swept * 16))

    def _floor_shown(self) -> float:
        """Return the way to the floor in the unit shown."""
        floor = float(self._session.pressed_solution.system.volumes.floor)
        return floor / in_units(LENGTH, self._session.units)

    def _ticks(self) -> list[tuple[int, float]]:
        """Return whole units of travel, and where on the way to the floor they are."""
        floor = self._floor_shown()
        across = (self._arm + SCALE_OUT) * (REST - FLOOR)
        step = next((t for t in TICKS if across * t / floor >= TICK_ROOM), TICKS[-1])
        return [(tick, tick / floor) for tick in range(0, int(floor) + 1, step)]

    def _paint_ticks(self, painter: QPainter) -> None:
        radius = self._arm + SCALE_OUT
        painter.setPen(pen(T.ink, 1))
        painter.drawLines(
            [
                QLineF(self._at(share, radius - 6), self._at(share, radius + 6))
                for _, share in self._ticks()
            ]
        )

    def _paint_numbers(self, painter: QPainter) -> None:
        painter.setFont(face(13))
        painter.setPen(QColor(T.muted))
        for tick, share in self._ticks():
            at = self._at(share, self._arm + SCALE_OUT + 25)
            box = QRectF(at.x() - 16, at.y() - 9, 32, 18)
            painter.drawText(box, Qt.AlignmentFlag.AlignCenter, str(tick))

    def _paint_locks(self, painter: QPainter) -> None:
        for axle, share in self._locks:
            if axle is AxleName.FRONT:
                disc(painter, self._at(share, self._arm + 23), 6.5)
            else:
                square(painter, self._at(share, self._arm + 1), 5.5)

    def _paint_effort(self, painter: QPainter, share: float) -> None:
        effort, most = self._session.effort, self._session.most_effort
        if effort <= 0:
            return
        tip = self._at(share, self._arm - 22) + QPointF(12, -4)
        length = 18 + 46 * effort / most
        tail = QPointF(min(tip.x() + length * 0.9, self.across - 2), tip.y() - length * 0.42)
        painter.setPen(pen(T.ink, 2.5))
        painter.drawLine(tail, tip)
        ink(painter, Qt.PenStyle.NoPen, QColor(T.ink))
        painter.drawPolygon(QPolygonF([tip, tip + QPointF(11, -1), tip + QPointF(7, -9)]))

    # --- the hand --------------------------------------------------------------------------

    def _taken(self, spot: QPointF) -> bool:
        self._from = spot, self._session.effort
        near = spot - self.pad
        return math.hypot(near.x(), near.y()) <= GRIP

    def _pull(self, spot: QPointF) -> None:
        start, effort = self._from
        pulled = QPointF.dotProduct(spot - start, PULL)
        self.effort_dragged.emit(effort + NEWTON_PER_PIXEL * pulled)

    def begin_drag(self) -> None:
        """Close the hand: an effort is no part of the build, and no step of it."""
        self.setCursor(Qt.CursorShape.ClosedHandCursor)

    def end_drag(self) -> None:
        """Open the hand."""
        self.setCursor(Qt.CursorShape.OpenHandCursor)

    def cancel_drag(self) -> None:
        """Press as hard as before."""
        self.effort_dragged.emit(self._from[1])

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        near = self.spot(event) - self.pad
        over = math.hypot(near.x(), near.y()) <= GRIP
        self.setCursor(Qt.CursorShape.OpenHandCursor if over else Qt.CursorShape.ArrowCursor)
