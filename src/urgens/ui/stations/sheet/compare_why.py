"""Which change did it: from where it began to where it ended, each change's own part a bar."""

from collections.abc import Callable
from typing import Literal

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QPainter
from PySide6.QtWidgets import QVBoxLayout, QWidget

from urgens.guidance.words.change_parts import NAMES, WaterfallRow, claim, rows
from urgens.studies.attribution import CHANCE, Attribution, attributed
from urgens.studies.mixtures import Mixtures
from urgens.ui.session import Session
from urgens.ui.theme.paint import T, metrics, pen
from urgens.ui.widgets.background import SOON, Background
from urgens.ui.widgets.board import write
from urgens.ui.widgets.choices import SegmentRow
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.row_list import RowList
from urgens.ui.widgets.worded import wrapped

ROW, DATED = 34.0, 46.0  # px
NAME, VALUE = 0.48, 0.16  # of the width
SHORT = {
    "margin": "margin behind the front",
    "effort": "foot",
    "travel": "pedal",
    CHANCE: "chance of the rear first",
}
WORKING = "Working out every mixture of the changes."
DRAWING = "Drawing 500 vehicles of each mixture."
HOW = (
    "Each change's mean effect over every order in which they could be made (Shapley): the parts "
    "add up, whichever came first. Foot and floor end nothing here."
)
SAMPLED = " There are more than ten: 200 orders were drawn, ± is twice the standard error."


class WaterfallRows(RowList):
    """One row a change; the first and the last are the builds themselves."""

    def __init__(self) -> None:
        self.rows: tuple[WaterfallRow, ...] = ()
        self.by_axle = True  # whether more is the front's, and less the rear's
        super().__init__("Each change's own part", "Nothing differs.", self._high, self._draw)

    def show_parts(self, shown: tuple[WaterfallRow, ...]) -> None:
        """Show rows, the builds first and last."""
        self.rows = shown
        self.show_rows([
            " ".join(f"{one.when} {one.what}: {one.words} {one.error}".split()) for one in shown
        ])  # fmt: skip

    def _high(self, row: int) -> float:
        return DATED if self.rows[row].when else ROW

    def _spans(self) -> list[tuple[float, float]]:
        """Return where each row's bar begins and ends, in the figure itself."""
        spans, at = [], self.rows[0].value or 0.0
        for row, one in enumerate(self.rows):
            if row in (0, len(self.rows) - 1):
                spans.append((0.0, one.value or 0.0))
            else:
                spans.append((at, at + (one.value or 0.0)))
                at = spans[-1][1]
        return spans

    def _draw(self, painter: QPainter, box: QRectF, row: int) -> None:
        one, spans = self.rows[row], self._spans()
        whole = row in (0, len(self.rows) - 1)
        painter.setPen(pen(T.hair, 1))
        painter.drawLine(box.topLeft(), box.topRight())
        y = box.top() + 22
        left, right = box.width() * NAME, box.width() * (1.0 - VALUE)
        weight = 600 if whole else 400
        cut = metrics(16, weight).elidedText(one.what, Qt.TextElideMode.ElideRight, left - 12)
        write(painter, cut, QPointF(4, y), size=16, weight=weight, color=T.ink)
        write(painter, one.when, QPointF(4, y + 16), size=13)
        words = f"{one.words} {one.error}".strip()
        write(painter, words, QPointF(box.width() - 6, y), size=16, weight=600, color=T.ink,
              side="right")  # fmt: skip
        if all(each.value is not None for each in self.rows):
            self._bar(painter, QRectF(left, box.top(), right - left, box.height()), spans, row)

    def _bar(
        self, painter: QPainter, box: QRectF, spans: list[tuple[float, float]], row: int
    ) -> None:
        low = min(min(pair) for pair in spans)
        high = max(max(pair) for pair in spans)
        per = (box.width() - 16) / ((high - low) or 1.0)

        def x(value: float) -> float:
            return box.left() + 8 + (value - low) * per

        painter.setPen(pen(T.muted, 1))
        painter.drawLine(QPointF(x(0.0), box.top()), QPointF(x(0.0), box.bottom()))
        start, end = spans[row]
        whole = row in (0, len(spans) - 1)
        ways = (T.front, T.rear) if self.by_axle else (T.muted, T.muted)
        color = T.metal if whole else ways[end < start]
        wide = max(abs(end - start) * per, 1.5)
        bar = QRectF(x(min(start, end)), box.top() + 9, wide, box.height() - 17)
        painter.fillRect(bar, QColor(color))
        if not whole:  # which way it goes, without colour
            more = end >= start
            mark = "▸" if end > start else "◂" if end < start else "·"
            at = QPointF(bar.right() + 3 if more else bar.left() - 3, bar.center().y() + 5)
            side: Literal["left", "right"] = "left" if more else "right"
            write(painter, mark, at, size=13, side=side, color=T.ink)


class WhyView(QWidget):
    """The figure that is asked about is chosen over the bars; the chance comes later."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self._session = session
        self.name = "margin"
        self.found: Attribution | None = None
        self._between: Mixtures | None = None
        self._ends = ("", "")
        self.figures = SegmentRow()
        self.figures.chosen.connect(self.look_at)
        self.claim, self.how = wrapped("heading", WORKING), wrapped("muted", HOW)
        self.rows = WaterfallRows()
        self._work = Background(self)
        self._work.ended.connect(self._show_found)
        self._work.failed.connect(self.say)
        column = tight(QVBoxLayout(self), 6)
        for widget in (self.figures, self.claim, self.rows, self.how):
            column.addWidget(widget, 1 if widget is self.rows else 0)

    def show_between(self, make: Callable[[], Mixtures], ends: tuple[str, str]) -> None:
        """Work out the parts of what differs; ends: what the builds are called, earlier first."""
        self.found, self._ends = None, ends
        self.say(WORKING)

        def work(progress: Callable[[float], bool]) -> object:
            between = make()
            return between, attributed(between)

        self._work.run(work, SOON)

    def stop(self) -> None:
        """Let what is under way go."""
        self._work.stop()

    @property
    def busy(self) -> bool:
        """Whether something is still worked out."""
        return self._work.busy

    def look_at(self, name: object) -> None:
        """Show another figure's parts."""
        self.name = str(name)
        self._show()

    def say(self, words: str) -> None:
        """Say in place of the bars what there is to say."""
        self.claim.setText(words)
        self.figures.show_choices(SHORT, self.name)
        self.rows.show_parts(())

    def _show_found(self, found: object) -> None:
        assert isinstance(found, tuple)  # what the work returns
        between, parts = found
        self.found = parts
        self._show()
        if between is not None and parts.changes and CHANCE not in parts.before:

            def later(progress: Callable[[float], bool]) -> object:
                return None, attributed(between, chance=True, progress=progress) or parts

            self._work.run(later)

    def _show(self) -> None:
        self.figures.show_choices(SHORT, self.name)
        found = self.found
        if found is None:
            return
        if self.name not in found.before:
            self.say(DRAWING if found.changes else "No figure differs.")
            return
        units = self._session.units
        words = claim(found, self.name, units)
        self.claim.setText(f"{words[:1].upper()}{words[1:]}")
        self.how.setText(HOW if found.exact else f"{HOW}{SAMPLED}")
        self.rows.by_axle = self.name == "margin"
        self.rows.show_parts(tuple(rows(found, self.name, units, self._ends)))
        self.rows.setAccessibleName(f"Each change's part of the {NAMES[self.name]}")
