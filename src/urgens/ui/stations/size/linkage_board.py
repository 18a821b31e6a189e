"""The pedal in side view, to scale: the pushrod's pin is dragged along the arm."""

import math

import numpy as np
from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QKeyEvent, QPainter

from urgens.document import Build
from urgens.quantity import LENGTH, natural_step, retype, show
from urgens.studies.pedal_linkage import Linkage, along_the_stroke, linkage
from urgens.ui.session import Session
from urgens.ui.theme.paint import T, fluid, ink, pen
from urgens.ui.widgets.board import Board, measure, write
from urgens.ui.widgets.drag import PaintedDrag
from urgens.ui.widgets.figure_label import Spot

# Where the angles are not known
DRAWN_PAD = math.radians(30)
DRAWN_PIN = math.radians(12)
TOP = 18.0  # px above the pivot
FOOT = 46.0  # under the pad
AWAY = 20.0  # px between an arm and its dimension line
ROOMY = 300.0  # px of height from which words stand beside the pin
GRIP = 20.0  # px around the pin that take hold of it
CATCH = 6.0  # px at which a hole that is there catches the pin
SWEEP = 1.07  # of the arm's length, at which the pad's way is drawn
CYLINDER, BOOSTER, EDGE = 58.0, 28.0, 8.0  # px beyond the rod's end, and beside all of it
ROD = 86.0  # px of rod where its length is not known
# Shares of the arm between which the pin is dragged
LEAST = 0.1
MOST = 0.5


Angles = tuple[float, float, float]


class LinkageBoard(Board):
    """Draws pivot, arm, pin, rod and cylinder as they are pressed now.

    What is only looked at is drawn in place of the build; its pin is written, and cannot be typed.
    """

    def __init__(self, session: Session) -> None:
        self._still: tuple[Angles, float] = (DRAWN_PAD, DRAWN_PIN, 0.0), 0.0  # while it is held
        self._linkage: Linkage | None = None
        self._read: Build | None = None  # what is drawn
        super().__init__(session)
        self.drag = PaintedDrag(
            self, session, taken=self._taken, moved=self._pull, left=self._let_go
        )
        self.setMinimumHeight(round(190 * self.scale))
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setMouseTracking(True)

    def spots(self) -> list[Spot]:
        """Return both arms."""
        return [Spot("pedal.pivot_to_pushrod", 22), Spot("pedal.pivot_to_pad", 20)]

    def read(self) -> None:
        """Find how the linkage stands."""
        self._read = self._build
        self._linkage = linkage(self._build)
        known = "looked at" if self._looks else "drag or arrow keys"
        self.setAccessibleName(f"Pedal; pushrod pin at {self._ratio:.2f} to 1, {known}")

    def _follow_press(self) -> None:
        if self._build is not self._read and not self.seen.stale:
            self.read()
            self.place()
        super()._follow_press()
        if self.session.considered:
            self.update()

    @property
    def _build(self) -> Build:
        """What is drawn: the build, or what is only looked at."""
        return self.session.pressed_solution.build

    @property
    def _looks(self) -> bool:
        """Whether what is drawn is not fitted."""
        return bool(self.session.considered)

    @property
    def _ratio(self) -> float:
        return float(self.session.pressed_solution.system.pedal_ratio)

    # --- where things are ------------------------------------------------------------------

    @property
    def _up(self) -> bool:
        """Whether the pedal stands on the floor, its arms pointing up."""
        return self._build.pedal.mount == "floor"

    @property
    def _small(self) -> bool:
        """Whether there is no room for words beside the pin."""
        return self.down < ROOMY

    @property
    def _angles(self) -> Angles:
        """Return pad's and pin's arm at rest and the cylinder's line [rad], as drawn.

        While the pin is dragged the arms stand still, so that it stays under the hand.
        """
        if self.drag.held:
            return self._still[0]
        made = self._build.pedal
        if made.angles is None:
            return DRAWN_PAD, DRAWN_PIN, 0.0
        slope = made.angles.cylinder.value
        found = self._linkage
        lean = -slope if self._up else slope
        pin = made.angles.pushrod.value if found is None else found.rest - lean
        if not math.isfinite(pin):
            pin = made.angles.pushrod.value
        return made.angles.pad.value + pin - made.angles.pushrod.value, pin, slope

    @property
    def _swing(self) -> float:
        """Return how far the pedal is swung now [rad]; it stands still while the pin moves."""
        if self.drag.held:
            return self._still[1]
        made = self._build.pedal
        travel = float(self.session.pressed.pedal_travel)
        most = made.travel_available.value
        return (most if math.isnan(travel) else min(travel, most)) / made.pivot_to_pad.value

    @property
    def _per_metre(self) -> float:
        """Return the scale [px/m] at which arms, sweep and cylinder have room on both sides."""
        made, (pad, pin, _) = self._build.pedal, self._angles
        high = (self.down - TOP - FOOT) / made.pivot_to_pad.value
        half = self.across / 2.0
        right = SWEEP * made.pivot_to_pad.value * max(math.sin(pad), 0.0)
        scales = [high, (half - EDGE) / max(right, 1e-9)]
        if made.rod_length is not None:
            left = made.rod_length.value - made.pivot_to_pushrod.value * min(math.sin(pin), 0.0)
            body = CYLINDER + (BOOSTER if self._build.booster.fitted else 0.0)
            scales.append((half - body) / left)
        return max(min(scales), 1.0)

    @property
    def pivot(self) -> QPointF:
        """Where the pivot is."""
        x = self.across * 0.5
        return QPointF(x, self.down - TOP) if self._up else QPointF(x, TOP)

    def at(self, radius: float, angle: float) -> QPointF:
        """Return a point so far from the pivot [m] on an arm at an angle [rad]."""
        way = QPointF(math.sin(angle), -math.cos(angle) if self._up else math.cos(angle))
        return self.pivot + way * (radius * self._per_metre)

    @property
    def pin(self) -> QPointF:
        """Where the pin is now."""
        made = self._build.pedal
        return self.at(made.pivot_to_pushrod.value, self._angles[1] - self._swing)

    def _rod_end(self, pin: QPointF) -> QPointF:
        """Return where the rod's far end is, on the cylinder's line."""
        made, (_, _, slope) = self._build.pedal, self._angles
        forward = QPointF(-math.cos(slope), -math.sin(slope))
        if made.rod_length is None:
            return pin + forward * ROD
        length = made.rod_length.value * self._per_metre
        tilt = 0.0
        if self._linkage is not None:
            swing = np.asarray(self._swing)
            found = along_the_stroke(self._build, self._linkage, swing)
            tilt = float(np.nan_to_num(found.rod_angle))
        turn = -slope + (tilt if self._up else -tilt)  # screen angles grow downwards
        return pin + QPointF(-math.cos(turn), math.sin(turn)) * length

    def _dimension(self, path: str) -> tuple[QPointF, QPointF]:
        """Return both ends of a dimension line: along the arm as it rests, beside it."""
        made, (pad, pin, _) = self._build.pedal, self._angles
        to_pad = path.endswith("pad")
        radius = (made.pivot_to_pad if to_pad else made.pivot_to_pushrod).value
        angle, away = (pad, AWAY) if to_pad else (pin, -AWAY)
        across = QPointF(math.cos(angle), -math.sin(angle)) * away
        if self._up:
            across = QPointF(across.x(), -across.y())
        return self.pivot + across, self.at(radius, angle) + across

    def place(self) -> None:
        """Put the labels beside their dimension lines."""
        if not self.labels or self.down < TOP + FOOT + 40:
            return
        self.labels["pedal.pivot_to_pushrod"].setVisible(not self._looks)
        start, end = self._dimension("pedal.pivot_to_pad")
        right = self.across - self.labels["pedal.pivot_to_pad"].width() / self.scale - 2
        middle = start + (end - start) * 0.42
        self.put("pedal.pivot_to_pad", min(middle.x() + 8, right), middle.y() - 16)
        if self._small:
            self.put("pedal.pivot_to_pushrod", 0, 34 if self._up else self.down - 64)
            return
        start, end = self._dimension("pedal.pivot_to_pushrod")
        top = min(start.y(), end.y()) - 6 if not self._up else max(start.y(), end.y()) - 22
        self.put("pedal.pivot_to_pushrod", min(start.x(), end.x()) - 6, top, "right")

    # --- what is drawn ---------------------------------------------------------------------

    def draw(self, painter: QPainter) -> None:
        """Paint the pedal at rest, pale, and as it is pressed."""
        made, (pad, pin_rest, _) = self._build.pedal, self._angles
        length, swing = made.pivot_to_pad.value, self._swing
        floor = made.travel_available.value / length
        self._draw_sweep(painter, length, pad, floor, swing)
        ghost = QColor(T.hair)
        painter.setPen(pen(ghost.name(), 9))
        painter.drawLine(self.pivot, self.at(length, pad))
        self._draw_cylinder(painter)
        painter.setPen(pen(T.ink, 11))
        arm = self.at(length, pad - swing)
        painter.drawLine(self.pivot, arm)
        painter.setPen(pen(T.metal, 7))
        painter.drawLine(self.pivot, arm)
        if abs(pad - pin_rest) > 0.05:  # a bracket carries the pin where it is not on the arm
            painter.setPen(pen(T.ink, 9))
            painter.drawLine(self.pivot, self.pin)
            painter.setPen(pen(T.metal, 5))
            painter.drawLine(self.pivot, self.pin)
        self._draw_pad(painter, arm, pad - swing)
        self._draw_dimensions(painter)
        self._draw_holes(painter, pin_rest - swing)
        if self.drag.held or self.hasFocus():
            halo = QColor(T.fluid[1])
            halo.setAlphaF(0.3)
            ink(painter, pen(T.front, 2) if self.hasFocus() else Qt.PenStyle.NoPen, halo)
            painter.drawEllipse(self.pin, GRIP - 4, GRIP - 4)
        ink(painter, pen(T.ink, 2.5), QColor(T.sheet))
        painter.drawEllipse(self.pin, 7, 7)
        painter.drawEllipse(self.pivot, 9, 9)
        painter.setBrush(QColor(T.ink))
        painter.drawEllipse(self.pivot, 2, 2)
        self._write_ratio(painter)
        if self._looks:
            self._write_pin(painter)
        elif self._small:
            box = self.box("pedal.pivot_to_pushrod")
            write(painter, "to the pin", QPointF(box.right() + 4, box.top() + 20))

    def _write_ratio(self, painter: QPainter) -> None:
        """Write the ratio large, of what is only looked at in another colour."""
        words, y = f"{self._ratio:.2f} : 1", 22.0 if self._up else self.down - 10
        color = T.warn if self._looks else T.ink
        write(painter, words, QPointF(2, y), size=24, weight=700, color=color)

    def _write_pin(self, painter: QPainter) -> None:
        """Write where the pin of what is looked at would be, in place of the build's."""
        box = self.box("pedal.pivot_to_pushrod")
        at = show(self._build.pedal.pivot_to_pushrod.value, LENGTH, self.session.units)
        write(painter, f"{at} to the pin", QPointF(box.left(), box.top() + 20), color=T.ink)

    def _draw_sweep(
        self, painter: QPainter, length: float, pad: float, floor: float, swing: float
    ) -> None:
        """Paint the pad's way: used, and left to the floor."""
        steps = np.linspace(0.0, 1.0, 25)
        for color, start, end in ((T.fluid[1], 0.0, swing), (T.hair, swing, floor)):
            painter.setPen(pen(color, 6))
            painter.drawPolyline(
                [self.at(length * SWEEP, pad - start - (end - start) * s) for s in steps]
            )
        wall = self.at(length * SWEEP, pad - floor)
        painter.setPen(pen(T.ink, 2))
        painter.drawLine(wall + QPointF(-3, -10), wall + QPointF(-3, 10))
        baseline = 22 if not self._up else -14
        at = wall + QPointF(-6, baseline)
        low = QPointF(at.x(), min(max(at.y(), 14.0), self.down - 4))  # never cut by the edge
        write(painter, "floor", low, size=14, side="middle")

    def _draw_cylinder(self, painter: QPainter) -> None:
        end, slope = self._rod_end(self.pin), self._angles[2]
        painter.setPen(pen(T.ink, 4))
        painter.drawLine(end, self.pin)
        painter.save()
        painter.translate(end)
        painter.rotate(math.degrees(slope))
        boosted = self._build.booster.fitted
        left = 2.0
        ink(painter, pen(T.ink, 2), QColor(T.steel))
        if boosted:
            painter.drawRoundedRect(QRectF(-28, -30, 30, 60), 10, 10)
            left = -28.0
        painter.drawRoundedRect(QRectF(left - 54, -13, 54, 26), 3, 3)
        most = float(self.session.hardest.master_front)
        share = float(self.session.pressed.master_front) / most if most else 0.0
        ink(painter, Qt.PenStyle.NoPen, fluid(share))
        painter.drawRect(QRectF(left - 49, -8, 36, 16))
        painter.setBrush(QColor(T.ink))
        painter.drawRect(QRectF(left - 13, -8, 4, 16))
        painter.restore()

    def _draw_pad(self, painter: QPainter, arm: QPointF, angle: float) -> None:
        painter.save()
        painter.translate(arm)
        degrees = math.degrees(angle)
        painter.rotate(degrees if self._up else -degrees)
        ink(painter, Qt.PenStyle.NoPen, QColor(T.ink))
        painter.drawRoundedRect(QRectF(3, -17, 8, 34), 2, 2)
        painter.restore()

    def _draw_dimensions(self, painter: QPainter) -> None:
        for path in self.labels:
            measure(painter, *self._dimension(path), T.muted)

    def _draw_holes(self, painter: QPainter, angle: float) -> None:
        """Mark the holes there are, with what each would give."""
        made = self._build.pedal
        for hole in made.holes:
            at = self.at(hole.value, angle)
            ink(painter, pen(T.ink, 1.5, Qt.PenStyle.DotLine), QColor(T.sheet))
            painter.drawEllipse(at, 5, 5)
            if abs(hole.value - made.pivot_to_pushrod.value) < 5e-4:
                continue
            if self._small:
                continue
            words = f"hole, {made.pivot_to_pad.value / hole.value:.2f} : 1"
            write(painter, words, at + QPointF(-AWAY - 8, 8), size=14, color=T.ink, side="right")

    # --- the hand --------------------------------------------------------------------------

    def _take(self, length: float, *, catch: bool = False) -> None:
        session, made = self.session, self.session.build.pedal
        whole = made.pivot_to_pad.value
        length = min(max(length, LEAST * whole), MOST * whole)
        reach = CATCH / self._per_metre if catch else 0.0
        caught = [hole for hole in made.holes if abs(hole.value - length) < reach]
        typed = caught[0].text if caught else retype(length, LENGTH, session.units)
        if typed != made.pivot_to_pushrod.text:
            session.plan("pedal.pivot_to_pushrod", typed, f"Pushrod pin at {typed}")

    def _taken(self, spot: QPointF) -> bool:
        if self._looks:
            return False  # what is not fitted is moved on the map
        self._still = self._angles, self._swing
        return (spot - self.pin).manhattanLength() < GRIP

    def _pull(self, spot: QPointF) -> None:
        angle = self._angles[1] - self._swing
        way = self.at(1.0, angle) - self.pivot
        along = QPointF.dotProduct(spot - self.pivot, way) / QPointF.dotProduct(way, way)
        self._take(along, catch=True)

    def _let_go(self) -> None:
        self.place()
        self.update()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        key, made = Qt.Key(event.key()), self._build.pedal
        steps = {Qt.Key.Key_Left: -1, Qt.Key.Key_Up: -1, Qt.Key.Key_Right: 1, Qt.Key.Key_Down: 1}
        if key in steps and not self._looks:
            step = natural_step(LENGTH, self.session.units)
            self._take(made.pivot_to_pushrod.value + steps[key] * step)
        else:
            event.ignore()
