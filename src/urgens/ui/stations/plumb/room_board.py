"""The cylinder in its room, and a hose between its ends: drawn to scale."""

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QPainter, QPaintEvent, QPolygonF

from urgens.physics.hose_curve import HoseCurve
from urgens.quantity import LENGTH, Units, show
from urgens.ui.theme.paint import T, ink, pen
from urgens.ui.widgets.board import write
from urgens.ui.widgets.painted import Painted

HIGH = 190  # px
PAD = 26.0
BODY = 0.04  # m of a cylinder's body above and below its bore's middle, as drawn
USUAL = (0.16, 0.30, 0.09, 0.20)  # m: drawn where nothing is measured


class RoomBoard(Painted):
    """The wall on the right, the cylinder ahead of it, what stands before and above it."""

    def __init__(self) -> None:
        super().__init__()
        self._sizes: tuple[float | None, ...] = (None,) * 4
        self._units: Units | None = None
        self.setMinimumSize(self.scaled(260, HIGH))
        self.setAccessibleName("The cylinder in its room")

    def show_room(self, sizes: tuple[float | None, ...], units: Units) -> None:
        """Show how long it is, the room ahead, how high it is, and the room above [m].

        None: not measured.
        """
        self._sizes, self._units = sizes, units
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        long, ahead, high, above = (
            usual if size is None else size for size, usual in zip(self._sizes, USUAL, strict=True)
        )
        with self.begin() as painter:
            wide, tall = max(long, ahead) * 1.08, max(high, above) + BODY
            scale = min((self.across - 2 * PAD) / wide, (self.down - 2 * PAD) / tall)
            at = QPointF(self.across - PAD, PAD + scale * max(high, above))  # the bore at the wall
            self._lines(painter, at, scale, ahead, above)
            fits = long <= ahead and high <= above
            painter.setPen(pen(T.ink if fits else T.danger, 2))
            painter.setBrush(QColor(T.steel))
            painter.drawRoundedRect(_box(at, scale, -long, -BODY / 2, 0, BODY / 2), 3, 3)
            tank = _box(at, scale, -0.8 * long, -high, -0.35 * long, -BODY / 2)
            painter.drawRoundedRect(tank, 4, 4)
            self._name(painter, at, scale)

    def _lines(
        self, painter: QPainter, at: QPointF, scale: float, ahead: float, above: float
    ) -> None:
        """Draw wall, brace and bonnet; dotted where nobody has measured."""
        known = [size is not None for size in self._sizes]
        for there, one, other in (
            (True, (0.0, -above), (0.0, BODY)),
            (known[1], (-ahead, -above), (-ahead, BODY)),
            (known[3], (-ahead, -above), (0.0, -above)),
        ):
            style = Qt.PenStyle.SolidLine if there else Qt.PenStyle.DotLine
            painter.setPen(pen(T.ink, 3 if there else 1.5, style))
            painter.drawLine(at + QPointF(*one) * scale, at + QPointF(*other) * scale)

    def _name(self, painter: QPainter, at: QPointF, scale: float) -> None:
        if self._units is None:
            return
        told = []
        for words, size in zip(("long", "ahead", "high", "above"), self._sizes, strict=True):
            if size is not None:
                told.append(f"{words} {show(size, LENGTH, self._units)}")
        said = ", ".join(told) or "dotted: nothing is measured yet"
        write(painter, said, QPointF(8, self.down - 6), size=14)


class HoseBoard(Painted):
    """A hose between its two ends."""

    def __init__(self) -> None:
        super().__init__()
        self._curve: HoseCurve | None = None
        self.setMinimumSize(self.scaled(260, HIGH))
        self.setMaximumHeight(self.scaled(10, HIGH).height())
        self.setAccessibleName("The hose between its ends")

    def show_curve(self, curve: HoseCurve | None) -> None:
        """Show a curve, none where the hose does not reach."""
        self._curve = curve
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        if self._curve is None:
            return
        points = self._curve.points
        low, high = points.min(axis=0), points.max(axis=0)
        span = high - low
        with self.begin() as painter:
            scale = min((self.across - 2 * PAD) / max(float(span[0]), 0.01),
                        (self.down - 2 * PAD) / max(float(span[1]), 0.01))  # fmt: skip
            spots = (points - low) * scale
            path = QPolygonF([QPointF(PAD + x, self.down - PAD - y) for x, y in spots.tolist()])
            for color, wide in ((T.ink, 11.0), (T.metal, 7.0)):
                painter.setPen(pen(color, wide))
                painter.drawPolyline(path)
            ink(painter, pen(T.ink, 2), QColor(T.sheet))
            for end in (path.first(), path.last()):
                painter.drawEllipse(end, 7, 7)


def _box(at: QPointF, scale: float, left: float, top: float, right: float, foot: float) -> QRectF:
    return QRectF(at + QPointF(left, top) * scale, at + QPointF(right, foot) * scale)
