"""The Balance station: valves set, chosen and trusted, a page each."""

from PySide6.QtWidgets import QWidget

from urgens.ui.session import Session
from urgens.ui.stations.balance.changed_page import ChangedPage
from urgens.ui.stations.balance.choose_page import ChoosePage
from urgens.ui.stations.balance.planes_page import PlanesPage
from urgens.ui.stations.balance.set_page import SetPage
from urgens.ui.stations.balance.speed_page import SpeedPage
from urgens.ui.stations.balance.sure_page import SurePage
from urgens.ui.stations.balance.valves_page import ValvesPage
from urgens.ui.widgets.paged import PagedStation, Pages

PAGES: Pages = (
    ("Set", SetPage),
    ("Choose", ChoosePage),
    ("How sure", SurePage),
    ("Planes", PlanesPage),
    ("Valves", ValvesPage),
    ("What changed?", ChangedPage),
    ("Speed", SpeedPage),
)
SET, CHOOSE, SURE, PLANES, VALVES, CHANGED, SPEED = range(len(PAGES))


class BalanceStation(PagedStation):
    """Pressures and what sets them, what else could be fitted, how sure it is."""

    def __init__(self, session: Session, parent: QWidget | None = None) -> None:
        super().__init__(session, "Balance", PAGES, parent)
        page = self.page_at(SET)
        assert isinstance(page, SetPage)
        self.pressures, self.adhesion = page.pressures, page.adhesion
        self.controls, self.locks = page.controls, page.locks
        self.view, self.fitted = page.view, page.fitted
