"""The Prove station: what is measured on the vehicle, and what it says."""

from pathlib import Path

from PySide6.QtWidgets import QWidget

from urgens.ui.session import Session
from urgens.ui.stations.prove import PAGES
from urgens.ui.stations.prove.gauges_page import GaugesPage
from urgens.ui.stations.prove.logs_page import LogsPage
from urgens.ui.stations.prove.road_page import RoadPage
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
        if known:
            return page
        if isinstance(page, GaugesPage):
            page.place_asked.connect(self.place_asked)
            page.log_written.connect(self._note_log)
        elif isinstance(page, RoadPage):
            page.log_written.connect(self._open_log)
        return page

    def _note_log(self, path: Path) -> None:
        """Note a log that was written here among the logs."""
        page = self.page_at(self._names.index("Logs"))
        assert isinstance(page, LogsPage)  # it is its name
        page.open_file(path)

    def _open_log(self, path: Path) -> None:
        """Open a log that was written here, like any other."""
        self._note_log(path)
        self.show_page_named("Logs")

    def go_to(self, where: str) -> bool:
        """Show the page that a finding names."""
        for section, page in SECTIONS.items():
            if where.startswith(section):
                self.show_page_named(page)
                return True
        return False
