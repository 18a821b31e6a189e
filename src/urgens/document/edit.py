"""The one way to change a build: a path and what goes there."""

import re
from collections.abc import Mapping
from itertools import pairwise
from typing import Any

from urgens.document.build import Build
from urgens.document.errors import BuildErrors
from urgens.document.validation import validated

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


def edited(build: Build, path: str, value: object) -> Build:
    """Return `build` with `value`, as typed or as JSON, at `path`.

    Raises BuildErrors where the result is no valid build; `build` itself never changes.
    """
    return with_changes(build, {path: value})


def with_changes(build: Build, changes: Mapping[str, object]) -> Build:
    """Return `build` with several values laid over it by path; as `edited`."""
    document: Any = build.model_dump(mode="json", exclude_unset=True, by_alias=True)
    for path, value in changes.items():
        _lay(document, path, value)
    return validated(document)


def _lay(document: Any, path: str, value: object) -> None:
    here: Any = document
    way = steps(path)
    for step, following in pairwise(way):
        if isinstance(step, int) or (isinstance(here, dict) and step in here):
            here = _entered(here, step, path)
        elif isinstance(here, dict):
            here[step] = [] if isinstance(following, int) else {}
            here = here[step]
        else:
            raise BuildErrors.one(path, "leads nowhere", "choose a field that is there")
    last = way[-1]
    if isinstance(last, int):
        _entered(here, last, path)
    elif not isinstance(here, dict):
        raise BuildErrors.one(path, "leads nowhere", "choose a field that is there")
    here[last] = value


def value_at(build: Build, path: str) -> Any:
    """Return what stands at `path` in `build`; raises BuildErrors where there is nothing."""
    here: Any = build
    for step in steps(path):
        if isinstance(step, int):
            here = _entered(here, step, path)
        elif isinstance(here, dict) and step in here:
            here = here[step]
        elif not hasattr(here, step):
            raise BuildErrors.one(path, "is not in this build", "choose a field that is there")
        else:
            here = getattr(here, step)
    return here


def _entered(here: Any, step: str | int, path: str) -> Any:
    if isinstance(step, int) and not (isinstance(here, list | tuple) and step < len(here)):
        raise BuildErrors.one(path, f"has no entry {step}", "choose one that is there")
    return here[step]
