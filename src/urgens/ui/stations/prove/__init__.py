"""The Prove station: gauges, stops, logs, a simulated road and wear tell what the brakes do."""

from urgens.guidance import Finding, Severity, area_of
from urgens.ui.session import Session
from urgens.ui.widgets.station import Station, StationKind, counted, worst

AREAS = ("proofs", "real_split")  # of findings that are seen here
PAGES = {
    "Gauges": "gauges_page:GaugesPage",
    "Stops": "stops_page:StopsPage",
    "Logs": "logs_page:LogsPage",
    "Test road": "road_page:RoadPage",
    "Real split": "split_page:SplitPage",
}


def _make(session: Session) -> Station:
    from urgens.ui.stations.prove.station import ProveStation

    return ProveStation(session)


def _found(session: Session) -> list[Finding]:
    return [finding for finding in session.findings if area_of(finding.code) in AREAS]


def _mark(session: Session) -> Severity | None:
    return worst(_found(session))


def _fact(session: Session) -> str:
    """Return what is wrong, else how many stops there are, else that nothing is proved."""
    if _found(session):
        return counted(_found(session), "")
    proof = session.build.proof
    stops = 0 if proof is None else len(proof.stops)
    if stops:
        return f"{stops} stop{'s' if stops > 1 else ''}"
    return "gauges read" if proof is not None and proof.gauges else "not yet"


def _judged(session: Session) -> bool:
    return bool(_found(session))


PROVE = StationKind(
    "Prove", "Alt+6", _make, _fact, _mark, judged=_judged, pages=tuple(PAGES), standing=("Gauges",)
)
