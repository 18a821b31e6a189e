"""Two cylinders drawn over each other to scale: bore, socket, rod, flange, reservoir."""

from dataclasses import dataclass

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QPainter, QPaintEvent

from urgens.document.kinds.cylinders.kind import CylinderPart
from urgens.ui.theme.paint import T, pen
from urgens.ui.widgets.board import write
from urgens.ui.widgets.painted import Painted

# Where nobody has measured: usual sizes, drawn dotted [m].
ASSUMED = {"body_length": 0.16, "reservoir_height": 0.09, "flange_bolts": 0.083,
           "socket_depth": 0.012, "pushrod_length": 0.11}  # fmt: skip
WALL = 0.006  # m of a cylinder's wall, as drawn
EAR = 0.012  # m that a flange stands out behind its bolts
ROD = 0.010  # m, as drawn
LEAST = 230  # px high
PAD = 26.0


@dataclass(frozen=True)
class DrawnCylinder:
    """Sizes of one cylinder [m], and which of them nobody has measured."""

    bore: float
    sizes: dict[str, float]
    guessed: frozenset[str]

    @classmethod
    def of(cls, part: CylinderPart) -> "DrawnCylinder":
        """Return what is drawn of a cylinder of the document."""
        given = {name: getattr(part, name) for name in ASSUMED}
        sizes = {name: ASSUMED[name] if one is None else one.value for name, one in given.items()}
        guessed = frozenset(name for name, one in given.items() if one is None)
        return cls(part.main_bore.value, sizes, guessed)


class CylindersBoard(Painted):
    """The one that is there filled, the other as an outline over it; flange on flange."""

    def __init__(self) -> None:
        super().__init__()
        self.mine: DrawnCylinder | None = None
        self.other: DrawnCylinder | None = None
        self.setMinimumHeight(self.scaled(10, LEAST).height())
        self.setAccessibleName("Two cylinders over each other, to scale")

    def show_cylinders(self, mine: CylinderPart, other: CylinderPart | None) -> None:
        """Show the one on the vehicle, and another over it, if there is one."""
        self.mine = DrawnCylinder.of(mine)
        self.other = None if other is None else DrawnCylinder.of(other)
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        if self.mine is None:
            return
        with self.begin() as painter:
            scale, flange = self._scale()
            self._draw(painter, self.mine, scale, flange, own=True)
            if self.other is not None:
                self._draw(painter, self.other, scale, flange, own=False)
            write(painter, "on the vehicle", QPointF(8, 18), size=15, weight=600, color=T.muted)
            if self.other is not None:
                write(painter, "the other", QPointF(128, 18), size=15, weight=600, color=T.front)

    def _scale(self) -> tuple[float, QPointF]:
        """Return px a metre, and where the bore's middle is at the flange."""
        both = [one for one in (self.mine, self.other) if one is not None]
        ahead = max(one.sizes["body_length"] for one in both)
        behind = max(one.sizes["pushrod_length"] for one in both)
        above = max(max(one.sizes["reservoir_height"], one.sizes["flange_bolts"] / 2 + EAR)
                    for one in both)  # fmt: skip
        below = max(max(one.bore / 2 + WALL, one.sizes["flange_bolts"] / 2 + EAR) for one in both)
        scale = min((self.across - 2 * PAD) / (ahead + behind),
                    (self.down - 2 * PAD) / (above + below))  # fmt: skip
        left = (self.across - scale * (ahead + behind)) / 2
        return scale, QPointF(left + scale * ahead, PAD + scale * above)

    def _draw(
        self, painter: QPainter, one: DrawnCylinder, scale: float, at: QPointF, *, own: bool
    ) -> None:
        """Draw one cylinder: front to the left, its flange at a spot."""
        color = T.ink if own else T.front

        def line(name: str) -> None:
            dotted = name in one.guessed
            style = Qt.PenStyle.DotLine if dotted else Qt.PenStyle.SolidLine
            painter.setPen(pen(color, 1.5 if own else 2.5, style))
            painter.setBrush(QColor(T.steel) if own else Qt.BrushStyle.NoBrush)

        def box(left: float, top: float, right: float, foot: float) -> QRectF:
            return QRectF(at + QPointF(left, top) * scale, at + QPointF(right, foot) * scale)

        half, body = one.bore / 2, one.sizes["body_length"]
        high, bolts = one.sizes["reservoir_height"], one.sizes["flange_bolts"] / 2 + EAR
        line("reservoir_height")
        painter.drawRoundedRect(box(-0.85 * body, -high, -0.35 * body, -half - WALL), 4, 4)
        line("body_length")
        painter.drawRoundedRect(box(-body, -half - WALL, 0.0, half + WALL), 3, 3)
        line("flange_bolts")
        painter.drawRect(box(-0.010, -bolts, 0.0, bolts))
        painter.setPen(pen(color, 1.5 if own else 2.5))
        painter.setBrush(QColor(T.fluid[1]) if own else Qt.BrushStyle.NoBrush)
        painter.drawRect(box(-body + 0.012, -half, -0.02, half))
        depth, rod = one.sizes["socket_depth"], one.sizes["pushrod_length"]
        line("socket_depth")
        painter.drawRect(box(-depth, -0.8 * ROD, 0.0, 0.8 * ROD))
        line("pushrod_length")
        painter.drawRect(box(-depth, -ROD / 2, rod - depth, ROD / 2))
