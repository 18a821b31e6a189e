"""The launch as a balance: what the driveline asks at the driven hubs, what holds against it."""

import math

import numpy as np
from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QPainter, QPaintEvent

from urgens.physics.axle import Axle
from urgens.quantity import FORCE, TORQUE, printed, show, unit_shown
from urgens.quantity.display import in_units
from urgens.solve.launch_hold import LIMITS, held_by
from urgens.ui.session import Session
from urgens.ui.theme.paint import T, hatch, ink, outline, pen
from urgens.ui.widgets.board import write
from urgens.ui.widgets.painted import Painted

POINTS = 181
# px around the plot
LEFT = 64.0
RIGHT = 16.0
TOP = 40.0
FOOT = 108.0


class LaunchView(Painted):
    """Torque held over the foot: the driven brakes, and on top what the road passes."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self._session = session
        self.setMinimumSize(self.scaled(380, 340))
        session.press_changed.connect(self.update)

    @property
    def words(self) -> str:
        """Whether it holds, from where, and what ends first."""
        session, held = self._session, self._session.solution.hold
        if held is None:
            return "No driveline is given: there is nothing to hold"
        units = session.units
        torque = show(held.driven_torque, TORQUE, units)
        if held.effort is None:
            most = show(session.solution.max_effort, FORCE, units)
            return f"{most} of foot does not hold {torque}: {held.limited_by} end first"
        return f"{show(held.effort, FORCE, units)} of foot holds {torque} at the driven hubs"

    def paintEvent(self, event: QPaintEvent) -> None:
        session = self._session
        with self.begin() as painter:
            held = session.solution.hold
            self.setAccessibleName(self.words)
            if held is None:
                write(painter, self.words, QPointF(0, 30), size=18, color=T.muted)
                return
            solution = session.solution
            made, standing = solution.system, solution.standing
            efforts = np.linspace(0.0, self._session.solution.max_effort, POINTS)
            whole, limits = held_by(solution.build, made, standing, efforts)
            launch = solution.build.vehicle.launch
            assert launch is not None
            end = made.ends.of(Axle(launch.driven))
            road = float(end.rolling_radius) * limits.min(axis=0)
            box = QRectF(LEFT, TOP, self.across - LEFT - RIGHT, self.down - TOP - FOOT)
            most = 1.12 * max(float(whole[-1]), held.driven_torque)
            self._draw_areas(painter, box, (efforts, whole, whole - road), most)
            self._draw_need(painter, box, held.driven_torque, most)
            self._draw_now(painter, box, most)
            self._draw_limits(painter, limits)

    def _at(self, box: QRectF, effort: float, torque: float, most: float) -> QPointF:
        whole = self._session.solution.max_effort
        return QPointF(
            box.left() + box.width() * min(effort / whole, 1.0),
            box.bottom() - box.height() * torque / most,
        )

    def _draw_areas(
        self,
        painter: QPainter,
        box: QRectF,
        curves: tuple[np.ndarray, np.ndarray, np.ndarray],
        most: float,
    ) -> None:
        efforts, whole, driven = curves
        launch = self._session.build.vehicle.launch
        assert launch is not None
        axle = Axle(launch.driven)
        colors = (T.front, T.rear) if axle is Axle.FRONT else (T.rear, T.front)
        other = axle.other
        floor = np.zeros_like(whole)
        for low, high, color in ((floor, driven, colors[0]), (driven, whole, colors[1])):
            area = [self._at(box, e, t, most) for e, t in zip(efforts, high, strict=True)]
            area += [
                self._at(box, e, t, most) for e, t in zip(efforts[::-1], low[::-1], strict=True)
            ]
            ground = QColor(color)
            ground.setAlphaF(0.22)
            ink(painter, Qt.PenStyle.NoPen, ground)
            painter.drawPolygon(area)
            if color == T.rear:
                painter.setBrush(hatch(color))
                painter.drawPolygon(area)
        outline(painter, T.ink, 3)
        painter.drawPolyline(
            [self._at(box, e, t, most) for e, t in zip(efforts, whole, strict=True)]
        )
        painter.setPen(pen(T.hair, 1))
        painter.drawLine(box.bottomLeft(), box.bottomRight())
        painter.drawLine(box.topLeft(), box.bottomLeft())
        index = int(0.72 * POINTS)
        for low, high, words, color in (
            (floor, driven, f"{launch.driven} brakes", colors[0]),
            (driven, whole, f"the road, from the {other} axle", colors[1]),
        ):
            middle = (float(low[index]) + float(high[index])) / 2
            at = self._at(box, float(efforts[index]), middle, most)
            painter.fillRect(QRectF(at.x() - 92, at.y() - 13, 184, 20), QColor(T.sheet))
            write(painter, words, at + QPointF(0, 3), weight=600, color=color, side="middle")
        self._draw_scale(painter, box, most)

    def _draw_scale(self, painter: QPainter, box: QRectF, most: float) -> None:
        units, whole = self._session.units, self._session.solution.max_effort
        for effort in round_steps(whole, in_units(FORCE, units)):
            at = self._at(box, effort, 0.0, most) + QPointF(0, 18)
            write(painter, f"{effort / in_units(FORCE, units):.0f}", at, size=14, side="middle")
        for torque in round_steps(most, in_units(TORQUE, units)):
            at = self._at(box, 0.0, torque, most) + QPointF(-8, 5)
            write(painter, f"{torque / in_units(TORQUE, units):,.0f}", at, size=14, side="right")
        write(
            painter,
            f"Torque at the driven hubs, {printed(unit_shown(TORQUE, units))}",
            QPointF(0, 16),
        )
        words = f"Foot, {unit_shown(FORCE, units)}"
        write(painter, words, QPointF(box.right(), box.bottom() + 38), side="right")

    def _draw_need(self, painter: QPainter, box: QRectF, need: float, most: float) -> None:
        held = self._session.solution.hold
        assert held is not None
        y = self._at(box, 0.0, need, most).y()
        painter.setPen(pen(T.danger, 2.5, Qt.PenStyle.DashLine))
        painter.drawLine(QPointF(box.left(), y), QPointF(box.right(), y))
        words = f"the engine asks {show(need, TORQUE, self._session.units)}"
        write(painter, words, QPointF(box.left() + 8, y - 7), weight=600, color=T.danger)
        if held.effort is not None:
            at = self._at(box, held.effort, need, most)
            ink(painter, pen(T.good, 2.5), QColor(T.sheet))
            painter.drawEllipse(at, 8, 8)

    def _draw_now(self, painter: QPainter, box: QRectF, most: float) -> None:
        solution = self._session.solution
        effort = min(self._session.effort, solution.max_effort)
        torque, _ = held_by(solution.build, solution.system, solution.standing, np.array([effort]))
        at = self._at(box, effort, float(torque[0]), most)
        ink(painter, pen(T.ink, 2.5), QColor(T.fluid[1]))
        painter.drawEllipse(at, 8, 8)

    def _draw_limits(self, painter: QPainter, limits: np.ndarray) -> None:
        """Say what the road can pass at most, and which of its three limits that is."""
        y, units = self.down - FOOT + 62, self._session.units
        first = int(np.argmin(limits[:, -1]))
        words = ("the other axle's brakes", "the other axle's tyres", "the driven tyres' grip")
        for index, name in enumerate(words):
            x = index * (self.across / len(LIMITS))
            color = T.ink if index == first else T.muted
            weight = 700 if index == first else 400
            write(painter, name, QPointF(x, y), size=15, weight=weight, color=color)
            figure = str(show(float(limits[index, -1]), FORCE, units))
            said = f"{figure}, ends first" if index == first else figure
            write(painter, said, QPointF(x, y + 22), size=17, weight=weight, color=color)


def round_steps(most: float, unit: float) -> list[float]:
    """Return about five round figures up to `most`; both in SI."""
    rough = most / unit / 5.0
    power = 10.0 ** math.floor(math.log10(rough))
    step = next(f * power for f in (1.0, 2.0, 2.5, 5.0, 10.0) if f * power >= rough)
    return [float(n * step * unit) for n in range(int(most / unit / step) + 1)]
