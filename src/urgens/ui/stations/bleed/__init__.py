"""The Bleed station: a procedure made for this layout, one card at a time, and its record."""

from urgens.document.ledger.records import ProcedureRun
from urgens.guidance import Severity
from urgens.guidance.condition.bleeding import bleeding
from urgens.guidance.condition.holds import condition
from urgens.ui.session import Session
from urgens.ui.widgets.station import StationKind, counted, found_in, worst

AREAS = ("joints", "proofs", "held")  # of findings that are mended here
PAGES = {
    "Card": "card_page:CardPage",
    "As it stands": "stands_page:StandsPage",
    "Joints": "joints_page:JointsPage",
    "Records": "records_page:RecordsPage",
    "Fluid": "fluid_page:FluidPage",
}

SHORT = {
    "front-left": "L front", "front-right": "R front",
    "rear-left": "L rear", "rear-right": "R rear",
}  # fmt: skip
OPEN = ("screw-open", "joint-open", "leak")  # holds that are dangers to whoever presses


def _fact(session: Session) -> str:
    """Return what stands open, else the step that is left, what is wrong, how far the bleeding is.

    It stands on every station: who goes away from a run that is paused takes it along.
    """
    found = condition(session.build)
    if found.open_wheels:
        first, more = found.open_wheels[0], len(found.open_wheels)
        return f"{SHORT[first]} open" if more == 1 else f"{more} screws open"
    going = _going(session)
    if going:
        return f"at step {going[-1].step}"
    if found.standing.fold.fitted:
        return "a tool still on"
    return counted(found_in(session, AREAS), "") or bleeding(found).words


def _going(session: Session) -> list[ProcedureRun]:
    return [record for record in session.build.records if record.ended is None]


def _mark(session: Session) -> Severity | None:
    """Return the worst of what is found, a danger where something was left open by no run."""
    found = condition(session.build)
    under_way = any(one.outcome == "going-on" for one in found.standing.runs)
    open_ = any(one.code in OPEN for one in found.holds) and not under_way
    return Severity.DANGER if open_ else worst(found_in(session, AREAS))


def _judged(session: Session) -> bool:
    """Return whether there is a mark to give: a danger, or the vehicle bled to its end."""
    return _mark(session) is not None or bleeding(condition(session.build)).done


BLEED = StationKind(
    "Bleed",
    "Alt+5",
    "bleed.station:BleedStation",
    _fact,
    AREAS,
    judged=_judged,
    pages=tuple(PAGES),
    standing=tuple(PAGES),
    own_mark=_mark,
)
