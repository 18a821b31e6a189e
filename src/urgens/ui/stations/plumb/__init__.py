"""The Plumb station: the layout drawn from its parts, what it could be instead, its lines."""

from urgens.guidance import Severity
from urgens.ui.session import Session
from urgens.ui.widgets.station import Station, StationKind, counted, found_in, worst

AREAS = ("threads", "feeding", "line_limits", "fittings")  # of findings that are mended here
PAGES = {
    "Layout": "layout_page:LayoutPage",
    "Lines": "lines_page:LinesPage",
    "Ways": "ways_page:WaysPage",
    "Buy": "buy_page:BuyPage",
    "What is this block?": "key_page:KeyPage",
    "Old lines": "old_page:OldPage",
    "Room and sums": "sums_page:SumsPage",
}


def _make(session: Session) -> Station:
    from urgens.ui.stations.plumb.station import PlumbStation

    return PlumbStation(session)


def _fact(session: Session) -> str:
    if session.build.plumbing is None:
        return "not drawn"
    return counted(found_in(session, AREAS), "all joined")


def _mark(session: Session) -> Severity | None:
    return worst(found_in(session, AREAS))


def _judged(session: Session) -> bool:
    return session.build.plumbing is not None


PLUMB = StationKind(
    "Plumb", "Alt+4", _make, _fact, _mark, judged=_judged, pages=tuple(PAGES), standing=tuple(PAGES)
)
