"""The vehicle from its side: wheelbase, tyres, centre of gravity, loads at rest and now."""

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QPainter, QTransform

from urgens.physics.axle import AXLES
from urgens.physics.vehicle import axle_loads
from urgens.quantity import LENGTH, LOAD, show
from urgens.ui.theme.paint import T, ink, pen, width
from urgens.ui.widgets.board import Board, arrow, measure, write
from urgens.ui.widgets.figure_label import Spot
from urgens.ui.widgets.side_view import SideView

SIDES = 76.0
WIDE_SIDES = 104.0
NO_SIDES = 36.0
ROOMY = 420.0  # px across, from which there is room for words as well
UNDER = 132.0  # px under the road, for wheelbase and loads
CG = 11.0  # px, radius of the mark of the centre of gravity
LOAD_SHARE = 46.0  # px of arrow for half the vehicle's weight
PULL = 90.0  # px of arrow for 1 g


class SideBoard(Board):
    """Everything that is taken with tape and scales."""

    said = "The vehicle from the side, with its lengths, tyres and loads"

    def spots(self) -> list[Spot]:
        """Return wheelbase, tyres, loads and height of the load case that is looked at."""
        case = f"vehicle.load_cases[{self.session.solution.case}]"
        tyres = [] if T.stands_back else [self._tyre(axle) for axle in AXLES]
        return [
            Spot("vehicle.wheelbase"),
            *tyres,
            Spot(f"{case}.cg_height"),
            Spot(f"{case}.front_axle", 22, T.front),
            Spot(f"{case}.rear_axle", 22, T.rear),
        ]

    def _tyre(self, axle: str) -> Spot:
        tyre = getattr(self.session.build, axle).tyre
        if tyre.rolling_radius is not None:
            return Spot(f"{axle}.tyre.rolling_radius", 18)
        return Spot(f"{axle}.tyre.size", 16)

    # --- where things are ------------------------------------------------------------------

    def _path(self, end: str) -> str:
        """Return the path of the figure whose path ends so."""
        return next(path for path in self.labels if path.endswith(end))

    def _tyres(self) -> list[str]:
        return [path for path in self.labels if ".tyre." in path]

    @property
    def _road(self) -> float:
        return self.down - UNDER

    def _view(self) -> tuple[SideView, QTransform]:
        solution = self.session.solution
        view = SideView.of(solution.build, solution.system)
        tyres = self._tyres()
        beside = SIDES if tyres else NO_SIDES
        if any(path.endswith("size") for path in tyres):
            beside = WIDE_SIDES
        room = QRectF(beside, 6.0, self.across - 2 * beside, self._road - 6.0)
        return view, view.fitted(room)

    def _center(self, to_px: QTransform) -> QPointF:
        """Return where the centre of gravity is: loads and height decide."""
        build, case = self.session.build, self.session.solution.case
        loads = build.vehicle.load_cases[case]
        rear, whole = loads.rear_axle.value, loads.front_axle.value + loads.rear_axle.value
        x = build.vehicle.wheelbase.value * rear / whole
        return to_px.map(QPointF(x, loads.cg_height.value))

    def place(self) -> None:
        """Put the labels at wheels, under the road and at the centre of gravity."""
        if not self.labels or self._road < 60:
            return
        view, to_px = self._view()
        road = self._road
        front, rear = (to_px.map(QPointF(x, 0.0)).x() for x in (0.0, view.wheelbase))
        self.put("vehicle.wheelbase", (front + rear) / 2, road + 12, "middle")
        ends = (view.extent.left(), view.extent.right())
        left, right = (to_px.map(QPointF(x, 0.0)).x() for x in ends)
        for path in self._tyres():
            if path.startswith("front"):
                self.put(path, left - 16, road - 36, "right")
            else:
                self.put(path, right + 16, road - 36, "left")
        center = self._center(to_px)
        self.put(self._path("cg_height"), center.x() + 20, center.y() - 18)
        self.put(self._path("front_axle"), front, road + 92, "middle")
        self.put(self._path("rear_axle"), rear, road + 92, "middle")

    # --- what is drawn ---------------------------------------------------------------------

    def draw(self, painter: QPainter) -> None:
        """Paint vehicle, road, dimension lines and loads."""
        if self._road < 60:
            return
        view, to_px = self._view()
        view.paint(painter, to_px)
        road = self._road
        painter.setPen(pen(T.ink, 2))
        painter.drawLine(QPointF(0, road), QPointF(self.across, road))
        self._draw_tyres(painter, view, to_px)
        self._draw_wheelbase(painter, view, to_px)
        self._draw_center(painter, to_px)
        self._draw_loads(painter, view, to_px)

    def _draw_tyres(self, painter: QPainter, view: SideView, to_px: QTransform) -> None:
        units = self.session.units
        for path in self._tyres():
            front = path.startswith("front")
            x, radius = (0.0, view.front_radius) if front else (view.wheelbase, view.rear_radius)
            outward = -1 if front else 1
            hub, label = to_px.map(QPointF(x, radius)), self.box(path)
            at = label.right() + 5 if outward < 0 else label.left() - 5
            painter.setPen(pen(T.muted, 1))
            painter.drawLine(hub, QPointF(at, hub.y()))
            measure(painter, QPointF(at, hub.y()), QPointF(at, self._road))
            words = "rolling" if path.endswith("radius") else str(show(radius, LENGTH, units))
            side = "right" if outward < 0 else "left"
            edge = label.right() - 4 if outward < 0 else label.left() + 4
            write(painter, words, QPointF(edge, label.top() - 3), side=side)  # type: ignore[arg-type]

    def _draw_wheelbase(self, painter: QPainter, view: SideView, to_px: QTransform) -> None:
        label = self.box("vehicle.wheelbase")
        y = label.center().y()
        front, rear = (to_px.map(QPointF(x, 0.0)).x() for x in (0.0, view.wheelbase))
        painter.setPen(pen(T.muted, 1))
        for x in (front, rear):
            painter.drawLine(QPointF(x, self._road + 4), QPointF(x, y + 8))
        measure(painter, QPointF(front, y), QPointF(rear, y))
        painter.fillRect(label, QColor(T.sheet))

    def _draw_center(self, painter: QPainter, to_px: QTransform) -> None:
        center, path = self._center(to_px), self._path("cg_height")
        label = self.box(path)
        ink(painter, Qt.PenStyle.NoPen, QColor(T.steel))
        words = "centre of gravity" if self.across > ROOMY else "height"
        across = max(width(words, 15), label.width()) + 6
        painter.drawRect(QRectF(label.left(), label.top() - 17, across, 42))
        write(painter, words, QPointF(label.left() + 4, label.top() - 3), color=T.ink)
        measure(painter, center + QPointF(0, CG), QPointF(center.x(), self._road))
        ink(painter, pen(T.ink, 2), QColor(T.sheet))
        painter.drawEllipse(center, CG, CG)
        painter.setBrush(QColor(T.ink))
        around = QRectF(center.x() - CG, center.y() - CG, 2 * CG, 2 * CG)
        painter.drawPie(around, 0, 90 * 16)
        painter.drawPie(around, 180 * 16, 90 * 16)
        z = float(self.session.presses.achieved_z)
        if z > 0.01:
            tip = center - QPointF(CG + 4 + PULL * z, 0)
            painter.setPen(pen(T.fluid[2], 4))
            painter.drawLine(center - QPointF(CG + 3, 0), tip + QPointF(8, 0))
            ink(painter, Qt.PenStyle.NoPen, QColor(T.fluid[2]))
            arrow(painter, tip, QPointF(1, 0), 6)
            painter.setBrush(QColor(T.steel))
            painter.drawRect(QRectF(tip.x() - 50, tip.y() - 11, 46, 22))
            write(
                painter, f"{z:.2f} g", tip + QPointF(-8, 5), weight=600, color=T.ink, side="right"
            )

    def _draw_loads(self, painter: QPainter, view: SideView, to_px: QTransform) -> None:
        units, standing = self.session.units, self.session.solution.standing
        weight = float(standing.weight)
        loads = axle_loads(standing, self.session.presses.achieved_z)
        case = self.session.solution.case
        still = self.session.build.vehicle.load_cases[case]
        foot = self._road + 90
        for x, load, now, color in (
            (0.0, still.front_axle.value, float(loads[0]), T.front),
            (view.wheelbase, still.rear_axle.value, float(loads[1]), T.rear),
        ):
            at = to_px.map(QPointF(x, 0.0)).x()
            length = min(LOAD_SHARE * 2 * max(now, 0.0) / weight, 44.0)
            painter.setPen(pen(color, 5))
            painter.drawLine(QPointF(at, foot), QPointF(at, foot - length + 8))
            ink(painter, Qt.PenStyle.NoPen, QColor(color))
            arrow(painter, QPointF(at, foot - length), QPointF(0, 1), 7)
            moved = show(now - load, LOAD, units)
            sign = "+" if now >= load else ""
            write(painter, f"{sign}{moved.number}", QPointF(at + 14, foot - 26))
            write(
                painter,
                f"now {show(now, LOAD, units)}",
                QPointF(at + 14, foot - 8),
                weight=600,
                color=color,
            )
        if self.across < ROOMY:
            return
        said = f"{show(weight, LOAD, units)} in all"
        share = f"{100 * still.front_axle.value / weight:.0f} % in front"
        left, right = (self.box(self._path(f"{axle}_axle")) for axle in AXLES)
        wide = max(width(said, 15), width(share, 15)) + 12
        x = (left.right() + right.left()) / 2
        if right.left() - left.right() < wide:  # else beside both
            x = right.right() + wide / 2
        for words, down in ((said, 14.0), (share, 33.0)):
            write(painter, words, QPointF(x, foot + down), side="middle")
