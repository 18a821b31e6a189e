"""The Sheet station: what goes on paper, the order of the work, what was done when."""

from urgens.ui.session import Session
from urgens.ui.widgets.station import StationKind

PAGES = {
    "Build sheet": "sheet_page:SheetPage",
    "Plan": "plan_page:PlanPage",
    "History": "history_page:HistoryPage",
    "Compare": "compare_page:ComparePage",
    "Ladder": "ladder_page:LadderPage",
    "Photographs": "photographs_page:PhotographsPage",
}


def _fact(session: Session) -> str:
    return "to print"


def _judged(session: Session) -> bool:
    return False


SHEET = StationKind(
    "Sheet", "Alt+8", "sheet.station:SheetStation", _fact, judged=_judged, pages=tuple(PAGES)
)
