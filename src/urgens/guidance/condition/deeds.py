"""What happened on the vehicle: every dated thing of a build as deeds, in order of time."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from datetime import datetime
from itertools import dropwhile
from typing import Literal

from urgens.document import Build, BuildErrors
from urgens.document.ledger.records import FIELDS, Joint, ProcedureRun, RecordEntry, ShownStep
from urgens.guidance.procedures import NAMES, procedure
from urgens.guidance.procedures.opening import is_opening
from urgens.guidance.procedures.step import ProcedureStep

What = Literal[
    "open", "shut", "loosen", "tighten", "fit", "remove", "asked", "answer", "passed", "note",
    "worked", "fluid", "joint", "changed", "looked", "mended", "noted", "moved",
]  # fmt: skip
MOVING = "prove-moving"
WHEEL_NOTES = ("bubbles", "strokes", "amount")
BACKWARD = ("open", "loosen", "joint", "changed", "mended")  # of two at one minute they come last
LOOSE = ("capped", "started")
EFFECTS: dict[str, What] = {
    "open": "open",
    "close": "shut",
    "loosen": "loosen",
    "tighten": "tighten",
    "fit": "fit",
    "remove": "remove",
}  # of the action of a step


@dataclass(slots=True, eq=False)
class Deed:
    """One thing done, read or passed over: when, where that stands in the build, at which wheels.

    There are thousands, and none is changed once it is made.
    `owner` is the procedure, or the proof of several made together, that it belongs to, `ordinal`
    the place of its step among those of the owner that ask, `hold` what a no there holds. `at`
    None: nobody dated it.
    """

    what: What
    at: datetime | None
    place: str
    wheels: tuple[str, ...] = ()
    thing: str = ""
    owner: str = ""
    ordinal: int = 0
    field: str = ""
    value: float | str | bool | tuple[str, ...] | None = None
    entry: RecordEntry | None = None
    hold: str = ""


@dataclass(frozen=True)
class Asking:
    """A step of a run that asks: its owner, its place among those of the owner, the field.

    `hold` is the code of what a no there holds, empty where it has none of its own.
    """

    owner: str
    ordinal: int
    field: FIELDS
    hold: str = ""


def shown(steps: tuple[ProcedureStep, ...]) -> tuple[ShownStep, ...]:
    """Return the steps of a procedure as a run keeps them."""
    return tuple(
        ShownStep(
            action=step.action,
            thing=step.thing,
            wheels=step.wheels,
            asks=None if step.record is None else step.record.field,
            proof=step.proof,
            hold=step.hold,
        )
        for step in steps
    )


def steps_of(build: Build, run: ProcedureRun) -> tuple[ShownStep, ...]:
    """Return the steps a run was shown, else those of its procedure as it is made now.

    Files that tell no steps are older than the first cards, which are no steps in them.
    """
    if run.steps or run.procedure not in NAMES:
        return run.steps
    try:
        made = procedure(build, run.procedure, run.method).steps
        return shown(tuple(dropwhile(is_opening, made)))
    except BuildErrors:  # a method that is none any more
        return ()


def asking(name: str, steps: tuple[ShownStep, ...]) -> dict[int, Asking]:
    """Return the steps that ask, by their number from 1; name: of their procedure [text]."""
    found: dict[int, Asking] = {}
    counts: dict[str, int] = {}
    for number, step in enumerate(steps, start=1):
        if step.asks is not None:
            owner = step.proof or name
            counts[owner] = counts.get(owner, 0) + 1
            found[number] = Asking(owner, counts[owner], step.asks, step.hold)
    return found


def deeds(build: Build, until: datetime) -> tuple[Deed, ...]:
    """Return what happened until a time, the first first.

    Two of one minute stand in the order of the file; between sections runs come first, then what
    closes, then what opens, as far as it is not noted by hand: a note is of what was before it.
    Undated: a good state counts as the oldest, an opening as the latest.
    """
    sections = (
        _runs(build), _gauged(build), _joints(build), _traces(build), _history(build),
        _noted(build), _moved(build),
    )  # fmt: skip
    rows = []
    for section, found in enumerate(sections):
        for index, deed in enumerate(found):
            if deed.at is not None and deed.at > until:
                continue
            back = deed.what in BACKWARD and not _good(deed)
            when = _undated(back) if deed.at is None else deed.at
            rows.append((when, back if section else False, section, index, deed))
    rows.sort()  # no two are of one section and place, so that no deed is compared
    return tuple(row[4] for row in rows)


def in_the_future(build: Build, now: datetime) -> tuple[str, ...]:
    """Return where times stand that are not yet: they prove nothing."""
    rows = [(f"records[{i}]", t) for i, run in enumerate(build.records)
            for t in (run.started, run.ended, *(one.at for one in run.entries)) if t]  # fmt: skip
    rows += [(f"joints[{i}]", one.at) for i, one in enumerate(build.joints) if one.at]
    rows += [(f"noted[{i}]", one.at) for i, one in enumerate(build.noted)]
    rows += [(f"history[{i}]", one.at) for i, one in enumerate(build.history)]
    if build.proof is not None:
        rows += [(f"proof.gauges[{i}]", one.at) for i, one in enumerate(build.proof.gauges)]
        rows += [(f"proof.stops[{i}]", one.at) for i, one in enumerate(build.proof.stops)]
    return tuple(dict.fromkeys(place for place, at in rows if at > now))


def _undated(back: bool) -> datetime:
    """Return when an undated deed counts as done."""
    return datetime.max if back else datetime.min


def _good(deed: Deed) -> bool:
    return deed.what == "joint" and deed.value not in LOOSE and deed.value != "tight"


# --- runs --------------------------------------------------------------------------------------


_read: dict[tuple[int, str], tuple[ProcedureRun, tuple[Deed, ...]]] = {}  # runs read before


def _runs(build: Build) -> Iterator[Deed]:
    """Yield what all runs did; one that tells its steps is read once, as long as it is kept."""
    global _read
    known, _read = _read, {}
    for index, run in enumerate(build.records):
        place = f"records[{index}]"
        if not run.steps:
            yield from _run(build, run, place)
            continue
        key = id(run), place
        kept = known.get(key)
        if kept is None or kept[0] is not run:
            kept = run, tuple(_run(build, run, place))
        _read[key] = kept
        yield from kept[1]


def _run(build: Build, run: ProcedureRun, place: str) -> Iterator[Deed]:
    """Yield what a run did, step by step; of one without steps and outcome only what was read."""
    if run.fluid is not None:
        yield Deed("fluid", run.started, place, value=run.fluid.grade)
    if run.procedure == MOVING:
        yield Deed("moved", run.started, place, value=run.moved_without_proof)
    steps = steps_of(build, run)
    asks, tells = asking(run.procedure, steps), bool(run.steps or run.outcome)
    for owner in dict.fromkeys(one.owner for one in asks.values()):
        fields = tuple(one.field for one in asks.values() if one.owner == owner)
        yield Deed("asked", run.started, place, owner=owner, value=fields)
    at = run.started
    for number, entries, done in _passes(run, len(steps)):
        if entries:  # what is read again later, or added after its end, dates no step anew
            first = min(one.at for one in entries)
            at = max(at, first if run.ended is None else min(first, run.ended))
        if tells and (done or (number == run.step and run.outcome == "given-up")):
            yield from _effects(steps[number - 1], at, place, done=done)
        ask = asks.get(number)
        if entries:
            yield from _entries(run, entries, ask, place)
        if ask is not None and done and not any(one.field == ask.field for one in entries):
            yield Deed("passed", at, place, owner=ask.owner, ordinal=ask.ordinal, field=ask.field)
    beyond = [one for one in run.entries if one.step > len(steps)]
    yield from _entries(run, beyond, None, place)


def _passes(run: ProcedureRun, count: int) -> Iterator[tuple[int, list[RecordEntry], bool]]:
    """Yield each step as often as it was done, with what was read then; then what is not done.

    count: of the steps. Entries stand in the order in which the steps were done; what was added
    later goes to the last time.
    """
    done = [number for number in run.done or _up_to(run, count) if number <= count]
    last = {number: place for place, number in enumerate(done)}
    read: list[list[RecordEntry]] = [[] for _ in done]
    late: dict[int, list[RecordEntry]] = {}  # what was read at steps that are not done
    at = 0
    for entry in run.entries:
        ahead = at
        while ahead < len(done) and done[ahead] != entry.step:
            ahead += 1
        if ahead < len(done):  # of the pass that follows
            at = ahead
            read[at].append(entry)
        elif entry.step in last:  # it was added later
            read[last[entry.step]].append(entry)
        elif entry.step <= count:
            late.setdefault(entry.step, []).append(entry)
    for number, entries in zip(done, read, strict=True):
        yield number, entries, True
    for number in range(1, count + 1):
        if number not in last:
            yield number, late.get(number, []), False
        elif number == run.step:  # it was begun once more
            yield number, [], False


def _up_to(run: ProcedureRun, count: int) -> Iterable[int]:
    """Return the steps that were done, of a run that does not tell; count: of its steps."""
    left = run.outcome is None and run.note == f"left at step {run.step}"
    if run.ended is None or run.outcome == "given-up" or left:
        return range(1, run.step)
    return range(1, count + 1)


def _effects(step: ShownStep, at: datetime, place: str, *, done: bool) -> Iterator[Deed]:
    """Yield what a step does; one that was only stood at opens and fits, and shuts nothing."""
    what = EFFECTS.get(step.action)
    if what is not None and (done or what in ("open", "loosen", "fit")):
        yield Deed(what, at, place, step.wheels, step.thing, owner=step.proof)


def _entries(
    run: ProcedureRun, entries: list[RecordEntry], ask: Asking | None, place: str
) -> Iterator[Deed]:
    for one in entries:
        wheels = (one.wheel,) if one.wheel else ()
        owner, ordinal = (run.procedure, 0) if ask is None else (ask.owner, ask.ordinal)
        asked = ask is not None and one.field == ask.field
        if one.field in WHEEL_NOTES and wheels:
            what: What = "note" if run.steps or run.outcome else "worked"
            yield Deed(what, one.at, place, wheels, owner=owner, field=one.field, value=one.value)
        hold = ask.hold if ask is not None and asked else ""
        yield Deed("answer", one.at, place, wheels, owner=owner, ordinal=ordinal if asked else 0,
                   field=one.field, value=one.value, entry=one, hold=hold)  # fmt: skip


# --- the other sections ------------------------------------------------------------------------


def _joints(build: Build) -> Iterator[Deed]:
    for index, one in enumerate(build.joints):
        yield _joint(one, f"joints[{index}]")


def _joint(one: Joint, place: str) -> Deed:
    return Deed("joint", one.at, place, thing=one.joint, value=one.state)


def _gauged(build: Build) -> Iterator[Deed]:
    for index, one in enumerate(() if build.proof is None else build.proof.gauges):
        if one.source != "simulated":
            yield Deed("looked", one.at, f"proof.gauges[{index}]")


def _traces(build: Build) -> Iterator[Deed]:
    for index, one in enumerate(build.traces):
        yield Deed("looked", one.started, f"traces[{index}]")
        if one.mended and one.ended is not None:
            yield Deed("mended", one.ended, f"traces[{index}]", value=one.cause)


def _history(build: Build) -> Iterator[Deed]:
    for index, one in enumerate(build.history):
        if one.changes:
            yield Deed("changed", one.at, f"history[{index}]", value=tuple(one.changes))


def _noted(build: Build) -> Iterator[Deed]:
    for index, one in enumerate(build.noted):
        yield Deed("noted", one.at, f"noted[{index}]", thing=one.thing, owner=one.hold,
                   field=one.what, value=one.place)  # fmt: skip


def _moved(build: Build) -> Iterator[Deed]:
    proof = build.proof
    for index, stop in enumerate(() if proof is None else proof.stops):
        yield Deed("moved", stop.at, f"proof.stops[{index}]", value=stop.moved_without_proof)
    for index, log in enumerate(() if proof is None else proof.logs):
        if log.source != "simulated":
            yield Deed("moved", log.at, f"proof.logs[{index}]", value="")
