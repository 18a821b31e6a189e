"""Procedures made for one build: every name there is, and the one way to ask for them."""

import difflib
from collections.abc import Iterable
from dataclasses import replace

from urgens.document import Build, BuildErrors
from urgens.guidance.procedures import (
    proving,  # noqa: F401 - each registers what it makes
    rebleed,  # noqa: F401
)
from urgens.guidance.procedures.closing import closing
from urgens.guidance.procedures.facts import METHODS, Facts
from urgens.guidance.procedures.making import made_for, makers
from urgens.guidance.procedures.records import CHECKED, records
from urgens.guidance.procedures.step import Method, Procedure, ProcedureStep

__all__ = ["METHODS", "NAMES", "Facts", "Method", "Procedure", "ProcedureStep", "procedure"]

NAMES = tuple(records())
_without_steps = {record.id for record in records().values() if not record.steps}
_odd = (_without_steps - makers()) | (makers() - set(NAMES))
if _odd:
    raise ValueError(f"steps and functions do not go together: {', '.join(sorted(_odd))}")


def procedure(
    build: Build, name: str, method: str | None = None, opened: Iterable[str] = ()
) -> Procedure:
    """Return a procedure for a build.

    name: of it [text]; method: of bleeding [text]; opened: parts or
    lines, of what is bled again [text].
    Raises BuildErrors where there is no such procedure or method, with the nearest name.
    Those of the build that was asked last are kept. Source: common practice.
    """
    global _kept
    if _kept is None or _kept[0] is not build:
        _kept = build, {}
    known, asked = _kept[1], (name, method, tuple(opened))
    if asked not in known:
        known[asked] = _procedure(build, *asked)
    return known[asked]


_kept: tuple[Build, dict[tuple[str, str | None, tuple[str, ...]], Procedure]] | None = None


def _procedure(build: Build, name: str, method: str | None, opened: tuple[str, ...]) -> Procedure:
    if name not in NAMES:
        raise BuildErrors.one("procedure", f'there is no "{name}"', _nearest(name, NAMES))
    if method is not None and method not in METHODS:
        raise BuildErrors.one("--method", f'there is no "{method}"', _nearest(method, METHODS))
    known = next((one for one in METHODS if one == method), None)
    made = made_for(records()[name], Facts(build, known, opened))
    last = closing(made.steps)
    steps = made.steps if last is None else (*made.steps, last)
    cautions = made.cautions
    if made.allowed and not any("ocal rules" in caution for caution in cautions):
        cautions = (*cautions, CHECKED)
    return replace(made, steps=steps, cautions=cautions)


def _nearest(name: str, known: Iterable[str]) -> str:
    names = tuple(known)
    near = difflib.get_close_matches(name, names, n=1)
    return f'write "{near[0]}"' if near else f"choose one of {', '.join(names)}"
