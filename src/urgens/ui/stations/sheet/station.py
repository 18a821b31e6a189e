"""The Sheet station: the sheet, the plan, the history, and what differs."""

from collections.abc import Mapping
from typing import ClassVar

from urgens.ui.stations.sheet import PAGES
from urgens.ui.stations.sheet.compare_page import ComparePage
from urgens.ui.stations.sheet.history_page import HistoryPage
from urgens.ui.stations.sheet.ladder_page import LadderPage
from urgens.ui.stations.sheet.plan_page import PlanPage
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.paged import PagedStation


class SheetStation(PagedStation):
    """What is on record, and what is still to be done."""

    title, kinds = "Sheet", PAGES
    sections: ClassVar[Mapping[str, str]] = {
        "history": "History", "photographs": "Photographs",
    }  # fmt: skip
    named: ClassVar[Mapping[str, str]] = {"photographs": "Photographs", "plan": "Plan"}

    def made(self, page: Page) -> None:
        """Let the history show what a change came to, and the ladder the way to a set-up."""
        if isinstance(page, HistoryPage):
            page.compare_asked.connect(self._compare)
        elif isinstance(page, LadderPage):
            page.plan_asked.connect(self._plan)

    def _compare(self, entry: object) -> None:
        """Show what a change of the history came to."""
        self.show_page_named("Compare")
        page = self.page
        assert isinstance(page, ComparePage)  # it is its name
        page.compare_before(entry)

    def _plan(self, setup: str) -> None:
        """Show the way to a set-up."""
        self.show_page_named("Plan")
        page = self.page
        assert isinstance(page, PlanPage)  # it is its name
        page.aim_at(setup)
