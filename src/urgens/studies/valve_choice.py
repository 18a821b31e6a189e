"""Ways to balance a build, fitted and ranked over all load cases and roads."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass

from urgens.document import Build, with_changes
from urgens.solve.adhesion_curve import Regulation
from urgens.solve.roads import every_road
from urgens.solve.solution import regulation_of
from urgens.solve.system import system
from urgens.studies.balance_verdict import MARGIN, BalanceVerdict, Wanted, verdict_of
from urgens.studies.valve_fits import FITS, FittedWay, Kind, Search, without_valve

WITHIN = 0.01  # of mean efficiency, in which no valve is the better choice


@dataclass(frozen=True)
class Candidate:
    """One way: what is fitted, how it does, and the rules over all load cases.

    `lost` is what the build has within reach and this way has not. `sold` is the best of what is
    sold of its kind and how that does, None where its figures are such or none of them keeps the
    front first.
    """

    fitted: FittedWay
    verdict: BalanceVerdict
    regulation: Regulation
    lost: tuple[Wanted, ...]
    sold: tuple[FittedWay, BalanceVerdict] | None = None

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
        return bool(self.verdict.rear_first), *self.to_take[1].order(now)


def candidates(
    build: Build,
    surfaces: Sequence[float] | None = None,
    margin: float = MARGIN,
    progress: Callable[[float], bool] | None = None,
) -> tuple[Candidate, ...]:
    """Return ways to balance a build, the best first; each replaces what is in the rear circuit.

    surfaces: tyre-road coefficients, else every one from ice to the
    target's [-]; margin: least front above rear at first lock, of the road's coefficient [-].
    progress: told the share done, answers whether to go on [callable]. None of them where it was
    told to stop.
    Source: common practice: no rear first, then nothing lost, then fewest margins missed, then
    mean efficiency; no valve goes first within `WITHIN`.
    """
    roads = tuple(every_road(build) if surfaces is None else surfaces)
    now = verdict_of(build, roads, margin)
    bare = with_changes(build, without_valve(build))
    search = Search(bare, roads, margin, build)
    ways = [FittedWay("none", without_valve(build))]
    for number, fit in enumerate(FITS):
        if progress is not None and not progress(number / len(FITS)):
            return ()
        ways += fit(search)
    found = sorted(
        (judged(build, one, roads, margin, now) for one in ways), key=lambda one: one.order(now)
    )
    none = next(one for one in found if one.kind == "none")
    *before, mean = found[0].order(now)
    if none.order(now)[:-1] == tuple(before) and none.order(now)[-1] <= mean + WITHIN:
        found.remove(none)
        found.insert(0, none)
    return tuple(found)


def judged(
    build: Build, way: FittedWay, roads: tuple[float, ...], margin: float, now: BalanceVerdict
) -> Candidate:
    """Return a candidate as it comes out in the document, solved in full.

    way: fitted to it; roads: tyre-road coefficients [-].
    margin: wanted, of the road's coefficient [-]; now: the verdict on what is fitted.
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
