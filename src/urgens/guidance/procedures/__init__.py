"""Procedures made for one build: every name there is, and the one way to ask for them."""

import difflib
from collections.abc import Iterable
from dataclasses import replace

from urgens.document import Build, BuildErrors
from urgens.document.edits.past import same_vehicle
from urgens.guidance.procedures import (
    proving,  # noqa: F401 - each registers what it makes
    rebleed,  # noqa: F401
)
from urgens.guidance.procedures.closing import closing
from urgens.guidance.procedures.dry_run import dry_run
from urgens.guidance.procedures.facts import METHODS, Facts
from urgens.guidance.procedures.making import made_for, makers
from urgens.guidance.procedures.opening import opening
from urgens.guidance.procedures.records import CHECKED, records
from urgens.guidance.procedures.shuttle import NAME as RESET
from urgens.guidance.procedures.step import Method, Procedure, ProcedureStep
from urgens.physics.axle import Axle

__all__ = ["METHODS", "NAMES", "WAYS", "Facts", "Method", "Procedure", "ProcedureStep", "procedure"]

NAMES = tuple(records())
# What is chosen of a procedure: how, or at which end.
WAYS: dict[str, tuple[str, ...]] = {"bleed": METHODS, RESET: tuple(map(str, Axle))}
_without_steps = {record.id for record in records().values() if not record.steps}
_odd = (_without_steps - makers()) | (makers() - set(NAMES))
if _odd:
    raise ValueError(f"steps and functions do not go together: {', '.join(sorted(_odd))}")


def procedure(
    build: Build, name: str, method: str | None = None, opened: Iterable[str] = ()
) -> Procedure:
    """Return a procedure for a build, once its dry run has broken no rule; else refused.

    name: of it [text]; method: of bleeding, or the end that a switch has shut off [text]; opened:
    parts or lines, of what is bled again [text].
    Raises BuildErrors where there is no such procedure or method, with the nearest name.
    Those of the vehicle that was asked last are kept. Source: common practice.
    """
    global _kept
    if _kept is None or not same_vehicle(_kept[0], build):
        _kept = build, {}
    known, asked = _kept[1], (name, method, tuple(opened))
    if asked not in known:
        known[asked] = _procedure(build, *asked)
    return known[asked]


Asked = tuple[str, str | None, tuple[str, ...]]
_kept: tuple[Build, dict[Asked, Procedure]] | None = None


def _procedure(build: Build, name: str, method: str | None, opened: tuple[str, ...]) -> Procedure:
    if name not in NAMES:
        raise BuildErrors.one("procedure", f'there is no "{name}"', _nearest(name, NAMES))
    ways: tuple[str, ...] = WAYS.get(name, METHODS)
    if method is not None and method not in ways:
        raise BuildErrors.one("--method", f'there is no "{method}"', _nearest(method, ways))
    known = next((one for one in METHODS if one == method), None)
    end = next((axle for axle in Axle if axle == method), None)
    record, facts = records()[name], Facts(build, known, opened, end)
    made = made_for(record, facts)
    if not made.allowed:
        return made
    steps = (*opening(record.cautions, facts), *made.steps)
    last = closing(steps)
    steps = steps if last is None else (*steps, last)
    cautions = made.cautions
    if not any("ocal rules" in caution for caution in cautions):
        cautions = (*cautions, CHECKED)
    return tried(replace(made, steps=steps, cautions=cautions, begins=record.begins))


def tried(made: Procedure) -> Procedure:
    """Return a procedure that has been carried out dry: refused, in words, where it would harm.

    made: with all its steps. Source: the rules of the workshop (`dry_run`).
    """
    broken = dry_run(made, made.begins)
    if not broken:
        return made
    return replace(made, steps=(), refused_because=broken[0].words)


def _nearest(name: str, known: Iterable[str]) -> str:
    names = tuple(known)
    near = difflib.get_close_matches(name, names, n=1)
    return f'write "{near[0]}"' if near else f"choose one of {', '.join(names)}"
