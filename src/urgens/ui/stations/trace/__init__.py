"""The Trace station: from what is seen to the cause, a trainer for it, and sayings tried."""

from urgens.guidance.tracing.open_faults import open_run
from urgens.ui.session import Session
from urgens.ui.widgets.station import StationKind, found_in

AREAS = ("open_faults",)  # of findings that are seen here
PAGES = {
    "Fault": "fault_page:FaultPage",
    "Before": "before_page:BeforePage",
    "Trainer": "trainer_page:TrainerPage",
    "Sayings": "sayings_page:SayingsPage",
}


def _fact(session: Session) -> str:
    """Return how far the fault is that is followed."""
    found = open_run(session.base)
    if found is None:
        return "no fault"
    count = sum(one.seen for one in found[1].signs)
    return f"{count} sign{'s' if count != 1 else ''}"


def _judged(session: Session) -> bool:
    return bool(found_in(session, AREAS))


TRACE = StationKind(
    "Trace",
    "Alt+7",
    "trace.station:TraceStation",
    _fact,
    AREAS,
    judged=_judged,
    pages=tuple(PAGES),
    standing=tuple(PAGES),
)
