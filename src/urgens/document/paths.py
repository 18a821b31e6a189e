"""Paths as a builder writes them: "valves.rear[0].knee"."""

import re
from collections.abc import Mapping, Sequence
from typing import Any

from urgens.document.errors import BuildErrors
from urgens.document.model import DocumentModel

_FIELD = re.compile(r"[a-z_]+")
_STEP = re.compile(r"\.?([a-z_]+)|\[(\d+)\]|\[\"([^\"]+)\"\]")


def steps(path: str) -> list[str | int]:
    """Return the fields and indices of `path` ("valves.rear[0].knee"), raising BuildErrors."""
    found: list[str | int] = []
    end = 0
    for match in _STEP.finditer(path):
        if match.start() != end:
            break
        found.append(int(match[2]) if match[2] is not None else match[1] or match[3])
        end = match.end()
    if not found or end != len(path):
        raise BuildErrors.one(path, "is not a path", 'write it like "valves.rear[0].knee"')
    return found


def path_of(way: Sequence[str | int]) -> str:
    """Return the path of fields and indices; the other way round of `steps`.

    way: of them, no quote inside [text].
    """
    found = ""
    for step in way:
        if isinstance(step, int):
            found += f"[{step}]"
        elif _FIELD.fullmatch(step):
            found += f".{step}" if found else step
        else:
            found += f'["{step}"]'
    return found


def value_at(build: DocumentModel, path: str) -> Any:
    """Return what stands at `path` in `build`; raises BuildErrors where there is nothing."""
    here: Any = build
    for step in steps(path):
        if isinstance(step, int):
            here = entered(here, step, path)
        elif isinstance(here, Mapping) and step in here:
            here = here[step]
        elif isinstance(here, DocumentModel) and step in type(here).model_fields:
            here = getattr(here, step)
        else:
            raise BuildErrors.one(path, "is not in this build", "choose a field that is there")
    return here


def entered(here: Any, step: str | int, path: str) -> Any:
    """Return what stands in a list or an object; raises BuildErrors where a list is shorter."""
    if isinstance(step, int) and not (isinstance(here, list | tuple) and step < len(here)):
        raise BuildErrors.one(path, f"has no entry {step}", "choose one that is there")
    return here[step]
