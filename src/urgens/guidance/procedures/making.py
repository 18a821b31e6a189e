"""A procedure from its record: the steps of the table, and what a function makes for the build."""

from collections.abc import Callable

from urgens.guidance.procedures.facts import Facts
from urgens.guidance.procedures.records import ProcedureRecord
from urgens.guidance.procedures.step import Procedure

Maker = Callable[[Facts], Procedure]
_MAKERS: dict[str, Maker] = {}


def maker(name: str) -> Callable[[Maker], Maker]:
    """Register a function as the one that makes a procedure; name: its id [text]."""

    def register(function: Maker) -> Maker:
        if name in _MAKERS:
            raise KeyError(f"two functions make {name}")
        _MAKERS[name] = function
        return function

    return register


def makers() -> frozenset[str]:
    """Return the ids of the procedures that a function makes."""
    return frozenset(_MAKERS)


def made_for(record: ProcedureRecord, facts: Facts) -> Procedure:
    """Return a procedure for a build; refused, with the reason, where the build has no use for it.

    record: of the procedure; facts: of the build, and what was asked.
    """
    refused = record.refusal(facts)
    if refused is not None:
        return Procedure(record.id, refused_because=refused)
    make = _MAKERS.get(record.id)
    return record.made(facts) if make is None else make(facts)
