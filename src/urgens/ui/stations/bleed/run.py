"""One run of a procedure: where it is, and what of it goes into the build."""

from collections.abc import Callable
from datetime import datetime
from typing import Any

from urgens.document import Build, BuildChange
from urgens.document.edits.edit import dumped
from urgens.document.ledger.records import ProcedureRun
from urgens.guidance.condition.deeds import MOVING, shown
from urgens.guidance.condition.joints import held_by_joints, opened_since_bled
from urgens.guidance.condition.proofs import held_from_moving, procedure_now
from urgens.guidance.procedures import NAMES, Procedure, ProcedureStep
from urgens.guidance.procedures.rebleed import opened_by
from urgens.ui.session import Session

BLEED = "bleed"
AGAIN = "rebleed"
PRESSED = (BLEED, AGAIN)  # what no joint may only be started for
NOT_OPENED = (
    "no joint is noted as opened since the last bleeding: note what was open under Joints, as tight"
)


def now() -> str:
    """Return the time as a record has it."""
    return datetime.now().isoformat(timespec="minutes")


class CurrentRun:
    """What is under way, kept in the build: it is there again after a restart."""

    def __init__(self, session: Session, clock: Callable[[], str] = now) -> None:
        self._session, self._clock = session, clock
        self._made: tuple[Build, tuple[str, str | None], Procedure] | None = None  # asked for often
        self.name = self.index_name() or BLEED

    def index_name(self) -> str | None:
        """Return the name of the run that is under way, the last begun of them; None: none is."""
        open_ = [
            one.procedure
            for one in self._session.base.records
            if one.ended is None and one.procedure in NAMES
        ]
        return open_[-1] if open_ else None

    @property
    def index(self) -> int | None:
        """Which of the build's records it is, None where none of its name is under way."""
        records = self._session.base.records
        open_ = [
            i for i, one in enumerate(records) if one.procedure == self.name and one.ended is None
        ]
        return open_[-1] if open_ else None

    @property
    def record(self) -> ProcedureRun | None:
        """Its record."""
        index = self.index
        return None if index is None else self._session.base.records[index]

    def procedure(self, method: str | None) -> Procedure:
        """Return the procedure by the method of the run, else by one that is chosen."""
        record, build = self.record, self._session.build
        method = record.method if record else method
        asked = self.name, method if self.name == BLEED else None
        if self._made is None or self._made[0] is not build or self._made[1] != asked:
            opened = self._opened() if self.name == AGAIN else ()
            self._made = build, asked, procedure_now(build, *asked, opened)
        return self._made[2]

    def _opened(self) -> tuple[str, ...]:
        """Return what was open: joints noted so, and with a set-up chosen what it changes."""
        session = self._session
        changed = opened_by(session.base, session.build) if session.setup is not None else ()
        return tuple(dict.fromkeys((*opened_since_bled(session.build), *changed)))

    @property
    def held(self) -> str | None:
        """Why no run is to begin yet; None where nothing stands against it."""
        build = self._session.build
        if self.name == AGAIN and not self._opened():
            return NOT_OPENED
        if self.name in PRESSED:
            return held_by_joints(build)
        if self.name == MOVING:
            return "; ".join(held_from_moving(build)) or None
        return None

    @property
    def may_be_overridden(self) -> bool:
        """Whether what holds it may be set aside with a reason, which is then recorded."""
        return self.name == MOVING

    @property
    def step(self) -> ProcedureStep | None:
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

    @property
    def last(self) -> bool:
        """Whether it is at its last card."""
        return self.number >= len(self.procedure(None).steps)

    # --- into the build --------------------------------------------------------------------

    def begin(self, method: str, anies: dict[str, Any] | None = None) -> None:
        """Begin a run by a method; anies: people, fluid and more, as a record has them."""
        made: dict[str, Any] = {"procedure": self.name, "started": self._clock()}
        made["steps"] = [
            step.model_dump(mode="json", exclude_defaults=True)
            for step in shown(self.procedure(method).steps)
        ]
        if self.name == BLEED:
            made["method"] = method
        if self._session.setup is not None:
            made["setup"] = self._session.setup
        self._write([*self._rows(), {**made, **(anies or {})}], f"{self.name} begun")

    def go(self, by: int, readings: list[dict[str, Any]] | None = None) -> None:
        """Go on or back by a step; what was read goes into the record with the time."""
        index, record = self.index, self.record
        if index is None or record is None:
            return
        rows = self._rows()
        there = min(max(record.step + by, 1), len(self.procedure(None).steps))
        rows[index]["step"] = there
        more = [{"at": self._at(record), "step": record.step, **one} for one in readings or []]
        if more:
            rows[index]["entries"] = [*rows[index].get("entries", []), *more]
        self._write(rows, f"{self.name}, step {there}")

    def end(self, readings: list[dict[str, Any]] | None = None, checked_by: str = "") -> None:
        """Close the run: the last card is done."""
        index, record = self.index, self.record
        if index is None or record is None:
            return
        self.go(0, readings)
        rows = self._rows()
        rows[index] |= {"ended": self._at(record), "outcome": "finished"}
        if checked_by:
            rows[index]["checked_by"] = checked_by
        self._write(rows, f"{self.name} done")

    def give_up(self) -> None:
        """Take back a run that has done nothing yet, or end it where it stands, as given up."""
        index, record = self.index, self.record
        if index is None or record is None:
            return
        rows = self._rows()
        if record.entries or record.step > 1:
            rows[index] |= {"ended": self._at(record), "outcome": "given-up"}
        else:
            del rows[index]
        self._write(rows, f"{self.name} given up")

    def _at(self, record: ProcedureRun) -> str:
        """Return the time; a clock that was set back meanwhile stands at the start of the run."""
        return max(self._clock(), record.started.isoformat(timespec="minutes"))

    def _rows(self) -> list[dict[str, Any]]:
        rows: list[dict[str, Any]] = dumped(self._session.base).get("records", [])
        return rows

    def _write(self, rows: list[dict[str, Any]], label: str) -> None:
        self._session.make(BuildChange(label, {"records": rows}), in_setup=False)
