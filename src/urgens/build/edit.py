"""The one way to change a build: a path and what goes there."""

import re
from itertools import pairwise
from typing import Any

from urgens.build.build import Build
from urgens.build.errors import BuildErrors
from urgens.build.validation import validated

_STEP = re.compile(r"\.?([a-z_]+)|\[(\d+)\]")


def steps(path: str) -> list[str | int]:
    """Return the fields and indices of `path` ("valves.rear[0].knee"), raising BuildErrors."""
    found: list[str | int] = []
    end = 0
    for match in _STEP.finditer(path):
        if match.start() != end:
            break
        found.append(match[1] if match[1] is not None else int(match[2]))
        end = match.end()
    if not found or end != len(path):
        raise BuildErrors.one(path, "is not a path", 'write it like "valves.rear[0].knee"')
    return found


def edited(build: Build, path: str, value: object) -> Build:
    """Return `build` with `value`, as typed or as JSON, at `path`.

    Raises BuildErrors where the result is no valid build; `build` itself never changes.
    """
    document: Any = build.model_dump(mode="json", exclude_unset=True)
    here: Any = document
    way = steps(path)
    for step, following in pairwise(way):
        if isinstance(step, int) or step in here:
            here = _entered(here, step, path)
        else:
            here[step] = [] if isinstance(following, int) else {}
            here = here[step]
    last = way[-1]
    if isinstance(last, int):
        _entered(here, last, path)
    here[last] = value
    return validated(document)


def value_at(build: Build, path: str) -> Any:
    """Return what stands at `path` in `build`; raises BuildErrors where there is nothing."""
    here: Any = build
    for step in steps(path):
        if isinstance(step, int):
            here = _entered(here, step, path)
        elif not hasattr(here, step):
            raise BuildErrors.one(path, "is not in this build", "choose a field that is there")
        else:
            here = getattr(here, step)
    return here


def _entered(here: Any, step: str | int, path: str) -> Any:
    if isinstance(step, int) and not (isinstance(here, list | tuple) and step < len(here)):
        raise BuildErrors.one(path, f"has no entry {step}", "choose one that is there")
    return here[step]
