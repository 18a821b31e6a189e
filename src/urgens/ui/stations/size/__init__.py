"""The Size station: bore, pedal ratio, booster, travel and feel."""

from urgens.guidance import Finding, Severity, area_of
from urgens.ui.session import Session
from urgens.ui.widgets.station import Station, StationKind, counted, worst

AREAS = ("sizing", "travel")  # of findings that Size can mend
PAGES = {
    "Map": "map_page:MapPage",
    "Pedal": "pedal_page:PedalPage",
    "Booster": "booster_page:BoosterPage",
    "Feel": "feel_page:FeelPage",
    "Half lost": "half_page:HalfPage",
    "Launch": "launch_page:LaunchPage",
    "Heat": "heat_page:HeatPage",
    "Set-ups": "setups_page:SetUpsPage",
    "Why?": "why_page:WhyPage",
}


def _make(session: Session) -> Station:
    from urgens.ui.stations.size.station import SizeStation

    return SizeStation(session)


def _found(session: Session) -> list[Finding]:
    return [finding for finding in session.findings if area_of(finding.code) in AREAS]


def _fact(session: Session) -> str:
    ratio = float(session.solution.system.pedal_ratio)
    return counted(_found(session), f"ratio {ratio:.1f}")


def _mark(session: Session) -> Severity | None:
    return worst(_found(session))


SIZE = StationKind("Size", "Alt+2", _make, _fact, _mark, pages=tuple(PAGES))
