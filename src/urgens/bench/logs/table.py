"""A log as a table: named columns with their units, and the lines that were skipped."""

import re
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from urgens.physics.arrays import Array

SIMULATED = "simulated"  # the first word above the columns of what a stand-in wrote
LONGEST = 200  # letters of a column's name
_IN_BRACKETS = re.compile(r"^(.*?)\s*[\[(]\s*([^\])]*)\s*[\])]\s*$")


@dataclass(frozen=True)
class LogFile:
    """A log as it stands in its file.

    `names` and `units` of its columns, the latter empty where none is told; `rows` (n, columns),
    NaN where a cell is empty; `skipped` line numbers with what was wrong; `skipped_in_all` how many
    there were; `simulated` where the file itself says that a stand-in wrote it; `said` is what else
    there is to say of how it was read, in words.
    """

    names: tuple[str, ...]
    units: tuple[str, ...]
    rows: Array
    skipped: tuple[tuple[int, str], ...] = ()
    skipped_in_all: int = 0
    simulated: bool = False
    said: tuple[str, ...] = ()

    def column(self, name: str) -> Array:
        """Return one column; name: of it [text]. Raises ValueError."""
        return np.asarray(self.rows[:, self.names.index(name)])


def titled(titles: Sequence[str]) -> tuple[tuple[str, ...], tuple[str, ...]]:
    """Return names and units of columns, the latter empty where none is told.

    titles: as they stand above the columns, a unit in brackets. Source: common practice.
    """
    names, units = [], []
    for number, title in enumerate(titles, start=1):
        found = _IN_BRACKETS.match(title)
        name = _plain(found[1] if found and found[1] else title)
        names.append(name or f"column {number}")
        units.append(_plain(found[2]) if found else "")
    return _each_once(names), tuple(units)


def _plain(name: str) -> str:
    """Return a name without what no line of text can show, and no longer than is read."""
    return "".join(letter if letter.isprintable() else " " for letter in name).strip()[:LONGEST]


def _each_once(names: list[str]) -> tuple[str, ...]:
    """Return names of which none stands twice: the second of a name is told "(2)"."""
    taken, seen = set(names), Counter[str]()
    made: list[str] = []
    for name in names:
        seen[name] += 1
        own = name
        while seen[name] > 1 and own in taken:
            own = f"{name} ({seen[name]})"
            seen[name] += own in taken
        taken.add(own)
        made.append(own)
    return tuple(made)
