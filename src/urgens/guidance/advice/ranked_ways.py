"""Ways to balance a build as a builder would take them: what brings a danger stands behind."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from threading import Lock

from urgens.document import Build
from urgens.guidance.advice.brought import Brought, brought
from urgens.guidance.advice.valve_choice import fitting
from urgens.guidance.rules.registry import findings
from urgens.solve import solve
from urgens.studies.balance_verdict import MARGIN, BalanceVerdict, verdict_of
from urgens.studies.rear_first_chance import rear_first_chances
from urgens.studies.twin_way import twin_way
from urgens.studies.valve_choice import Candidate, candidates, surest, with_chance

Progress = Callable[[float], bool]
Roads = tuple[float, ...] | None


@dataclass(frozen=True)
class RankedWays:
    """Ways, the best first, what each brings, the build as it is, and how sure that is [-].

    `brings` is empty and `chance` None where it was not asked how sure they are.
    """

    found: tuple[Candidate, ...]
    now: BalanceVerdict
    brings: tuple[Brought, ...] = ()
    chance: float | None = None

    @property
    def recommended(self) -> Candidate | None:
        """The first that is worth it and leaves the front first; None where none is."""
        for one, brings in zip(self.found, self.brings, strict=True):
            if brings.is_worth_it and not one.to_take[1].rear_first:
                return one
        return None


def ranked_ways(
    build: Build,
    surfaces: Sequence[float] | None = None,
    margin: float = MARGIN,
    progress: Progress | None = None,
    *,
    sure: bool = True,
    twin: bool = False,
) -> RankedWays | None:
    """Return the ways to balance a build, ranked; None where it was told to stop.

    surfaces, margin, progress, sure: as in `candidates`; twin: whether twin cylinders with a bar
    are one of them, which stand behind the first of the others: that is the larger change. Source:
    as `candidates`; then, of what leaves the front first, what raises a danger goes behind the
    rest, and what raises a warning for nothing before it.
    """
    ways = _sure_ways(build, surfaces, margin, progress) if sure else (
        _by_figures(build, surfaces, margin, progress)
    )  # fmt: skip
    other = twin_way(build, margin) if twin and ways is not None else None
    return ways if ways is None or other is None else _with(build, ways, other)


def _by_figures(
    build: Build, surfaces: Sequence[float] | None, margin: float, progress: Progress | None
) -> RankedWays | None:
    global _first
    found = candidates(build, surfaces, margin, progress, sure=False)
    _first = build, _roads(surfaces), margin, found
    return RankedWays(found, verdict_of(build, surfaces, margin)) if found else None


def _roads(surfaces: Sequence[float] | None) -> Roads:
    return None if surfaces is None else tuple(surfaces)


_asked = Lock()  # the line at the bottom and Choose ask the same, each in a thread of its own
_last: tuple[Build, Roads, float, RankedWays] | None = None
_first: tuple[Build, Roads, float, tuple[Candidate, ...]] | None = None  # by figures alone


def _sure_ways(
    build: Build, surfaces: Sequence[float] | None, margin: float, progress: Progress | None
) -> RankedWays | None:
    """Return ways with how sure they are; those that were asked for last are kept."""
    global _last
    roads = _roads(surfaces)
    with _asked:
        if _last is not None and _last[0] is build and _last[1:3] == (roads, margin):
            return _last[3]
        kept = _first
        if kept is not None and kept[0] is build and kept[1:3] == (roads, margin) and kept[3]:
            found = surest(build, kept[3], roads, margin, progress)
        else:
            found = candidates(build, roads, margin, progress)
        if not found:
            return None
        (chance,) = rear_first_chances([build])
        brings = _brings(build, found)
        ways = _in_order(found, brings, verdict_of(build, roads, margin), chance)
        _last = build, roads, margin, ways
        return ways


def _brings(build: Build, found: Sequence[Candidate]) -> list[Brought]:
    before, units = findings(solve(build)), build.natural_units
    return [brought(build, fitting(build, one.to_take[0], units), before) for one in found]


def _in_order(
    found: Sequence[Candidate], brings: Sequence[Brought], now: BalanceVerdict, chance: float | None
) -> RankedWays:
    """Return ways with what each brings, what makes something worse behind the rest."""

    def worse(at: int) -> tuple[bool, ...]:
        first = bool(found[at].to_take[1].rear_first)
        return first, brings[at].danger, not brings[at].is_worth_it

    order = sorted(range(len(found)), key=worse)
    ways, what = tuple(found[at] for at in order), tuple(brings[at] for at in order)
    return RankedWays(ways, now, what, chance)


def _with(build: Build, ways: RankedWays, other: Candidate) -> RankedWays:
    """Return ways with one more at its place, which is not the first."""
    sure, now = ways.chance is not None, ways.now
    other = with_chance(build, other) if sure else other
    place = 1 + sum(one.order(now) <= other.order(now) for one in ways.found[1:])
    found = (*ways.found[:place], other, *ways.found[place:])
    if not sure:
        return RankedWays(found, now)
    brings = [*ways.brings[:place], *_brings(build, [other]), *ways.brings[place:]]
    return _in_order(found, brings, now, ways.chance)
