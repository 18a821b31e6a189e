"""The Bleed station: the work card, and what was read before."""

from collections.abc import Mapping
from typing import ClassVar

from urgens.ui.stations.bleed import PAGES
from urgens.ui.stations.bleed.card_page import CardPage
from urgens.ui.widgets.paged import PagedStation

PROCEDURE = "procedure:"  # and its name: to be chosen on the card


class BleedStation(PagedStation):
    """One card at a time, and the history of what was done."""

    title, kinds = "Bleed", PAGES
    sections: ClassVar[Mapping[str, str]] = {
        "joints": "Joints", "records": "Records",
        "open_items": "As it stands", "noted": "As it stands",
    }  # fmt: skip

    def go_to(self, where: str) -> bool:
        """Show the joints, records or what holds it that a finding names, or a procedure's card."""
        if where.startswith(PROCEDURE):
            self.show_page_named("Card")
            card = self.page
            assert isinstance(card, CardPage)  # it is its name
            card.choose(where.removeprefix(PROCEDURE))
            return True
        return super().go_to(where)
