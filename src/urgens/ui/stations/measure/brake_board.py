"""One axle's brakes as drawings: a disc cut open, a drum looked into."""

from PySide6.QtCore import QLineF, QPointF, QRectF, Qt
from PySide6.QtGui import QBrush, QColor, QPainter, QPainterPath

from urgens.document.kinds.brakes import piston_area
from urgens.document.kinds.brakes.disc import Disc
from urgens.document.kinds.brakes.drum import Drum
from urgens.guidance.thresholds import USUAL_SHOES
from urgens.physics.axle import Axle
from urgens.physics.disc import clamp_force
from urgens.quantity import FORCE, LENGTH, TORQUE, show
from urgens.ui.session import Session
from urgens.ui.theme.paint import T, fluid, hatch, ink, pen
from urgens.ui.widgets.board import Board, measure, write
from urgens.ui.widgets.figure_label import Spot

HEAD = 0.0  # px kept free at the top
ROW = 54.0  # px between two figures
NAMED = 46.0  # px: with less between two figures their names stand beside them
LABEL = 34.0  # that one is tall
PISTON_ROW = 34.0  # px between two rows of pistons
MOST_PISTONS = 4  # that are shown with their figures
REACH = {False: 88.0, True: 76.0}  # px from the disc to the end of a sliding, an opposed caliper
COLUMN = 104.0  # px on the right, for figures


class BrakeBoard(Board):
    """The brakes of one axle."""

    def __init__(self, session: Session, axle: Axle) -> None:
        self.axle = axle
        self.color = T.front if axle == Axle.FRONT else T.rear
        super().__init__(session)
        self.setAccessibleName(f"{axle.capitalize()} brake")

    @property
    def brake(self) -> Disc | Drum:
        """The brake as it is in the build."""
        brake = self.session.build.axle(self.axle).brake
        assert isinstance(brake, Disc | Drum)
        return brake

    # --- figures ---------------------------------------------------------------------------

    def spots(self) -> list[Spot]:
        """Return the figures of the disc or of the drum."""
        place, brake = f"{self.axle}.brake", self.brake
        if isinstance(brake, Disc):
            return [*self._disc_figures(place, brake)]
        return [*self._drum_figures(place, brake)]

    def _disc_figures(self, place: str, brake: Disc) -> list[Spot]:
        shown = min(len(brake.piston_diameters), MOST_PISTONS)
        size = 20 if shown < 3 else 16  # three stand in one row
        found = [Spot(f"{place}.piston_diameters[{i}]", size) for i in range(shown)]
        found.append(Spot(f"{place}.pad_friction"))
        if brake.effective_radius is not None:
            found.append(Spot(f"{place}.effective_radius"))
        elif brake.pad_inner_radius is not None:
            for end in ("inner", "outer"):
                found.append(Spot(f"{place}.pad_{end}_radius"))
        else:
            found.append(Spot(f"{place}.rotor_outer_diameter"))
            found.append(Spot(f"{place}.pad_height"))
        found.append(Spot(f"{place}.rotor_mass"))
        return found

    def _drum_figures(self, place: str, brake: Drum) -> list[Spot]:
        found = [Spot(f"{place}.cylinder_diameter"), Spot(f"{place}.drum_diameter")]
        if brake.shoe_factor is not None:
            found.append(Spot(f"{place}.shoe_factor"))
        else:
            found.append(Spot(f"{place}.shoe.lining_friction"))
        found.append(Spot(f"{place}.threshold"))
        return found

    # --- places ----------------------------------------------------------------------------

    _low = False  # whether there is room for a name over each figure

    def place(self) -> None:
        """Put the figures beside what they measure."""
        right = self.across - COLUMN
        if self.brake.has_pads:
            row, pitch = self.down - 50.0, 84 if self._in_a_row == 2 else 56
            pistons = [path for path in self.labels if "piston" in path]
            for index, path in enumerate(pistons):
                up, along = divmod(index, self._in_a_row)
                self.put(path, 8 + along * pitch, row - up * PISTON_ROW)
            others = [path for path in self.labels if "piston" not in path]
        else:
            others = list(self.labels)
        first = HEAD + 22.0
        room = (self.down - LABEL - first) / max(len(others) - 1, 1)
        self._low = room < NAMED
        if self._low:  # their names stand beside them
            first, room = HEAD, (self.down - LABEL - HEAD) / max(len(others) - 1, 1)
        for index, path in enumerate(others):
            self.put(path, right, first + index * min(ROW, room))

    @property
    def _in_a_row(self) -> int:
        """How many pistons' figures stand beside each other."""
        brake = self.brake
        return 3 if isinstance(brake, Disc) and len(brake.piston_diameters) == 3 else 2

    @property
    def _rows(self) -> int:
        brake = self.brake
        count = len(brake.piston_diameters) if isinstance(brake, Disc) else 1
        return -(-min(count, MOST_PISTONS) // self._in_a_row)

    def draw(self, painter: QPainter) -> None:
        """Paint the brake and the names of its figures."""
        brake = self.brake
        for path in self.labels:
            if "piston" in path:
                continue
            box, name = self.box(path), path.rpartition(".")[2]
            if self._low:
                at = QPointF(box.left(), box.top() + 22)
                write(painter, _SHORT[name], at, side="right")
            else:
                write(painter, _NAMES[name], QPointF(box.left() + 5, box.top() - 3))
        if isinstance(brake, Disc):
            self._draw_disc(painter, brake)
        else:
            self._draw_drum(painter, brake)

    # --- the disc, cut open ----------------------------------------------------------------

    def _draw_disc(self, painter: QPainter, brake: Disc) -> None:
        radius = brake.radius
        pistons = [d.value for d in brake.piston_diameters]
        pad = brake.pad_height.value if brake.pad_height is not None else 1.1 * max(pistons)
        if brake.pad_inner_radius is not None and brake.pad_outer_radius is not None:
            pad = brake.pad_outer_radius.value - brake.pad_inner_radius.value
        rows = self._rows
        axle, top = self.down - 94.0 - (rows - 1) * PISTON_ROW, HEAD + 26.0
        scale = (axle - top) / (radius + 0.62 * max(pad, *pistons))
        opposed = brake.caliper == "opposed"
        middle = (self.across - COLUMN) * (0.46 if opposed else 0.56)
        y, half = axle - radius * scale, 0.5 * pad * scale
        self._draw_rotor(painter, middle, y - half - 4, axle)
        sides = (-1, 1) if opposed else (-1,)
        bore = 0.5 * max(pistons) * scale
        self._draw_body(painter, middle, y, max(half, bore) + 10, sides)
        self._draw_pads(painter, middle, y, half)
        for side in sides:
            self._draw_pistons(painter, QPointF(middle, y), pistons, scale, side, REACH[opposed])
        painter.setPen(pen(T.muted, 1, Qt.PenStyle.DashDotLine))
        painter.drawLine(QPointF(4, axle), QPointF(self.across - COLUMN - 8, axle))
        at = self.across - COLUMN - 14
        painter.setPen(pen(T.muted, 1, Qt.PenStyle.DashLine))
        painter.drawLine(QPointF(middle + 12, y), QPointF(at, y))
        measure(painter, QPointF(at, y), QPointF(at, axle))
        units = self.session.units
        shown = show(radius, LENGTH, units)
        if brake.effective_radius is None:
            words = f"effective radius {shown}"
            write(painter, words, QPointF(at, axle + 19), side="right", color=T.ink)
        pressure = float(self.session.presses.pressure(self.axle))
        force = clamp_force(pressure, piston_area(brake), brake.threshold.value)
        words = f"clamp {show(float(force), FORCE, units)} (a force)"
        write(painter, words, QPointF(8, self.down - 4), size=14)
        name = "pistons" if len(pistons) > 1 else "piston"
        each = "" if brake.caliper == "sliding" else " of each side"
        write(painter, name + each, QPointF(13, self.down - 52 - (rows - 1) * PISTON_ROW))

    @staticmethod
    def _draw_rotor(painter: QPainter, x: float, top: float, axle: float) -> None:
        ink(painter, pen(T.ink, 1.5), QColor(T.metal))
        painter.drawRect(QRectF(x - 10, top, 7, axle - top - 8))
        painter.drawRect(QRectF(x + 3, top, 7, axle - top - 8))
        for step in range(int((axle - top - 12) / 12)):
            at = top + 6 + step * 12
            painter.drawLine(QPointF(x - 3, at), QPointF(x + 3, at))
        painter.drawRect(QRectF(x - 26, axle - 7, 52, 14))

    @staticmethod
    def _draw_body(
        painter: QPainter, x: float, y: float, half: float, sides: tuple[int, ...]
    ) -> None:
        ink(painter, pen(T.ink, 2), QColor(T.steel))
        body = QPainterPath()
        opposed = 1 in sides
        left, right = (REACH[opposed], REACH[opposed] if opposed else 44.0)
        top, tall = y - half - 14, 2 * half + 28
        body.addRoundedRect(QRectF(x - left, top, left + right, 16), 4, 4)
        body.addRoundedRect(QRectF(x - left, top, left - 32, tall), 4, 4)
        if opposed:
            body.addRoundedRect(QRectF(x + 32, top, right - 32, tall), 4, 4)
        else:
            body.addRoundedRect(QRectF(x + 28, top, right - 28, tall - 12), 4, 4)
        painter.drawPath(body.simplified())

    def _draw_pads(self, painter: QPainter, x: float, y: float, half: float) -> None:
        for side in (-1, 1):
            inner, backing = x + side * 11, x + side * 23
            painter.setPen(Qt.PenStyle.NoPen)
            lining = QColor(self.color)
            lining.setAlphaF(0.55)
            painter.setBrush(lining)
            painter.drawRect(QRectF(min(inner, backing), y - half, 12, 2 * half))
            painter.setBrush(QColor(T.ink))
            painter.drawRect(QRectF(backing if side > 0 else backing - 4, y - half, 4, 2 * half))

    def _draw_pistons(
        self,
        painter: QPainter,
        at: QPointF,
        pistons: list[float],
        scale: float,
        side: int,
        reach: float,
    ) -> None:
        """Draw the largest piston in its bore; those behind it in the cut stand out above."""
        most = float(self.session.hardest.master_front)
        pressure = float(self.session.presses.pressure(self.axle))
        half = 0.5 * max(pistons) * scale
        x, y = at.x(), at.y()
        near, far = x + side * 28, x + side * (reach - 10)
        ink(painter, pen(T.ink, 1.5), fluid(pressure / most if most else 0.0))
        painter.drawRect(QRectF(min(near, far), y - half, abs(far - near), 2 * half))
        painter.setBrush(QColor(T.metal))
        deep = 0.7 * (reach - 38)
        painter.drawRect(QRectF(near if side > 0 else near - deep, y - half, deep, 2 * half))
        painter.setBrush(QColor(T.steel))
        hollow = QRectF(
            near if side > 0 else near - deep + 10, y - half + 8, deep - 10, 2 * half - 16
        )
        painter.drawRect(hollow)
        if side < 0:
            measure(
                painter,
                QPointF((near + far - deep) / 2, y - half),
                QPointF((near + far - deep) / 2, y + half),
            )

    # --- the drum, looked into ---------------------------------------------------------------

    def _draw_drum(self, painter: QPainter, brake: Drum) -> None:
        room = QRectF(6, HEAD + 6, self.across - COLUMN - 26, self.down - HEAD - 66)
        radius = min(room.width(), room.height()) / 2
        center = QPointF(room.left() + radius, room.top() + radius)
        ink(painter, pen(T.ink, 2), QColor(T.steel))
        painter.drawEllipse(center, radius, radius)
        painter.setBrush(QColor(T.sheet))
        inner = radius * 0.92
        painter.drawEllipse(center, inner, inner)
        self._draw_shoes(painter, center, inner)
        self._draw_cylinders(painter, center, inner, brake)
        ink(painter, pen(T.ink, 1.5), QColor(T.steel))
        painter.drawEllipse(center, radius * 0.26, radius * 0.26)
        write(painter, "axle", center + QPointF(0, 5), side="middle")
        factor = brake.factor
        torque = float(self.session.presses.wheel_torque(self.axle))
        words = f"torque {show(torque, TORQUE, self.session.units)} a wheel"
        for index, line in enumerate((words, *self._sensitivity(brake, factor))):
            write(painter, line, QPointF(8, self.down - 40 + 18 * index), size=14)

    @staticmethod
    def _sensitivity(brake: Drum, factor: float) -> tuple[str, str]:
        """Return, in two lines, what the factor does when the lining's friction moves."""
        if brake.shoe_factor is None:
            limit = brake.grabs_from
            grabs = "" if limit is None else f"grabs by itself from μ {limit:.2f}"
            return f"shoe factor {factor:.2f} from its shoes", grabs
        low, high, least, most = USUAL_SHOES[brake.layout]
        more = f"10 % more μ: +{10 * least:g} to {10 * most:g} %"
        return f"usual factor {low:g} to {high:g}", more

    def _draw_shoes(self, painter: QPainter, center: QPointF, inner: float) -> None:
        box = QRectF(center.x() - inner + 7, center.y() - inner + 7, 2 * inner - 14, 2 * inner - 14)
        path = QPainterPath()
        for start in (-52.0, 128.0):  # degrees; the linings' two arcs
            path.arcMoveTo(box, start)
            path.arcTo(box, start, 104.0)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        lining = QColor(self.color)
        lining.setAlphaF(0.6)
        painter.setPen(pen(lining.name(QColor.NameFormat.HexArgb), 11))
        painter.drawPath(path)
        webs = box.adjusted(11, 11, -11, -11)
        path = QPainterPath()
        for start in (-62.0, 118.0):
            path.arcMoveTo(webs, start)
            path.arcTo(webs, start, 124.0)
        painter.setPen(pen(T.muted, 5))
        painter.drawPath(path)

    def _draw_cylinders(
        self, painter: QPainter, center: QPointF, inner: float, brake: Drum
    ) -> None:
        most = float(self.session.hardest.master_front)
        pressure = float(self.session.presses.pressure(self.axle))
        tops = (-1, 1) if brake.layout == "two-leading" else (-1,)
        for side in tops:
            y = center.y() + side * inner * 0.62
            box = QRectF(center.x() - 26, y - 12, 52, 24)
            ink(painter, pen(T.ink, 2), QColor(T.metal))
            painter.drawRoundedRect(box, 3, 3)
            ink(painter, Qt.PenStyle.NoPen, fluid(pressure / most if most else 0.0))
            painter.drawRect(box.adjusted(10, 4, -10, -4))
        ink(painter, pen(T.ink, 2), QColor(T.steel))
        if brake.layout == "leading-trailing":
            for x in (-9, 9):
                painter.drawEllipse(center + QPointF(x, inner * 0.66), 5, 5)
        elif brake.layout == "duo-servo":
            painter.drawRect(QRectF(center.x() - 34, center.y() + inner * 0.6, 68, 9))
            painter.drawRect(QRectF(center.x() - 7, center.y() + inner * 0.6 - 4, 14, 17))
            painter.setBrush(QBrush(QColor(T.ink)))
            painter.drawEllipse(center - QPointF(0, inner * 0.84), 5, 5)
        y = center.y() - inner * 0.34
        ink(painter, pen(T.muted, 1), hatch(T.muted))
        painter.drawLine(QLineF(center.x() - inner * 0.6, y, center.x() + inner * 0.6, y))


# where it is low
_SHORT = {
    "pad_friction": "μ", "effective_radius": "radius", "rotor_outer_diameter": "rotor",
    "pad_height": "pad", "rotor_mass": "mass", "pad_inner_radius": "from",
    "pad_outer_radius": "to", "cylinder_diameter": "piston", "drum_diameter": "drum",
    "shoe_factor": "factor", "lining_friction": "μ", "threshold": "moves at",
}  # fmt: skip
_NAMES = {
    "pad_friction": "pad friction μ",
    "effective_radius": "effective radius",
    "rotor_outer_diameter": "rotor",
    "pad_height": "pad height",
    "rotor_mass": "rotor mass",
    "pad_inner_radius": "pad from radius",
    "pad_outer_radius": "pad to radius",
    "cylinder_diameter": "wheel cylinder",
    "drum_diameter": "drum",
    "shoe_factor": "shoe factor",
    "lining_friction": "lining friction μ",
    "threshold": "shoes move at",
}
