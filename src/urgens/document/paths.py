"""Paths as a builder writes them: "valves.rear[0].knee"."""

import re
from collections.abc import Sequence

from urgens.document.errors import BuildErrors

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

    way: of them, no quote inside [text]. Source: the form of a path.
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
