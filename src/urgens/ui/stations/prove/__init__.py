"""The Prove station: gauges, stops, logs, a simulated road and wear tell what the brakes do."""

from urgens.ui.session import Session
from urgens.ui.widgets.station import StationKind, counted, found_in

AREAS = ("proofs", "real_split")  # of findings that are seen here
PAGES = {
    "Gauges": "gauges_page:GaugesPage",
    "Stops": "stops_page:StopsPage",
    "Logs": "logs_page:LogsPage",
    "Test road": "road_page:RoadPage",
    "Real split": "split_page:SplitPage",
}


def _fact(session: Session) -> str:
    """Return what is wrong, else how many stops there are, else that nothing is proved."""
    if found_in(session, AREAS):
        return counted(found_in(session, AREAS), "")
    proof = session.build.proof
    stops = 0 if proof is None else len(proof.stops)
    if stops:
        return f"{stops} stop{'s' if stops > 1 else ''}"
    return "gauges read" if proof is not None and proof.gauges else "not yet"


def _judged(session: Session) -> bool:
    return bool(found_in(session, AREAS))


PROVE = StationKind(
    "Prove",
    "Alt+6",
    "prove.station:ProveStation",
    _fact,
    AREAS,
    judged=_judged,
    pages=tuple(PAGES),
    standing=("Gauges",),
    suffixes=(".csv", ".txt", ".tsv", ".mf4", ".mdf", ".parquet"),  # of logs
)
