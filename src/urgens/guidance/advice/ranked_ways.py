"""Ways to balance a build as a builder would take them: what brings a danger stands behind."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass

from urgens.document import Build
from urgens.guidance.advice.brought import Brought, brought
from urgens.guidance.advice.valve_choice import fitting
from urgens.guidance.rules.registry import findings
from urgens.solve import solve
from urgens.studies.balance_verdict import MARGIN, BalanceVerdict, verdict_of
from urgens.studies.rear_first_chance import rear_first_chances
from urgens.studies.twin_way import twin_way
from urgens.studies.valve_choice import Candidate, candidates, with_chance

Progress = Callable[[float], bool]


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
    are one of them, which never come first: that is the larger change. Source: as `candidates`;
    then what raises a danger that was not there goes behind what raises none.
    """
    now = verdict_of(build, surfaces, margin)
    found = candidates(build, surfaces, margin, progress, sure=sure)
    if not found:
        return None
    other = twin_way(build, margin) if twin else None
    if other is not None:
        other = with_chance(build, other) if sure else other
        place = 1 + sum(one.order(now) <= other.order(now) for one in found[1:])
        found = (*found[:place], other, *found[place:])
    if not sure:
        return RankedWays(found, now)
    before, units = findings(solve(build)), build.natural_units
    brings = [brought(build, fitting(build, one.to_take[0], units), before) for one in found]
    order = sorted(range(len(found)), key=lambda place: brings[place].danger)
    (chance,) = rear_first_chances([build])
    ways, what = tuple(found[at] for at in order), tuple(brings[at] for at in order)
    return RankedWays(ways, now, what, chance)
