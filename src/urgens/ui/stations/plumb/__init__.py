"""The Plumb station: the layout drawn from its parts, what it could be instead, its lines."""

from urgens.ui.session import Session
from urgens.ui.widgets.station import StationKind, counted, found_in

AREAS = ("threads", "feeding", "line_limits", "fittings", "switches")  # mended here
PAGES = {
    "Layout": "layout_page:LayoutPage",
    "Lines": "lines_page:LinesPage",
    "Ways": "ways_page:WaysPage",
    "Buy": "buy_page:BuyPage",
    "What is this block?": "key_page:KeyPage",
    "Old lines": "old_page:OldPage",
    "Room and sums": "sums_page:SumsPage",
}


def _fact(session: Session) -> str:
    if session.build.plumbing is None:
        return "not drawn"
    return counted(found_in(session, AREAS), "all joined")


def _judged(session: Session) -> bool:
    return session.build.plumbing is not None


PLUMB = StationKind(
    "Plumb",
    "Alt+4",
    "plumb.station:PlumbStation",
    _fact,
    AREAS,
    judged=_judged,
    pages=tuple(PAGES),
    standing=tuple(PAGES),
)
