"""The Trace station: what is seen, what it may come from, the next cheapest test."""

from collections.abc import Mapping
from typing import ClassVar

from urgens.ui.stations.trace import PAGES
from urgens.ui.widgets.paged import PagedStation


class TraceStation(PagedStation):
    """A fault followed to its cause; faults before it."""

    title, kinds = "Trace", PAGES
    sections: ClassVar[Mapping[str, str]] = {"traces": "Fault"}
    named: ClassVar[Mapping[str, str]] = {"sayings": "Sayings", "sign": "Fault"}
