"""A system in small: pedal with its pin, booster, cylinder by its bores, what stands behind."""

from PySide6.QtCore import QPointF, QRectF, QSize
from PySide6.QtGui import QColor, QPainter, QPaintEvent

from urgens.document import Build
from urgens.document.kinds.cylinders.stepped import SteppedMaster
from urgens.document.kinds.cylinders.twin import TwinMaster
from urgens.ui.theme.paint import T, ink, pen
from urgens.ui.widgets.painted import Painted

WIDE, HIGH = 112.0, 92.0  # px
PER_METRE = 620.0  # px of a bore: an inch is 16
PEDAL = 84.0  # px from pivot to pad


class SystemDrawing(Painted):
    """What is pressed, to one scale on all cards, so that they are told apart at a look."""

    def __init__(self, build: Build) -> None:
        super().__init__()
        self._build = build
        self.setFixedSize(self.scaled(WIDE, HIGH))

    def sizeHint(self) -> QSize:
        return self.scaled(WIDE, HIGH)

    def paintEvent(self, event: QPaintEvent) -> None:
        pedal = self._build.pedal
        share = pedal.pivot_to_pushrod.value / pedal.pivot_to_pad.value
        pivot = QPointF(WIDE - 10, 5)
        pin = pivot + QPointF(-3 * share, PEDAL * share)
        with self.begin() as painter:
            painter.setPen(pen(T.metal, 6))
            painter.drawLine(pivot, pivot + QPointF(-3, PEDAL))
            painter.setPen(pen(T.ink, 5))
            painter.drawLine(QPointF(WIDE - 22, PEDAL + 5), QPointF(WIDE - 4, PEDAL + 5))
            ink(painter, pen(T.ink, 1.5), QColor(T.paper))
            painter.drawEllipse(pivot, 4, 4)
            near = self._booster(painter, pin)
            painter.setPen(pen(T.ink, 2))
            painter.drawLine(pin, QPointF(near, pin.y()))
            ink(painter, pen(T.ink, 1.5), QColor(T.paper))
            painter.drawEllipse(pin, 3, 3)
            self._cylinders(painter, QPointF(near, pin.y()))

    def _booster(self, painter: QPainter, pin: QPointF) -> float:
        """Paint the booster; return where the cylinder begins."""
        if not self._build.booster.fitted:
            return WIDE - 30
        ink(painter, pen(T.ink, 1.5), QColor(T.steel))
        box = QRectF(WIDE - 46, max(pin.y() - 17, 1), 16, 34)
        painter.drawRoundedRect(box, 6, 6)
        return box.left()

    def _cylinders(self, painter: QPainter, at: QPointF) -> None:
        """Paint what makes the pressure with its head at a point, and what is behind it."""
        master = self._build.master
        if isinstance(master, TwinMaster):
            rows = [(at.y() - 9, master.front_bore.value, T.front),
                    (at.y() + 9, master.rear_bore.value, T.rear)]  # fmt: skip
        else:
            rows = [(at.y(), master.main_bore.value, T.steel)]
        for y, bore, color in rows:
            high = bore * PER_METRE
            ink(painter, pen(T.ink, 1.5), QColor(T.metal))
            painter.drawRect(QRectF(at.x() - 34, y - high / 2, 34, high))
            painter.fillRect(QRectF(at.x() - 34, y - high / 2, 5, high), QColor(color))
        if isinstance(master, SteppedMaster):
            high = master.large_bore.value * PER_METRE
            ink(painter, pen(T.ink, 1.5), QColor(T.metal))
            painter.drawRect(QRectF(at.x() - 12, at.y() - high / 2, 12, high))
        if any(valve.reduces for valve in self._build.valves.rear):
            y = rows[-1][0]
            painter.setPen(pen(T.ink, 1.5))
            painter.drawLine(QPointF(at.x() - 34, y), QPointF(at.x() - 46, y))
            ink(painter, pen(T.rear, 2), QColor(T.paper))
            painter.drawRect(QRectF(at.x() - 58, y - 6, 12, 12))
            painter.drawLine(QPointF(at.x() - 56, y + 4), QPointF(at.x() - 52, y - 1))
            painter.drawLine(QPointF(at.x() - 52, y - 1), QPointF(at.x() - 48, y - 2))
