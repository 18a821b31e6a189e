"""Fluids: classes, boiling points, what may top up what, and how old this one is."""

from datetime import date

from PySide6.QtWidgets import QGridLayout, QLabel, QVBoxLayout, QWidget

from urgens.guidance.procedures.amounts import amounts
from urgens.guidance.rules.fluids import CAUTION, SILICONE, age_words, fluid_rows
from urgens.quantity import TEMPERATURE, parse, show
from urgens.ui.session import Session
from urgens.ui.widgets.cleared import clear
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.worded import worded, wrapped

SOURCE = (
    "Source: 49 CFR 571.116 (FMVSS 116), least equilibrium reflux boiling points, from memory; "
    "mixing: common practice."
)
HEADS = ("Class", "Boils dry", "Boils wet", "On top of this one")
WHAT = (
    "Dry is as it comes from the bottle, wet with 3.7 % of water in it: what years in the system "
    "come to. Glycol (DOT 3, 4, 5.1) draws water; silicone (DOT 5) does not, and water stands in "
    "it by itself."
)


def _plain(role: str, words: str) -> QLabel:
    return worded(words, role)


class FluidPage(Page):
    """A table, and what it means for this build."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        whole = QWidget()
        column = tight(QVBoxLayout(whole), 10)
        self.age = wrapped("sentence")
        self._grid = QGridLayout()
        self._grid.setHorizontalSpacing(24)
        self._grid.setVerticalSpacing(8)
        column.addWidget(self.age)
        column.addLayout(self._grid)
        column.addWidget(wrapped("muted", WHAT))
        self.source = wrapped("muted", SOURCE)
        column.addWidget(self.source)
        column.addStretch()
        self.needed = wrapped("muted")
        self.head("To have")
        self.column.addWidget(self.needed)
        self.head("Mind")
        self.column.addWidget(wrapped("muted", CAUTION))
        self.column.addStretch()
        self.lay_out(whole)
        self.said.hide()

    @property
    def summary(self) -> str:
        """What is in it."""
        fluid = self.session.build.fluid
        return "not told" if fluid is None else fluid.grade

    def show_figures(self) -> None:
        """Show the classes beside what is in it."""
        build, units = self.session.build, self.session.units
        self.age.setText(age_words(build, date.today()))
        clear(self._grid)
        for column, words in enumerate(HEADS):
            self._grid.addWidget(worded(words, "heading"), 0, column)
        there = None if build.fluid is None else build.fluid.grade
        for row, one in enumerate(fluid_rows(build), start=1):
            boils = [
                str(show(parse(text, TEMPERATURE).value, TEMPERATURE, units))
                for text in (one.dry, one.wet)
            ]
            mark = ", there now" if one.name == there else ""
            for column, words in enumerate((f"{one.name}{mark}", *boils, one.top_up or "—")):
                never = SILICONE in (one.name, there) and words.startswith("never")
                role = "danger" if never else "heading" if one.name == there else "body"
                last = column == len(HEADS) - 1
                self._grid.addWidget((wrapped if last else _plain)(role, words), row, column)
        self._grid.setColumnStretch(len(HEADS) - 1, 1)
        need = amounts(build)
        self.needed.setText(
            "How much is not known without drawn lines." if need.fluid is None else
            f"About {need.fluid * 1e6:.0f} ml of fresh fluid to flush all of it, in bottles that "
            "are not open yet."
        )  # fmt: skip
