"""Two gauges with the valve between them, in flow order."""

import math
from dataclasses import dataclass

from PySide6.QtCore import QPointF, QRectF, QSize, Qt
from PySide6.QtGui import QColor, QPainter, QPaintEvent, QPolygonF

from urgens.quantity import PRESSURE, Units, in_units, show
from urgens.ui.theme.paint import T, face, ink, laid_out, metrics, pen, width
from urgens.ui.widgets.board import write
from urgens.ui.widgets.marks import disc, square
from urgens.ui.widgets.painted import Painted

HIGH = 200  # px
RADIUS = 80  # px
SWEEP = 270.0  # degrees
START = 135.0  # clockwise from the right
PARTS = 5  # of the scale


@dataclass(frozen=True)
class DialReadings:
    """What the dials show: pressures [Pa], None where nothing is read; both gauges' scale [Pa].

    `error` is the gauges' class [Pa]; `target` where to read next; `computed` where the figures are
    this build's own and no gauge's; `name` the valve's.
    """

    inlet: float | None
    outlet: float | None
    full_scale: float
    error: float
    target: float | None
    computed: bool
    name: str
    front: bool


class Dials(Painted):
    """Inlet to the left, outlet to the right; the class is a wedge behind each needle."""

    def __init__(self) -> None:
        super().__init__()
        self._shown: DialReadings | None = None
        self._units: Units | None = None
        self.setMinimumHeight(round(HIGH * self.scale))
        self.setMaximumHeight(round(HIGH * self.scale))

    def sizeHint(self) -> QSize:
        return self.scaled(540, HIGH)

    def show_pressures(self, readings: DialReadings, units: Units) -> None:
        """Show these pressures."""
        self._shown, self._units = readings, units
        words = [
            f"{name} {'—' if one is None else show(one, PRESSURE, units)}"
            for name, one in (("In", readings.inlet), ("Out", readings.outlet))
        ]
        computed = ", computed" if readings.computed else ""
        self.setAccessibleName(f"{readings.name}: {', '.join(words)}{computed}")
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        shown = self._shown
        with self.begin() as painter:
            if shown is None or self._units is None:
                return
            middle = self.across / 2
            apart = min(160.0, (self.across - 2 * RADIUS - 8) / 2)
            y = RADIUS + 22.0
            left, right = QPointF(middle - apart, y), QPointF(middle + apart, y)
            self._lines(painter, left, right, shown)
            self._body(painter, QPointF(middle, y), shown)
            self._dial(painter, left, shown.inlet, T.front, shown)
            self._dial(painter, right, shown.outlet, T.rear, shown)
            write(
                painter,
                "In",
                QPointF(left.x() - RADIUS + 16, 14),
                size=16,
                weight=600,
                color=T.front,
            )
            write(painter, "Out", QPointF(right.x() + RADIUS - 16, 14), size=16, weight=600,
                  color=T.rear, side="right")  # fmt: skip
            disc(painter, QPointF(left.x() - RADIUS + 7, 9), 5)
            square(painter, QPointF(right.x() + RADIUS - 7, 9), 5)

    def _lines(
        self, painter: QPainter, left: QPointF, right: QPointF, readings: DialReadings
    ) -> None:
        for color, size in ((T.ink, 10), (T.fluid[1], 5)):
            painter.setPen(pen(color, size))
            painter.drawLine(left, right)

    def _body(self, painter: QPainter, at: QPointF, readings: DialReadings) -> None:
        box = QRectF(at.x() - 58, at.y() - 36, 116, 72)
        ink(painter, pen(T.ink, 2), QColor(T.steel))
        painter.drawRoundedRect(box, 4, 4)
        write(painter, readings.name, QPointF(at.x(), box.top() - 10), size=15, weight=600,
              color=T.ink, side="middle")  # fmt: skip
        if readings.inlet is not None and readings.outlet is not None and self._units is not None:
            off = readings.inlet - readings.outlet
            words = f"takes off {show(max(off, 0.0), PRESSURE, self._units)}"
            if off < max(0.5 * readings.error, 0.01 * readings.full_scale):
                words = "passes all"
            write(painter, words, QPointF(at.x(), at.y() + 5), size=14, side="middle", color=T.ink)
        if readings.computed:
            write(painter, "computed", QPointF(at.x(), box.bottom() + 18), size=14, side="middle")

    def _dial(
        self,
        painter: QPainter,
        at: QPointF,
        value: float | None,
        color: str,
        readings: DialReadings,
    ) -> None:
        ink(painter, pen(T.ink, 2), QColor(T.sheet))
        painter.drawEllipse(at, RADIUS, RADIUS)
        ring = QRectF(at.x() - 70, at.y() - 70, 140, 140)
        painter.setPen(pen(T.band, 9))
        self._arc(painter, ring, 0.0, 1.0)
        if value is not None:
            painter.setPen(pen(T.fluid[1], 9))
            self._arc(painter, ring, 0.0, min(value / readings.full_scale, 1.0))
        self._ticks(painter, at, readings)
        if readings.target is not None and color == T.front:
            self._target(painter, at, readings.target / readings.full_scale)
        if value is not None:
            self._needle(painter, at, value / readings.full_scale, readings)
        self._figure(painter, at, value, color)

    def _arc(self, painter: QPainter, ring: QRectF, low: float, high: float) -> None:
        painter.setBrush(Qt.BrushStyle.NoBrush)
        first = -(START + SWEEP * low)
        painter.drawArc(ring, round(first * 16), round(-SWEEP * (high - low) * 16))

    def _way(self, share: float) -> QPointF:
        angle = math.radians(START + SWEEP * min(max(share, 0.0), 1.02))
        return QPointF(math.cos(angle), math.sin(angle))

    def _ticks(self, painter: QPainter, at: QPointF, readings: DialReadings) -> None:
        assert self._units is not None
        unit = in_units(PRESSURE, self._units)
        for part in range(PARTS + 1):
            way = self._way(part / PARTS)
            painter.setPen(pen(T.ink, 2))
            painter.drawLine(at + way * 63, at + way * 75)
            if 0 < part < PARTS:
                words = f"{readings.full_scale / unit * part / PARTS:,.0f}"
                place = at + way * 49 + QPointF(0, 5)
                write(painter, words, place, size=13, side="middle")

    def _target(self, painter: QPainter, at: QPointF, share: float) -> None:
        way = self._way(share)
        across = QPointF(-way.y(), way.x())
        tip = at + way * (RADIUS + 1)
        ink(painter, pen(T.ink, 1.5), QColor(T.sheet))
        foot = at + way * (RADIUS + 12)
        painter.drawPolygon(QPolygonF([tip, foot + across * 6, foot - across * 6]))

    def _needle(self, painter: QPainter, at: QPointF, share: float, readings: DialReadings) -> None:
        half = readings.error / readings.full_scale
        wedge = QColor(T.hair)
        ink(painter, Qt.PenStyle.NoPen, wedge)
        sides = [at, at + self._way(share - half) * 66, at + self._way(share + half) * 66]
        painter.drawPolygon(QPolygonF(sides))
        way = self._way(share)
        style = Qt.PenStyle.DashLine if readings.computed else Qt.PenStyle.SolidLine
        painter.setPen(pen(T.ink, 4, style))
        painter.drawLine(at - way * 16, at + way * 64)
        ink(painter, Qt.PenStyle.NoPen, QColor(T.ink))
        painter.drawEllipse(at, 7, 7)
        painter.setBrush(QColor(T.sheet))
        painter.drawEllipse(at, 2.5, 2.5)

    def _figure(self, painter: QPainter, at: QPointF, value: float | None, color: str) -> None:
        assert self._units is not None
        shown = None if value is None else show(value, PRESSURE, self._units)
        number, unit = ("—", "") if shown is None else (shown.number, shown.unit)
        size = 28
        whole = width(number, size, 600, condensed=False) + 4 + width(unit, 14)
        x, baseline = at.x() - whole / 2, at.y() + 62
        painter.setPen(pen(color))
        painter.setFont(face(size, 600, condensed=False))
        top = baseline - metrics(size, 600, condensed=False).ascent()
        painter.drawStaticText(QPointF(x, top), laid_out(number, size, 600, condensed=False))
        write(painter, unit, QPointF(x + whole - width(unit, 14), baseline), size=14)
