"""The Trace station: what is seen, what it may come from, the next cheapest test."""

from collections.abc import Mapping
from typing import ClassVar

from urgens.ui.stations.trace import PAGES
from urgens.ui.stations.trace.fault_page import FaultPage
from urgens.ui.stations.trace.sayings_page import SayingsPage
from urgens.ui.widgets.paged import PagedStation

SAYING = "sayings:"  # and its id: to be looked at
SIGN = "sign:"  # and its id: seen, to be followed


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
        if where.startswith(SIGN):
            self.show_page_named("Fault")
            page = self.page
            assert isinstance(page, FaultPage)  # it is its name
            page.see(where.removeprefix(SIGN))
            return True
        return super().go_to(where)
