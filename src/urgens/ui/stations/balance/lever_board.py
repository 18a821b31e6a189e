"""A load-sensing valve's lever from the side: piston, pivot, spring and axle as they stand now."""

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QPainter, QPaintEvent

from urgens.document.kinds.valves.load_sensing import LoadSensing
from urgens.quantity import FORCE, LENGTH, PRESSURE, show
from urgens.studies.knees_by_load import LeverState, lever_state
from urgens.ui.session import Session
from urgens.ui.theme.paint import T, ink, pen
from urgens.ui.widgets.board import arrow, write
from urgens.ui.widgets.painted import Painted

WIDE = 214.0  # px
PIVOT = QPointF(24.0, 108.0)
ARM = 150.0  # px from pivot to spring
# px between which the piston stands
NEAR = 16.0
FAR = 110.0
AXLE = 236.0  # px down where the axle is as set
MOVES = 34.0  # px for the largest travel
LARGEST = 0.1  # m of travel, where no stop is given


class LeverBoard(Painted):
    """Follows the press: the axle rises and falls, the spring and the lever push."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self._session = session
        self._valve: LoadSensing | None = None
        self.setFixedWidth(round(WIDE * self.scale))
        self.setAccessibleName("Lever of the load-sensing valve")
        session.press_changed.connect(self.update)
        self.hide()

    def show_valve(self, valve: object) -> None:
        """Draw a valve's lever, or nothing where it is not described by one."""
        lever = isinstance(valve, LoadSensing) and valve.lever is not None
        self._valve = valve if lever and isinstance(valve, LoadSensing) else None
        self.setVisible(self._valve is not None and not T.stands_back)
        self.update()

    def state(self) -> LeverState | None:
        """Return how the lever stands now."""
        if self._valve is None:
            return None
        return lever_state(self._session.solution, self._session.presses, self._valve)

    def paintEvent(self, event: QPaintEvent) -> None:
        state, valve = self.state(), self._valve
        if state is None or valve is None or valve.lever is None:
            return
        with self.begin() as painter:
            lever = valve.lever
            stops = [stop.value for stop in (lever.bump, lever.droop) if stop is not None]
            most = max(stops, default=LARGEST)
            share = min(max(state.travel / most, -1.0), 1.0)
            axle = QPointF(PIVOT.x() + ARM, AXLE - MOVES * share)
            ratio = lever.piston_arm.value / lever.arm.value
            piston = PIVOT.x() + min(max(ARM * ratio, NEAR), FAR)
            self._draw_valve(painter, QPointF(piston, PIVOT.y()), state)
            self._draw_spring(painter, QPointF(PIVOT.x() + ARM, PIVOT.y()), axle, state)
            painter.setPen(pen(T.ink, 8))
            painter.drawLine(PIVOT, QPointF(PIVOT.x() + ARM + 8, PIVOT.y()))
            painter.setPen(pen(T.metal, 4))
            painter.drawLine(PIVOT, QPointF(PIVOT.x() + ARM + 8, PIVOT.y()))
            ink(painter, pen(T.ink, 2.5), QColor(T.sheet))
            painter.drawEllipse(PIVOT, 7, 7)

    def _draw_valve(self, painter: QPainter, at: QPointF, state: LeverState) -> None:
        """Draw the body above the lever, its piston, and what the lever pushes with."""
        units = self._session.units
        body = QRectF(at.x() - 22, 18, 44, 52)
        ink(painter, pen(T.ink, 2), QColor(T.steel))
        painter.drawRoundedRect(body, 4, 4)
        painter.setPen(pen(T.ink, 6))
        painter.drawLine(QPointF(at.x(), 44), QPointF(at.x(), at.y() - 5))
        ink(painter, Qt.PenStyle.NoPen, QColor(T.ink))
        arrow(painter, QPointF(at.x(), 40), QPointF(0, 1), 7)
        words = QPointF(body.right() + 8, 34)
        knee = f"knee {show(state.knee, PRESSURE, units)}"
        write(painter, knee, words, size=16, weight=600, color=T.rear)
        push = f"push {show(state.push, FORCE, units)}"
        write(painter, push, words + QPointF(0, 20), size=14, color=T.ink)

    def _draw_spring(
        self, painter: QPainter, top: QPointF, axle: QPointF, state: LeverState
    ) -> None:
        """Draw the spring between the lever's end and the axle."""
        units, turns = self._session.units, 7
        slack = state.spring <= 0.0
        painter.setPen(pen(T.muted if slack else T.ink, 1.5))
        start, end = top.y() + 10, axle.y() - 18
        step = (end - start) / (2 * turns)
        coils = [
            QPointF(top.x() + (9 if index % 2 else -9), start + index * step)
            for index in range(1, 2 * turns)
        ]
        painter.drawPolyline([QPointF(top.x(), start), *coils, QPointF(top.x(), end)])
        painter.drawLine(top, QPointF(top.x(), start))
        painter.drawLine(QPointF(top.x(), end), axle)
        ink(painter, pen(T.ink, 2), QColor(T.metal))
        painter.drawEllipse(axle, 14, 14)
        painter.setBrush(QColor(T.sheet))
        painter.drawEllipse(axle, 4, 4)
        painter.setPen(pen(T.muted, 1, Qt.PenStyle.DashLine))
        painter.drawLine(QPointF(axle.x() - 60, AXLE), QPointF(axle.x() + 20, AXLE))
        said = "slack" if slack else f"spring {show(state.spring, FORCE, units)}"
        left = QPointF(top.x() - 18, (start + end) / 2 + 5)
        write(painter, said, left, size=14, color=T.ink, side="right")
        up = show(abs(state.travel), LENGTH, units)
        way = "up" if state.travel >= 0 else "down"
        at = QPointF(axle.x() - 22, AXLE + 24)
        write(painter, f"axle {up} {way}", at, size=14, color=T.ink, side="right")
        write(painter, "as set", QPointF(axle.x() - 64, AXLE + 5), size=14, side="right")
