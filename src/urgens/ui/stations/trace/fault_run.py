"""The fault that is followed goes into the build: each answer as one edit, outside all set-ups."""

from collections.abc import Collection
from datetime import datetime
from typing import Any

from urgens.document import BuildChange
from urgens.document.edits.edit import dumped
from urgens.document.ledger.traces import TraceRun
from urgens.guidance.tracing.open_faults import open_run
from urgens.ui.session import Session


class FaultRun:
    """Writes what was seen, tested and read into the run that is open, or begins one."""

    def __init__(self, session: Session) -> None:
        self._session = session

    @property
    def run(self) -> TraceRun | None:
        """The run that is open, None where no fault is followed."""
        found = open_run(self._session.base)
        return None if found is None else found[1]

    def see(self, sign: str, seen: bool, label: str, instead: Collection[str] = ()) -> None:
        """Note a sign as seen, or as looked for and not seen, instead of others."""
        rows, row = self._open()
        others = [one for one in row.get("signs", []) if one["sign"] not in (sign, *instead)]
        row["signs"] = [*others, {"at": now(), "sign": sign, "seen": seen}]
        self._put(rows, label)

    def answer(self, sign: str, answer: str, instead: Collection[str], label: str) -> None:
        """Note an answer to what a sign asks, instead of others; given again it is taken back."""
        rows, row = self._open()
        for one in row.get("signs", []):
            if one["sign"] == sign:
                given = list(one.get("how", []))
                one["how"] = [each for each in given if each not in (answer, *instead)]
                if answer not in given:
                    one["how"].append(answer)
        self._put(rows, label)

    def begin_at(self, since: datetime | None, label: str) -> None:
        """Note when the fault began, None where nobody knows any more."""
        rows, row = self._open()
        row["since"] = None if since is None else since.isoformat(timespec="minutes")
        self._put(rows, label)

    def unsee(self, sign: str) -> None:
        """Take a sign back."""
        rows, row = self._open()
        row["signs"] = [one for one in row.get("signs", []) if one["sign"] != sign]
        self._put(rows, "Sign taken back")

    def tell(self, test: str, outcome: str, label: str) -> None:
        """Note what a test showed; what it showed before is no longer so."""
        rows, row = self._open()
        others = [one for one in row.get("tests", []) if one["test"] != test]
        row["tests"] = [*others, {"at": now(), "test": test, "outcome": outcome}]
        self._put(rows, label)

    def untell(self, test: str) -> None:
        """Take what a test showed back."""
        rows, row = self._open()
        row["tests"] = [one for one in row.get("tests", []) if one["test"] != test]
        self._put(rows, "Test taken back")

    def read(self, reading: str, value: str, effort: str, how: tuple[str, ...] = ()) -> None:
        """Note a reading as it is typed, and how the vehicle was."""
        rows, row = self._open()
        one: dict[str, Any] = {"at": now(), "reading": reading, "value": value, "effort": effort}
        if how:
            one["how"] = list(how)
        row["readings"] = [*row.get("readings", []), one]
        self._put(rows, f"Reading {value} at {effort}")

    def unread(self, place: int) -> None:
        """Take a reading back."""
        rows, row = self._open()
        row["readings"] = [one for n, one in enumerate(row.get("readings", [])) if n != place]
        self._put(rows, "Reading taken back")

    def leave_out(self, name: str, out: bool, older: bool) -> None:
        """Leave something on record out, or let it count; `older` than the fault it is taken in."""
        rows, row = self._open()
        key, listed = ("taken_in", not out) if older else ("left_out", out)
        others = [one for one in row.get(key, []) if one != name]
        row[key] = [*others, name] if listed else others
        self._put(rows, f"{name} {'left out' if out else 'counts'}")

    def end(self, cause: str, mended: bool, label: str) -> None:
        """Close the run with the cause it came to."""
        rows, row = self._open()
        row.update(ended=now(), cause=cause, mended=mended)
        self._put(rows, label)

    def _open(self) -> tuple[list[dict[str, Any]], dict[str, Any]]:
        """Return all runs as JSON that may be changed, and the open one among them."""
        rows: list[dict[str, Any]] = dumped(self._session.base).get("traces") or []
        found = open_run(self._session.base)
        if found is None:
            rows.append({"started": now()})
            return rows, rows[-1]
        return rows, rows[found[0]]

    def _put(self, rows: list[dict[str, Any]], label: str) -> None:
        self._session.make(BuildChange(label, {"traces": rows}), in_setup=False)


def now() -> str:
    """Return the time as the build has it."""
    return datetime.now().isoformat(timespec="seconds")
