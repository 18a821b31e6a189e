"""What a page that is still empty will look like: a small invented sample, in grey."""

import re
from typing import Any

from PySide6.QtCore import QPointF, QRectF, QSize, Qt
from PySide6.QtGui import QPainter, QPaintEvent
from PySide6.QtWidgets import QSizePolicy

from urgens.data import sample_table
from urgens.quantity import FORCE, LENGTH, PRESSURE, parse, shown, unit_shown
from urgens.ui.session import Session
from urgens.ui.theme.paint import T, metrics, outline, pen, shortened
from urgens.ui.widgets.board import write
from urgens.ui.widgets.painted import Painted

CAPTION = "A sample, invented: it says nothing of this vehicle"
KINDS = {"length": LENGTH, "force": FORCE, "pressure": PRESSURE}
_FIGURE = re.compile(r"\{(\w+):([^}]+)\}")  # such as {force:430 N}, or {unit:pressure}
EDGE, HEAD, ROW = 14.0, 34.0, 32.0  # px
PLOT, FRAME, BAR = 240.0, 120.0, 44.0  # px down
SIZE = 15  # px of its words
MOST = 680.0  # px across: a sample is no page
LABEL, FIGURES = 110.0, 96.0  # px before and behind a bar


class Sample(Painted):
    """Rows, bars, frames or a plot, of the name it is given; figures are in the units shown."""

    def __init__(self, session: Session, name: str) -> None:
        super().__init__()
        self._session, self._table = session, sample_table(name)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.setFixedHeight(self.sizeHint().height())
        session.units_changed.connect(self._say)
        self.setAccessibleName(CAPTION)
        self._say()

    def sizeHint(self) -> QSize:
        return self.scaled(420, HEAD + self._down + EDGE)

    def _say(self) -> None:
        self.setAccessibleDescription("; ".join(self.words))
        self.update()

    @property
    def words(self) -> list[str]:
        """All that is written in it but the caption, figures in the units shown."""
        table = self._table
        said = [*(cell for row in table.get("rows", ()) for cell in row), *table.get("frames", ())]
        said += [name for name, *_ in (*table.get("bars", ()), *table.get("lines", ()))]
        said += [table[name] for name in ("across", "up") if name in table]
        return [self._shown(one) for one in said if one]

    def _shown(self, words: str) -> str:
        """Return words with the figures in their braces as a builder reads them."""
        units = self._session.units

        def figure(found: re.Match[str]) -> str:
            if found[1] == "unit":
                return unit_shown(KINDS[found[2]], units)
            kind = KINDS[found[1]]
            return str(shown(parse(found[2], kind), kind, units))

        return _FIGURE.sub(figure, words)

    @property
    def _down(self) -> float:
        table = self._table
        if "rows" in table:
            return ROW * len(table["rows"])
        if "bars" in table:
            return BAR * len(table["bars"])
        return FRAME + ROW if "frames" in table else PLOT

    def paintEvent(self, event: QPaintEvent) -> None:
        with self.begin() as painter:
            wide = min(self.across, MOST) - 2
            painter.setPen(pen(T.hair, 1.5, Qt.PenStyle.DashLine))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRoundedRect(QRectF(1, 1, wide, self.down - 2), 4, 4)
            _words(painter, CAPTION, QPointF(EDGE, 22), wide - 2 * EDGE, size=14)
            box = QRectF(EDGE, HEAD, wide - 2 * EDGE, self._down)
            for kind, paint in (("rows", self._rows), ("bars", self._bars),
                                ("frames", self._frames), ("lines", self._plot)):  # fmt: skip
                if kind in self._table:
                    paint(painter, box, self._table)

    def _rows(self, painter: QPainter, box: QRectF, table: dict[str, Any]) -> None:
        for at, row in enumerate(table["rows"]):
            x, y = box.left(), box.top() + ROW * at
            painter.setPen(pen(T.hair))
            painter.drawLine(QPointF(x, y), QPointF(box.right(), y))
            for share, cell in zip(table["columns"], row, strict=True):
                across = share * box.width()
                _words(painter, self._shown(cell), QPointF(x, y + 21), across - 8)
                x += across

    def _bars(self, painter: QPainter, box: QRectF, table: dict[str, Any]) -> None:
        wide = box.width() - LABEL - FIGURES
        for at, (name, share, off) in enumerate(table["bars"]):
            y, x = box.top() + BAR * at, box.left() + LABEL
            _words(painter, name, QPointF(box.left(), y + 24), LABEL - 8)
            painter.fillRect(QRectF(x, y + 6, wide, 26), T.band)
            rear = x + wide * (1.0 - share)
            painter.fillRect(QRectF(rear, y + 6, wide * share, 26), T.hair)
            painter.setPen(pen(T.muted, 2))
            painter.drawLine(QPointF(rear - wide * off, y + 19), QPointF(rear + wide * off, y + 19))
            figure = f"{100 * share:.0f} % ± {100 * off:.0f} %"
            _words(painter, figure, QPointF(x + wide + 8, y + 24), FIGURES - 8)

    def _frames(self, painter: QPainter, box: QRectF, table: dict[str, Any]) -> None:
        wide = box.width() / len(table["frames"])
        for at, words in enumerate(table["frames"]):
            frame = QRectF(box.left() + wide * at, box.top(), wide - 12, FRAME - 8)
            painter.fillRect(frame, T.band)
            outline(painter, T.hair, 1.5)
            painter.drawRect(frame)
            middle = frame.center()
            painter.drawEllipse(middle, 22, 22)  # a brake, as a sketch
            painter.drawEllipse(middle, 8, 8)
            spot = QPointF(frame.left(), frame.bottom() + 22)
            _words(painter, words, spot, frame.width(), size=14)

    def _plot(self, painter: QPainter, box: QRectF, table: dict[str, Any]) -> None:
        inner = box.adjusted(8, 24, -8, -26)

        def at(place: list[float]) -> QPointF:
            return QPointF(inner.left() + place[0] * inner.width(),
                           inner.bottom() - place[1] * inner.height())  # fmt: skip

        painter.setPen(pen(T.hair, 1.5))
        painter.drawLine(inner.bottomLeft(), inner.bottomRight())
        painter.drawLine(inner.bottomLeft(), inner.topLeft())
        _words(painter, self._shown(table["up"]), QPointF(inner.left(), box.top() + 15), 300)
        foot = QPointF(inner.left(), box.bottom() - 4)
        _words(painter, self._shown(table["across"]), foot, 300)
        for name, *way in table["lines"]:
            painter.setPen(pen(T.muted, 2))
            points = [at(place) for place in way]
            painter.drawPolyline(points)
            peak = max(way, key=lambda place: place[1])
            _words(painter, name, at(peak) + QPointF(-44, -8), 90, size=14)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        for place in table.get("dots", ()):
            painter.drawEllipse(at(place), 3.5, 3.5)


def _words(painter: QPainter, text: str, at: QPointF, across: float, size: int = SIZE) -> None:
    fitting = shortened(text, size, 400, round(across), round(metrics(size).height()) + 1)
    write(painter, fitting, at, size=size, color=T.muted)
