"""The Measure station: everything that is taken with tape, scales and caliper."""

from collections import Counter

from urgens.document.facts import UNSEEN
from urgens.guidance import Severity
from urgens.ui.session import Session
from urgens.ui.widgets.station import StationKind


def _counts(session: Session) -> Counter[str]:
    """Return how many figures are assumed, planned and as typed."""
    return Counter(figure.state for figure in session.open_figures)


def _fact(session: Session) -> str:
    counts = _counts(session)
    for state in UNSEEN:
        if counts[state]:
            return f"{counts[state]} {state}"
    return f"{counts.total()} open" if counts else "all settled"


def _mark(session: Session) -> Severity | None:
    return Severity.WARNING if _counts(session)["assumed"] else None


def _judged(session: Session) -> bool:
    counts = _counts(session)
    return counts["assumed"] > 0 or not counts


MEASURE = StationKind(
    "Measure", "Alt+1", "measure.station:MeasureStation", _fact, judged=_judged, own_mark=_mark
)
