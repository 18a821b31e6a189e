"""The Size station: bore, pedal ratio, booster, travel and feel."""

from urgens.ui.session import Session
from urgens.ui.widgets.station import StationKind, counted, found_in

AREAS = ("sizing", "travel")  # of findings that Size can mend
PAGES = {
    "Map": "map_page:MapPage",
    "Wishes": "wishes_page:WishesPage",
    "Pedal": "pedal_page:PedalPage",
    "Booster": "booster_page:BoosterPage",
    "Feel": "feel_page:FeelPage",
    "Half lost": "half_page:HalfPage",
    "Launch": "launch_page:LaunchPage",
    "Heat": "heat_page:HeatPage",
    "Two cylinders": "cylinders_page:CylindersPage",
    "Set-ups": "setups_page:SetUpsPage",
    "Why?": "why_page:WhyPage",
}


def _fact(session: Session) -> str:
    ratio = float(session.solution.system.pedal_ratio)
    return counted(found_in(session, AREAS), f"ratio {ratio:.2f}")


SIZE = StationKind("Size", "Alt+2", "size.station:SizeStation", _fact, AREAS, pages=tuple(PAGES))
