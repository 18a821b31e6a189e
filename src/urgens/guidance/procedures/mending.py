"""Mends: what is done about one cause, as cards like any other procedure."""

from collections.abc import Mapping
from functools import lru_cache

from pydantic import BaseModel, ConfigDict, Field

from urgens.data import trace_table
from urgens.guidance.procedures.bleed_rules import CAUTIONS
from urgens.guidance.procedures.facts import Facts
from urgens.guidance.procedures.step import Action, Procedure, Reading, Step


class _Row(BaseModel):
    model_config = ConfigDict(extra="forbid", frozen=True)


class MendStep(_Row):
    """One step of a mend: what is done, and why."""

    text: str
    why: str
    action: Action
    thing: str = ""


class Mend(_Row):
    """What is done about a cause; `opens` what of the layout, `proves` what is proved after it."""

    id: str
    title: str
    tools: tuple[str, ...] = ()
    opens: tuple[str, ...] = ()
    proves: tuple[str, ...]
    steps: tuple[MendStep, ...] = Field(min_length=2)


@lru_cache(maxsize=1)
def mends() -> Mapping[str, Mend]:
    """Return the mends that no other procedure is, by id. Source: common practice."""
    rows = [Mend.model_validate(row) for row in trace_table("mends")["mends"]]
    return {one.id: one for one in rows}


def mend(name: str, facts: Facts) -> Procedure:
    """Return a mend as a procedure; name: its id [text]; facts: of the build [object].

    Source: common practice.
    """
    made = mends()[name]
    steps = tuple(
        Step(one.text, one.why, one.action, record=Reading("ok"), thing=one.thing)
        for one in made.steps
    )
    cautions = CAUTIONS if made.opens else ()
    return Procedure(name, tools=made.tools, cautions=cautions, steps=steps)
