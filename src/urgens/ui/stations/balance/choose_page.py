"""What could be fitted instead, ranked, each tried with one key."""

from collections.abc import Callable
from typing import Any

from PySide6.QtCore import QEvent, Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import (
    QHBoxLayout,
    QLabel,
    QSizePolicy,
    QVBoxLayout,
    QWidget,
)

from urgens.document import Build, with_changes
from urgens.guidance import Severity
from urgens.guidance.advice.brought import Brought
from urgens.guidance.advice.disagreements import Disagreement, schools
from urgens.guidance.advice.ranked_ways import RankedWays, ranked_ways
from urgens.guidance.advice.valve_choice import fitting, how_sure, what, why, why_of
from urgens.guidance.words.valves import fitted_words
from urgens.quantity import QuantityError, ShownFigure, decimal
from urgens.solve import every_road
from urgens.studies.balance_verdict import MARGIN, BalanceVerdict
from urgens.studies.surer_fits import LIMIT
from urgens.studies.valve_choice import Candidate, order_of
from urgens.ui.session import Session
from urgens.ui.stations.balance.choice_card import ChoiceCard
from urgens.ui.stations.balance.waiting_card import WaitingCard
from urgens.ui.theme.paint import T
from urgens.ui.widgets.background import Background
from urgens.ui.widgets.dimension_label import DimensionLabel
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.scrolled import rolled
from urgens.ui.widgets.worded import worded, wrapped

WAITING = 4  # cards in grey while nothing is known
Progress = Callable[[float], bool]


def _judged(
    rank: int,
    name: str,
    reason: str,
    judged: tuple[BalanceVerdict, float | None],
    brings: Brought,
    *,
    fitted: bool,
) -> ChoiceCard:
    """Return a card with the figure and the mark its verdict and its chance ask for."""
    verdict, chance = judged
    mean, rear = verdict.mean_efficiency, bool(verdict.rear_first)
    figure = "rear first" if rear else f"{100 * mean:.0f} %" if mean == mean else "—"
    reason = f"{reason[:1].upper()}{reason[1:]}"
    card = ChoiceCard(rank, name, reason, figure, brings, fitted=fitted)
    doubted = verdict.missed or (chance is not None and chance > LIMIT)
    bad = Severity.DANGER if rear else Severity.WARNING if doubted else None
    card.put_mark(bad, known=chance is not None)
    return card


class ChoosePage(Page):
    """Ranks ways to balance the build, away from the hand."""

    kept = ("margin",)

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.margin = MARGIN
        self.found: tuple[Candidate, ...] = ()
        self.sure = False  # whether they rank by how sure they are
        self.cards: list[ChoiceCard] = []
        self.fitted: ChoiceCard | None = None  # what is there now, where it is none of the ways
        self.work = Background(self)
        self.work.ended.connect(self._take)
        self.work.failed.connect(self._fail)
        self.setFocusPolicy(Qt.FocusPolicy.ClickFocus)
        self._list = QVBoxLayout()
        self._list.setSpacing(6)
        inner = QWidget()
        column = QVBoxLayout(inner)
        column.setContentsMargins(0, 0, 6, 0)
        column.addLayout(self._list)
        column.addStretch()
        self.waiting = [WaitingCard() for _ in range(WAITING)]
        for card in self.waiting:
            self._list.addWidget(card)
        area = rolled(inner)
        area.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.wanted = DimensionLabel("Margin wanted", self._want, size=20, parent=self)
        self.wanted.stepped.connect(self._step)
        row = QHBoxLayout()
        row.addWidget(worded("Front above rear, at least", "muted"), 1)
        row.addWidget(self.wanted)
        self.column.addLayout(row)
        self.now = wrapped()
        self.column.addWidget(self.now)
        self.questions: list[tuple[QLabel, ...]] = []
        self._asked = QVBoxLayout()
        self._asked.setSpacing(6)
        self.column.addLayout(self._asked)
        self.column.addStretch()
        self.lay_out(area)

    @property
    def summary(self) -> str:
        """What is ranked."""
        if not self.found:
            return "working it out"
        best = what(self.session.build, self.found[0].to_take[0], self.session.units)
        best = f"{best[:1].lower()}{best[1:]}"
        if not self.sure:
            return f"by its figures alone {best}; how sure that is, is being drawn"
        return f"best over all loads and roads: {best}"

    def show_figures(self) -> None:
        """Rank anew for the build as it is now."""
        build, margin = self.session.build, self.margin
        self.wanted.set_value(ShownFigure(f"{margin:.2f}", ""), f"{margin:.2f}")
        self.sure = False
        self._rank(build, margin, sure=False)

    def _rank(self, build: Build, margin: float, *, sure: bool) -> None:
        def work(progress: Progress) -> RankedWays | None:
            return ranked_ways(build, None, margin, progress, sure=sure, twin=True)

        self.work.run(work)

    def _take(self, ways: RankedWays | None) -> None:
        """Show the ways as they rank; how sure they are is asked next, and then they rank by it."""
        if ways is None:  # it was not told to stop: what was stopped is not passed on
            self._end_waiting()
            self.now.setText("No way could be worked out for this build.")
            return
        self.found, self.sure = ways.found, ways.chance is not None
        self._show_cards(ways)
        if not self.sure:
            self._rank(self.session.build, self.margin, sure=True)
        self.say()

    def _end_waiting(self) -> None:
        """Let the cards in grey go: they are there before anything is known, and never again."""
        for card in self.waiting:
            self._list.removeWidget(card)
            card.hide()
            card.deleteLater()
        self.waiting = []

    def _show_cards(self, ways: RankedWays) -> None:
        self._end_waiting()
        focused = next((card.rank for card in self.cards if card.hasFocus()), None)
        for card in (*self.cards, *([self.fitted] if self.fitted is not None else [])):
            card.hide()
            self._list.removeWidget(card)
            card.deleteLater()
        brings = ways.brings or [Brought()] * len(self.found)
        each = enumerate(zip(self.found, brings, strict=True), start=1)
        self.cards = [self._card(rank, *one) for rank, one in each]
        for card in self.cards:
            self._list.addWidget(card)
            if card.rank == focused:
                card.setFocus()
        self.now.setText(self._as_it_is(ways))
        self._put_fitted(ways)
        self._answer(schools(self.session.solution, self.found, self.session.units))

    def _fail(self, words: str) -> None:
        """Say what kept it from being worked out."""
        self._end_waiting()
        self.now.setText(f"Not worked out. {words}")

    def _card(self, rank: int, candidate: Candidate, brings: Brought) -> ChoiceCard:
        """Return what shows one way."""
        build, units = self.session.build, self.session.units
        way, verdict = candidate.to_take
        name = what(build, way, units)
        reason = why(build, candidate, units).removeprefix(f"{name}: ")
        fitted = with_changes(build, way.changes) == build
        card = _judged(rank, name, reason, (verdict, candidate.chance), brings, fitted=fitted)
        card.tried.connect(self.take)
        return card

    def _put_fitted(self, ways: RankedWays) -> None:
        """Put what is fitted among the ways, at its place, where it is none of them."""
        self.fitted = None
        if any(card.fitted for card in self.cards):
            return
        now, chance = ways.now, ways.chance
        place = sum(one.order(now) <= order_of(now, chance, now) for one in self.found)
        name = f"As it is: {fitted_words(self.session.build, self.session.units)}"
        reason = why_of(self.session.build, now)
        if chance is not None:
            reason += f" {how_sure(chance)}"
        self.fitted = _judged(0, name, reason, (now, chance), Brought(), fitted=True)
        self._list.insertWidget(place, self.fitted)

    def _as_it_is(self, ways: RankedWays) -> str:
        """Say how the build as it is fares on the same loads and roads."""
        build, now = self.session.build, ways.now
        surfaces = every_road(build)
        state = (
            "the rear is first on some"
            if now.rear_first
            else f"the front is first everywhere, {100 * now.mean_efficiency:.0f} % on average"
        )
        if ways.chance is None:
            state += "; how sure that is, is being drawn"
        loads = len(build.vehicle.load_cases)
        roads = f"every road from {surfaces[0]:g} to {surfaces[-1]:g}"
        return f"As it is, {loads} load{'s' if loads != 1 else ''} on {roads}: {state}."

    def _answer(self, disagreements: tuple[Disagreement, ...]) -> None:
        """Show the questions that stand now, and hide the rest."""
        while len(self.questions) < len(disagreements):
            self._add_question()
        for labels in self.questions[len(disagreements) :]:
            for label in labels:
                label.hide()
        for labels, school in zip(self.questions, disagreements, strict=False):
            texts = (school.question, school.schools, school.here)
            for label, text in zip(labels, texts, strict=True):
                label.setText(text)
                label.show()

    def _add_question(self) -> None:
        """Make room for one more question, what the schools say, and what this build says."""
        labels = (wrapped("heading"), wrapped(), wrapped())
        labels[2].setStyleSheet(f"color: {T.ink}")
        if self.questions:
            self._asked.addSpacing(6)
        for label in labels:
            self._asked.addWidget(label)
        self.questions.append(labels)

    def take(self, rank: int) -> None:
        """Fit the way of a rank, as one step."""
        if 1 <= rank <= len(self.found):
            way, _ = self.found[rank - 1].to_take
            self.session.make(fitting(self.session.build, way, self.session.units))

    def _step(self, steps: int) -> None:
        self.wanted.attempt(lambda: self._want(f"{self.margin + 0.01 * steps:.2f}"))

    def _want(self, typed: str) -> None:
        """Take a wanted margin; raises QuantityError."""
        try:
            margin = decimal(typed)
        except ValueError:
            raise QuantityError(f'"{typed}" is no margin', "write it like 0.05") from None
        if not 0 <= margin < 0.5:
            raise QuantityError(f"{typed} is no margin of adhesion", "write 0 to 0.5")
        self.margin = round(margin, 3)
        self.show_figures()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.text() and event.text() in "123456789":
            self.take(int(event.text()))
        else:
            super().keyPressEvent(event)

    def hideEvent(self, event: Any) -> None:
        if self.work.busy:  # begun again when it is seen again
            self.work.stop()
            self.seen.forget()

    def event(self, event: QEvent) -> bool:
        if event.type() == QEvent.Type.Show:
            self.setFocus()
        return super().event(event)
