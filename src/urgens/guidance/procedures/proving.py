"""Proofs: every one there is, and all standing ones of a build together."""

from dataclasses import replace

from urgens.guidance.procedures.facts import Facts
from urgens.guidance.procedures.making import made_for, maker
from urgens.guidance.procedures.records import named, records
from urgens.guidance.procedures.step import Procedure

ALL = "prove-standing"
PROOFS = tuple(name for name in named("prove") if name != ALL)


@maker(ALL)
def prove_standing(facts: Facts) -> Procedure:
    """Return all standing proofs that a build has.

    Source: common practice.
    """
    proofs = (made_for(records()[name], facts) for name in PROOFS)
    steps = (replace(step, proof=proof.name) for proof in proofs for step in proof.steps)
    return records()[ALL].made(facts, tuple(steps))
