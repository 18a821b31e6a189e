"""What is written about each procedure once: title, group, what it needs, opens and proves."""

from collections.abc import Mapping
from functools import lru_cache
from typing import Literal

from pydantic import Field

from urgens.data import procedure_table, trace_table
from urgens.document.ledger.records import Action
from urgens.document.model import TableRow
from urgens.guidance.procedures.facts import HOLDS, Facts, When
from urgens.guidance.procedures.step import (
    At,
    Loop,
    Press,
    Procedure,
    ProcedureStep,
    StepReading,
    Wheel,
    filled,
)

Group = Literal["assemble", "bleed", "prove", "move", "mend"]
# Why there is nothing to do in a build that has not what a procedure needs.
LACKING: dict[When, str] = {
    "booster": "no booster is fitted",
    "warning-switch": "no warning switch is in the lines",
    "reducing": "no valve that reduces is fitted",
    "load-sensing": "no load-sensing valve is fitted",
    "metering": "no metering valve is fitted",
    "two-circuits": "one circuit feeds all brakes: with it lost nothing is left to try",
}
CHECKED = "Have what was done looked at by a qualified person; local rules come first."
CAUTIONS = {
    "fluid": "Brake fluid blinds and eats paint: eyes covered, wings covered, water at hand.",
    "stands": "Vehicle on stands, on level ground, wheels chocked; nobody under it while the pedal "
    "is pressed.",
    "checked": CHECKED,
    "competent": "Only by someone who knows the work; otherwise a new cylinder. Have it looked at "
    "by a qualified person.",
    "hose-end": "A hose end out of the fluid draws air on the way back: keep it under all the "
    "time.",
    "order": "The farthest wheel comes first: it takes what both share with it. Another school "
    "begins with the nearest, and then bleeds the first once more.",
    "full-turn": "Less than one full turn open makes bubbles too small to leave.",
    "ground": "Private, closed, level, empty ground; belts; nobody in the way; somebody who can "
    "help at hand.",
    "standing": "No measured stop before every standing proof is done.",
    "local": "Local rules and a qualified check come first.",
}


class ForSome(TableRow):
    """What is only for builds and methods in which each of `when` holds."""

    text: str
    when: tuple[When, ...] = ()

    def is_for(self, facts: Facts) -> bool:
        """Return whether a build has a use for it; facts: of the build and the method."""
        return all(HOLDS[name](facts) for name in self.when)


class RecordStep(ForSome):
    """One step; `read`: a field and its unit, `after`: it follows what is made for a build.

    `hold` is the code of what a no holds, where that has a code of its own; `no` says what a no
    means and what to do now, `sign` which sign of tracing it is. The rest as in `ProcedureStep`.
    """

    why: str
    action: Action
    thing: str = ""
    read: str = ""
    seconds: int = 0
    wheels: tuple[Wheel, ...] = ()
    after: bool = False
    hold: Literal["", "leak"] = ""
    no: str = ""
    sign: str = ""
    press: Press = ""
    at: At = ""
    for_good: bool = False
    loop: Loop = ""

    def step(self, facts: Facts, usual: StepReading | None) -> ProcedureStep:
        """Return it as a step of a build; usual: what is read where nothing else is named [-]."""
        field, _, unit = self.read.partition(" ")
        return ProcedureStep(
            filled(self.text, facts.words),
            self.why,
            self.action,
            self.wheels,
            StepReading(field, unit) if field else usual,
            self.thing,
            seconds=self.seconds,
            hold=self.hold,
            no=self.no,
            sign=self.sign,
            press=self.press,
            at=self.at,
            for_good=self.for_good,
            loop=self.loop,
        )


class ProcedureRecord(TableRow):
    """A procedure as the table has it.

    `begins` is what of the workshop stands otherwise at its beginning, `opens` names what of the
    layout it opens where it mends, `proves` what is proved after it; where a function is registered
    for its id, that one makes what no table can have.
    """

    id: str
    title: str
    group: Group
    begins: Mapping[str, str] = Field(default_factory=dict)
    needs: tuple[When, ...] = ()
    opens: tuple[str, ...] = ()
    proves: tuple[str, ...] = ()
    people: int = Field(1, ge=1, le=3)
    tools: tuple[str | ForSome, ...] = ()
    cautions: tuple[str, ...] = ()
    steps: tuple[RecordStep, ...] = ()

    def refusal(self, facts: Facts) -> str | None:
        """Return why a build has no use for it, None where it has."""
        return next((LACKING[name] for name in self.needs if not HOLDS[name](facts)), None)

    def steps_for(self, facts: Facts, *, after: bool = False) -> tuple[ProcedureStep, ...]:
        """Return the steps of the table for a build; after: those that come last."""
        usual = StepReading("ok") if self.group == "mend" else None
        return tuple(
            step.step(facts, usual)
            for step in self.steps
            if step.after is after and step.is_for(facts)
        )

    def made(self, facts: Facts, steps: tuple[ProcedureStep, ...] = ()) -> Procedure:
        """Return the procedure for a build, with what was made for it between its own steps."""
        tools = (ForSome(text=tool) if isinstance(tool, str) else tool for tool in self.tools)
        return Procedure(
            self.id,
            people=self.people,
            tools=tuple(tool.text for tool in tools if tool.is_for(facts)),
            cautions=tuple(CAUTIONS[name] for name in self.cautions),
            steps=(*self.steps_for(facts), *steps, *self.steps_for(facts, after=True)),
        )


@lru_cache(maxsize=1)
def records() -> Mapping[str, ProcedureRecord]:
    """Return every procedure's record by its id, in the order of the work.

    Raises ValueError where one is there twice, or names a proof that is none.
    Source: common practice, as the files say.
    """
    rows = [*procedure_table(), *({"group": "mend"} | row for row in trace_table("mends")["mends"])]
    found: dict[str, ProcedureRecord] = {}
    for row in rows:
        record = ProcedureRecord.model_validate(row)
        if record.id in found:
            raise ValueError(f"the procedure {record.id} is there twice")
        found[record.id] = record
    for record in found.values():
        for name in record.proves:
            if name not in found:
                raise ValueError(f"{record.id} proves {name}, which is no procedure")
        unknown = [name for name in record.cautions if name not in CAUTIONS]
        unknown += [name for name in record.needs if name not in LACKING]
        if unknown:
            raise ValueError(f"{record.id} names {unknown[0]}, which nothing is said about")
    return found


def title_of(name: str) -> str:
    """Return what a procedure is called; name: its id, itself where the table has none."""
    record = records().get(name)
    return name if record is None else record.title


def named(group: Group) -> tuple[str, ...]:
    """Return the ids of the procedures of a group; group: of them [text]."""
    return tuple(record.id for record in records().values() if record.group == group)
