"""What changed? Each change of the vehicle with what it does to the balance, not laid over it."""

import math
from functools import partial

from PySide6.QtWidgets import QGridLayout, QHBoxLayout, QLabel, QWidget

from urgens.document import BuildErrors
from urgens.guidance.words.vehicle_changes import CALLED, what_it_does
from urgens.quantity import FORCE, QuantityError, ShownFigure, completed, decimal, parse, show
from urgens.studies.vehicle_changes import (
    CHANGES,
    ChangeOutcome,
    VehicleChange,
    changed,
    lays,
    outcome,
)
from urgens.ui.session import Session
from urgens.ui.theme.paint import T
from urgens.ui.widgets.dimension_label import DimensionLabel
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.scrolled import scrolled
from urgens.ui.widgets.worded import worded, wrapped

MOST = 90.0  # percent


def _of_the_grip(margin: float) -> str:
    """Return a margin as a share of the road's grip."""
    return f"{100.0 * margin:+.0f} %".replace("-", "−")


class ChangedPage(Page):
    """One row a change: its amount is typed, the margin before and after follows."""

    kept = ("amounts",)

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.amounts = {change.key: change.amount for change in CHANGES}
        self.labels: dict[str, DimensionLabel] = {}
        self.after: dict[str, ChangeOutcome | None] = {}
        self._cells: dict[str, tuple[QLabel, QLabel]] = {}
        self._before: ChangeOutcome | None = None
        inner = QWidget()
        self._grid = QGridLayout(inner)
        self._grid.setContentsMargins(0, 0, 8, 0)
        self._grid.setHorizontalSpacing(18)
        self._grid.setVerticalSpacing(10)
        self._grid.setColumnStretch(2, 1)
        for column, words in enumerate(("Change", "Margin at first lock", "What it does")):
            self._grid.addWidget(worded(words, "heading"), 0, column)
        for row, change in enumerate(CHANGES, start=1):
            self._add_row(inner, row, change)
        self._grid.setRowStretch(len(CHANGES) + 1, 1)
        area = scrolled(inner, "What changed", across=True)
        body = tight(QHBoxLayout(self))
        body.addWidget(area)

    def _add_row(self, parent: QWidget, row: int, change: VehicleChange) -> None:
        cell = QWidget()
        line = tight(QHBoxLayout(cell), 6)
        name = CALLED[change.key]
        line.addWidget(worded(name, "muted"))
        label = DimensionLabel(name, partial(self._take, change), size=17, parent=cell)
        label.stepped.connect(partial(self._step, change))
        line.addWidget(label)
        line.addStretch()
        margin, what = worded("", "heading"), wrapped()
        self.labels[change.key], self._cells[change.key] = label, (margin, what)
        for column, widget in enumerate((cell, margin, what)):
            self._grid.addWidget(widget, row, column)

    @property
    def summary(self) -> str:
        """Where the balance stands now."""
        before = self._before
        if before is None or math.isnan(before.margin):
            return "nothing locks on any road"
        return (
            f"now the front is {_of_the_grip(before.margin)} above the rear at first lock, in the "
            f"worst load case, on a road of {before.road:g}; nothing here changes the build"
        )

    def show_figures(self) -> None:
        """Work out every change on the build as it is now."""
        build = self.session.build
        self._before = outcome(build)
        for change in CHANGES:
            self._show_change(change)

    def _show_change(self, change: VehicleChange) -> None:
        build, units = self.session.build, self.session.units
        amount, before = self.amounts[change.key], self._before
        assert before is not None
        if change.kind is None:
            shown = ShownFigure(f"{amount:+.0f}".replace("-", "−"), "%")
        else:
            shown = show(amount, change.kind, units)
        typed = f"{amount:g}" if change.kind is None else str(shown).replace("−", "-")
        self.labels[change.key].set_value(shown, typed)
        margin, what = self._cells[change.key]
        what.setText(what_it_does(build, change.key))
        try:
            found = changed(build, change, amount)
        except BuildErrors:
            self.after[change.key] = None
            margin.setText("no such vehicle")
            return
        self.after[change.key] = found
        margin.setText(self._words(before, found, change))
        bad = found.rear_first > 0 and lays(self.session.build, change)
        margin.setStyleSheet(f"color: {T.danger if bad else T.ink}")

    def _words(self, before: ChangeOutcome, outcome: ChangeOutcome, change: VehicleChange) -> str:
        if not lays(self.session.build, change):
            return "does nothing"
        if math.isnan(outcome.margin):
            return "nothing locks"
        effort = show(outcome.effort, FORCE, self.session.units)
        worse = "↓" if outcome.margin < before.margin else "↑"
        if abs(outcome.margin - before.margin) < 5e-4:
            worse = "="
        now, then = _of_the_grip(before.margin), _of_the_grip(outcome.margin)
        return f"{worse} {now} → {then}, on {outcome.road:g} at {effort}"

    def _take(self, change: VehicleChange, typed: str) -> None:
        """Take an amount; raises QuantityError."""
        text = typed.strip().removesuffix("%").replace("−", "-").strip()
        if change.kind is None:
            try:
                amount = decimal(text)
            except ValueError:
                raise QuantityError(f'"{typed}" is no share', "write percent: 5 or -5") from None
            if not abs(amount) <= MOST:
                raise QuantityError(f"{typed} % is no such change", f"write up to {MOST:g}")
        else:
            amount = parse(completed(text, change.kind, self.session.units), change.kind).value
        self.amounts[change.key] = amount
        self._show_change(change)

    def _step(self, change: VehicleChange, steps: int) -> None:
        step = 1.0 if change.kind is None else abs(change.amount) / 5.0
        self.amounts[change.key] += steps * step
        self._show_change(change)
