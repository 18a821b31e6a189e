"""Whole systems out of wishes: every combination of what may change, and what is left of them."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import replace

import numpy as np

from urgens.document import Build, BuildErrors
from urgens.physics.arrays import Array, Bools
from urgens.solve.bracket import Places
from urgens.studies.wishes.combinations import (
    Combinations,
    WishedSystem,
    chunks,
    combinations,
    quick_short,
    slow_short,
    valved,
)
from urgens.studies.wishes.freedom import Choices
from urgens.studies.wishes.relaxing import NEARLY, Progress, WishAnswer, relaxed, sure, with_chance
from urgens.studies.wishes.survey import quick, slow
from urgens.studies.wishes.wanted import Wishes, target_changes, with_wishes

MOST = 1_000_000  # combinations that are worked out


def search(
    build: Build, wishes: Wishes, choices: Choices, progress: Progress | None = None
) -> WishAnswer | None:
    """Return the systems that keep every wish and window, none beaten; None where it was stopped.

    wishes: what is wanted; choices: what may change, by name of `MAY`; progress: told the share
    done, answers whether to go on [callable].
    Raises BuildErrors where a choice cannot be read, or there are too many combinations.
    Source: by definition: every combination, windows first, then the balance of what is left.
    """
    base = with_wishes(build, wishes)
    groups = [*combinations(base, choices)]
    tried = sum(one.count for one in groups)
    if tried > MOST:
        raise BuildErrors.one(
            "may", f"makes {tried:,} combinations, of which {MOST:,} are worked out",
            "let less change, or name fewer sizes",
        )  # fmt: skip
    found: list[WishedSystem] = []
    done = 0
    for group in groups:
        for rows in chunks(group.count):
            if progress is not None and not progress(0.7 * done / max(tried, 1)):
                return None
            done += len(rows)
            found += _fitting(base, group, rows, wishes)
    if not found:
        return relaxed(base, groups, wishes, tried, progress)
    targets = target_changes(build, wishes)
    left = _unbeaten(found)
    drawn = with_chance(base, left, progress)
    if drawn is None:
        return None
    kept = [one for one in drawn if (one.chance or 0.0) <= wishes.rear_first_chance]
    if not kept:
        return relaxed(base, groups, wishes, tried, progress)
    systems = [replace(one, changes={**targets, **one.changes}) for one in _unbeaten(kept)]
    return WishAnswer(tried, tuple(sorted(systems, key=lambda one: one.criteria)))


def _fitting(
    build: Build, group: Combinations, rows: Places, wishes: Wishes
) -> Iterator[WishedSystem]:
    """Yield the rows of a group that keep every window and wish, but for the chance."""
    made, bare = group.way.build, group.numbers(rows)
    if len(group.way.settings) > 1:  # a valve takes force: without one a row misses no less
        free = dict(bare)
        for path in group.way.settings[0].numbers:
            free[path] = np.full(len(rows), max(one.numbers[path] for one in group.way.settings))
        rows = rows[quick_short(quick(made, free, len(rows)), wishes) <= NEARLY]
    if not rows.size:
        return
    numbers, setting = valved(group, rows)
    found = quick(made, numbers, len(rows))
    at = np.flatnonzero(quick_short(found, wishes) <= NEARLY)
    numbers = {path: values[at] for path, values in numbers.items()}
    if not at.size:
        return
    more = slow(made, numbers, len(at), wishes)
    kept = np.flatnonzero(slow_short(more, wishes) <= NEARLY)
    figures = {name: values[at][kept] for name, values in found.figures.items()}
    figures |= {name: values[kept] for name, values in more.figures.items()}
    parts = group.parts(rows[at][kept])
    table = np.stack([figures["effort"], figures["travel"], -more.margin[kept], parts], axis=1)
    for place in np.flatnonzero(unbeaten(table)):
        row = int(at[kept[place]])
        own = {name: float(values[place]) for name, values in figures.items()}
        yield group.system(int(rows[row]), int(setting[row]), own, float(more.margin[kept[place]]))


def asked(build: Build, wishes: Wishes, typed: Mapping[str, str]) -> tuple[WishedSystem, list[str]]:
    """Return one system that is asked about, and which windows of the build it misses.

    wishes: that are wanted; typed: of what may change, by name of `MAY`. How sure it is is drawn in
    full. Raises BuildErrors where there is no such part. Source: as `search`, of one combination.
    """
    base = with_wishes(build, wishes)
    groups = [*combinations(base, {name: [text] for name, text in typed.items()})]
    last = groups[-1].solid  # what is there comes first, what is typed last
    tried = [_last_of(group, wishes) for group in groups if group.solid is last]
    _, one, missed = min(tried, key=lambda each: each[0])
    return sure(base, one), missed


def _last_of(group: Combinations, wishes: Wishes) -> tuple[float, WishedSystem, list[str]]:
    """Return the last row of a group: by how much it misses, the system, windows it misses."""
    last, made = np.array([group.count - 1]), group.way.build
    numbers, setting = valved(group, last)
    found, more = quick(made, numbers, 1), slow(made, numbers, 1, wishes)
    figures = {name: float(rows[0]) for name, rows in (found.figures | more.figures).items()}
    missed = [name for name, holds in found.windows.items() if not holds[0]]
    missed += [] if more.holds[0] else ["front-first"]
    one = group.system(int(last[0]), int(setting[0]), figures, float(more.margin[0]))
    short = float((quick_short(found, wishes) + slow_short(more, wishes))[0])
    return short, one, missed


def unbeaten(criteria: Array) -> Bools:
    """Return which rows no other is as good as in everything and better than in something (m,).

    criteria: of which less is better (m, n) [any]. Of rows that are alike the first is left.
    Source: Pareto, by definition.
    """
    order = np.lexsort(criteria.T[::-1])
    left: list[int] = []
    for row in order:
        known = criteria[left]
        if not len(known) or not np.any(np.all(known <= criteria[row] + NEARLY, axis=1)):
            left.append(int(row))
    found = np.zeros(len(criteria), dtype=bool)
    found[left] = True
    return found


def _unbeaten(systems: Sequence[WishedSystem]) -> list[WishedSystem]:
    kept = unbeaten(np.array([one.criteria for one in systems]))
    return [one for one, stays in zip(systems, kept, strict=True) if stays]
