"""Paths as a builder writes them: "valves.rear[0].knee"."""

import re

from urgens.document.errors import BuildErrors

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
