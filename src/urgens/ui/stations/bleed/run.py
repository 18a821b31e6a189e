"""One run of a procedure: where it is, and what of it goes into the build."""

from collections.abc import Callable
from datetime import datetime
from typing import Any

from urgens.document import Build, Change
from urgens.document.edit import dumped
from urgens.document.records import Record
from urgens.guidance.joints import held_by_joints
from urgens.guidance.procedures import Procedure, Step, procedure
from urgens.ui.session import Session

NAME = "bleed"


def now() -> str:
    """Return the time as a record has it."""
    return datetime.now().isoformat(timespec="minutes")


class Run:
    """The bleeding that is under way, kept in the build: it is there again after a restart."""

    def __init__(self, session: Session, clock: Callable[[], str] = now) -> None:
        self._session, self._clock = session, clock
        self._made: tuple[Build, str | None, Procedure] | None = None  # asked for many times a step

    @property
    def index(self) -> int | None:
        """Which of the build's records it is, None where none is under way."""
        records = self._session.base.records
        open_ = [i for i, one in enumerate(records) if one.procedure == NAME and one.ended is None]
        return open_[-1] if open_ else None

    @property
    def record(self) -> Record | None:
        """Its record."""
        index = self.index
        return None if index is None else self._session.base.records[index]

    def procedure(self, method: str | None) -> Procedure:
        """Return the procedure by the method of the run, else by one that is chosen."""
        record, build = self.record, self._session.build
        method = record.method if record else method
        if self._made is None or self._made[0] is not build or self._made[1] != method:
            self._made = build, method, procedure(build, NAME, method)
        return self._made[2]

    @property
    def held(self) -> str | None:
        """Why no run is to begin yet: a joint that is only started; None where none is."""
        return held_by_joints(self._session.build)

    @property
    def step(self) -> Step | None:
        """The step it is at, None where none is under way."""
        record = self.record
        if record is None:
            return None
        steps = self.procedure(None).steps
        # The build may have changed since: fewer steps than the record has come to.
        return steps[min(record.step, len(steps)) - 1] if steps else None

    @property
    def number(self) -> int:
        """The number of the step, from 1."""
        record = self.record
        return 1 if record is None else min(record.step, max(len(self.procedure(None).steps), 1))

    # --- into the build --------------------------------------------------------------------

    def begin(self, method: str) -> None:
        """Begin a run by a method."""
        fluid = self._session.build.fluid
        made: dict[str, Any] = {"procedure": NAME, "method": method, "started": self._clock()}
        if self._session.setup is not None:
            made["setup"] = self._session.setup
        if fluid is not None:
            made["fluid"] = {"class": fluid.grade}
        self._write([*self._rows(), made], "Bleeding begun")

    def go(self, by: int, readings: list[dict[str, Any]] | None = None) -> None:
        """Go on or back by a step; what was read goes into the record with the time."""
        index, record = self.index, self.record
        if index is None or record is None:
            return
        rows = self._rows()
        there = min(max(record.step + by, 1), len(self.procedure(None).steps))
        rows[index]["step"] = there
        at = max(self._clock(), record.started.isoformat(timespec="minutes"))
        more = [{"at": at, "step": record.step, **one} for one in readings or []]
        if more:
            rows[index]["entries"] = [*rows[index].get("entries", []), *more]
        self._write(rows, f"Bleeding, step {there}")

    def end(self, readings: list[dict[str, Any]] | None = None, checked_by: str = "") -> None:
        """Close the run: the last card is done."""
        index, record = self.index, self.record
        if index is None or record is None:
            return
        self.go(0, readings)
        rows = self._rows()
        # A clock that was set back meanwhile does not end it before it began.
        rows[index]["ended"] = max(self._clock(), record.started.isoformat(timespec="minutes"))
        if checked_by:
            rows[index]["checked_by"] = checked_by
        self._write(rows, "Bleeding done")

    def drop(self) -> None:
        """Take back a run that has read nothing yet, or close it where it stands."""
        index, record = self.index, self.record
        if index is None or record is None:
            return
        rows = self._rows()
        if record.entries:
            rows[index] |= {"ended": self._clock(), "note": f"left at step {record.step}"}
        else:
            del rows[index]
        self._write(rows, "Bleeding left")

    def _rows(self) -> list[dict[str, Any]]:
        rows: list[dict[str, Any]] = dumped(self._session.base).get("records", [])
        return rows

    def _write(self, rows: list[dict[str, Any]], label: str) -> None:
        self._session.make(Change(label, {"records": rows}), in_setup=False)
