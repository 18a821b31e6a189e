"""The Size station: bore, pedal ratio, booster, travel and feel, a page each."""

from PySide6.QtWidgets import QWidget

from urgens.ui.session import Session
from urgens.ui.stations.size.booster_page import BoosterPage
from urgens.ui.stations.size.feel_page import FeelPage
from urgens.ui.stations.size.half_page import HalfPage
from urgens.ui.stations.size.heat_page import HeatPage
from urgens.ui.stations.size.launch_page import LaunchPage
from urgens.ui.stations.size.map_page import MapPage
from urgens.ui.stations.size.pedal_page import PedalPage
from urgens.ui.stations.size.setups_page import SetUpsPage
from urgens.ui.stations.size.why_page import WhyPage
from urgens.ui.widgets.paged import PagedStation, Pages

PAGES: Pages = (
    ("Map", MapPage),
    ("Pedal", PedalPage),
    ("Booster", BoosterPage),
    ("Feel", FeelPage),
    ("Half lost", HalfPage),
    ("Launch", LaunchPage),
    ("Heat", HeatPage),
    ("Set-ups", SetUpsPage),
    ("Why?", WhyPage),
)
MAP, PEDAL, BOOSTER, FEEL, HALF, LAUNCH, HEAT, SETUPS, WHY = range(len(PAGES))


class SizeStation(PagedStation):
    """Every real bore against every ratio, and what the choice means for the foot."""

    def __init__(self, session: Session, parent: QWidget | None = None) -> None:
        super().__init__(session, "Size", PAGES, parent)
        self.choose[WHY].setToolTip("?")
