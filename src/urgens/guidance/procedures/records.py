"""What is written about each procedure once: title, group, what it needs, opens and proves."""

from collections.abc import Callable, Mapping
from functools import lru_cache
from typing import Literal

from pydantic import Field

from urgens.data import procedure_table, trace_table
from urgens.document.model import TableRow
from urgens.guidance.procedures.bleed_rules import CAUTIONS
from urgens.guidance.procedures.facts import Facts
from urgens.guidance.procedures.step import Action, Procedure, ProcedureStep, StepReading

Group = Literal["assemble", "bleed", "prove", "move", "mend"]
Need = Literal["booster", "warning-switch", "reducing", "load-sensing", "metering", "two-circuits"]
# What a build has to have for a procedure, and why there is nothing to do where it has not.
NEEDS: dict[Need, tuple[Callable[[Facts], bool], str]] = {
    "booster": (lambda facts: facts.boosted, "no booster is fitted"),
    "warning-switch": (lambda facts: facts.shuttle, "no warning switch is in the lines"),
    "reducing": (lambda facts: facts.reducing, "no valve that reduces is fitted"),
    "load-sensing": (lambda facts: facts.load_sensing, "no load-sensing valve is fitted"),
    "metering": (lambda facts: facts.metering, "no metering valve is fitted"),
    "two-circuits": (
        lambda facts: facts.build.split != "single",
        "one circuit feeds all brakes: with it lost nothing is left to try",
    ),
}
SAID = {"fluid": CAUTIONS[0], "stands": CAUTIONS[1]}


class RecordStep(TableRow):
    """One step that is the same for every build; `read` is a field and its unit."""

    text: str
    why: str
    action: Action
    thing: str = ""
    read: str = ""
    seconds: int = 0

    def step(self, usual: StepReading | None) -> ProcedureStep:
        """Return it as a step; usual: what is read where nothing else is named [-]."""
        field, _, unit = self.read.partition(" ")
        record = StepReading(field, unit) if field else usual
        return ProcedureStep(
            self.text, self.why, self.action, record=record, thing=self.thing, seconds=self.seconds
        )


class ProcedureRecord(TableRow):
    """A procedure as the table has it.

    `opens` names what of the layout it opens where it mends, `proves` what is proved after it;
    one without `steps` is made for each build by the function that is registered for its id.
    """

    id: str
    title: str
    group: Group
    needs: tuple[Need, ...] = ()
    opens: tuple[str, ...] = ()
    proves: tuple[str, ...] = ()
    people: int = Field(1, ge=1, le=3)
    tools: tuple[str, ...] = ()
    cautions: tuple[Literal["fluid", "stands"], ...] = ()
    steps: tuple[RecordStep, ...] = ()

    def refusal(self, facts: Facts) -> str | None:
        """Return why a build has no use for it, None where it has."""
        lacking = (why for has, why in map(NEEDS.__getitem__, self.needs) if not has(facts))
        return next(lacking, None)

    def fixed(self) -> Procedure:
        """Return the procedure whose steps are the same for every build."""
        usual = StepReading("ok") if self.group == "mend" else None
        cautions = tuple(SAID[name] for name in self.cautions)
        steps = tuple(step.step(usual) for step in self.steps)
        return Procedure(
            self.id, people=self.people, tools=self.tools, cautions=cautions, steps=steps
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
    return found


def title_of(name: str) -> str:
    """Return what a procedure is called; name: its id, itself where the table has none."""
    record = records().get(name)
    return name if record is None else record.title


def named(group: Group) -> tuple[str, ...]:
    """Return the ids of the procedures of a group; group: of them [text]."""
    return tuple(record.id for record in records().values() if record.group == group)
