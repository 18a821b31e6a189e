"""A line's route in two views, its corners dragged, and as it will look when it is bent."""

from dataclasses import dataclass
from itertools import pairwise
from math import cos, radians, sin

import numpy as np
from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QColor, QKeyEvent, QPainter, QPaintEvent, QPolygonF
from PySide6.QtWidgets import QSizePolicy, QWidget

from urgens.physics.arrays import Array
from urgens.physics.bends import RouteError, middle_line
from urgens.quantity import LENGTH, in_units, show
from urgens.ui.session import Session
from urgens.ui.stations.plumb.corner_numbers import HANDLE, numbers
from urgens.ui.theme.paint import T, ink, outline, pen, width
from urgens.ui.widgets.board import write
from urgens.ui.widgets.drag import PaintedDrag
from urgens.ui.widgets.painted import Painted

HIT = 16.0
TUBE = 7.0  # px that the tube is drawn wide
GAP = 14.0  # px between the views
FLAT = 0.7  # of the height, for both flat views
LOWEST = 0.3  # of that, for either
HEAD = 22.0  # of their names
LEAST = 0.1  # m that a view shows at least
SNAP = {"mm": 0.001, "in": 0.0254 / 16}  # m: a corner is put to whole steps of so much
STEP_MANY = 10
BARS = (1, 2, 5, 10, 20, 50, 100)  # in or cm of a drawn length
LONGEST = 160.0  # px of it
LEAN = radians(30.0)  # of the picture in space


@dataclass(frozen=True)
class Sight:
    """One view: its box, and which way each of x, y and z goes on the screen."""

    name: str
    box: QRectF
    across: Array  # (3,)
    down: Array  # (3,)
    axes: tuple[int, int] | None = None  # what a drag changes: across, down; None of the picture

    def flat(self, points: Array) -> Array:
        """Return points as they are seen, shape (n, 2) [m]."""
        return np.stack((points @ self.across, points @ self.down), axis=-1)


FORWARD_IS_LEFT = np.array([-1.0, 0.0, 0.0])


class RouteBoard(Painted):
    """Draws a route from above, from the left side, and in space."""

    moved = Signal(int, object)  # a corner, and where it is wanted (3,) [m]
    added = Signal(int)  # behind a corner
    removed = Signal(int)

    def __init__(self, session: Session, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._session = session
        self.points: Array = np.empty((0, 3))
        self.radius = 0.013
        self.chosen = 0
        self._held: Sight | None = None
        self._sights: tuple[Sight, ...] = ()
        self._window: tuple[Array, float] | None = None  # kept while a corner is held
        self._kept_shares = (0.5, 0.5)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName("Route of the line")
        self._drag = PaintedDrag(
            self, session, taken=self._taken, moved=self._pull, left=self._let_go
        )

    def show_route(self, points: Array, radius: float) -> None:
        """Show a route."""
        self.points, self.radius = points, radius
        self.chosen = min(self.chosen, max(len(points) - 1, 0))
        self._say()
        self.update()

    def choose(self, corner: int) -> None:
        """Choose one of the corners."""
        self.chosen = corner
        self._say()
        self.update()

    def _say(self) -> None:
        if len(self.points):
            said = ", ".join(
                f"{name} {show(float(at), LENGTH, self._session.units)}"
                for name, at in zip("xyz", self.points[self.chosen], strict=True)
            )
            words = f"Route of the line: point {self.chosen + 1} of {len(self.points)}, {said}"
            self.setAccessibleName(words)

    # --- where things are ------------------------------------------------------------------

    def sights(self) -> tuple[Sight, ...]:
        """Return the views as they stand now."""
        wide, high = self.across, self.down
        flat = (high - 2 * GAP) * FLAT
        top, middle = (flat * share for share in self._shares())
        last = high - 2 * GAP - top - middle
        ahead = FORWARD_IS_LEFT
        c, s = cos(LEAN), sin(LEAN)
        return (
            Sight("From above", QRectF(0, 0, wide, top), ahead, np.array([0.0, 1.0, 0.0]), (0, 1)),
            Sight("From the left side", QRectF(0, top + GAP, wide, middle), ahead,
                  np.array([0.0, 0.0, -1.0]), (0, 2)),
            Sight("In space, as it is bent", QRectF(0, top + middle + 2 * GAP, wide, last),
                  np.array([-c, c, 0.0]), np.array([s, s, -1.0])),
        )  # fmt: skip

    def _shares(self) -> tuple[float, float]:
        """Return how high each flat view is of both: as the line is wide, and as it is high."""
        if self._held is not None:
            return self._kept_shares
        share = 0.5
        if len(self.points):
            _, across, up = np.maximum(np.ptp(self.points, axis=0), LEAST / 2)
            share = float(np.clip(across / (across + up), LOWEST, 1.0 - LOWEST))
        self._kept_shares = share, 1.0 - share
        return self._kept_shares

    def _scale(self) -> tuple[Array, float]:
        """Return the middle of the route, and px of a metre: the same in both flat views."""
        if self._window is not None:
            return self._window
        low, high = self.points.min(axis=0), self.points.max(axis=0)
        scales = []
        for sight in self._sights[:2]:
            flat = sight.flat(self.points)
            extent = np.maximum(flat.max(axis=0) - flat.min(axis=0), LEAST)
            room = sight.box.adjusted(30, HEAD + 14, -30, -16)
            scales.append(min(room.width() / extent[0], room.height() / extent[1]))
        return (low + high) / 2.0, float(min(scales))

    def _own_scale(self, sight: Sight) -> float:
        """Return px of a metre in the picture in space, which fills its own box."""
        flat = sight.flat(self.points)
        extent = np.maximum(flat.max(axis=0) - flat.min(axis=0), LEAST)
        room = sight.box.adjusted(30, HEAD + 14, -30, -16)
        return float(min(room.width() / extent[0], room.height() / extent[1]))

    def _on(self, sight: Sight, points: Array) -> list[QPointF]:
        """Return where points are on the board [px]."""
        middle, scale = self._scale()
        center = sight.flat(middle)
        if sight.axes is None:
            seen, scale = sight.flat(self.points), self._own_scale(sight)
            center = (seen.max(axis=0) + seen.min(axis=0)) / 2.0
        start = sight.box.center() + QPointF(0, HEAD / 2)
        flat = (sight.flat(points) - center) * scale
        return [start + QPointF(float(x), float(y)) for x, y in flat]

    def at(self, view: int, corner: int) -> QPointF:
        """Return where a corner is in a view [px of the usual scale]."""
        self._sights = self.sights()
        return self._on(self._sights[view], self.points[corner : corner + 1])[0]

    # --- hands -----------------------------------------------------------------------------

    def _taken(self, spot: QPointF) -> bool:
        if not len(self.points):
            return False
        self._sights = self.sights()
        for sight in self._sights:
            if sight.axes is None or not sight.box.contains(spot):
                continue
            corners = self._on(sight, self.points)
            far = [(spot - corner).manhattanLength() for corner in corners]
            if min(far) < HIT:
                self._held, self.chosen = sight, int(np.argmin(far))
                self._window = self._scale()
                self._say()
                return True
        return False

    def _pull(self, spot: QPointF) -> None:
        sight = self._held
        assert sight is not None
        assert sight.axes is not None
        middle, scale = self._scale()
        center = sight.box.center() + QPointF(0, HEAD / 2)
        way = (spot - center) * (1.0 / scale)
        wanted = np.array(self.points[self.chosen])
        flat = sight.flat(middle) + np.array([way.x(), way.y()])
        for axis, line, at in zip(sight.axes, (sight.across, sight.down), flat, strict=True):
            wanted[axis] = self._snapped(float(at / line[axis]))
        if not np.allclose(wanted, self.points[self.chosen], atol=1e-9):
            self.moved.emit(self.chosen, wanted)

    def _let_go(self) -> None:
        self._held = self._window = None
        self.update()

    @property
    def snap(self) -> float:
        """The step that corners are put to [m]."""
        inch = in_units(LENGTH, self._session.units) > 0.02
        return SNAP["in" if inch else "mm"]

    def _snapped(self, at: float) -> float:
        return round(at / self.snap) * self.snap

    def keyPressEvent(self, event: QKeyEvent) -> None:
        key, shift = Qt.Key(event.key()), event.modifiers() & Qt.KeyboardModifier.ShiftModifier
        ways = {
            Qt.Key.Key_Left: (0, 1.0), Qt.Key.Key_Right: (0, -1.0),
            Qt.Key.Key_Up: (2, 1.0) if shift else (1, -1.0),
            Qt.Key.Key_Down: (2, -1.0) if shift else (1, 1.0),
        }  # fmt: skip
        if not len(self.points):
            event.ignore()
        elif key in ways:
            axis, way = ways[key]
            wanted = np.array(self.points[self.chosen])
            wanted[axis] = self._snapped(float(wanted[axis] + way * STEP_MANY * self.snap))
            self.moved.emit(self.chosen, wanted)
        elif key == Qt.Key.Key_Insert:
            self.added.emit(self.chosen)
        elif key == Qt.Key.Key_Delete:
            self.removed.emit(self.chosen)
        else:
            event.ignore()

    def focusNextPrevChild(self, forward: bool) -> bool:
        """Let Tab go through the corners before it leaves."""
        there = self.chosen + (1 if forward else -1)
        if 0 <= there < len(self.points):
            self.choose(there)
            return True
        return super().focusNextPrevChild(forward)

    # --- drawing ---------------------------------------------------------------------------

    def paintEvent(self, event: QPaintEvent) -> None:
        with self.begin() as painter:
            self.paint_on(painter)
            if self.hasFocus():
                outline(painter, T.front, 2)
                painter.drawRect(QRectF(1, 1, self.across - 2, self.down - 2))

    def paint_on(self, painter: QPainter) -> None:
        """Paint all views, as they are in the widget [px of the usual scale]."""
        self._sights = self.sights()
        for sight in self._sights:
            ink(painter, pen(T.hair), QColor(T.paper))
            painter.drawRoundedRect(sight.box.adjusted(0.5, 0.5, -0.5, -0.5), 4, 4)
            at = sight.box.topLeft() + QPointF(10, 17)
            write(painter, sight.name, at, size=15, weight=600, color=T.ink)
        for sight in self._sights if len(self.points) else ():
            painter.save()
            painter.setClipRect(sight.box)
            self._draw_route(painter, sight)
            painter.restore()
        if len(self.points):
            self._draw_ways(painter)

    def _draw_route(self, painter: QPainter, sight: Sight) -> None:
        try:
            tube: Array | None = middle_line(self.points, self.radius)
        except RouteError:
            tube = None
        corners = self._on(sight, self.points)
        if tube is not None:
            path = QPolygonF(self._on(sight, tube))
            for color, wide in ((T.ink, TUBE), (T.fluid[1], TUBE - 3.0)):
                painter.setPen(pen(color, wide))
                painter.drawPolyline(path)
        if sight.axes is None:
            for place, (one, name) in enumerate(((corners[0], "start"), (corners[-1], "end"))):
                x = min(one.x() + 8, self.across - width(name, 14) - 4)
                write(painter, name, QPointF(x, one.y() + (-8 if place else 18)), size=14)
            return
        painter.setPen(pen(T.danger if tube is None else T.muted, 1, Qt.PenStyle.DashLine))
        for one, other in pairwise(corners):
            painter.drawLine(one, other)
        for place in sorted(range(len(corners)), key=lambda one: one == self.chosen):
            corner, own = corners[place], place == self.chosen
            ink(painter, pen(T.ink, 2), QColor(T.ink if own else T.sheet))
            painter.drawEllipse(corner, HANDLE, HANDLE)
        for words, box in numbers(corners, sight.box):
            write(painter, words, box.bottomLeft() + QPointF(0, -3), size=15, weight=600,
                  color=T.ink)  # fmt: skip

    def _draw_ways(self, painter: QPainter) -> None:
        """Write which way is forward, and how long a piece of the drawing is."""
        _, scale = self._scale()
        unit = 0.0254 if self.snap == SNAP["in"] else 0.01
        lengths = [unit * count for count in BARS]
        bar = max((one for one in lengths if one * scale < LONGEST), default=lengths[0])
        foot = self._sights[0].box.bottomRight() + QPointF(-14, -12)
        painter.setPen(pen(T.ink, 2))
        painter.drawLine(foot, foot - QPointF(bar * scale, 0))
        said = str(show(bar, LENGTH, self._session.units))
        write(painter, said, foot + QPointF(0, -6), size=14, side="right")
        for sight, up in zip(self._sights[:2], ("right side", "up"), strict=True):
            at = sight.box.topRight() + QPointF(-12, 17)
            write(painter, f"left is forward, top is {up}", at, size=14, side="right")
