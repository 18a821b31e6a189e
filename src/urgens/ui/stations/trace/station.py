"""The Trace station: what is seen, what it may come from, the next cheapest test."""

from PySide6.QtWidgets import QWidget

from urgens.ui.session import Session
from urgens.ui.stations.trace import PAGES
from urgens.ui.stations.trace.fault_page import FaultPage
from urgens.ui.stations.trace.sayings_page import SayingsPage
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.paged import PagedStation

SAYING = "sayings:"  # and its id: to be looked at


class TraceStation(PagedStation):
    """A fault followed to its cause; faults before it."""

    def __init__(self, session: Session, parent: QWidget | None = None) -> None:
        super().__init__(session, "Trace", __package__, PAGES, parent=parent)

    def page_at(self, index: int) -> Page:
        """Return a page by its place; what it asks of other stations is passed on."""
        known = index in self._made
        page = super().page_at(index)
        if not known and isinstance(page, FaultPage):
            page.place_asked.connect(self.place_asked)
        return page

    def go_to(self, where: str) -> bool:
        """Show the fault that a finding names."""
        if where.startswith("traces"):
            self.show_page_named("Fault")
            return True
        if where.startswith(SAYING):
            self.show_page_named("Sayings")
            page = self.page
            assert isinstance(page, SayingsPage)  # it is its name
            page.choose(where.removeprefix(SAYING) or page.name)
            return True
        return False
