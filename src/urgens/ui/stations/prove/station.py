"""The Prove station: what is measured on the vehicle, and what it says."""

from collections.abc import Mapping
from pathlib import Path
from typing import ClassVar

from urgens.ui.stations.prove import PAGES
from urgens.ui.stations.prove.gauges_page import GaugesPage
from urgens.ui.stations.prove.logs_page import LogsPage
from urgens.ui.stations.prove.road_page import RoadPage
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.paged import PagedStation


class ProveStation(PagedStation):
    """Gauges, stops, logs, the test road, the real split."""

    title, kinds = "Prove", PAGES
    sections: ClassVar[Mapping[str, str]] = {
        "proof.gauges": "Gauges", "proof.stops": "Stops", "proof.logs": "Logs",
        "proof.wear": "Real split", "heat": "Real split",
    }  # fmt: skip

    def made(self, page: Page) -> None:
        """Let what is written at the gauges and on the road be opened among the logs."""
        if isinstance(page, GaugesPage):
            page.log_written.connect(self._note_log)
        elif isinstance(page, RoadPage):
            page.log_written.connect(self.take_file)

    def _note_log(self, path: Path) -> None:
        """Note a log that was written here among the logs."""
        page = self.page_at(self._names.index("Logs"))
        assert isinstance(page, LogsPage)  # it is its name
        page.open_file(path)

    def take_file(self, path: Path) -> None:
        """Open a log, whether it was written here or let go over the window."""
        self._note_log(path)
        self.show_page_named("Logs")
