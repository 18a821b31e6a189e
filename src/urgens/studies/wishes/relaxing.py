"""How sure wished systems are, and where nothing fits, the least that wishes have to give."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

import numpy as np

from urgens.document import Build, with_changes
from urgens.physics.arrays import Bools
from urgens.studies.rear_first_chance import DRAWS, rear_first_chances
from urgens.studies.wishes.combinations import (
    CHUNK,
    Combinations,
    WishedSystem,
    chunks,
    quick_short,
    slow_short,
    valved,
)
from urgens.studies.wishes.survey import quick, short, slow
from urgens.studies.wishes.wanted import SENSE, Wishes

# While systems are told apart, fewer where there are many; what is shown is drawn in full.
FEW_DRAWS, FEWER_DRAWS, MANY = 500, 150, 80
FIRST_LOOKED_AT = 200  # combinations looked at in full where nothing fits; more until it is sure
KEPT = 40  # of a group, the least first, of which the chance is asked as well
NAMED = 2_000  # combinations of a group that are looked at to name what is in the way
NEARLY = 1e-9
OF_THE_FOOT = ("pedal.pivot_to_pushrod", "master.bore")  # they scale the foot, and no more

Progress = Callable[[float], bool]


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


def with_chance(
    base: Build,
    systems: Sequence[WishedSystem],
    progress: Progress | None,
    known: dict[str, float] | None = None,
) -> list[WishedSystem] | None:
    """Return systems with how sure each is, of common draws; None where it was told to stop.

    base: the build with the wishes; systems: of it; progress: told the
    share done, answers whether to go on [callable]; known: chances of pairs that were asked
    already [-], to which more are added. Source: Monte Carlo, as `rear_first_chances`.
    """
    found = []
    known = {} if known is None else known
    draws = FEW_DRAWS if len(systems) <= MANY else FEWER_DRAWS
    for place, one in enumerate(systems):
        if progress is not None and not progress(0.7 + 0.3 * place / len(systems)):
            return None
        pair = _of_balance(one)
        if pair not in known:
            (known[pair],) = rear_first_chances([with_changes(base, one.changes)], draws)
        found.append(replace(one, chance=known[pair], drawn=draws))
    return found


def _of_balance(system: WishedSystem) -> str:
    """Return what of a system decides who locks first: one bore of both, and the lever, do not."""
    told = {path: text for path, text in system.changes.items() if path not in OF_THE_FOOT}
    return repr(sorted(told.items()))


def sure(build: Build, one: WishedSystem) -> WishedSystem:
    """Return a system with its chance of the rear first drawn in full, as everywhere.

    build: that it changes. Raises BuildErrors. Source: Monte Carlo, as `rear_first_chances`.
    """
    (chance,) = rear_first_chances([with_changes(build, one.changes)])
    return replace(one, chance=chance, drawn=DRAWS)


def relaxed(
    base: Build,
    groups: Sequence[Combinations],
    wishes: Wishes,
    tried: int,
    progress: Progress | None,
) -> WishAnswer | None:
    """Return the least that wishes have to give for a system to come in; None: told to stop.

    base: the build with the wishes; groups: all combinations; wishes: that are wanted; tried: how
    many there are [-]; progress: told the share done, answers whether to go on [callable].
    The least sum of |to − from|/from: rows are looked at in full in the order of what is known of
    them at once, until none that is left could need less; the chance is asked of the least of each
    group.
    """
    near: list[tuple[float, WishedSystem]] = []
    for number, group in enumerate(groups):
        if progress is not None and not progress(0.7 + 0.3 * number / len(groups)):
            return None
        near += _least(group, wishes)
    best: tuple[float, WishedSystem] | None = None
    known: dict[str, float] = {}
    for cost, one in sorted(near, key=lambda each: each[0]):
        if best is not None and cost >= best[0]:
            break
        drawn = with_chance(base, [one], progress, known)
        if drawn is None:
            return None
        whole = cost + _short_of(drawn[0], wishes, ("rear-first-chance",))
        if best is None or whole < best[0]:
            best = whole, drawn[0]
    if best is None:
        return WishAnswer(tried, (), (), _never_held(groups, wishes))
    relax = [
        Relaxed(name, wishes.of(name) or 0.0, _figure(best[1], name))
        for name in SENSE
        if _short_of(best[1], wishes, (name,)) > NEARLY
    ]
    way = max(relax, key=lambda one: abs(one.end - one.start) / (one.start or 1.0), default=None)
    return WishAnswer(tried, (), tuple(relax), None if way is None else way.want)


def _figure(system: WishedSystem, name: str) -> float:
    if name == "rear-first-chance":
        return system.chance or 0.0
    return system.figures.get(name, float("nan"))


def _short_of(system: WishedSystem, wishes: Wishes, names: Sequence[str]) -> float:
    """Return by how much a system misses some wishes [-]."""
    found = 0.0
    for name in names:
        wish, value = wishes.of(name), _figure(system, name)
        if wish is not None and (name in system.figures or name == "rear-first-chance"):
            found += float(short(name, np.array([value]), wish)[0])
    return found


def _never_held(groups: Sequence[Combinations], wishes: Wishes) -> str | None:
    """Return which window or wish no combination keeps, None where it is several together."""
    held: dict[str, bool] = {}

    def note(name: str, rows: Bools) -> None:
        held[name] = held.get(name, False) or bool(rows.any())

    for group in groups:
        for rows in chunks(group.count):
            numbers, _ = valved(group, rows)
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


def _least(group: Combinations, wishes: Wishes) -> list[tuple[float, WishedSystem]]:
    """Return the rows of a group that miss the least, with how much that is [-]."""
    made = group.way.build
    known = []
    for rows in chunks(group.count):
        numbers, _ = valved(group, rows)
        known.append(quick(made, numbers, len(rows)))
    cost = np.concatenate([quick_short(one, wishes) for one in known])
    order = np.argsort(cost, kind="stable")
    order = order[np.isfinite(cost[order])]
    found: list[tuple[float, WishedSystem]] = []
    start, some = 0, FIRST_LOOKED_AT
    while start < len(order) and (len(found) < KEPT or cost[order[start]] < found[-1][0]):
        rows = order[start : start + some]
        numbers, setting = valved(group, rows)
        at_once, more = (
            quick(made, numbers, len(rows)),
            slow(made, numbers, len(rows), wishes),
        )
        whole = quick_short(at_once, wishes) + slow_short(more, wishes)
        for place in np.argsort(whole, kind="stable")[:KEPT]:
            if np.isfinite(whole[place]):
                figures = at_once.figures | more.figures
                own = {name: float(values[place]) for name, values in figures.items()}
                one = group.system(
                    int(rows[place]), int(setting[place]), own, float(more.margin[place])
                )
                found.append((float(whole[place]), one))
        found = sorted(found, key=lambda each: each[0])[:KEPT]
        start, some = start + some, min(some * 2, CHUNK)
    return found
