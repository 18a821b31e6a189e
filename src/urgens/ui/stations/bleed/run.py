"""One run of a procedure: where it is, and what of it goes into the build."""

from collections.abc import Callable
from datetime import datetime, timedelta
from operator import is_
from typing import Any

from urgens.document import Build, BuildChange
from urgens.document.edits.edit import dumped
from urgens.document.ledger.records import ProcedureRun, RecordEntry
from urgens.guidance.condition.deeds import MOVING, asking, shown
from urgens.guidance.condition.holds import condition
from urgens.guidance.condition.joints import held_by_joints, opened_since_bled
from urgens.guidance.condition.proofs import held_from_moving, procedure_now
from urgens.guidance.procedures import NAMES, Facts, Procedure, ProcedureStep
from urgens.guidance.procedures.rebleed import opened_by
from urgens.guidance.procedures.shuttle import NAME as RESET
from urgens.quantity import Units
from urgens.ui.session import Session
from urgens.ui.session.undo import UndoDrag

BLEED = "bleed"
AGAIN = "rebleed"
OPENING = ("open", "loosen")  # what stands open until it is shut or tight again
PAIRS = {"fit": "remove", "remove": "fit"}  # what undoes what
PRESSED = (BLEED, AGAIN)  # what no joint may only be started for
NOT_OPENED = (
    "no joint is noted as opened since the last bleeding: note what was open under Joints, as tight"
)


def now(to: str = "minutes") -> str:
    """Return the time as a record has it."""
    return datetime.now().isoformat(timespec=to)


class CurrentRun:
    """What is under way, kept in the build: it is there again after a restart."""

    def __init__(self, session: Session, clock: Callable[..., str] = now) -> None:
        self._session, self._clock = session, clock
        self._said: tuple[tuple[Procedure, Build, Units], dict[str, str], Procedure] | None = None
        self._made: tuple[Build, tuple[str, str | None], Procedure] | None = None  # asked for often
        self._fitting: tuple[ProcedureRun, Procedure, bool] | None = None  # asked for often
        self._counting: UndoDrag | None = None
        self._bled: tuple[datetime, frozenset[str]] | None = None
        self.name = self.index_name() or BLEED
        self.shut_off: str | None = None  # the end that a switch has, once it is said

    @property
    def units(self) -> Units:
        """The units that are shown."""
        return self._session.units

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
        """Return the procedure by the method of the run, else by one that is chosen.

        A run that is under way keeps the one it was begun with, as long as it can be had: what is
        done meanwhile makes its steps no others.
        """
        record, build = self.record, self._session.build
        asked = self.name, record.method if record else self._way(method)
        same = self._made is not None and self._made[1] == asked
        if not (self._made is not None and same and (self._made[0] is build or self._fits(record))):
            opened = self._opened() if self.name == AGAIN else ()
            self._made = build, asked, procedure_now(build, *asked, opened)
        return self._in_words(self._made[2])

    def _way(self, method: str | None) -> str | None:
        """Return what is chosen of the procedure; method: of bleeding."""
        if self.name == RESET:
            return self.shut_off
        return method if self.name == BLEED else None

    def _in_words(self, made: Procedure) -> Procedure:
        """Return a procedure with the figures of its sentences, in the units shown."""
        asked = made, self._session.build, self._session.units
        before = self._said
        if before is not None and all(map(is_, before[0], asked)):
            return before[2]
        figures = Facts(asked[1]).figures(asked[2])
        same = before is not None and before[0][0] is made and before[1] == figures
        said = before[2] if before is not None and same else made.spelt(figures)
        self._said = asked, figures, said  # an edit beside its figures leaves it the same
        return said

    def _fits(self, record: ProcedureRun | None) -> bool:
        """Tell whether the procedure at hand is the one that a run was shown."""
        made = self._made
        if record is None or made is None or not record.steps:
            return False
        kept = self._fitting
        if kept is None or kept[0] is not record or kept[1] is not made[2]:
            kept = self._fitting = record, made[2], shown(made[2].steps) == record.steps
        return kept[2]

    @property
    def stale(self) -> bool:
        """Whether the build has changed so that the steps of the run are others now."""
        record = self.record
        self.procedure(None)
        return bool(record and record.steps) and not self._fits(record)

    @property
    def begun(self) -> bool:
        """Whether the run has done or read anything yet."""
        record = self.record
        return bool(record and (record.entries or record.step > 1 or record.done))

    @property
    def passed_over(self) -> int:
        """How many steps that ask were done without an answer."""
        record = self.record
        if record is None:
            return 0
        asks = asking(self.name, record.steps or shown(self.procedure(None).steps))
        answered = {(one.step, one.field) for one in record.entries}
        done = set(self._done(record)) & asks.keys()
        return sum((number, asks[number].field) not in answered for number in done)

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
        way = self._way(method)
        if way is not None:
            made["method"] = way
        if self._session.setup is not None:
            made["setup"] = self._session.setup
        self._write([*self._rows(), {**made, **(anies or {})}], f"{self.name} begun")

    def go(
        self, by: int, readings: list[dict[str, Any]] | None = None, *, filled: bool = False
    ) -> None:
        """Go on or back by a step; what was read goes into the record with the time.

        filled: whether the reservoirs were filled at it.
        """
        index, record = self.index, self.record
        if index is None or record is None:
            return
        rows = self._rows_with(readings)
        there = min(max(record.step + by, 1), len(self.procedure(None).steps))
        done = self._done(record)
        if by > 0:
            done.append(record.step)
        elif there < record.step:
            self._take_back(done, there)
        self._stand_at(rows[index], there, done)
        if filled:
            rows[index].pop("since_filled", None)
        self._write(rows, f"{self.name}, step {there}")

    @property
    def back_to(self) -> int | None:
        """Where what ends at its step begins once more, None where it is no end of a loop."""
        return None if self.step is None else self.procedure(None).back_to(self.number)

    @property
    def round(self) -> int:
        """How often the loop that its step belongs to has been begun, 0 outside of one."""
        record, steps = self.record, self.procedure(None).steps
        for number in range(self.number, 0, -1) if record is not None else ():
            if steps[number - 1].loop == "begin":
                assert record is not None
                return record.done.count(number) + (number == self.number)
            if steps[number - 1].loop == "end" and number != self.number:
                return 0
        return 0

    @property
    def bled_before(self) -> frozenset[str]:
        """The wheels that were bled when the run was begun; looked up once for each run."""
        record = self.record
        if record is None:
            return frozenset()
        if self._bled is None or self._bled[0] != record.started:
            before = condition(self._session.base, record.started - timedelta(minutes=1))
            wheels = before.standing.wheels.items()
            self._bled = record.started, frozenset(w for w, one in wheels if one == "bled")
        return self._bled[1]

    @property
    def strokes_before(self) -> int:
        """The strokes that earlier rounds have made at its step."""
        record = self.record
        if record is None or self.step is None:
            return 0
        wheel = next(iter(self.step.wheels), None)
        return round(sum(
            float(one.value) for one in record.entries
            if one.step == record.step and one.field == "strokes" and one.wheel in (None, wheel)
        ))  # fmt: skip

    def again(self, readings: list[dict[str, Any]] | None = None) -> None:
        """Do what was done until clear once more: the step is done, and its loop begins again."""
        index, record, back_to = self.index, self.record, self.back_to
        if index is None or record is None or back_to is None:
            return
        rows = self._rows_with(readings)
        self._stand_at(rows[index], back_to, [*self._done(record), record.step])
        self._write(rows, f"{self.name}, step {back_to} once more")

    def record_with(self, readings: list[dict[str, Any]]) -> ProcedureRun | None:
        """Return the run as it would be with readings at its step, None where none is under way."""
        record = self.record
        if record is None:
            return None
        more = (RecordEntry.model_validate({"at": self._at(record), "step": record.step, **one})
                for one in readings)  # fmt: skip
        return record.model_copy(update={"entries": (*record.entries, *more)})

    def note(self, readings: list[dict[str, Any]]) -> None:
        """Keep what was read, and stay at the step."""
        if self.record is not None and readings:
            self._write(self._rows_with(readings), f"{self.name}, step {self.number} read")

    def once_more(self, step: int) -> None:
        """Begin again at a step that was done before; what was read then stays on record."""
        index, record = self.index, self.record
        if index is not None and record is not None:
            rows = self._rows()
            done = self._done(record)
            self._stand_at(rows[index], step, done)
            self._write(rows, f"{self.name}, step {step} once more")

    def count(self, strokes: int, since_filled: int) -> None:
        """Keep how many strokes were made at the step, and since the reservoirs were filled."""
        index = self.index
        if index is not None:
            rows = self._rows()
            rows[index] |= {"strokes": strokes, "since_filled": since_filled}
            document = self._session.document
            self._counting = document.counting(self._counting)
            change = BuildChange(f"{self.name}, {strokes} strokes", {"records": rows})
            document.take(change, None, self._counting)

    def start_clock(self) -> None:
        """Keep when the clock of the step was started."""
        index, record = self.index, self.record
        if index is not None and record is not None:
            rows = self._rows()
            rows[index]["clock"] = self._at(record, "seconds")
            self._write(rows, f"{self.name}, clock started")

    def clock_passed(self) -> float | None:
        """Return the seconds since the clock of the step was started, None where it was not."""
        record = self.record
        if record is None or record.clock is None:
            return None
        now = datetime.fromisoformat(self._clock("seconds"))
        return max((now - record.clock).total_seconds(), 0.0)

    def end(self, readings: list[dict[str, Any]] | None = None, checked_by: str = "") -> None:
        """Close the run: the last card is done."""
        index, record = self.index, self.record
        if index is None or record is None:
            return
        rows = self._rows_with(readings)
        self._stand_at(rows[index], record.step, [*self._done(record), record.step])
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
        if self.begun:
            rows[index] |= {"ended": self._at(record), "outcome": "given-up"}
        else:
            del rows[index]
        self._write(rows, f"{self.name} given up")

    def _at(self, record: ProcedureRun, to: str = "minutes") -> str:
        """Return the time; a clock that was set back meanwhile stands at the start of the run."""
        return max(self._clock(to), record.started.isoformat(timespec=to))

    @staticmethod
    def _done(record: ProcedureRun) -> list[int]:
        """Return the steps that were done, of an older run each of them up to its step."""
        return list(record.done) or list(range(1, record.step))

    def _take_back(self, done: list[int], step: int) -> None:
        """Take a step back that was not done after all; what it may have opened stays open."""
        steps = self.procedure(None).steps
        taken = steps[step - 1]
        before = [steps[one - 1] for one in done if one < step]
        undoes = any(PAIRS.get(one.action) == taken.action and one.thing == taken.thing
                     for one in before)  # fmt: skip
        opens = taken.action in OPENING or (taken.action in PAIRS and not undoes)
        if step in done and not opens:
            del done[len(done) - 1 - done[::-1].index(step)]

    @staticmethod
    def _stand_at(row: dict[str, Any], step: int, done: list[int]) -> None:
        """Let a run stand at a step, nothing counted there yet."""
        for name in ("strokes", "clock"):
            row.pop(name, None)
        row |= {"step": step, "done": done}

    def _rows_with(self, readings: list[dict[str, Any]] | None) -> list[dict[str, Any]]:
        """Return the runs, with what was read at this one's step."""
        rows, index, record = self._rows(), self.index, self.record
        assert index is not None
        assert record is not None
        more = [{"at": self._at(record), "step": record.step, **one} for one in readings or []]
        if more:
            rows[index]["entries"] = [*rows[index].get("entries", []), *more]
        return rows

    def _rows(self) -> list[dict[str, Any]]:
        others = Build.model_fields.keys() - {"records"}
        rows: list[dict[str, Any]] = dumped(self._session.base, others).get("records", [])
        return rows

    def _write(self, rows: list[dict[str, Any]], label: str) -> None:
        self._session.make(BuildChange(label, {"records": rows}), in_setup=False)
