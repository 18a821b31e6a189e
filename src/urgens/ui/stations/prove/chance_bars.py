"""How likely the rear locks first, setting by setting, as bars with a line at five of a hundred."""

from PySide6.QtCore import QPointF, QRectF, QSize, Qt
from PySide6.QtGui import QColor, QPaintEvent
from PySide6.QtWidgets import QSizePolicy

from urgens.bench.sentences import counted_words
from urgens.bench.stops.next_setting import RISK, NextStop
from urgens.guidance.words.figures import FigureWords
from urgens.ui.theme.paint import T, ink, pen
from urgens.ui.widgets.board import write
from urgens.ui.widgets.painted import Painted

# px, px, rows
ROW = 22
LABEL = 104
LEAST = 3
MOST = 7
NUMBER = 30  # px of a number behind its bar


class ChanceBars(Painted):
    """Rows around the setting that is next."""

    def __init__(self) -> None:
        super().__init__()
        self._advice: NextStop | None = None
        self._now: float | None = None
        self._words: FigureWords | None = None
        self.setAccessibleName("No setting is proposed yet")
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Preferred)
        self.setMinimumHeight(round(LEAST * ROW * self.scale))

    def sizeHint(self) -> QSize:
        return self.scaled(280, MOST * ROW)

    @property
    def _rows(self) -> int:
        """As many as there is room for."""
        fit = int(self.down / ROW)
        return min(max(fit, LEAST), MOST, len(self._advice.turned.values)) if self._advice else 0

    def show_advice(self, advice: NextStop | None, now: float | None, words: FigureWords) -> None:
        """Show the chances of one advice; `now` is what stands."""
        self._advice, self._now, self._words = advice, now, words
        self.setVisible(advice is not None)
        if advice is not None:
            said = [f"{self._counted(advice, i)}: {100 * c:.0f}"
                    for i, c in self._shown()]  # fmt: skip
            self.setAccessibleName("Rear first, of 100: " + "; ".join(said))
        self.update()

    def _shown(self) -> list[tuple[int, float]]:
        assert self._advice is not None
        values = self._advice.turned.values
        middle = self._advice.turned.place(self._advice.setting)
        first = min(max(middle - 1, 0), max(len(values) - self._rows, 0))
        places = range(first, min(first + self._rows, len(values)))
        return [(place, float(self._advice.chances[place])) for place in places]

    def _counted(self, advice: NextStop, place: int) -> str:
        assert self._words is not None  # it came with the advice
        return counted_words(advice.turned, advice.turned.values[place], self._words)

    def paintEvent(self, event: QPaintEvent) -> None:
        with self.begin() as painter:
            advice = self._advice
            if advice is None:
                return
            rows = self._shown()
            most = max(max(chance for _, chance in rows), 2.0 * RISK)
            wide = self.across - LABEL - 44
            limit = LABEL + wide * RISK / most
            chosen = advice.turned.place(advice.setting)
            now = None if self._now is None else advice.turned.place(self._now)
            for row, (place, chance) in enumerate(rows):
                top = row * ROW
                if place == chosen:
                    painter.fillRect(QRectF(0, top, self.across, ROW), QColor(T.paper))
                    painter.fillRect(QRectF(0, top, 4, ROW), QColor(T.ink))
                words = self._counted(advice, place)
                if advice.turned.counted != "length":
                    words = words.partition(" ")[0]
                weight = 600 if place == chosen else 400
                write(painter, words, QPointF(12, top + 17), size=16, weight=weight, color=T.ink)
                said = "stay" if advice.done else "next"
                mark = said if place == chosen else "now" if place == now else ""
                write(painter, mark, QPointF(62, top + 17), size=14, weight=weight)
                color = T.danger if chance >= RISK else T.ink if place == chosen else T.good
                ink(painter, Qt.PenStyle.NoPen, QColor(color))
                length = max(wide * chance / most, 2.0)
                painter.drawRect(QRectF(LABEL, top + 5, length, ROW - 10))
                end = LABEL + length
                if end < limit < end + NUMBER:
                    end = limit  # a number does not stand on the line
                at = QPointF(end + 6, top + 17)
                write(painter, f"{100 * chance:.0f}", at, size=15, weight=600, color=color)
            painter.setPen(pen(T.danger, 1.5, Qt.PenStyle.DashLine))
            painter.drawLine(QPointF(limit, 0), QPointF(limit, len(rows) * ROW))
