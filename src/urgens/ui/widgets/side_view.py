"""A vehicle from the left side, to scale: wheelbase and tyre radii are the build's."""

import math
from dataclasses import dataclass

from PySide6.QtCore import QPointF, QRectF, QSizeF, Qt
from PySide6.QtGui import QColor, QPainter, QPainterPath, QPolygonF, QTransform

from urgens.document import Build
from urgens.solve import System
from urgens.ui.theme.paint import T, ink, outline, pen
from urgens.ui.widgets.bodies import BODIES, Corner, Kind
from urgens.ui.widgets.marks import disc, square

ARCH = 1.18  # wheel arch over tyre radius
TREAD = 0.68
RIM = 0.52
LAMP = 0.028  # of the wheelbase
_BY_USE: dict[str, Kind] = {
    "truck": "van",
    "track": "roadster",
    "drag": "coupe",
    "restoration": "saloon",
    "street": "generic",
}


def body_kind(build: Build) -> Kind:
    """Return which outline stands for a build: its own choice, else what its use suggests."""
    return build.vehicle.body or _BY_USE[build.vehicle.use]


@dataclass(frozen=True)
class SideView:
    """What is drawn, in metres: x back from the front axle, y up from the road."""

    kind: Kind
    wheelbase: float
    front_radius: float
    rear_radius: float

    @classmethod
    def of(cls, build: Build, system: System) -> "SideView":
        """Return the view of a build; system: its system."""
        radii = (float(end.rolling_radius) for end in (system.ends.front, system.ends.rear))
        return cls(body_kind(build), build.vehicle.wheelbase.value, *radii)

    @property
    def extent(self) -> QRectF:
        """Left and right end, road and top [m]; the top is the rectangle's height."""
        left, right, top = BODIES[self.kind].extent
        w = self.wheelbase
        high = max(top * w, 2 * self.front_radius, 2 * self.rear_radius)
        low_x = min(left * w, -self.front_radius)
        high_x = max(right * w, w + self.rear_radius)
        return QRectF(low_x, 0.0, high_x - low_x, high)

    def fitted(self, box: QRectF, room: QSizeF | None = None) -> QTransform:
        """Return the map from metres to `box` [px], standing on its bottom.

        `room` [m] is what the box has to hold, else as large as fits.
        """
        extent = self.extent
        room = room or extent.size()
        scale = min(box.width() / room.width(), box.height() / room.height())
        left = box.center().x() - scale * extent.center().x()
        return QTransform(scale, 0, 0, -scale, left, box.bottom())

    def paint(self, painter: QPainter, to_px: QTransform) -> None:
        """Paint body, windows and wheels through a map from metres to px."""
        body, w = BODIES[self.kind], self.wheelbase
        scaled = QTransform.fromScale(w, w) * to_px
        ink(painter, pen(T.ink, 2), QColor(T.steel))
        painter.drawPath(self._outline(to_px))
        painter.setBrush(QColor(T.sheet))
        for window in body.glass:
            painter.drawPolygon(scaled.map(QPolygonF([QPointF(*p) for p in window])))
        painter.setPen(pen(T.muted, 1))
        for line in body.lines:
            painter.drawPolyline(scaled.map(QPolygonF([QPointF(*p) for p in line])))
        if body.lamp is not None:
            painter.setPen(pen(T.ink, 1.5))
            reach = LAMP * _scale(scaled)
            painter.drawEllipse(scaled.map(QPointF(*body.lamp)), reach, reach)
        for x, radius, mark in ((0.0, self.front_radius, disc), (w, self.rear_radius, square)):
            self._paint_wheel(painter, to_px.map(QPointF(x, radius)), radius * _scale(to_px))
            mark(painter, to_px.map(QPointF(x, radius)), max(3.5, radius * _scale(to_px) * 0.16))

    def _outline(self, to_px: QTransform) -> QPainterPath:
        """Return the body [px] with its wheel arches cut out."""
        body = BODIES[self.kind]
        path = to_px.map(_rounded(body.outline, self.wheelbase))
        if body.open_wheels:
            return path
        for x, radius in ((0.0, self.front_radius), (self.wheelbase, self.rear_radius)):
            arch = QPainterPath()
            reach = radius * ARCH * _scale(to_px)
            arch.addEllipse(to_px.map(QPointF(x, radius)), reach, reach)
            path = path.subtracted(arch)  # in px: the curves are cut as finely as they are seen
        return path

    @staticmethod
    def _paint_wheel(painter: QPainter, center: QPointF, radius: float) -> None:
        ink(painter, Qt.PenStyle.NoPen, QColor(T.ink))
        painter.drawEllipse(center, radius, radius)
        painter.setBrush(QColor(T.sheet))
        painter.drawEllipse(center, radius * TREAD, radius * TREAD)
        outline(painter, T.hair, 1)
        painter.drawEllipse(center, radius * RIM, radius * RIM)


def _scale(to_px: QTransform) -> float:
    """Return px a metre of a map that may turn as well."""
    return math.hypot(to_px.m11(), to_px.m12())


def _rounded(corners: tuple[Corner, ...], scale: float) -> QPainterPath:
    """Return a closed path [m] through corners [shares of `scale`], each rounded as it says."""
    path = QPainterPath()
    count = len(corners)
    for index, (x, y, radius) in enumerate(corners):
        here = QPointF(x, y) * scale
        before, after = (QPointF(*corners[(index + s) % count][:2]) * scale for s in (-1, 1))
        start, end = _towards(here, before, radius * scale), _towards(here, after, radius * scale)
        if index == 0:
            path.moveTo(start)
        else:
            path.lineTo(start)
        path.quadTo(here, end)
    path.closeSubpath()
    return path


def _towards(here: QPointF, other: QPointF, distance: float) -> QPointF:
    """Return the point `distance` from here to the other, at most half way."""
    way = other - here
    length = math.hypot(way.x(), way.y())
    return here + way * min(distance / length, 0.5)
