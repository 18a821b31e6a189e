"""The Sheet station: the sheet, the plan, the history, and what differs."""

from PySide6.QtWidgets import QWidget

from urgens.ui.session import Session
from urgens.ui.stations.sheet import PAGES
from urgens.ui.stations.sheet.compare_page import ComparePage
from urgens.ui.stations.sheet.history_page import HistoryPage
from urgens.ui.stations.sheet.ladder_page import LadderPage
from urgens.ui.stations.sheet.photographs_page import PhotographsPage
from urgens.ui.stations.sheet.plan_page import PlanPage
from urgens.ui.stations.sheet.sheet_page import SheetPage
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.paged import PagedStation

PHOTOGRAPHS = "photographs"  # and what they are of: to be chosen


class SheetStation(PagedStation):
    """What is on record, and what is still to be done."""

    def __init__(self, session: Session, parent: QWidget | None = None) -> None:
        super().__init__(session, "Sheet", __package__, PAGES, parent=parent)

    def page_at(self, index: int) -> Page:
        """Return a page by its place; what it asks of the window is passed on."""
        known = index in self._made
        page = super().page_at(index)
        if not known and isinstance(page, SheetPage):
            page.command_requested.connect(self.command_requested)
        if not known and isinstance(page, PlanPage | HistoryPage):
            page.place_asked.connect(self.place_asked)
        if not known and isinstance(page, HistoryPage):
            page.compare_asked.connect(self._compare)
        if not known and isinstance(page, LadderPage):
            page.plan_asked.connect(self._plan)
        return page

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

    def go_to(self, where: str) -> bool:
        """Show the history, or the photographs of something, that a place names."""
        if where.startswith("history"):
            self.show_page_named("History")
            return True
        if where.startswith(PHOTOGRAPHS):
            self.show_page_named("Photographs")
            page = self.page
            assert isinstance(page, PhotographsPage)  # it is its name
            page.choose(where.removeprefix(PHOTOGRAPHS).removeprefix(":"))
            return True
        return False
