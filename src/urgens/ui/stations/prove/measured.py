"""What is measured goes into the build: each as one edit, outside all set-ups."""

from datetime import datetime
from typing import Any

from urgens.bench.gauges.as_measured import valve_at
from urgens.document import BuildChange
from urgens.document.edits.edit import dumped
from urgens.ui.session import Session


def now() -> str:
    """Return the time as the build has it."""
    return datetime.now().isoformat(timespec="seconds")


def proof_of(session: Session) -> dict[str, Any]:
    """Return what is measured so far, as JSON that may be changed."""
    found: dict[str, Any] = dumped(session.base).get("proof") or {}
    return found


def put(session: Session, section: str, rows: list[dict[str, Any]], label: str) -> None:
    """Write a list of the proof anew; what is refused is said by the session."""
    session.make(
        BuildChange(label, {"proof": {**proof_of(session), section: rows}}), in_setup=False
    )


def rows_of(session: Session, section: str) -> list[dict[str, Any]]:
    """Return a list of the proof, as JSON that may be changed."""
    found: list[dict[str, Any]] = proof_of(session).get(section, [])
    return found


def _begun(session: Session, rows: list[dict[str, Any]], valve: str, gauge: dict[str, Any]) -> int:
    """Add a run of a valve's gauges without a reading; return its place."""
    kind = valve_at(session.build, valve).kind
    rows.append({"at": now(), "valve": valve, "kind": kind, **gauge, "points": []})
    return len(rows) - 1


def begin_anew(session: Session, valve: str, run: int, gauge: dict[str, Any]) -> None:
    """Begin another run of a valve; the one before stays on record and no longer counts."""
    rows = rows_of(session, "gauges")
    rows[run]["counts"] = False
    _begun(session, rows, valve, gauge)
    put(session, "gauges", rows, "Gauges read again from 0")


def add_reading(
    session: Session,
    valve: str,
    run: int | None,
    point: tuple[str, str, str],
    gauge: dict[str, Any],
) -> None:
    """Add a pair of pressures, as typed, to a run of gauges, or begin one with it."""
    _add(session, valve, run, gauge, ("points", list(point), f"Reading at {point[0]}"))


def add_lever(
    session: Session,
    valve: str,
    run: int | None,
    point: tuple[float, str, str],
    gauge: dict[str, Any],
) -> None:
    """Add a reading with the lever moved by hand to a run of gauges, or begin one with it."""
    _add(session, valve, run, gauge, ("lever", list(point), f"Lever at {100 * point[0]:.0f} %"))


def _add(
    session: Session,
    valve: str,
    run: int | None,
    gauge: dict[str, Any],
    what: tuple[str, list[Any], str],
) -> None:
    """Add to one of a run's lists, under a label."""
    rows, (section, point, label) = rows_of(session, "gauges"), what
    run = _begun(session, rows, valve, gauge) if run is None else run
    rows[run][section] = [*rows[run].get(section, []), point]
    put(session, "gauges", rows, label)


def drop_lever(session: Session, run: int, place: int) -> None:
    """Take a reading of the lever out of a run."""
    rows = rows_of(session, "gauges")
    rows[run]["lever"].pop(place)
    put(session, "gauges", rows, "Reading of the lever taken out")


def drop_reading(session: Session, run: int, place: int) -> None:
    """Take a pair of pressures out of a run."""
    rows = rows_of(session, "gauges")
    gone = rows[run]["points"].pop(place)
    put(session, "gauges", rows, f"Reading at {gone[0]} taken out")
