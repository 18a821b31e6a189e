"""The Size station: bore, pedal ratio, booster, travel and feel, a page each."""

from PySide6.QtWidgets import QWidget

from urgens.ui.session import Session
from urgens.ui.stations.size import PAGES
from urgens.ui.stations.size.booster_page import BoosterPage
from urgens.ui.stations.size.feel_page import FeelPage
from urgens.ui.stations.size.half_page import HalfPage
from urgens.ui.stations.size.heat_page import HeatPage
from urgens.ui.stations.size.launch_page import LaunchPage
from urgens.ui.stations.size.map_page import MapPage
from urgens.ui.stations.size.pedal_page import PedalPage
from urgens.ui.stations.size.setups_page import SetUpsPage
from urgens.ui.stations.size.why_page import WhyPage
from urgens.ui.widgets.paged import PagedStation

_KINDS = (MapPage, PedalPage, BoosterPage, FeelPage, HalfPage, LaunchPage, HeatPage, SetUpsPage,
          WhyPage)  # fmt: skip
# where findings point that stand on no drawing
_WHERE = {"vehicle.launch": "Launch", "booster": "Booster", "master": "Map"}


class SizeStation(PagedStation):
    """Every real bore against every ratio, and what the choice means for the foot."""

    def __init__(self, session: Session, parent: QWidget | None = None) -> None:
        super().__init__(session, "Size", tuple(zip(PAGES, _KINDS, strict=True)), parent)
        self.choose[PAGES.index("Why?")].setToolTip("?")

    def go_to(self, where: str) -> bool:
        """Show the page of a part; tell whether it has one."""
        if where in _WHERE:
            self.show_page_named(_WHERE[where])
        return where in _WHERE
