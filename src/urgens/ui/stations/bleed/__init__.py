"""The Bleed station: a procedure made for this layout, one card at a time, and its record."""

from urgens.ui.session import Session
from urgens.ui.widgets.station import StationKind, counted, found_in

AREAS = ("joints", "proofs")  # of findings that are mended here
PAGES = {
    "Card": "card_page:CardPage",
    "Joints": "joints_page:JointsPage",
    "Records": "records_page:RecordsPage",
    "Open items": "items_page:ItemsPage",
    "Fluid": "fluid_page:FluidPage",
}


def _fact(session: Session) -> str:
    """Return what is wrong, else the step that is left, else whether it was bled."""
    if found_in(session, AREAS):
        return counted(found_in(session, AREAS), "")
    open_ = [record for record in session.build.records if record.ended is None]
    if open_:
        return f"at step {open_[-1].step}"
    return "bled" if any(one.procedure == "bleed" for one in session.build.records) else "not yet"


def _judged(session: Session) -> bool:
    runs = [record for record in session.build.records if record.procedure == "bleed"]
    return bool(runs) and runs[-1].ended is not None


BLEED = StationKind(
    "Bleed",
    "Alt+5",
    "bleed.station:BleedStation",
    _fact,
    AREAS,
    judged=_judged,
    pages=tuple(PAGES),
    standing=tuple(PAGES),
)
