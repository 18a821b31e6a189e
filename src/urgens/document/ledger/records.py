"""What was done and read: runs of procedures, the state of joints, what is still open."""

from collections.abc import Iterator
from datetime import date, datetime
from typing import Annotated, Literal

from pydantic import BeforeValidator, ConfigDict, Field

from urgens.document.dates import read_date, read_time
from urgens.document.layout.layout import Wheel
from urgens.document.model import DocumentModel, Name, PartFault, Text

At = Annotated[datetime, BeforeValidator(read_time)]
Action = Literal[
    "open", "stroke", "close", "hold", "release", "check", "record", "fit", "remove", "loosen",
    "tighten", "top-up", "look",
]  # fmt: skip
State = Literal["capped", "started", "tight", "dry", "checked"]
FIELDS = Literal[
    "strokes", "amount", "bubbles", "colour", "travel", "pressure", "temperature", "gap", "lamp",
    "ok", "note", "clicks",
]  # fmt: skip
WORDS: dict[str, tuple[str, ...]] = {
    "bubbles": ("none", "fine", "large"), "colour": ("clear", "amber", "dark", "rust"),
}  # fmt: skip


BEYOND = "is beyond the {} steps it was shown"


class RecordEntry(DocumentModel):
    """One thing read at a step: what, at which wheel, and how much or which."""

    at: At
    step: Annotated[int, Field(strict=True, ge=1)]
    field: FIELDS
    wheel: Wheel | None = None
    value: Annotated[float, Field(strict=True, allow_inf_nan=False)] | Text | bool
    effort: Text = ""
    booster: Literal["working", "out"] | None = None  # of the help it was read with
    when: Literal["now", "hour", "morning", "stroke-1", "stroke-2", "stroke-3"] | None = None

    def rules(self) -> Iterator[PartFault]:
        """Check that what is told in words is one of its words."""
        known = WORDS.get(self.field)
        if known is not None and self.value not in known:
            words = ", ".join(f'"{word}"' for word in known)
            yield PartFault("value", f'"{self.value}" is no {self.field}', f"write one of {words}")


class ShownStep(DocumentModel):
    """A step as a run was shown it: what it does, with what, where; what it asks, empty if nothing.

    `proof` names the proof that it belongs to, where several are made together, `hold` the code of
    what a no holds, where that has a code of its own.
    """

    action: Action
    thing: Text = ""
    wheels: tuple[Wheel, ...] = ()
    asks: FIELDS | None = None
    proof: Text = ""
    hold: Text = ""


class BottledFluid(DocumentModel):
    """The fluid that was used, and how old its bottle was."""

    model_config = ConfigDict(populate_by_name=True)

    grade: Literal["DOT 3", "DOT 4", "DOT 5", "DOT 5.1"] = Field(alias="class")
    batch: Text = ""
    opened: Annotated[date, BeforeValidator(read_date)] | None = None


class ProcedureRun(DocumentModel):
    """One run of a procedure; without an end it is to be resumed at its step, counted from 1.

    `steps` are those that it was shown, whatever the procedure is made like later; `outcome` tells
    how it ended, nothing in files that were written before it was asked. `done` are the numbers of
    the steps in the order in which they were done, some of them once more; nothing in older files,
    where it was each of them up to `step`. `strokes` were counted at its step so far,
    `since_filled` since the reservoirs were last filled, and its clock runs since `clock`.
    """

    procedure: Name
    method: Text | None = None
    setup: Text | None = None
    started: At
    ended: At | None = None
    outcome: Literal["finished", "given-up"] | None = None
    steps: tuple[ShownStep, ...] = ()
    step: Annotated[int, Field(strict=True, ge=1)] = 1
    done: tuple[Annotated[int, Field(strict=True, ge=1)], ...] = ()
    strokes: Annotated[int, Field(strict=True, ge=0)] = 0
    since_filled: Annotated[int, Field(strict=True, ge=0)] = 0
    clock: At | None = None
    people: tuple[Name, ...] = ()
    fluid: BottledFluid | None = None
    checked_by: Text = ""
    note: Text = ""
    moved_without_proof: Text = ""
    entries: tuple[RecordEntry, ...] = ()

    def rules(self) -> Iterator[PartFault]:
        """Check that it does not end before it begins; a clock may have been set between."""
        if self.ended is not None and self.ended < self.started:
            yield PartFault("ended", "is before it was started", "write the later time, or none")
        if self.steps and max((self.step, *self.done)) > len(self.steps):
            yield PartFault("step", BEYOND.format(len(self.steps)), "write one of them")
        for index, entry in enumerate(self.entries if self.steps else ()):
            if entry.step > len(self.steps):
                place = f"entries[{index}].step"
                yield PartFault(place, BEYOND.format(len(self.steps)), "write one of them")


class Noted(DocumentModel):
    """What a hand noted beside any run: something shut, off, run dry, or a hold lifted by a reason.

    `place` and `thing` tell which, `hold` the code of what is lifted.
    """

    at: At
    by: Text = ""
    what: Literal["shut", "off", "lifted", "ran-dry"]
    place: Text = ""
    thing: Text = ""
    hold: Text = ""
    reason: Text = ""

    def rules(self) -> Iterator[PartFault]:
        """Check that what is lifted says which hold, and why."""
        if self.what == "lifted" and not (self.hold and self.reason):
            yield PartFault("hold", "is lifted without its code or a reason", "write both")


class Joint(DocumentModel):
    """The state of one joint: a line's id with .a or .b, or part and port."""

    joint: Name
    state: State
    at: At | None = None
    by: Text = ""


class OpenItem(DocumentModel):
    """Something that is not done yet; what `holds_vehicle` is done before it moves.

    It is easily come at while something is out (`easy_while`).
    """

    what: Name
    place: Text = ""
    easy_while: Text = ""
    holds_vehicle: bool = False
    due: Annotated[date, BeforeValidator(read_date)] | None = None
    done: Annotated[date, BeforeValidator(read_date)] | None = None
