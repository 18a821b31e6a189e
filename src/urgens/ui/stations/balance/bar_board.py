"""The balance bar from above: its bearing is dragged between the two rods."""

import math

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QKeyEvent, QPainter, QPaintEvent
from PySide6.QtWidgets import QWidget

from urgens.document.kinds.cylinders.twin import TwinMaster
from urgens.physics.axle import Axle
from urgens.quantity import LENGTH, shown
from urgens.solve.travel import bar_tilt
from urgens.ui.session import Session
from urgens.ui.stations.balance.bar_setting import bar, drag_bar, smallest_step, step_bar
from urgens.ui.theme.paint import T, fluid, ink, pen
from urgens.ui.widgets.board import write
from urgens.ui.widgets.drag import PaintedDrag
from urgens.ui.widgets.marks import disc, square
from urgens.ui.widgets.painted import Painted

TALL = 104.0  # px
HALF = 112.0  # px from the middle of the bar to a rod
BAR_Y = 72.0
GRIP = 20.0  # px around the bearing that take hold of it


class BarBoard(Painted):
    """Both cylinders, the bar as it tilts at this press, the bearing and what each rod gets."""

    def __init__(self, session: Session, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._session = session
        self.drag = PaintedDrag(self, session, taken=self._taken, moved=self._pull)
        self.setFixedHeight(round(TALL * self.scale))
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        session.solution_changed.connect(self._changed)
        session.press_changed.connect(self.update)
        self._changed()

    def _changed(self) -> None:
        master = bar(self._session)
        self.setVisible(master is not None and not T.stands_back)
        if master is not None:
            offset = shown(master.bar_offset, LENGTH, self._session.units)
            self.setAccessibleName(
                f"Balance bar, bearing {offset} to the front; drag or arrow keys"
            )
        self.update()

    # --- where things are ------------------------------------------------------------------

    def _master(self) -> TwinMaster:
        master = bar(self._session)
        assert master is not None
        return master

    @property
    def _middle(self) -> float:
        return self.across / 2

    @property
    def _per_metre(self) -> float:
        return 2 * HALF / self._master().bar_length.value

    @property
    def bearing(self) -> QPointF:
        """Where the bearing is; the front cylinder is to the left."""
        offset = self._master().bar_offset.value
        return QPointF(self._middle - offset * self._per_metre, BAR_Y)

    def _end(self, side: int) -> QPointF:
        """Return an end of the tilted bar: -1 the front's, 1 the rear's."""
        x = self._middle + side * HALF
        # the rod that goes further in is the further up
        return QPointF(x, BAR_Y + self._tilt * (x - self.bearing.x()))

    @property
    def _tilt(self) -> float:
        """The bar's angle at this press [rad]; a stop ends it."""
        session = self._session
        pressed = session.presses
        made = session.solution.system
        tilt = float(bar_tilt(made, pressed.front_pressure, pressed.rear_pressure))
        if made.bar_max_angle is None:
            return tilt
        stop = float(made.bar_max_angle)
        return min(max(tilt, -stop), stop)

    # --- what is drawn ---------------------------------------------------------------------

    def paintEvent(self, event: QPaintEvent) -> None:
        if bar(self._session) is None:
            return
        with self.begin() as painter:
            self._draw_cylinders(painter)
            self._draw_scale(painter)
            front, rear, bearing = self._end(-1), self._end(1), self.bearing
            painter.setPen(pen(T.ink, 9))
            painter.drawLine(front, rear)
            painter.setPen(pen(T.metal, 5))
            painter.drawLine(front, rear)
            for end in (front, rear):
                ink(painter, pen(T.ink, 2), QColor(T.steel))
                painter.drawRoundedRect(QRectF(end.x() - 8, end.y() - 8, 16, 16), 3, 3)
            if self.drag.held or self.hasFocus():
                halo = QColor(T.fluid[1])
                halo.setAlphaF(0.3)
                ink(painter, pen(T.front, 2) if self.hasFocus() else Qt.PenStyle.NoPen, halo)
                painter.drawEllipse(bearing, GRIP - 4, GRIP - 4)
            ink(painter, pen(T.ink, 2.5), QColor(T.sheet))
            painter.drawEllipse(bearing, 9, 9)
            painter.setBrush(QColor(T.ink))
            painter.drawEllipse(bearing, 2, 2)

    def _draw_cylinders(self, painter: QPainter) -> None:
        session, made = self._session, self._session.solution.system
        for side, circuit, color in ((-1, Axle.FRONT, T.front), (1, Axle.REAR, T.rear)):
            end = self._end(side)
            painter.setPen(pen(T.ink, 4))
            painter.drawLine(end, QPointF(end.x(), 30))
            box = QRectF(end.x() - 13, 2, 26, 34)
            ink(painter, pen(T.ink, 2), QColor(T.steel))
            painter.drawRoundedRect(box, 3, 3)
            most = float(session.hardest.master(circuit))
            now = float(session.presses.master(circuit))
            ink(painter, Qt.PenStyle.NoPen, fluid(now / most if most else 0.0))
            painter.drawRect(box.adjusted(6, 5, -6, -10))
            share = float(made.cylinders.of(circuit).share)
            at = QPointF(end.x() + side * 24, 24)
            (disc if circuit == Axle.FRONT else square)(painter, at + QPointF(side * 4, -7), 6)
            words = f"{100 * share:.1f} % {circuit}"
            write(painter, words, at + QPointF(side * 16, -2), size=17, weight=600, color=color,
                  side="right" if side < 0 else "left")  # fmt: skip

    def _draw_scale(self, painter: QPainter) -> None:
        """Mark the middle of the bar, and turns or steps from it."""
        master = self._master()
        step = smallest_step(self._session, master) * self._per_metre
        while step < 7.0:
            step *= 2.0 if step * 2 >= 7.0 else 5.0
        count = int((HALF - 14) / step)
        painter.setPen(pen(T.muted, 1))
        for mark in range(-count, count + 1):
            long = 9.0 if mark == 0 else 5.0
            x = self._middle + mark * step
            painter.drawLine(QPointF(x, BAR_Y + 20), QPointF(x, BAR_Y + 20 + long))
        at = QPointF(self._middle - HALF - 24, BAR_Y + 26)
        write(painter, "drag the bearing", at, size=14, color=T.muted, side="right")
        words = self._turned(master)
        write(painter, words, QPointF(self._middle + HALF + 24, BAR_Y + 26), size=14, color=T.muted)

    def _turned(self, master: TwinMaster) -> str:
        offset, pitch = master.bar_offset.value, master.bar_thread_pitch
        way = "front" if offset >= 0 else "rear"
        tilt = f"tilts {math.degrees(self._tilt):.1f}°"
        if pitch is None:
            return tilt
        return f"{abs(offset) / pitch.value:.3g} turns to the {way}, {tilt}"

    # --- the hand --------------------------------------------------------------------------

    def _taken(self, spot: QPointF) -> bool:
        return (spot - self.bearing).manhattanLength() < GRIP

    def _pull(self, spot: QPointF) -> None:
        drag_bar(self._session, self._master(), (self._middle - spot.x()) / self._per_metre)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        key = Qt.Key(event.key())
        steps = {Qt.Key.Key_Left: 1, Qt.Key.Key_Right: -1, Qt.Key.Key_Up: 1, Qt.Key.Key_Down: -1}
        if key in steps:
            step_bar(self._session, self._master(), steps[key])
        else:
            event.ignore()
