"""The Sheet station: what goes on paper, the order of the work, what was done when."""

from urgens.ui.session import Session
from urgens.ui.widgets.station import Station, StationKind

PAGES = {
    "Build sheet": "sheet_page:SheetPage",
    "Plan": "plan_page:PlanPage",
    "History": "history_page:HistoryPage",
    "Compare": "compare_page:ComparePage",
    "Ladder": "ladder_page:LadderPage",
    "Photographs": "photographs_page:PhotographsPage",
}


def _make(session: Session) -> Station:
    from urgens.ui.stations.sheet.station import SheetStation

    return SheetStation(session)


def _fact(session: Session) -> str:
    return "to print"


def _judged(session: Session) -> bool:
    return False


SHEET = StationKind("Sheet", "Alt+8", _make, _fact, judged=_judged, pages=tuple(PAGES))
