"""The Measure station: everything that is taken with tape, scales and caliper."""

from urgens.guidance import Severity
from urgens.ui.session import Session
from urgens.ui.widgets.station import StationKind


def _counts(session: Session) -> tuple[int, int]:
    """Return how many figures are assumed, and how many are open in all."""
    figures = session.open_figures
    return sum(figure.state == "assumed" for figure in figures), len(figures)


def _fact(session: Session) -> str:
    assumed, still_open = _counts(session)
    if assumed:
        return f"{assumed} assumed"
    return f"{still_open} open" if still_open else "all settled"


def _mark(session: Session) -> Severity | None:
    return Severity.WARNING if _counts(session)[0] else None


def _judged(session: Session) -> bool:
    assumed, still_open = _counts(session)
    return assumed > 0 or still_open == 0


MEASURE = StationKind(
    "Measure", "Alt+1", "measure.station:MeasureStation", _fact, judged=_judged, own_mark=_mark
)
