"""Whole systems out of wishes: every combination of what may change, and what is left of them."""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from urgens.document import Build, BuildErrors, with_changes
from urgens.physics.arrays import Array, Bools
from urgens.solve.bracket import Places
from urgens.studies.rear_first_chance import DRAWS, rear_first_chances
from urgens.studies.wishes.freedom import Choices, PartOption, Variable, solid_options, variables
from urgens.studies.wishes.survey import QUICK, Quick, Slow, quick, short, slow
from urgens.studies.wishes.valves import ValveWay, fitted, valve_ways
from urgens.studies.wishes.wanted import KINDS, SENSE, Wishes, target_changes, with_wishes

MOST = 1_000_000  # combinations that are worked out
CHUNK = 20_000  # of them at a time
# While systems are told apart, fewer where there are many; what is shown is drawn in full.
FEW_DRAWS, FEWER_DRAWS, MANY = 500, 150, 80
FIRST_RELAXED = 200  # combinations looked at in full where nothing fits; more until it is sure
NAMED = 2_000  # combinations of a group that are looked at to name what is in the way
NEARLY = 1e-9

Progress = Callable[[float], bool]


@dataclass(frozen=True)
class WishedSystem:
    """One system: its changes by path, as typed; what they are called; what it does.

    `figures` by name of wish [SI], NaN where it has none or it was not asked for; `margin` [-];
    `chance` of the rear first [-], None until it is drawn; `parts` that are bought; `drawn` how
    many draws the chance is of.
    """

    words: str
    changes: dict[str, Any]
    figures: dict[str, float]
    margin: float
    parts: int
    chance: float | None = None
    drawn: int = 0

    @property
    def criteria(self) -> tuple[float, ...]:
        """What systems are beaten in, less is better: foot, travel, chance, margin and parts."""
        chance = 0.0 if self.chance is None else self.chance
        return (
            self.figures["effort"], self.figures["travel"], chance, -self.margin, float(self.parts)
        )  # fmt: skip


@dataclass(frozen=True)
class Relaxed:
    """One wish that would let a system in: from what to what [SI]."""

    want: str
    start: float
    end: float


@dataclass(frozen=True)
class WishAnswer:
    """How many combinations were tried; systems nobody beats; what to relax where there is none."""

    tried: int
    systems: tuple[WishedSystem, ...]
    relax: tuple[Relaxed, ...] = ()
    in_the_way: str | None = None


@dataclass(frozen=True)
class _Combinations:
    """All combinations of figures on one build of one kind of parts, with one kind of valve."""

    solid: PartOption
    way: ValveWay
    variables: tuple[Variable, ...]

    @property
    def count(self) -> int:
        """How many there are."""
        return int(np.prod([len(one.options) for one in self.variables], dtype=np.int64))

    def options(self, rows: Places) -> list[Places]:
        """Return which option each row has, variable by variable."""
        shape = tuple(len(one.options) for one in self.variables)
        return [*np.unravel_index(rows, shape)] if shape else []

    def numbers(self, rows: Places) -> dict[str, Array]:
        """Return the figures of rows, by path (m,) [SI]."""
        found = {}
        for variable, at in zip(self.variables, self.options(rows), strict=True):
            for path in variable.options[0].numbers:
                found[path] = np.array([one.numbers[path] for one in variable.options])[at]
        return found

    def parts(self, rows: Places) -> Array:
        """Return how many parts are bought for rows (m,) [-]."""
        found = np.full(len(rows), self.solid.parts + self.way.parts, dtype=float)
        for variable, at in zip(self.variables, self.options(rows), strict=True):
            counts = np.array([one.parts for one in variable.options], dtype=float)
            if variable.name == "bore" and "master" in self.solid.values:
                counts[:] = 0.0  # it comes with the cylinder
            found += counts[at]
        return found


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
    groups = [*_combinations(base, choices)]
    tried = sum(one.count for one in groups)
    if tried > MOST:
        raise BuildErrors.one(
            "may", f"makes {tried:,} combinations, of which {MOST:,} are worked out",
            "let less change, or name fewer sizes",
        )  # fmt: skip
    found: list[WishedSystem] = []
    done = 0
    for group in groups:
        for rows in _chunks(group.count):
            if progress is not None and not progress(0.7 * done / max(tried, 1)):
                return None
            done += len(rows)
            found += _fitting(base, group, rows, wishes)
    if not found:
        return _relaxed(base, groups, wishes, tried, progress)
    targets = target_changes(build, wishes)
    left = _unbeaten(found)
    sure = _with_chance(base, left, wishes, progress)
    if sure is None:
        return None
    kept = [one for one in sure if (one.chance or 0.0) <= wishes.rear_first_chance]
    if not kept:
        least = min(one.chance or 0.0 for one in sure)
        return WishAnswer(
            tried, (), (Relaxed("rear-first-chance", wishes.rear_first_chance, least),),
            "rear-first-chance",
        )  # fmt: skip
    systems = [replace(one, changes={**targets, **one.changes}) for one in _unbeaten(kept)]
    return WishAnswer(tried, tuple(sorted(systems, key=lambda one: one.criteria)))


def _combinations(build: Build, choices: Choices) -> Iterator[_Combinations]:
    kinds = choices.get("valve") if "valve" in choices else ("own",)
    for solid, made in solid_options(build, choices):
        for way in valve_ways(made, kinds):
            yield _Combinations(solid, way, variables(made, choices))


def _chunks(count: int) -> Iterator[Places]:
    for start in range(0, count, CHUNK):
        yield np.arange(start, min(start + CHUNK, count))


def _quick_short(found: Quick, wishes: Wishes) -> Array:
    """Return by how much rows miss the wishes that are known at once (m,) [-]."""
    misses = np.zeros(len(found.holds))
    for name in QUICK:
        wish = wishes.of(name)
        if wish is not None:
            misses = misses + short(name, found.figures[name], wish)
    return np.where(found.holds, misses, np.inf)


def _slow_short(found: Slow, wishes: Wishes) -> Array:
    misses = np.zeros(len(found.holds))
    for name, values in found.figures.items():
        wish = wishes.of(name)
        if wish is not None:
            misses = misses + short(name, values, wish)
    return np.where(found.holds, misses, np.inf)


def _valved(group: _Combinations, rows: Places) -> tuple[dict[str, Array], Places]:
    """Return the figures of rows with their valves, and which setting each has."""
    numbers = group.numbers(rows)
    setting = fitted(group.way, numbers, len(rows))
    for path in group.way.settings[0].numbers:
        numbers[path] = np.array([one.numbers[path] for one in group.way.settings])[setting]
    return numbers, setting


def _fitting(
    build: Build, group: _Combinations, rows: Places, wishes: Wishes
) -> Iterator[WishedSystem]:
    """Yield the rows of a group that keep every window and wish, but for the chance."""
    made, bare = group.way.build, group.numbers(rows)
    if len(group.way.settings) > 1:  # a valve takes force: without one a row misses no less
        free = dict(bare)
        for path in group.way.settings[0].numbers:
            free[path] = np.full(len(rows), max(one.numbers[path] for one in group.way.settings))
        rows = rows[_quick_short(quick(made, free, len(rows)), wishes) <= NEARLY]
    if not rows.size:
        return
    numbers, setting = _valved(group, rows)
    found = quick(made, numbers, len(rows))
    at = np.flatnonzero(_quick_short(found, wishes) <= NEARLY)
    numbers = {path: values[at] for path, values in numbers.items()}
    if not at.size:
        return
    more = slow(made, numbers, len(at), wishes)
    kept = np.flatnonzero(_slow_short(more, wishes) <= NEARLY)
    yield from _systems(group, rows[at], setting[at], kept, found, at, more)


def _systems(
    group: _Combinations, rows: Places, setting: Places, kept: Places, found: Quick, at: Places,
    more: Slow,
) -> Iterator[WishedSystem]:  # fmt: skip
    """Yield rows as systems; kept: which of them."""
    parts, options = group.parts(rows[kept]), group.options(rows[kept])
    figures = {name: values[at][kept] for name, values in found.figures.items()}
    figures |= {name: values[kept] for name, values in more.figures.items()}
    table = np.stack([figures["effort"], figures["travel"], -more.margin[kept], parts], axis=1)
    for place in np.flatnonzero(unbeaten(table)):
        chosen = [
            one.options[at_[place]] for one, at_ in zip(group.variables, options, strict=True)
        ]
        valve = group.way.settings[int(setting[kept][place])]
        changes = dict(group.solid.values)
        for one in (*chosen, valve):
            changes |= one.values
        words = [one.words for one in (group.solid, *chosen, valve) if one.words]
        yield WishedSystem(
            ", ".join(words) or "as it is", changes,
            {name: float(values[place]) for name, values in figures.items()},
            float(more.margin[kept][place]), int(parts[place]),
        )  # fmt: skip


def unbeaten(criteria: Array) -> Bools:
    """Return which rows no other is as good as in everything and better than in something (m,).

    criteria: of which less is better (m, n). Of rows that are alike the first is left.
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


def _with_chance(
    base: Build, systems: Sequence[WishedSystem], wishes: Wishes, progress: Progress | None
) -> list[WishedSystem] | None:
    """Return systems with how sure each is, of common draws; None where it was told to stop."""
    found = []
    draws = FEW_DRAWS if len(systems) <= MANY else FEWER_DRAWS
    for place, one in enumerate(systems):
        if progress is not None and not progress(0.7 + 0.3 * place / len(systems)):
            return None
        (chance,) = rear_first_chances([with_changes(base, one.changes)], draws)
        found.append(replace(one, chance=chance, drawn=draws))
    return found


def sure(build: Build, one: WishedSystem) -> WishedSystem:
    """Return a system with its chance of the rear first drawn in full, as everywhere.

    build: that it changes. Raises BuildErrors. Source: `rear_first_chance`.
    """
    (chance,) = rear_first_chances([with_changes(build, one.changes)])
    return replace(one, chance=chance, drawn=DRAWS)


# --- where nothing fits ------------------------------------------------------------------------


def _relaxed(
    base: Build, groups: Sequence[_Combinations], wishes: Wishes, tried: int,
    progress: Progress | None,
) -> WishAnswer | None:  # fmt: skip
    """Return the least that wishes have to give for a system to come in.

    The least sum of |to − from|/from: rows are looked at in full in the order of what is known of
    them at once, until none that is left could need less.
    """
    best: tuple[float, dict[str, float]] = (np.inf, {})
    for number, group in enumerate(groups):
        if progress is not None and not progress(0.7 + 0.3 * number / len(groups)):
            return None
        best = min(best, _least(group, wishes, best[0]), key=lambda one: one[0])
    if not np.isfinite(best[0]):
        return WishAnswer(tried, (), (), _never_held(groups, wishes))
    relax = []
    for name in SENSE:
        wish = wishes.of(name)
        value = best[1].get(name)
        if wish is not None and value is not None and short(name, np.array([value]), wish)[0] > 0:
            relax.append(Relaxed(name, wish, value))
    way = max(relax, key=lambda one: abs(one.end - one.start) / one.start, default=None)
    return WishAnswer(tried, (), tuple(relax), None if way is None else way.want)


def _never_held(groups: Sequence[_Combinations], wishes: Wishes) -> str | None:
    """Return which window or wish no combination keeps, None where it is several together."""
    held: dict[str, bool] = {}

    def note(name: str, rows: Bools) -> None:
        held[name] = held.get(name, False) or bool(rows.any())

    for group in groups:
        for rows in _chunks(group.count):
            numbers, _ = _valved(group, rows)
            known = quick(group.way.build, numbers, len(rows))
            for name, window in known.windows.items():
                note(name, window)
            note("effort", np.isfinite(known.figures["effort"]))
            some = np.flatnonzero(known.holds & np.isfinite(known.figures["effort"]))[:NAMED]
            if some.size:
                part = {path: values[some] for path, values in numbers.items()}
                more = slow(group.way.build, part, len(some), wishes)
                note("front-first", more.holds)
                for name, values in more.figures.items():
                    note(name, np.isfinite(values))
    return next((name for name, ever in held.items() if not ever), None)


def _least(group: _Combinations, wishes: Wishes, limit: float) -> tuple[float, dict[str, float]]:
    """Return the least that any row of a group misses, and what that row does; inf, none."""
    made = group.way.build
    costs, pieces = [], []
    for rows in _chunks(group.count):
        numbers, _ = _valved(group, rows)
        known = quick(made, numbers, len(rows))
        costs.append(_quick_short(known, wishes))
        pieces.append(known)
    cost = np.concatenate(costs)
    order = np.argsort(cost, kind="stable")
    order = order[cost[order] < limit]
    best: tuple[float, dict[str, float]] = (limit, {})
    start, some = 0, FIRST_RELAXED
    while start < len(order) and cost[order[start]] < best[0]:
        rows = order[start : start + some]
        numbers, _ = _valved(group, rows)
        more = slow(made, numbers, len(rows), wishes)
        whole = cost[rows] + _slow_short(more, wishes)
        place = int(np.argmin(whole))
        if whole[place] < best[0]:
            figures = {
                name: float(np.concatenate([one.figures[name] for one in pieces])[rows[place]])
                for name in QUICK
            }
            figures |= {name: float(values[place]) for name, values in more.figures.items()}
            best = float(whole[place]), figures
        start, some = start + some, min(some * 2, CHUNK)
    return best if best[1] else (np.inf, {})


__all__ = ["KINDS", "Relaxed", "WishAnswer", "WishedSystem", "search", "sure", "unbeaten"]
