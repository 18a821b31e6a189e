"""Proofs: every one there is, and all standing ones of a build together."""

from collections.abc import Iterable, Iterator
from dataclasses import replace

from urgens.guidance.procedures.facts import Facts
from urgens.guidance.procedures.making import made_for, maker
from urgens.guidance.procedures.records import named, records
from urgens.guidance.procedures.step import Procedure, ProcedureStep, StepReading

ALL = "prove-standing"
PROOFS = tuple(name for name in named("prove") if name != ALL)
LAST = ("leak-test", "three-strokes")  # what any screw that is opened before would undo
BLED = ProcedureStep(
    "Bleed every circuit that was opened, by its own card, before what follows.",
    "Gauges, switch and one half lost have let air in.",
    "check",
    record=StepReading("ok"),
)


@maker(ALL)
def prove_standing(facts: Facts) -> Procedure:
    """Return all standing proofs that a build has.

    Source: common practice.
    """
    before = (name for name in PROOFS if name not in LAST)
    steps = [*_steps(before, facts), BLED, *_steps(LAST, facts)]
    return records()[ALL].made(facts, tuple(steps))


def _steps(names: Iterable[str], facts: Facts) -> Iterator[ProcedureStep]:
    """Yield the steps of proofs, each with whose it is."""
    for name in names:
        for step in made_for(records()[name], facts).steps:
            yield replace(step, proof=name)
