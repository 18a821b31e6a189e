"""What stops a card: an answer of no, a figure outside its limits, air that still comes."""

from collections.abc import Sequence
from dataclasses import dataclass

from urgens.document import Build
from urgens.document.ledger.records import ProcedureRun, RecordEntry
from urgens.guidance.condition.deeds import Asking, Deed, asking, shown
from urgens.guidance.condition.limits import Limits, length_words, limits_of
from urgens.guidance.procedures import ProcedureStep
from urgens.guidance.procedures.facts import said
from urgens.guidance.procedures.opening import is_opening
from urgens.guidance.procedures.step_readings import HALF_LOST

NOT_IN_ORDER = (
    "What is not in order is not passed over: put it right, then answer the same check again."
)
AIR = "Air still comes: this wheel once more, from its first step."
LONG = "Air, clearance or a soft part takes it: bleed again, or trace it."
SPONGY = "spongy"  # the sign of a travel that is too long
NEVER_CLEARS = "never-clears"  # of air that still comes


@dataclass(frozen=True)
class Halt:
    """Why a run stops: what was read at which step, what to do now, the sign that it is.

    `entry` is the place among what the run has read; `again` the step to begin once more at;
    `sign` is one of tracing, empty where none fits.
    """

    entry: int
    step: int
    read: str
    words: str
    sign: str
    again: int


def halt(build: Build, run: ProcedureRun, steps: Sequence[ProcedureStep]) -> Halt | None:
    """Return why a run stops, None where nothing it has read says so.

    run: of a procedure; steps: of it, as they are made now. The latest answer at each step and
    wheel counts. Source: common practice.
    """
    latest = {(one.step, one.field, one.wheel): place for place, one in enumerate(run.entries)}
    asks = asking(run.procedure, run.steps or shown(tuple(steps)))
    limits = limits_of(build)
    for place in sorted(latest.values(), reverse=True):
        entry = run.entries[place]
        ask = asks.get(entry.step)
        if ask is None or entry.field != ask.field:
            continue
        step = steps[entry.step - 1]
        told = _told(limits, entry, ask, step)
        if told is not None:
            read, words, sign = told
            return Halt(place, entry.step, read, words, sign, first_of(steps, entry.step, run.step))
    return None


def _told(
    limits: Limits, entry: RecordEntry, ask: Asking, step: ProcedureStep
) -> tuple[str, str, str] | None:
    """Return what was read, what to do and its sign; None where it is as it should be."""
    where = f"{said(entry.wheel)}: " if entry.wheel else ""
    if entry.value is False:
        return f"{where}answered no", step.no or NOT_IN_ORDER, step.sign
    if entry.field == "bubbles":
        told = f"{where}bubbles {entry.value}", AIR, NEVER_CLEARS
        return None if entry.value == "none" else told
    if not isinstance(entry.value, float):
        return None
    wrong = limits.wrong(Deed(
        "answer", entry.at, "", owner=ask.owner, ordinal=ask.ordinal, field=entry.field,
        value=entry.value,
    ))  # fmt: skip
    if wrong is not None:
        return wrong, step.no or NOT_IN_ORDER, step.sign
    if entry.field == "travel" and ask.owner != HALF_LOST and entry.when not in (None, "stroke-1"):
        by = limits.long_by(entry)
        if by is not None:
            return f"the pedal goes {length_words(by)} further than computed", LONG, SPONGY
    return None


def first_of(steps: Sequence[ProcedureStep], number: int, now: int) -> int:
    """Return the step at which what is asked at a step begins; number: of it, from 1 [-].

    now: the step that is stood at [-]. It goes back to what was read before it, to what is at other
    wheels, or to what was fitted for it and is still on.
    """
    asked, found = steps[number - 1], number
    off = {step.thing for step in steps[number - 1 : now - 1] if step.action == "remove"}
    while found > 1:
        before = steps[found - 2]
        same = bool(asked.wheels) and before.wheels == asked.wheels
        if before.proof != asked.proof or not (same or not before.wheels) or is_opening(before):
            break
        if before.record is not None and not same:
            break
        if before.action == "fit" and before.thing not in off:
            break
        found -= 1
    return found
