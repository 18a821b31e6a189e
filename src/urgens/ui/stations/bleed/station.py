"""The Bleed station: the work card, and what was read before."""

from collections.abc import Mapping
from typing import ClassVar

from urgens.ui.stations.bleed import PAGES
from urgens.ui.widgets.paged import PagedStation


class BleedStation(PagedStation):
    """One card at a time, how the vehicle stands, and the history of what was done."""

    title, kinds = "Bleed", PAGES
    sections: ClassVar[Mapping[str, str]] = {
        "joints": "Joints", "records": "Records",
        "open_items": "As it stands", "noted": "As it stands",
    }  # fmt: skip
    named: ClassVar[Mapping[str, str]] = {"procedure": "Card"}
