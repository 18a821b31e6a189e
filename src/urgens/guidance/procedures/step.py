"""What a procedure is made of: steps, each with what is done, where, by what reason."""

import re
from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from typing import Any, Literal

from urgens.document.ledger.records import Action

_PLACE = re.compile(r"\{(\w+)\}")

Method = Literal["pedal", "open-stroke", "pressure", "gravity", "vacuum"]  # of bleeding
Wheel = Literal["front-left", "front-right", "rear-left", "rear-right"]
Screw = Literal["", "outer", "inner"]
# How the foot presses at a step, and lets go at its end; down: to where it is held then, full: down
# and back.
Press = Literal["", "light", "usual", "hard", "down", "full"]
At = Literal["", "bench", "vehicle"]
Loop = Literal["", "begin", "end"]


@dataclass(frozen=True)
class StepReading:
    """What is read at a step, and its unit; empty where it has none."""

    field: str
    unit: str = ""


@dataclass(frozen=True)
class ProcedureStep:
    """One step: what is done and why, at which wheels.

    `thing` is what is fitted, removed, loosened or opened, so that it is put back: at a wheel its
    screw, of which `screw` tells the outer or the inner one. `seconds` are counted while it lasts.
    `proof` names the proof that it belongs to, where several are made together; `hold` the code of
    what a no holds, where that has a code of its own; `no` says what a no means and what to do now,
    `sign` which sign it is for tracing. `press` is what the foot does meanwhile, `at` where the
    part is that it is done to, `for_good` whether what is taken off stays off. From one that begins
    a `loop` to the one that ends it is done until clear. `only` is a condition that stands on every
    person's card.
    """

    text: str
    why: str
    action: Action
    wheels: tuple[Wheel, ...] = ()
    record: StepReading | None = None
    thing: str = ""
    screw: Screw = ""
    press: Press = ""
    at: At = ""
    for_good: bool = False
    loop: Loop = ""
    only: str = ""
    seconds: int = 0
    proof: str = ""
    hold: str = ""
    no: str = ""
    sign: str = ""

    def printed(self) -> dict[str, Any]:
        """Return the step as plain JSON values."""
        record = self.record
        return {
            "text": self.text,
            "why": self.why,
            "wheels": list(self.wheels),
            "action": self.action,
            "record": None if record is None else {"field": record.field, "unit": record.unit},
        }


def filled(text: str, words: Mapping[str, str]) -> str:
    """Return a text with words in its {places}; one that is not known yet stays.

    text: of a step [text]; words: of places [text].
    """
    return _PLACE.sub(lambda place: words.get(place[1], place[0]), text)


@dataclass(frozen=True)
class Procedure:
    """A procedure for one build; one that the layout rules out says why, and has no steps.

    `begins` is what of the workshop stands otherwise than usual at its beginning.
    """

    name: str
    method: str | None = None
    refused_because: str | None = None
    people: int = 1
    tools: tuple[str, ...] = ()
    cautions: tuple[str, ...] = ()
    steps: tuple[ProcedureStep, ...] = field(default_factory=tuple)
    begins: Mapping[str, str] = field(default_factory=dict)

    @property
    def allowed(self) -> bool:
        """Whether the layout lets it be done so."""
        return self.refused_because is None

    def back_to(self, number: int) -> int | None:
        """Return where the loop begins that a step ends, None where it ends none.

        number: of the step, from 1 [-].
        """
        if self.steps[number - 1].loop != "end":
            return None
        before = range(number, 0, -1)
        return next(place for place in before if self.steps[place - 1].loop == "begin")

    def spelt(self, words: Mapping[str, str]) -> "Procedure":
        """Return the procedure with the figures of its sentences; words: of places [text]."""
        steps = (
            replace(
                step,
                text=filled(step.text, words),
                why=filled(step.why, words),
                no=filled(step.no, words),
            )
            for step in self.steps
        )
        tools = (filled(tool, words) for tool in self.tools)
        return replace(self, steps=tuple(steps), tools=tuple(tools))

    def printed(self) -> dict[str, Any]:
        """Return the procedure as plain JSON values; the names are those of the contract."""
        return {
            "name": self.name,
            "method": self.method,
            "allowed": self.allowed,
            "refused_because": self.refused_because,
            "people": self.people,
            "tools": list(self.tools),
            "cautions": list(self.cautions),
            "steps": [step.printed() for step in self.steps],
        }
