"""Builds between two: some of the changes that lead from one to the other, and not the others."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from functools import cached_property
from typing import Any

import numpy as np

from urgens.document import Build, BuildErrors
from urgens.document.catalogue import figure
from urgens.document.edits.past import change_words, changes_between, with_values
from urgens.document.frozen import thawed
from urgens.document.ledger.history import HistoryEntry
from urgens.physics.arrays import Array, Bools
from urgens.studies.unlimited import UnlimitedFigures, unlimited

SAME = 1e-9  # of a figure: what differs by less is the same
LAYOUT_PATH, LAYOUT = "plumbing", "layout"
MOST_TOLD = 3  # of changes that are one, in its words
UNTOLD = "what the history does not tell"
MOST_EXACT = 10  # changes of which every order is tried; beyond, some orders are drawn


@dataclass(frozen=True)
class OneChange:
    """One change on the way: what, when (None: at no known time), and new values by path.

    None takes a place out.
    """

    what: str
    at: datetime | None
    values: Mapping[str, Any]


@dataclass(frozen=True)
class Mixtures:
    """The build before all changes, the one after them, and the changes in the order of time."""

    before: Build
    after: Build
    changes: tuple[OneChange, ...]

    def build(self, taken: Iterable[int]) -> Build:
        """Return a mixture; taken: places of the changes that are in it [-].

        Raises BuildErrors where they make no build. Source: by definition, later over earlier.
        """
        values: dict[str, Any] = {}
        for place in sorted(taken):
            values |= self.changes[place].values
        return with_values(self.before, values)

    @cached_property
    def numeric(self) -> tuple[bool, ...]:
        """Which changes are of figures alone, that may be laid over either build as numbers."""
        return tuple(self._is_numeric(place) for place in range(len(self.changes)))

    def _is_numeric(self, place: int) -> bool:
        """Tell whether a change says the same laid over as typed, by itself and beside the rest."""
        try:
            over = self._numbers(place)
        except (BuildErrors, TypeError):
            return False
        others = [one for one in range(len(self.changes)) if one != place]
        for start, taken in (
            (self.before, [place]),
            (self.build(others), range(len(self.changes))),
        ):
            laid, typed = unlimited(start, over), unlimited(self.build(taken))
            if not all(
                np.allclose(getattr(laid, name), getattr(typed, name), rtol=SAME, atol=0.0,
                            equal_nan=True)
                for name in ("margin", "effort", "travel")
            ):  # fmt: skip
                return False
        return True

    def _numbers(self, place: int) -> dict[str, float]:
        """Return a change as numbers [SI]; raises BuildErrors or TypeError where it is none."""
        made = self.build([place])
        found = {}
        for path in self.changes[place].values:
            one, other = figure(made, path), figure(self.before, path)
            if one.kind != other.kind:
                raise TypeError(f"{path} is another figure")
            found[path] = one.number
            other.number  # noqa: B018 - raises where it was not given before
        return found

    def figures(self, taken: Bools) -> UnlimitedFigures:
        """Return the figures of mixtures, a row each (m,).

        taken: which changes are in each (m, n) [bool]. Source: by definition.
        """
        solid = [place for place, one in enumerate(self.numeric) if not one]
        rows = {name: np.full(len(taken), np.nan) for name in ("margin", "effort", "travel")}
        kinds, which = np.unique(taken[:, solid], axis=0, return_inverse=True)
        for number, kind in enumerate(kinds):
            at = np.flatnonzero(np.reshape(which, -1) == number)
            start = self.build([place for place, on in zip(solid, kind, strict=True) if on])
            found = unlimited(start, self._over(start, taken[at]), len(at))
            for name, values in rows.items():
                values[at] = getattr(found, name)
        return UnlimitedFigures(**rows)

    def _over(self, start: Build, taken: Bools) -> dict[str, Array]:
        """Return the figures of mixtures that differ in them alone, by path (m,) [SI]."""
        over: dict[str, Array] = {}
        for place, numeric in enumerate(self.numeric):
            if not numeric:
                continue
            for path, value in self._numbers(place).items():
                own = over.get(path, np.full(len(taken), figure(start, path).number))
                over[path] = np.where(taken[:, place], value, own)
        return over


def mixtures(before: Build, after: Build, changes: Sequence[OneChange]) -> Mixtures:
    """Return what is between two builds; changes that make no build without others are one.

    changes: from one to the other, in the order of time.
    Raises BuildErrors where all of them together make no build.
    Source: by definition.
    """
    found = Mixtures(before, after, tuple(changes))
    whole = range(len(changes))
    found.build(whole)
    alone = {
        place for place in whole
        if not (_makes(found, [place]) and _makes(found, [one for one in whole if one != place]))
    }  # fmt: skip
    found = Mixtures(before, after, _joined(found.changes, alone))
    solid = [place for place, numeric in enumerate(found.numeric) if not numeric]
    if len(solid) <= MOST_EXACT and not all(
        _makes(found, [one for bit, one in enumerate(solid) if mask >> bit & 1])
        for mask in range(1 << len(solid))
    ):
        found = Mixtures(before, after, _joined(found.changes, set(solid)))
    return found


def _makes(found: Mixtures, taken: Iterable[int]) -> bool:
    try:
        found.build(taken)
    except BuildErrors:
        return False
    return True


def _joined(changes: Sequence[OneChange], together: set[int]) -> tuple[OneChange, ...]:
    """Return changes of which some are one, at the place of the last of them."""
    if len(together) < 2:
        return tuple(changes)
    last = max(together)
    joined = [changes[place] for place in sorted(together)]
    values: dict[str, Any] = {}
    for one in joined:
        values |= one.values
    names = sorted((one.what for one in joined), key=lambda name: name == LAYOUT)
    more = f" and {len(names) - MOST_TOLD} more" if len(names) > MOST_TOLD else ""
    whole = OneChange("; ".join(names[:MOST_TOLD]) + more, joined[-1].at, values)
    return tuple(
        whole if place == last else one
        for place, one in enumerate(changes)
        if place not in together or place == last
    )


def of_history(build: Build, once: Build, since: datetime | HistoryEntry) -> Mixtures:
    """Return the changes that the history tells from a build as it once was to what it is now.

    once: as it was then; since: that time, or the entry before which it was.
    What differs and no entry tells is a change more, at no known time. Raises BuildErrors.
    Source: the build's own history.
    """
    later = [
        entry
        for entry in sorted(build.history, key=lambda one: one.at)
        if entry.changes
        and (entry.at > since if isinstance(since, datetime) else entry.at >= since.at)
    ]
    told = []
    for entry in later:
        values = {path: thawed(new) for path, (_, new) in entry.changes.items()}
        told.append(OneChange(entry.what, entry.at, values))
    together = Mixtures(once, build, tuple(told)).build(range(len(told)))
    untold = {path: pair[1] for path, pair in changes_between(together, build).items()}
    if untold:
        told.append(OneChange(UNTOLD, None, untold))
    return mixtures(once, build, told)


def of_figures(before: Build, after: Build) -> Mixtures:
    """Return what differs between two builds: a figure a change, and a part of another kind one.

    before, after: the builds. Raises BuildErrors. Source: by definition.
    """
    pairs = changes_between(before, after)
    groups: dict[str, list[str]] = {}
    for path in pairs:
        groups.setdefault(_part(path, pairs), []).append(path)
    found = []
    for part, paths in groups.items():
        told = [path for path in paths if path == f"{part}.kind"] or paths
        words = LAYOUT if part == LAYOUT_PATH else change_words(after, {p: pairs[p] for p in told})
        found.append(OneChange(words, None, {path: pairs[path][1] for path in paths}))
    return mixtures(before, after, found)


def _part(path: str, pairs: Mapping[str, Any]) -> str:
    """Return the part that is of another kind and that a path is in, else the path itself."""
    if path.startswith(LAYOUT_PATH):
        return LAYOUT_PATH
    whole = path
    while "." in whole:
        whole = whole.rpartition(".")[0]
        if f"{whole}.kind" in pairs:
            return whole
    return path
