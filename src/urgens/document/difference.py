"""What one build differs in from another: kept instead of the builds, to go there and back."""

import json
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from urgens.document.build import Build
from urgens.document.edit import dumped
from urgens.document.validation import validated

Way = tuple[str | int, ...]
IN_ORDER = ("evidence", "setups")  # their names stand in the order they were given in


@dataclass(frozen=True)
class Step:
    """One place at which two documents differ, as JSON: None where there is nothing."""

    way: Way
    before: Any
    after: Any
    was_there: bool
    is_there: bool


@dataclass(frozen=True)
class Difference:
    """All places at which one build differs from another."""

    steps: tuple[Step, ...]

    def forward(self, build: Build) -> Build:
        """Return the later build, from the earlier one."""
        return self._gone(build, [(s.way, s.is_there, s.after) for s in self.steps])

    def back(self, build: Build) -> Build:
        """Return the earlier build, from the later one."""
        return self._gone(build, [(s.way, s.was_there, s.before) for s in self.steps])

    @staticmethod
    def _gone(build: Build, steps: list[tuple[Way, bool, Any]]) -> Build:
        document: Any = dumped(build)
        for way, there, value in steps:
            here = document
            for step in way[:-1]:
                here = here[step]
            if there:
                here[way[-1]] = value
            else:
                del here[way[-1]]
        return validated(document)  # which copies what is laid in


def difference(before: Build, after: Build) -> Difference:
    """Return what `after` differs in from `before`, as typed."""
    return Difference(tuple(_steps(dumped(before), dumped(after), ())))


def _steps(before: Any, after: Any, way: Way) -> Iterator[Step]:
    """Yield where two values differ; lists of other lengths are one value."""
    if isinstance(before, dict) and isinstance(after, dict):
        for name in before.keys() | after.keys():
            there = name in before, name in after
            if name in IN_ORDER and json.dumps(before.get(name)) == json.dumps(after.get(name)):
                continue
            if name in IN_ORDER or not all(there):
                yield Step((*way, name), before.get(name), after.get(name), *there)
            else:
                yield from _steps(before[name], after[name], (*way, name))
    elif isinstance(before, list) and isinstance(after, list) and len(before) == len(after):
        for index, (one, other) in enumerate(zip(before, after, strict=True)):
            yield from _steps(one, other, (*way, index))
    elif before != after:
        yield Step(way, before, after, True, True)
