"""The Trace station: what is seen, what it may come from, the next cheapest test."""

from collections.abc import Mapping
from typing import ClassVar

from urgens.ui.stations.trace import PAGES
from urgens.ui.stations.trace.sayings_page import SayingsPage
from urgens.ui.widgets.paged import PagedStation

SAYING = "sayings:"  # and its id: to be looked at


class TraceStation(PagedStation):
    """A fault followed to its cause; faults before it."""

    title, kinds = "Trace", PAGES
    sections: ClassVar[Mapping[str, str]] = {"traces": "Fault"}

    def go_to(self, where: str) -> bool:
        """Show the fault that a finding names."""
        if where.startswith(SAYING):
            self.show_page_named("Sayings")
            page = self.page
            assert isinstance(page, SayingsPage)  # it is its name
            page.choose(where.removeprefix(SAYING) or page.name)
            return True
        return super().go_to(where)
