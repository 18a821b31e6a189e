"""The Balance station: pressures and what sets them, what else could be fitted, how sure it is."""

from urgens.guidance import Finding, Severity, area_of
from urgens.ui.session import Session
from urgens.ui.widgets.station import Station, StationKind, counted, worst

# Areas of findings that another station mends.
ELSEWHERE = (
    "sizing", "travel", "threads", "feeding", "line_limits", "fittings", "joints", "proofs",
    "real_split", "open_faults",
)  # fmt: skip
PAGES = {
    "Set": "set_page:SetPage",
    "Choose": "choose_page:ChoosePage",
    "How sure": "sure_page:SurePage",
    "Planes": "planes_page:PlanesPage",
    "Valves": "valves_page:ValvesPage",
    "What changed?": "changed_page:ChangedPage",
    "Speed": "speed_page:SpeedPage",
}


def _make(session: Session) -> Station:
    from urgens.ui.stations.balance.station import BalanceStation

    return BalanceStation(session)


def _found(session: Session) -> list[Finding]:
    return [finding for finding in session.findings if area_of(finding.code) not in ELSEWHERE]


def _fact(session: Session) -> str:
    return counted(_found(session), "front first")


def _mark(session: Session) -> Severity | None:
    return worst(_found(session))


BALANCE = StationKind("Balance", "Alt+3", _make, _fact, _mark, pages=tuple(PAGES))
