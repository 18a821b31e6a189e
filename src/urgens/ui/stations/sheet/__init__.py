"""The Sheet station: the page as it will be printed."""

from urgens.ui.session import Session
from urgens.ui.widgets.station import Station, StationKind


def _make(session: Session) -> Station:
    from urgens.ui.stations.sheet.station import SheetStation

    return SheetStation(session)


def _fact(session: Session) -> str:
    return "to print"


def _judged(session: Session) -> bool:
    return False


SHEET = StationKind("Sheet", "Alt+8", _make, _fact, judged=_judged)
