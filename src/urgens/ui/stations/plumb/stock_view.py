"""Stock lengths as bars, cut into the lines that come out of them."""

from PySide6.QtCore import QPointF, QRectF, QSize, Qt
from PySide6.QtGui import QColor, QPainter, QPaintEvent
from PySide6.QtWidgets import QSizePolicy

from urgens.plumbing.shopping import Cut
from urgens.quantity import LENGTH, Units, UnitSystem, show
from urgens.ui.theme.paint import T, hatch, ink, pen, width
from urgens.ui.widgets.board import write
from urgens.ui.widgets.painted import Painted

ROW = 40.0  # px
BAR = 24.0  # px
HEAD = 24.0  # px


class StockView(Painted):
    """One bar for each stock length, a piece for each line, hatched what is left."""

    def __init__(self) -> None:
        super().__init__()
        self._cut: tuple[Cut, ...] = ()
        self._stock = 1.0
        self._units: Units | UnitSystem = UnitSystem.METRIC
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)

    def show_cut(self, cut: tuple[Cut, ...], stock: float, units: Units | UnitSystem) -> None:
        """Show what is cut from lengths of so much [m]."""
        self._cut, self._stock, self._units = cut, stock, units
        said = "; ".join(
            f"{tube.text}, length {index}: {', '.join(name for name, _ in stick.pieces)}"
            for tube, sticks in cut
            for index, stick in enumerate(sticks, start=1)
        )
        self.setAccessibleName(f"What is cut from what. {said}")
        self.updateGeometry()
        self.update()

    def sizeHint(self) -> QSize:
        rows = sum(len(sticks) for _, sticks in self._cut)
        return self.scaled(400, HEAD * len(self._cut) + ROW * rows)

    def paintEvent(self, event: QPaintEvent) -> None:
        top = 0.0
        with self.begin() as painter:
            for tube, sticks in self._cut:
                length = show(self._stock, LENGTH, self._units)
                words = f"{tube.text} tube, from lengths of {length}"
                write(painter, words, QPointF(0, top + 17), size=15, weight=600, color=T.ink)
                top += HEAD
                for stick in sticks:
                    self._draw_stick(painter, top, stick.pieces, stick.left)
                    top += ROW

    def _draw_stick(
        self, painter: QPainter, top: float, pieces: tuple[tuple[str, float], ...], left: float
    ) -> None:
        said = f"{show(left, LENGTH, self._units)} left"
        room = self.across - width(said, 14) - 14
        scale, x = room / self._stock, 0.0
        for name, length in pieces:
            box = QRectF(x, top + 4, length * scale, BAR)
            ink(painter, pen(T.ink, 1.5), QColor(T.steel))
            painter.drawRect(box)
            number = name.removeprefix("L")
            words = f"{number}  {show(length, LENGTH, self._units)}"
            if width(words, 14) > box.width() - 8:
                words = number
            if width(words, 14) < box.width() - 2:
                write(painter, words, box.center() + QPointF(0, 5), size=14, weight=500,
                      color=T.ink, side="middle")  # fmt: skip
            x += length * scale
        rest = QRectF(x, top + 4, max(room - x, 0.0), BAR)
        ink(painter, pen(T.hair, 1), hatch(T.hair))
        painter.drawRect(rest)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        write(painter, said, QPointF(self.across, top + 21), size=14, side="right")
