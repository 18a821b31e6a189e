"""The page of one half lost: which chamber feeds which axle, and what remains."""

import math
from collections.abc import Callable

from PySide6.QtWidgets import QButtonGroup, QHBoxLayout, QToolButton, QWidget

from urgens.document.master import TandemMaster
from urgens.quantity import ANGLE, FORCE, LENGTH, VOLUME
from urgens.ui.session import Session
from urgens.ui.stations.size.half_board import HalfBoard
from urgens.ui.widgets.figure_column import FigureColumn
from urgens.ui.widgets.figure_label import Figure
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.segment import segment
from urgens.ui.widgets.worded import worded, wrapped

FIGURES = (
    Figure("targets.max_effort", "Foot", FORCE, 18),
    Figure("targets.surface", "Road, coefficient", size=18),
    Figure("pedal.travel_available", "Pad to floor", LENGTH, 18),
    Figure("master.stroke", "Stroke", LENGTH, 18),
    Figure("master.primary_stroke", "Primary chamber's", LENGTH, 18, optional=True),
    Figure("master.secondary_stroke", "Secondary chamber's", LENGTH, 18, optional=True),
    Figure("master.bar_max_angle", "Bar's stop", ANGLE, 18, optional=True),
)
SHUT_BY = (Figure("shuttle_volume", "Fluid that shuts it", VOLUME, 18),)
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
        self.rule = wrapped(
            words="Rule for comparison: UN Regulation No. 13-H, Annex 3 (from memory): with a half "
            "lost at least 2.44 m/s² at no more than 500 N. It says nothing of your local rules."
        )
        self.column.addWidget(self.rule)
        self.column.addStretch()
        self.lay_out(self.board)

    def _segments(
        self, words: dict[str, str], take: Callable[[str], None]
    ) -> tuple[dict[str, QToolButton], QWidget]:
        row_widget = QWidget()
        row = QHBoxLayout(row_widget)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(0)
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
        return f"{worst.name.lower()} is the worse: {worst.left:.2f} m/s² left"

    def show_figures(self) -> None:
        """Show the build as it is now."""
        build, master = self.session.build, self.session.build.master
        self.board.refresh()
        self.figures.refresh()
        self.shuttle.refresh()
        self.shuttle.setVisible(build.warning_switch == "shuts")
        tandem = isinstance(master, TandemMaster) and build.split == "front-rear"
        for widget in (self.feeding, self.feeding_row, self.asked):
            widget.setVisible(tandem)
        if isinstance(master, TandemMaster):
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

    def _feed(self, value: str) -> None:
        self.session.try_all({"master.primary_feeds": value}, f"Primary feeds the {value}")

    def _set_switch(self, value: str) -> None:
        changes: dict[str, object] = {"warning_switch": value}
        if value == "shuts" and self.session.build.shuttle_volume is None:
            changes["shuttle_volume"] = SHUTTLE
            changes['evidence["shuttle_volume"]'] = {"state": "assumed"}
        self.session.try_all(changes, f"Warning switch {value}")
