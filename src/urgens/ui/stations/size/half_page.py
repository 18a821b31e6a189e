"""The page of one half lost: which chamber feeds which axle, and what remains."""

import math
from collections.abc import Callable

from PySide6.QtWidgets import QButtonGroup, QHBoxLayout, QToolButton, QWidget

from urgens.document import BuildChange
from urgens.document.kinds.cylinders.tandem import TwoChambers
from urgens.quantity import FORCE, show
from urgens.ui.session import Session
from urgens.ui.stations.size.half_board import HalfBoard
from urgens.ui.widgets.figure_column import FigureColumn
from urgens.ui.widgets.figure_label import Spot
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.scrolled import rolled
from urgens.ui.widgets.segment import segment
from urgens.ui.widgets.worded import worded, wrapped

FIGURES = (
    Spot("targets.max_effort", 18),
    Spot("targets.surface", 18),
    Spot("pedal.travel_available", 18),
    Spot("master.stroke", 18),
    Spot("master.primary_stroke", 18),
    Spot("master.secondary_stroke", 18),
    Spot("master.bar_max_angle", 18),
)
SHUT_BY = (Spot("shuttle_volume", 18),)
SWITCHES = {"none": "None", "warns": "Warns", "shuts": "Shuts"}
SHUTTLE = "0.5 cm^3"


class HalfPage(Page):
    """Asks what feeds what; says what is left at the hardest foot."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.board = HalfBoard(session)
        self.figures = FigureColumn(session, FIGURES)
        self.shuttle = FigureColumn(session, SHUT_BY)
        self.feeds, feeds = self._segments({"front": "Front", "rear": "Rear"}, self._feed)
        self.switch, switch = self._segments(SWITCHES, self._set_switch)
        self.asked = wrapped()
        self.feeding = worded("The pushrod's chamber feeds", "heading")
        self.feeding_row = feeds
        self.column.addWidget(self.feeding)
        self.column.addWidget(feeds)
        self.column.addWidget(self.asked)
        self.head("The warning switch")
        self.column.addWidget(switch)
        self.column.addWidget(self.shuttle)
        self.column.addSpacing(8)
        self.column.addWidget(self.figures)
        self.column.addSpacing(8)
        self.rule = wrapped()
        self.column.addWidget(self.rule)
        self.column.addStretch()
        self.lay_out(rolled(self.board))

    def _segments(
        self, words: dict[str, str], take: Callable[[str], None]
    ) -> tuple[dict[str, QToolButton], QWidget]:
        row_widget = QWidget()
        row = tight(QHBoxLayout(row_widget), 0)
        group, buttons = QButtonGroup(row_widget), {}
        for value, said in words.items():
            button = segment(said)
            button.clicked.connect(lambda _=False, v=value: take(v))
            group.addButton(button)
            row.addWidget(button)
            buttons[value] = button
        row.addStretch()
        return buttons, row_widget

    @property
    def summary(self) -> str:
        """The worse half in a few words."""
        halves = self.board.halves
        if not halves:
            return "one circuit: nothing is left"
        gone = [half.name.lower() for half in halves if math.isnan(half.travel)]
        if gone:
            return f"{' and '.join(gone)}: no pedal left"
        worst = min(halves, key=lambda half: half.left)
        return f"{worst.name.lower()} is the worse: {worst.left:.2f} g left"

    def show_figures(self) -> None:
        """Show the build as it is now."""
        build, master = self.session.build, self.session.build.master
        self.board.refresh()
        self.figures.refresh()
        self.shuttle.refresh()
        self.shuttle.setVisible(build.warning_switch == "shuts")
        tandem = isinstance(master, TwoChambers) and build.split == "front-rear"
        for widget in (self.feeding, self.feeding_row, self.asked):
            widget.setVisible(tandem)
        if isinstance(master, TwoChambers):
            self.feeds[master.primary_feeds].setChecked(True)
            known = "primary_feeds" in master.model_fields_set
            self.asked.setText(
                "As you said."
                if known
                else "Not asked yet: the front is taken, as on most. Look "
                "which pipe leaves the chamber nearest the pushrod."
            )
        chosen = build.warning_switch
        for value, button in self.switch.items():
            button.setChecked(value == chosen)

        asks = self.session.solution.system.rule.failed
        self.rule.setText(
            f"Rule for comparison: {asks.text}, for {asks.vehicles}: with a half lost at least "
            f"{asks.deceleration:g} m/s², which is {asks.z:.2f} g, at no more than "
            f"{show(asks.effort, FORCE, self.session.units)}. It says nothing of your local rules."
        )

    def _feed(self, value: str) -> None:
        self.session.edit("master.primary_feeds", value, f"Primary feeds the {value}")

    def _set_switch(self, value: str) -> None:
        shuts = value == "shuts" and self.session.build.shuttle_volume is None
        parts = {"shuttle_volume": SHUTTLE} if shuts else {}
        label = f"Warning switch {value}"
        self.session.make(BuildChange.assuming(label, parts, warning_switch=value))
