"""Pedal, booster and cylinder as drawings."""

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QPainter

from urgens.document import BuildChange
from urgens.document.kinds.boosters.hydraulic import HydraulicBooster
from urgens.document.kinds.boosters.vacuum import VacuumBooster
from urgens.document.kinds.cylinders import cylinder_kind
from urgens.document.kinds.cylinders.stepped import SteppedMaster
from urgens.quantity import LENGTH, PRESSURE, QuantityError, ShownFigure, number_of, retype, show
from urgens.ui.session import Session
from urgens.ui.theme.paint import T, fluid, ink, pen
from urgens.ui.widgets.board import Board, measure, write
from urgens.ui.widgets.dimension_label import DimensionLabel
from urgens.ui.widgets.figure_label import Spot
from urgens.ui.widgets.marks import disc, square

COLUMN = 92.0  # px for a figure
# Pedal ratios there are
LEAST = 1.5
MOST = 12.0
HEAD = 0.0
_NAMES = {
    "pivot_to_pad": "pivot to pad",
    "pivot_to_pushrod": "pivot to pushrod",
    "travel_available": "pad to floor",
    "bore": "bore",
    "large_bore": "large bore",
    "small_bore": "small bore",
    "relief_pressure": "relief",
    "stroke": "stroke",
    "front_bore": "front bore",
    "rear_bore": "rear bore",
    "bar_length": "bar",
    "bar_offset": "to the front",
    "gain": "gain",
    "socket_depth": "socket depth",
    "pushrod_length": "pushrod",
    "vacuum": "vacuum at idle",
    "max_assist": "most assist",
}


class PedalBoard(Board):
    """What turns the foot into pressure."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.ratio = DimensionLabel("Pedal ratio", self._take_ratio, parent=self, size=20)
        self.ratio.stepped.connect(self._step_ratio)

    def read(self) -> None:
        """Show the ratio that both lengths come to."""
        ratio = float(self.session.solution.system.pedal_ratio)
        self.ratio.set_value(ShownFigure(f"{ratio:.2f}", ": 1"), f"{ratio:.2f}")

    def _take_ratio(self, typed: str) -> None:
        """Move the pin to where a typed ratio has it; raises QuantityError or BuildErrors."""
        ratio = number_of(typed.removesuffix(":1").removesuffix(": 1"))
        if ratio is None or not LEAST <= ratio <= MOST:
            problem = f'"{typed}" is no pedal ratio'
            raise QuantityError(problem, f"write {LEAST:g} to {MOST:g}, for example 6.2")
        pin = self.session.build.pedal.pivot_to_pad.value / ratio
        text = retype(pin, LENGTH, self.session.units)
        values = {"pedal.pivot_to_pushrod": text}
        self.session.take(BuildChange.planning(f"Pedal ratio {ratio:g}", values))

    def _step_ratio(self, steps: int) -> None:
        ratio = float(self.session.solution.system.pedal_ratio) + 0.1 * steps
        self.ratio.attempt(lambda: self._take_ratio(f"{ratio:.2f}"))

    def spots(self) -> list[Spot]:
        """Return the figures of pedal, booster and cylinder, from the foot on."""
        return [
            Spot("pedal.pivot_to_pad"),
            Spot("pedal.pivot_to_pushrod"),
            Spot("pedal.travel_available"),
            *self._booster(),
            *self._master(),
        ]

    def _booster(self) -> list[Spot]:
        fitted = self.session.build.booster
        if isinstance(fitted, VacuumBooster):
            return [
                *(
                    Spot(f"booster.diaphragm_diameters[{i}]")
                    for i in range(len(fitted.diaphragm_diameters))
                ),
                Spot("booster.vacuum"),
                Spot("booster.gain"),
            ]
        if isinstance(fitted, HydraulicBooster):
            return [Spot("booster.max_assist"), Spot("booster.gain")]
        return []

    def _master(self) -> list[Spot]:
        if self.session.build.master.has_bar:
            return [
                Spot("master.front_bore", color=T.front),
                Spot("master.rear_bore", color=T.rear),
                Spot("master.stroke"),
                Spot("master.bar_length"),
                Spot("master.bar_offset"),
                Spot("master.pushrod_length"),
            ]
        if isinstance(self.session.build.master, SteppedMaster):
            names = ("large_bore", "small_bore", "relief_pressure", "stroke")
            return [Spot(f"master.{name}") for name in names]
        return [
            *(Spot(f"master.{bore}") for bore in cylinder_kind(self.session.build.master).bores),
            Spot("master.stroke"),
            Spot("master.socket_depth"),
            Spot("master.pushrod_length"),
        ]

    def place(self) -> None:
        """Put pedal figures at the pedal, the others under what they measure."""
        pivot, pin, pad = self._pedal()
        self.put("pedal.pivot_to_pad", pad.x() + 34, (pivot.y() + pad.y()) / 2 - 4)
        self.put("pedal.pivot_to_pushrod", pivot.x() + 34, (pivot.y() + pin.y()) / 2 - 14)
        self.put("pedal.travel_available", pad.x() + 34, pad.y() - 4, "left")
        self.ratio.resize(self.ratio.sizeHint())
        high = self.ratio.height() / self.scale
        at = QPointF(pivot.x() - 18 - self.ratio.width() / self.scale, pivot.y() - high / 2)
        self.ratio.move((at * self.scale).toPoint())
        row = self.down - 40.0
        left = 8.0
        for prefix in ("master.", "booster."):
            paths = [path for path in self.labels if path.startswith(prefix)]
            for index, path in enumerate(paths):
                self.put(path, left + (index // 2) * COLUMN, row - 50 * (1 - index % 2))
            left += COLUMN * ((len(paths) + 1) // 2) + (12 if paths else 0)

    def _booster_left(self) -> float:
        return self.across * 0.36

    def _pedal(self) -> tuple[QPointF, QPointF, QPointF]:
        """Return pivot, pushrod pin and pad, with the arm to scale."""
        made = self.session.build.pedal
        pivot = QPointF(self.across * 0.74, HEAD + 16)
        length = self.down - HEAD - 70
        share = made.pivot_to_pushrod.value / made.pivot_to_pad.value
        pad = pivot + QPointF(0, length)
        return pivot, pivot + (pad - pivot) * min(share, 1.0), pad

    def draw(self, painter: QPainter) -> None:
        """Paint pedal, booster, cylinder, and the names of the figures."""
        for path in self.labels:
            box = self.box(path)
            name = _NAMES.get(path.rpartition(".")[2], "diaphragm")
            write(painter, name, QPointF(box.left() + 5, box.top() - 3))
        pivot, pin, pad = self._pedal()
        self._draw_hydraulics(painter, pin)
        ink(painter, pen(T.ink, 2), QColor(T.metal))
        painter.drawRect(QRectF(pivot.x() - 5, pivot.y(), 10, pad.y() - pivot.y()))
        painter.setBrush(QColor(T.ink))
        painter.drawRoundedRect(QRectF(pad.x() - 22, pad.y() - 5, 40, 12), 3, 3)
        painter.setBrush(QColor(T.sheet))
        painter.drawEllipse(pivot, 9, 9)
        painter.drawEllipse(pin, 6, 6)
        for end, x in ((pad, pivot.x() + 30), (pin, pivot.x() + 18)):
            painter.setPen(pen(T.muted, 1))
            painter.drawLine(QPointF(pivot.x() + 10, pivot.y()), QPointF(x + 4, pivot.y()))
            painter.drawLine(QPointF(end.x() + 8, end.y()), QPointF(x + 4, end.y()))
            measure(painter, QPointF(x, pivot.y()), QPointF(x, end.y()))
        left = self.ratio.x() / self.scale
        write(painter, "ratio", QPointF(left + 1, pivot.y() + 5), side="right")

    def _draw_hydraulics(self, painter: QPainter, pin: QPointF) -> None:
        build, pressed = self.session.build, self.session.presses
        most = float(self.session.hardest.master_front)
        boosted = build.booster.fitted
        right = self._booster_left() + (56 if boosted else 0)
        painter.setPen(pen(T.ink, 3))
        painter.drawLine(QPointF(right, pin.y()), pin)
        if boosted:
            ink(painter, pen(T.ink, 2), QColor(T.steel))
            tall = 74.0 if build.booster.by_vacuum else 40.0
            box = QRectF(right - 56, pin.y() - tall / 2, 56, tall)
            painter.drawRoundedRect(box, 16, 16)
            painter.drawLine(QPointF(right - 28, box.top()), QPointF(right - 28, box.bottom()))
        twin = build.master.has_bar
        end = self._booster_left()
        offsets = (-19.0, 19.0) if twin else (0.0,)
        pressures = (float(pressed.master_front), float(pressed.master_rear))
        if twin:
            ink(painter, pen(T.ink, 2), QColor(T.ink))
            painter.drawRoundedRect(QRectF(end - 10, pin.y() - 30, 8, 60), 3, 3)
            end -= 10
        for offset, pressure in zip(offsets, pressures, strict=False):
            body = QRectF(20, pin.y() + offset - 16, end - 24, 32)
            ink(painter, pen(T.ink, 2), QColor(T.steel))
            painter.drawRoundedRect(body, 4, 4)
            ink(painter, Qt.PenStyle.NoPen, fluid(pressure / most if most else 0.0))
            inner = body.adjusted(6, 6, -6, -6)
            painter.drawRect(inner.adjusted(0, 0, -0.3 * inner.width(), 0))
            painter.setBrush(QColor(T.ink))
            painter.drawRect(
                QRectF(inner.right() - 0.3 * inner.width(), inner.top(), 5, inner.height())
            )
        foot = pin.y() + offsets[-1] + 16
        outlets = [f"{o.circuit} {o.position or ''}".strip() for o in build.master.outlets]
        if outlets:
            write(painter, ", ".join(outlets), QPointF(92, foot + 24), size=14)
        for x, mark, color in ((44.0, disc, T.front), (74.0, square, T.rear)):
            painter.setPen(pen(color, 3))
            painter.drawLine(QPointF(x, foot), QPointF(x, foot + 14))
            mark(painter, QPointF(x, foot + 19), 5)
        if twin:
            return
        shown = show(pressures[0], PRESSURE, self.session.units)
        write(painter, str(shown), QPointF(20, pin.y() - 22), weight=600, color=T.ink)
