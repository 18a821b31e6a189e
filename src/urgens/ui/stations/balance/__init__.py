"""The Balance station: pressures and what sets them, what else could be fitted, how sure it is."""

from urgens.ui.session import Session
from urgens.ui.widgets.station import StationKind, counted, found_in

# Areas of findings that no other station mends.
AREAS = ("assumed", "balance", "circuit", "parts_match", "residual", "tyre_grip")
PAGES = {
    "Set": "set_page:SetPage",
    "Choose": "choose_page:ChoosePage",
    "How sure": "sure_page:SurePage",
    "Planes": "planes_page:PlanesPage",
    "Valves": "valves_page:ValvesPage",
    "What changed?": "changed_page:ChangedPage",
    "Speed": "speed_page:SpeedPage",
}


def _fact(session: Session) -> str:
    return counted(found_in(session, AREAS), "front first")


BALANCE = StationKind(
    "Balance", "Alt+3", "balance.station:BalanceStation", _fact, AREAS, pages=tuple(PAGES)
)
