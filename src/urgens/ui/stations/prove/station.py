"""The Prove station: what is measured on the vehicle, and what it says."""

from PySide6.QtWidgets import QWidget

from urgens.ui.session import Session
from urgens.ui.stations.prove import PAGES
from urgens.ui.stations.prove.gauges_page import GaugesPage
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.paged import PagedStation

SECTIONS = {"proof.gauges": "Gauges", "proof.stops": "Stops", "proof.logs": "Logs",
            "proof.wear": "Real split", "heat": "Real split"}  # fmt: skip


class ProveStation(PagedStation):
    """Gauges, stops, logs, the test road, the real split."""

    def __init__(self, session: Session, parent: QWidget | None = None) -> None:
        super().__init__(session, "Prove", __package__, PAGES, parent=parent)

    def page_at(self, index: int) -> Page:
        """Return a page by its place; what it asks of other stations is passed on."""
        known = index in self._made
        page = super().page_at(index)
        if not known and isinstance(page, GaugesPage):
            page.card_asked.connect(self.place_asked)
        return page

    def go_to(self, where: str) -> bool:
        """Show the page that a finding names."""
        for section, page in SECTIONS.items():
            if where.startswith(section):
                self.show_page_named(page)
                return True
        return False
