"""A line in the hand laid along a tape: its bends are picked where they are, and drawn as bent."""

from dataclasses import replace

import numpy as np
from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QColor, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPolygonF

from urgens.physics.bends import BendSheet, RouteError, middle_line, route
from urgens.plumbing.old_lines import OldBend
from urgens.quantity import LENGTH, Units, show
from urgens.ui.theme.paint import T, ink, outline, pen
from urgens.ui.widgets.board import write
from urgens.ui.widgets.painted import Painted

HIGH, TAPE = 300, 58.0  # px; where the tape is
EDGE = 30.0
HIT = 12.0
KNOB = 9.0
TUBE = 9.0
STEP, MANY = 0.005, 10  # m that an arrow moves a bend by; times with Shift
LEAN = np.radians(30.0)


class TapeBoard(Painted):
    """A straight tape with the bends on it, and the line as it is bent below."""

    changed = Signal()  # a bend came, went, or was moved
    chosen_changed = Signal()

    def __init__(self) -> None:
        super().__init__()
        self.bends: list[OldBend] = []
        self.chosen = -1
        self.length: float | None = None
        self.sheet: BendSheet | None = None
        self._units: Units | None = None
        self._held = False
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setMinimumHeight(self.scaled(10, HIGH).height())
        self._say()

    def show_line(self, length: float | None, sheet: BendSheet | None, units: Units) -> None:
        """Show how long the line is [m], and how it is bent."""
        self.length, self.sheet, self._units = length, sheet, units
        self._say()
        self.update()

    def put(self, bend: OldBend) -> None:
        """Put another bend in the place of the one that is chosen."""
        if 0 <= self.chosen < len(self.bends):
            self.bends[self.chosen] = bend
            self.changed.emit()

    def add(self, at: float) -> None:
        """Add a bend at a spot of the tape [m]."""
        self.bends.append(OldBend(round(at, 4)))
        self.chosen = len(self.bends) - 1
        self.chosen_changed.emit()
        self.changed.emit()

    def remove(self) -> None:
        """Take the chosen bend out."""
        if 0 <= self.chosen < len(self.bends):
            del self.bends[self.chosen]
            self.chosen = min(self.chosen, len(self.bends) - 1)
            self.chosen_changed.emit()
            self.changed.emit()

    def choose(self, bend: int) -> None:
        """Choose one of the bends."""
        self.chosen = bend
        self._say()
        self.chosen_changed.emit()
        self.update()

    def _say(self) -> None:
        told = "no length yet" if self.length is None else f"{len(self.bends)} bends"
        if self._units is not None and 0 <= self.chosen < len(self.bends):
            at = show(self.bends[self.chosen].at, LENGTH, self._units)
            told = f"{told}, bend at {at} chosen"
        self.setAccessibleName(f"The line in the hand along a tape: {told}")

    # --- hands -----------------------------------------------------------------------------

    def spot_of(self, at: float) -> QPointF:
        """Return where a spot of the tape is [px of the usual scale]; at: from its end [m]."""
        assert self.length is not None
        return QPointF(EDGE + (self.across - 2 * EDGE) * at / self.length, TAPE)

    def _at(self, spot: QPointF) -> float:
        assert self.length is not None
        share = (spot.x() - EDGE) / max(self.across - 2 * EDGE, 1.0)
        return min(max(share, 0.0), 1.0) * self.length

    def mousePressEvent(self, event: QMouseEvent) -> None:
        spot = self.spot(event)
        if self.length is None or abs(spot.y() - TAPE) > 2 * HIT:
            return
        far = [abs(self.spot_of(bend.at).x() - spot.x()) for bend in self.bends]
        if far and min(far) < HIT:
            self.choose(int(np.argmin(far)))
        else:
            self.add(self._at(spot))
        self._held = True

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if self._held and self.length is not None:
            self.put(replace(self.bends[self.chosen], at=round(self._at(self.spot(event)), 4)))

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        self._held = False

    def keyPressEvent(self, event: QKeyEvent) -> None:
        key = Qt.Key(event.key())
        ways = {Qt.Key.Key_Left: -1, Qt.Key.Key_Right: 1}
        shift = event.modifiers() & Qt.KeyboardModifier.ShiftModifier
        if self.length is None:
            event.ignore()
        elif key in (Qt.Key.Key_Insert, Qt.Key.Key_Plus):
            self.add(self.length / 2.0)
        elif key == Qt.Key.Key_Delete:
            self.remove()
        elif key in ways and 0 <= self.chosen < len(self.bends):
            bend = self.bends[self.chosen]
            moved = bend.at + ways[key] * STEP * (MANY if shift else 1)
            self.put(replace(bend, at=round(min(max(moved, 0.0), self.length), 4)))
        elif key in (Qt.Key.Key_Up, Qt.Key.Key_Down) and self.bends:
            step = 1 if key == Qt.Key.Key_Down else -1
            order = sorted(range(len(self.bends)), key=lambda one: self.bends[one].at)
            place = order.index(self.chosen) if self.chosen in order else -step
            self.choose(order[(place + step) % len(order)])
        else:
            event.ignore()

    # --- drawing ---------------------------------------------------------------------------

    def paintEvent(self, event: QPaintEvent) -> None:
        with self.begin() as painter:
            if self.length is None:
                write(painter, "Type its length; then click on the tape where each bend begins.",
                      QPointF(12, 30), size=16)  # fmt: skip
            else:
                self._draw_tape(painter)
            if self.sheet is not None:
                self._draw_bent(painter, self.sheet)
            if self.hasFocus():
                outline(painter, T.front, 2)
                painter.drawRect(QRectF(1, 1, self.across - 2, self.down - 2))

    def _draw_tape(self, painter: QPainter) -> None:
        assert self.length is not None
        start, end = self.spot_of(0.0), self.spot_of(self.length)
        for color, wide in ((T.ink, TUBE), (T.fluid[1], TUBE - 3.0)):
            painter.setPen(pen(color, wide))
            painter.drawLine(start, end)
        if self._units is not None:
            write(painter, "0", start + QPointF(-4, -18), size=14)
            said = str(show(self.length, LENGTH, self._units))
            write(painter, said, end + QPointF(4, -18), size=14, side="right")
        order = sorted(range(len(self.bends)), key=lambda one: self.bends[one].at)
        real = 0
        for place in order:
            bend, spot = self.bends[place], self.spot_of(self.bends[place].at)
            own = place == self.chosen
            real += not bend.folded
            style = Qt.PenStyle.DotLine if bend.folded else Qt.PenStyle.SolidLine
            ink(painter, pen(T.front if own else T.ink, 3 if own else 2, style), QColor(T.sheet))
            painter.drawEllipse(spot, KNOB, KNOB)
            words = "folded" if bend.folded else str(real)
            write(painter, words, spot + QPointF(0, 28), size=15, weight=600, color=T.ink,
                  side="middle")  # fmt: skip

    def _draw_bent(self, painter: QPainter, sheet: BendSheet) -> None:
        """Draw the line as it is bent, in space, in what is left below."""
        try:
            points = middle_line(route(sheet), sheet.radius)
        except RouteError:
            return
        c, s = float(np.cos(LEAN)), float(np.sin(LEAN))
        flat = points @ np.array([[-c, s], [c, s], [0.0, -1.0]])
        low, span = flat.min(axis=0), np.maximum(np.ptp(flat, axis=0), 0.02)
        box = QRectF(EDGE, TAPE + 56, self.across - 2 * EDGE, self.down - TAPE - 76)
        scale = min(box.width() / float(span[0]), box.height() / float(span[1]))
        spots = (flat - low) * scale
        aside = (box.width() - float(span[0]) * scale) / 2
        path = QPolygonF([QPointF(box.left() + aside + x, box.top() + y)
                          for x, y in spots.tolist()])  # fmt: skip
        for color, wide in ((T.ink, TUBE - 2), (T.fluid[1], TUBE - 5)):
            painter.setPen(pen(color, wide))
            painter.drawPolyline(path)
        write(painter, "as it is bent", QPointF(12, TAPE + 54), size=14)
