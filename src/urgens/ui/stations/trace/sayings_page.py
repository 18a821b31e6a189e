"""The trade's sayings, tried on this build: true here, not here, within limits, not computed."""

from collections.abc import Callable
from functools import partial
from typing import ClassVar

from PySide6.QtCore import QPointF, QRectF, QSize, Qt
from PySide6.QtGui import QColor, QHideEvent, QPaintEvent
from PySide6.QtWidgets import QGridLayout, QPushButton, QSizePolicy, QVBoxLayout, QWidget

from urgens.guidance.sayings import SAID, Bar, SayingVerdict, TriedSaying, tried
from urgens.ui.session import Session
from urgens.ui.theme.paint import T
from urgens.ui.widgets.background import SOON, Background
from urgens.ui.widgets.board import write
from urgens.ui.widgets.cleared import clear
from urgens.ui.widgets.elided_button import ElidedButton
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.painted import Painted
from urgens.ui.widgets.scrolled import scrolled
from urgens.ui.widgets.worded import worded, wrapped

ROW = 62  # px a bar with its words
HIGH = 30  # of a bar
SIDE = 380
COLORS = {
    SayingVerdict.TRUE: "good", SayingVerdict.NOT: "danger", SayingVerdict.WITHIN: "warn",
    SayingVerdict.NOT_COMPUTED: "muted",
}  # fmt: skip


class TwoBars(Painted):
    """Two figures beside each other, as bars to one scale."""

    def __init__(self) -> None:
        super().__init__()
        self._bars: tuple[Bar, ...] = ()
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)

    def sizeHint(self) -> QSize:
        return self.scaled(300, 2 * ROW)

    def show_bars(self, bars: tuple[Bar, ...]) -> None:
        """Show two bars, or none."""
        self._bars = bars
        self.setVisible(bool(bars))
        self.setAccessibleName("; ".join(f"{one.words}: {one.reads}" for one in bars))
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        with self.begin() as painter:
            wide = self.across - 120
            for row, one in enumerate(self._bars):
                top = row * ROW
                write(painter, one.words, QPointF(0, top + 16), size=15, color=T.muted)
                length = max(wide * one.length, 2.0)
                ground = QColor(T.ink if row else T.steel)
                painter.fillRect(QRectF(0, top + 24, length, HIGH), ground)
                at = QPointF(length + 8, top + 45)
                write(painter, one.reads, at, size=18, weight=600, color=T.ink)


class SayingsPage(Page):
    """One saying at a time, chosen from all of them with their verdicts."""

    kept: ClassVar[tuple[str, ...]] = ("name",)

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.name = ""
        self.found: tuple[TriedSaying, ...] = ()
        self.buttons: dict[str, QPushButton] = {}
        self.title, self.verdict = wrapped("next"), worded("", "sentence")
        self.here, self.limit = wrapped("sentence"), wrapped("muted")
        self.bars = TwoBars()
        inner = QWidget()
        self._rows = QGridLayout(inner)
        self._rows.setContentsMargins(0, 0, 8, 0)
        self._rows.setVerticalSpacing(2)
        self._work = Background(self)
        self._work.ended.connect(self._show_found)
        self._work.failed.connect(self.here.setText)
        self.lay_out(self._drawing(), side=SIDE)
        self.head("What is said")
        self.column.addWidget(scrolled(inner, "Sayings"), 1)
        self.said.hide()

    def _drawing(self) -> QWidget:
        whole = QWidget()
        column = tight(QVBoxLayout(whole), 12)
        for widget in (self.title, self.verdict, self.here, self.bars, self.limit):
            column.addWidget(widget)
        column.addStretch()
        return whole

    @property
    def summary(self) -> str:
        """How many hold here."""
        true = sum(one.answer.verdict is SayingVerdict.TRUE for one in self.found)
        return f"{true} of {len(self.found)} sayings are true here" if self.found else ""

    def show_figures(self) -> None:
        """Try all of them, away from the hand: each is the build solved once more or twice."""
        if not self.found:
            self.title.setText("Trying them…")
            self.bars.show_bars(())
        solution, units = self.session.solution, self.session.units

        def work(progress: Callable[[float], bool]) -> object:
            return tried(solution, units)

        self._work.run(work, SOON)

    def _show_found(self, found: object) -> None:
        assert isinstance(found, tuple)  # what the work returns
        self.found = found
        names = [one.id for one in self.found]
        if self.name not in names:
            self.name = names[0]
        if list(self.buttons) != names:
            self._make_rows()
        for row, one in enumerate(self.found):
            mark = self._rows.itemAtPosition(row, 1)
            assert mark is not None  # each row has one
            label = mark.widget()
            assert label is not None  # it is a label
            label.setText(SAID[one.answer.verdict])  # type: ignore[attr-defined]
        self._show_one()
        self.say()

    def _make_rows(self) -> None:
        clear(self._rows)
        self.buttons = {}
        for row, one in enumerate(self.found):
            button = ElidedButton(one.saying)
            button.setProperty("role", "outcome")
            button.setCheckable(True)
            button.clicked.connect(partial(self.choose, one.id))
            self.buttons[one.id] = button
            self._rows.addWidget(button, row, 0)
            self._rows.addWidget(worded("", "small"), row, 1, Qt.AlignmentFlag.AlignRight)
        self._rows.setColumnStretch(0, 1)
        self._rows.setRowStretch(len(self.found), 1)

    def look_at(self, name: str) -> None:
        """Look at a saying, or at the one that is shown."""
        self.choose(name or self.name)

    def choose(self, name: str) -> None:
        """Look at a saying."""
        self.name = name
        self._show_one()

    def _show_one(self) -> None:
        for name, button in self.buttons.items():
            button.setChecked(name == self.name)
        one = next((each for each in self.found if each.id == self.name), None)
        if one is None:
            return
        answer = one.answer
        self.title.setText(f"“{one.saying}.”")
        words = SAID[answer.verdict]
        self.verdict.setText(f"{words[:1].upper()}{words[1:]}.")
        self.verdict.setStyleSheet(f"color: {getattr(T, COLORS[answer.verdict])}")
        self.here.setText(answer.here)
        self.limit.setText(answer.limit)
        self.bars.show_bars(answer.bars)

    def hideEvent(self, event: QHideEvent) -> None:
        self._work.stop()
        self.seen.forget()
        super().hideEvent(event)
