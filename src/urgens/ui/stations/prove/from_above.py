"""Stops seen from above: the car every half second, locked wheels in crimson."""

import math
from dataclasses import dataclass

import numpy as np
from PySide6.QtCore import QPointF, QRectF, QSize, Qt
from PySide6.QtGui import QColor, QPainter, QPaintEvent

from urgens.bench.road.drives import Drive
from urgens.physics.axle import Axle
from urgens.quantity import DISTANCE, Units, in_units, unit_shown
from urgens.ui.theme.paint import T, ink, pen, shortened
from urgens.ui.widgets.board import write
from urgens.ui.widgets.marks import disc, square
from urgens.ui.widgets.painted import Painted

LABEL = 140  # px
ROW = 62  # px
FOOT = 20  # px
EVERY = 0.5  # s between two cars
# m of the car that is drawn
LONG = 4.0
WIDE = 1.7
TRACK = 0.62  # m from the middle to a wheel
SLIDES = 0.6  # of the speed: a wheel that slips more is drawn as locked
MOVES = 0.5  # m/s
STRAIGHT = math.radians(5.0)
ROUND = math.radians(60.0)


@dataclass(frozen=True)
class Lane:
    """One stop: its words, what is under them, the stop, and the axle that went first."""

    name: str
    beneath: str
    drive: Drive
    axle: Axle | None
    third: str = ""


class FromAbove(Painted):
    """Lanes one under the other; a car faces left, as everywhere. `moment` is where it has got."""

    def __init__(self, row: int = ROW) -> None:
        super().__init__()
        self._lanes: tuple[Lane, ...] = ()
        self._units: Units | None = None
        self._row = row
        self.moment: float | None = None
        self.setAccessibleName("From above: no stop yet")

    def sizeHint(self) -> QSize:
        return self.scaled(560, max(len(self._lanes), 1) * self._row + FOOT)

    def show_lanes(self, lanes: tuple[Lane, ...], units: Units) -> None:
        """Show these stops from beginning to end."""
        self._lanes, self._units, self.moment = lanes, units, None
        self.setFixedHeight(round((max(len(lanes), 1) * self._row + FOOT) * self.scale))
        self.setAccessibleName(
            "From above. "
            + " ".join(f"{lane.name}: {lane.beneath} {lane.third}." for lane in lanes)
        )
        self.update()

    def show_moment(self, moment: float | None) -> None:
        """Show the stops as far as they have got at a time [s], None: to the end."""
        self.moment = moment
        self.update()

    @property
    def longest(self) -> float:
        """How long the longest stop takes [s]."""
        return max((float(lane.drive.time[-1]) for lane in self._lanes), default=0.0)

    def paintEvent(self, event: QPaintEvent) -> None:
        with self.begin() as painter:
            if not self._lanes or self._units is None:
                return
            far = max(float(np.max(np.abs(lane.drive.along))) for lane in self._lanes)
            per_metre = (self.across - LABEL - 60.0) / max(far, 1.0)
            for index, lane in enumerate(self._lanes):
                self._lane(painter, lane, index * self._row, per_metre)
            self._axis(painter, far, per_metre)

    def _x(self, along: float, per_metre: float) -> float:
        return self.across - 34.0 - along * per_metre

    def _axis(self, painter: QPainter, far: float, per_metre: float) -> None:
        assert self._units is not None
        unit = in_units(DISTANCE, self._units)
        top = len(self._lanes) * self._row + 14
        whole = far / unit
        step = next(s for s in (5, 10, 20, 25, 50, 100, 200, 500, 1000) if whole / s <= 6)
        for mark in range(0, int(whole) + 1, step):
            x = self._x(mark * unit, per_metre)
            words = f"{mark} {unit_shown(DISTANCE, self._units)}" if not mark else f"{mark}"
            write(painter, words, QPointF(x, top), size=13, side="middle")

    def _lane(self, painter: QPainter, lane: Lane, top: float, per_metre: float) -> None:
        middle = top + self._row / 2
        ground = QRectF(LABEL, top + 2, self.across - LABEL, self._row - 6)
        painter.fillRect(ground, QColor(T.paper))
        color = {Axle.FRONT: T.front, Axle.REAR: T.rear, None: T.ink}[lane.axle]
        left = 0.0
        if lane.axle is not None:
            mark = disc if lane.axle == Axle.FRONT else square
            mark(painter, QPointF(7, middle - 9), 5.5)
            left = 18.0
        write(painter, lane.name, QPointF(left, middle - 4), size=16, weight=600, color=color)
        spun = abs(lane.drive.turned) > STRAIGHT
        for line, words in enumerate((lane.beneath, lane.third)):
            last = not lane.third or line == 1
            color = T.danger if spun and last else T.muted
            shown = shortened(words, 14, 400, LABEL - 6, 24)
            write(painter, shown, QPointF(0, middle + 16 + 19 * line), size=14, color=color)
        painter.save()
        painter.setClipRect(ground)
        self._way(painter, lane.drive, middle, per_metre)
        for time in self._times(lane.drive):
            self._car(painter, lane.drive, time, middle, per_metre)
        painter.restore()

    def _times(self, drive: Drive) -> list[float]:
        end = float(drive.time[-1]) if self.moment is None else self.moment
        end = min(end, float(drive.time[-1]))
        times = [EVERY * k for k in range(int(end / EVERY) + 1)]
        if end - times[-1] > 0.2 * EVERY:
            times.append(end)
        return times

    def _way(self, painter: QPainter, drive: Drive, middle: float, per_metre: float) -> None:
        painter.setPen(pen(T.metal, 2))
        shown = drive.time <= (math.inf if self.moment is None else self.moment)
        for side in (-TRACK, TRACK):
            x = drive.along - side * np.sin(drive.heading)
            y = drive.across + side * np.cos(drive.heading)
            points = [
                QPointF(self._x(float(a), per_metre), middle + float(b) * per_metre)
                for a, b in zip(x[shown][::6], y[shown][::6], strict=True)
            ]
            painter.drawPolyline(points)

    def _car(
        self, painter: QPainter, drive: Drive, time: float, middle: float, per_metre: float
    ) -> None:
        at = min(int(np.searchsorted(drive.time, time)), drive.time.size - 1)
        x = self._x(float(drive.along[at]), per_metre)
        y = middle + float(drive.across[at]) * per_metre
        scale = max(per_metre, 7.0)
        painter.save()
        painter.translate(x, y)
        painter.rotate(-math.degrees(float(drive.heading[at])))
        speed = max(float(drive.speed[at]), MOVES)
        for place, own in ((-1.25, drive.front_speed), (1.25, drive.rear_speed)):
            slid = 1.0 - float(own[at]) / speed
            locked = slid > SLIDES and float(drive.speed[at]) > MOVES
            ink(painter, Qt.PenStyle.NoPen, QColor(T.danger if locked else T.ink))
            for side in (-1, 1):
                wheel = QRectF(place - 0.42, side * 0.93 - 0.19, 0.84, 0.38)
                painter.drawRect(QRectF(wheel.x() * scale, wheel.y() * scale,
                                        wheel.width() * scale, wheel.height() * scale))  # fmt: skip
        ink(painter, pen(T.ink, 1.5), QColor(T.sheet))
        body = QRectF(-LONG / 2 * scale, -WIDE / 2 * scale, LONG * scale, WIDE * scale)
        painter.drawRoundedRect(body, 0.5 * scale, 0.5 * scale)
        cabin = QRectF(-0.3 * scale, -0.6 * scale, 1.3 * scale, 1.2 * scale)
        painter.setBrush(QColor(T.steel))
        painter.drawRoundedRect(cabin, 0.3 * scale, 0.3 * scale)
        painter.restore()


def lane_words(drive: Drive) -> str:
    """Return how a stop ended, in a few words."""
    turned = abs(math.degrees(drive.turned))
    if abs(drive.turned) > ROUND:
        return f"spins {turned:.0f}°"
    if abs(drive.turned) > STRAIGHT:
        return f"{turned:.0f}° off line"
    return "straight"
