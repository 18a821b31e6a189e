"""The Size station: bore, pedal ratio, booster, travel and feel, a page each."""

from PySide6.QtWidgets import QWidget

from urgens.ui.session import Session
from urgens.ui.stations.size import PAGES
from urgens.ui.stations.size.why_page import WhyPage
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.paged import Needs, PagedStation
from urgens.ui.widgets.plain import point_out

# where findings point that stand on no drawing
_WHERE = {"vehicle.launch": "Launch", "booster": "Booster", "master": "Map"}

NEEDS: Needs = {
    "Booster": lambda build: build.booster.fitted,
    "Launch": lambda build: build.vehicle.launch is not None,
}
SELDOM = ("Why?", "Heat", "Set-ups")


class SizeStation(PagedStation):
    """Every real bore against every ratio, and what the choice means for the foot."""

    def __init__(self, session: Session, parent: QWidget | None = None) -> None:
        super().__init__(session, "Size", __package__, PAGES, NEEDS, SELDOM, parent)
        point_out(self.choose[list(PAGES).index("Why?")], "?")

    def page_at(self, index: int) -> Page:
        """Return a page by its place; what it asks of other stations is passed on."""
        known = index in self._made
        page = super().page_at(index)
        if not known and isinstance(page, WhyPage):
            page.place_asked.connect(self.place_asked)
        return page

    def go_to(self, where: str) -> bool:
        """Show the page of a part; tell whether it has one."""
        if where in _WHERE:
            self.show_page_named(_WHERE[where])
        return where in _WHERE
