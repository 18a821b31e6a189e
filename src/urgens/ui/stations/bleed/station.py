"""The Bleed station: the work card, and what was read before."""

from PySide6.QtWidgets import QWidget

from urgens.ui.session import Session
from urgens.ui.stations.bleed import PAGES
from urgens.ui.stations.bleed.card_page import CardPage
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.paged import PagedStation

PROCEDURE = "procedure:"  # and its name: to be chosen on the card


class BleedStation(PagedStation):
    """One card at a time, and the history of what was done."""

    def __init__(self, session: Session, parent: QWidget | None = None) -> None:
        super().__init__(session, "Bleed", __package__, PAGES, parent=parent)

    def page_at(self, index: int) -> Page:
        """Return a page by its place; what it asks of other stations is passed on."""
        known = index in self._made
        page = super().page_at(index)
        if not known and isinstance(page, CardPage):
            page.place_asked.connect(self.place_asked)
        return page

    def go_to(self, where: str) -> bool:
        """Show the joints, records or open items that a finding names, or a procedure's card."""
        if where.startswith(PROCEDURE):
            self.show_page_named("Card")
            card = self.page
            assert isinstance(card, CardPage)  # it is its name
            card.choose(where.removeprefix(PROCEDURE))
            return True
        for section, page in (
            ("joints", "Joints"),
            ("records", "Records"),
            ("open_items", "Open items"),
        ):
            if where.startswith(section):
                self.show_page_named(page)
                return True
        return False
