"""Ways to balance a build, fitted and ranked over all load cases and roads."""

from collections.abc import Callable, Collection, Iterable, Sequence
from dataclasses import dataclass, replace
from math import ceil

from urgens.document import Build, with_changes
from urgens.solve.adhesion_curve import Regulation
from urgens.solve.roads import every_road
from urgens.solve.solution import regulation_of
from urgens.solve.system import system
from urgens.studies.balance_verdict import MARGIN, BalanceVerdict, Wanted, verdict_of
from urgens.studies.rear_first_chance import rear_first_chances
from urgens.studies.surer_fits import LIMIT, surer_ways
from urgens.studies.valve_fits import FITS, FittedWay, Kind, Search, without_valve

WITHIN = 0.01  # of mean efficiency, in which fewer parts are the better choice
CHANCE_STEP = 0.05  # of the draws, by which chances above the limit rank


@dataclass(frozen=True)
class Candidate:
    """One way: what is fitted, how it does, and the rules over all load cases.

    `lost` is what the build has within reach and this way has not. `sold` is the best of what is
    sold of its kind and how that does, None where its figures are such or none of them keeps the
    front first. `chance` of the rear first with any load on any road under the spread of all
    figures, as it would be fitted [-], None where it was not asked for.
    """

    fitted: FittedWay
    verdict: BalanceVerdict
    regulation: Regulation
    lost: tuple[Wanted, ...]
    sold: tuple[FittedWay, BalanceVerdict] | None = None
    chance: float | None = None

    @property
    def kind(self) -> Kind:
        """Which kind of way it is."""
        return self.fitted.kind

    @property
    def to_take(self) -> tuple[FittedWay, BalanceVerdict]:
        """What a builder would fit: what is sold, where the free optimum is not."""
        return (self.fitted, self.verdict) if self.sold is None else self.sold

    def order(self, now: BalanceVerdict) -> tuple[float, ...]:
        """Return what ranks it, as it can be bought; now: the verdict on what is fitted."""
        return order_of(self.to_take[1], self.chance, now)


def order_of(
    verdict: BalanceVerdict, chance: float | None, now: BalanceVerdict
) -> tuple[float, ...]:
    """Return what ranks a way, the least first; a chance above the limit counts by steps.

    verdict: on it; chance: of the rear first, None where it is not known [-]; now: the verdict on
    what is fitted. Source: common practice.
    """
    rear, lost, *rest = verdict.order(now)
    over = 0.0 if chance is None else max(chance - LIMIT, 0.0)
    return rear, lost, ceil(over / CHANCE_STEP), *rest


def candidates(
    build: Build,
    surfaces: Sequence[float] | None = None,
    margin: float = MARGIN,
    progress: Callable[[float], bool] | None = None,
    *,
    sure: bool = True,
    kinds: Collection[Kind] = tuple(FITS),
) -> tuple[Candidate, ...]:
    """Return ways to balance a build, the best first; each replaces what is in the rear circuit.

    surfaces: tyre-road coefficients, else every one from ice to the target's, and what lies
    between [-]; margin: least front above rear at first lock, of the road's coefficient [-];
    progress: told the share done, answers whether to go on [callable]; sure: whether to ask how
    sure each is, which takes longer; kinds: of ways, beside none at all. None of them where it was
    told to stop.
    Source: common practice: no rear first, then nothing lost, then how sure that is, then the rear
    below the front, then fewest margins missed, then mean efficiency; what has the fewest parts
    goes first within `WITHIN` of the best.
    """
    third = progress and (lambda share: progress(share / 3.0 if sure else share))
    found = _fitted(build, surfaces, margin, third, kinds)
    if not sure or not found:
        return found
    rest = progress and (lambda share: progress((1.0 + 2.0 * share) / 3.0))
    return surest(build, found, surfaces, margin, rest)


def surest(
    build: Build,
    found: Sequence[Candidate],
    surfaces: Sequence[float] | None = None,
    margin: float = MARGIN,
    progress: Callable[[float], bool] | None = None,
) -> tuple[Candidate, ...]:
    """Return ways with how sure each is, and the surer one of a kind where one ranks before it.

    build: that they balance; found: of `candidates`; surfaces, progress: as there; margin: as
    there [-].
    Source: Monte Carlo with common random numbers (`rear_first_chance`).
    """
    now = verdict_of(build, surfaces, margin)
    ask = _Sureness(build, _search(build, surfaces, margin), surfaces, margin, now)
    ways: list[Candidate] = []
    for one in found:
        if progress is not None and not progress(len(ways) / len(found)):
            return ()
        ways.append(ask.surest(one))
    return ranked(ways, now)


def _fitted(
    build: Build,
    surfaces: Sequence[float] | None,
    margin: float,
    progress: Callable[[float], bool] | None,
    kinds: Collection[Kind],
) -> tuple[Candidate, ...]:
    """Return ways ranked by their figures alone; none where it was told to stop."""
    now = verdict_of(build, surfaces, margin)
    search = _search(build, surfaces, margin)
    found = [judged(build, FittedWay("none", without_valve(build)), surfaces, margin, now)]
    fits = [fit for kind, fit in FITS.items() if kind in kinds]
    for number, fit in enumerate(fits):
        if progress is not None and not progress(number / len(fits)):
            return ()
        found += [judged(build, way, surfaces, margin, now) for way in fit(search)]
    return ranked(found, now)


def _search(build: Build, surfaces: Sequence[float] | None, margin: float) -> Search:
    bare = with_changes(build, without_valve(build))
    return Search(bare, every_road(build) if surfaces is None else surfaces, margin, build)


def ranked(found: Iterable[Candidate], now: BalanceVerdict) -> tuple[Candidate, ...]:
    """Return candidates, the best first; now: the verdict on what is fitted.

    Source: as `candidates`.
    """
    ordered = sorted(found, key=lambda one: one.order(now))
    *before, mean = ordered[0].order(now)
    ranks = [(one, one.order(now)) for one in ordered]
    near = [one for one, rank in ranks if [*rank[:-1]] == before and rank[-1] <= mean + WITHIN]
    first = min(near, key=lambda one: one.to_take[0].parts)
    ordered.remove(first)
    return (first, *ordered)


@dataclass(frozen=True)
class _Sureness:
    """How sure the ways to balance a build are, and each kind's way that is sure enough."""

    build: Build
    search: Search
    surfaces: Sequence[float] | None
    margin: float
    now: BalanceVerdict

    def surest(self, one: Candidate) -> Candidate:
        """Return a candidate with its chance, or the surer one of its kind that ranks before it."""
        found = with_chance(self.build, one)
        assert found.chance is not None
        if found.chance <= LIMIT:
            return found
        surer = [
            judged(self.build, way, self.surfaces, self.margin, self.now)
            for way in surer_ways(self.search, one.fitted, self.build)
        ]
        if not surer:
            return found
        best = min(surer, key=lambda other: other.order(self.now))
        return min(found, with_chance(self.build, best), key=lambda each: each.order(self.now))


def with_chance(build: Build, one: Candidate) -> Candidate:
    """Return a candidate with the chance that the rear is first; build: what it is fitted to."""
    (chance,) = rear_first_chances([with_changes(build, one.to_take[0].changes)])
    return replace(one, chance=chance)


def judged(
    build: Build,
    way: FittedWay,
    roads: Sequence[float] | None,
    margin: float,
    now: BalanceVerdict,
) -> Candidate:
    """Return a candidate as it comes out in the document, solved in full.

    way: fitted to it; roads: tyre-road coefficients, None for every road from ice to the target's
    [-]; margin: wanted, of the road's coefficient [-]; now: the verdict on what is fitted.
    """
    one = with_changes(build, way.changes)
    verdict, sold = verdict_of(one, roads, margin), None
    if way.sold is not None:
        bought = verdict_of(with_changes(build, way.sold.changes), roads, margin)
        sold = (way.sold, bought) if len(bought.rear_first) <= len(verdict.rear_first) else None
    return Candidate(way, verdict, _regulation(one), verdict.lost(now), sold)


def _regulation(build: Build) -> Regulation:
    """Return the rules that hold in every load case."""
    made = system(build)
    rules = [regulation_of(made, made.case(case)) for case in range(len(made.case_names))]
    return Regulation(
        rear_below_front=all(rule.rear_below_front for rule in rules),
        adhesion_limit=all(rule.adhesion_limit for rule in rules),
    )
