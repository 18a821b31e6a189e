"""The Trace station: from what is seen to the cause, a trainer for it, and sayings tried."""

from urgens.guidance import Severity
from urgens.guidance.tracing.open_faults import open_run
from urgens.ui.session import Session
from urgens.ui.widgets.station import Station, StationKind, found_in, worst

AREAS = ("open_faults",)  # of findings that are seen here
PAGES = {
    "Fault": "fault_page:FaultPage",
    "Before": "before_page:BeforePage",
    "Trainer": "trainer_page:TrainerPage",
    "Sayings": "sayings_page:SayingsPage",
}


def _make(session: Session) -> Station:
    from urgens.ui.stations.trace.station import TraceStation

    return TraceStation(session)


def _fact(session: Session) -> str:
    """Return how far the fault is that is followed."""
    found = open_run(session.base)
    if found is None:
        return "no fault"
    count = sum(one.seen for one in found[1].signs)
    return f"{count} sign{'s' if count != 1 else ''}"


def _mark(session: Session) -> Severity | None:
    return worst(found_in(session, AREAS))


def _judged(session: Session) -> bool:
    return bool(found_in(session, AREAS))


TRACE = StationKind(
    "Trace", "Alt+7", _make, _fact, _mark, judged=_judged, pages=tuple(PAGES), standing=tuple(PAGES)
)
