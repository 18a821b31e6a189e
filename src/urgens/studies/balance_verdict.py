"""How a build does over all its load cases and many roads, which ranks ways to balance it."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np

from urgens.document import Build
from urgens.solve.effort import effort_for
from urgens.solve.first_rise import AxleName
from urgens.solve.half_failed import half_failed
from urgens.solve.line_pressure import pushrod_force
from urgens.solve.lock import first_lock
from urgens.solve.rear_first import judged_roads, swept
from urgens.solve.rolling_forces import rolling_lines
from urgens.solve.system import System, system
from urgens.solve.travel import pedal_travel

Wanted = Literal["deceleration", "half-failed", "travel"]
MARGIN = 0.05  # of the road's coefficient at first lock, front above rear


@dataclass(frozen=True)
class BalanceVerdict:
    """How a build does: where the rear is first, what is out of reach, efficiency.

    `rear_first` load cases by their places, and roads [-]; `out_of_reach` of what is wanted;
    `rear_below` whether the rear uses less of its grip than the front from 0.15 to 0.8 g, as far as
    the foot reaches; `missed` how many margins are; efficiencies NaN where nothing locks.
    """

    rear_first: tuple[tuple[int, float], ...]
    out_of_reach: tuple[Wanted, ...]
    rear_below: bool
    missed: int
    mean_efficiency: float
    worst_efficiency: float

    def lost(self, now: "BalanceVerdict") -> tuple[Wanted, ...]:
        """Return what another has within reach and this one has not; now: the other."""
        return tuple(one for one in self.out_of_reach if one not in now.out_of_reach)

    def order(self, now: "BalanceVerdict") -> tuple[float, ...]:
        """Return what ranks it beside what is fitted, the least first.

        now: the verdict on what is fitted. Efficiency comes in negative, as less is first.
        Source: common practice: what hurts first, then what is lost, then what is gained.
        """
        mean = -np.inf if np.isnan(self.mean_efficiency) else self.mean_efficiency
        lost = len(self.lost(now))
        return len(self.rear_first), lost, not self.rear_below, self.missed, -mean


def verdict_of(
    build: Build, surfaces: Sequence[float] | None = None, margin: float = MARGIN
) -> BalanceVerdict:
    """Return how a build does in all its load cases.

    surfaces: tyre-road coefficients, None for every road from ice to the target's [-]; margin:
    wanted, as a share of the road's coefficient [-].
    Source: first lock; half lost; pedal travel.
    """
    made = system(build)
    roads = np.array(judged_roads(build, made) if surfaces is None else surfaces)
    lock = first_lock(made, made.cases, roads)
    rear = (lock.axle == AxleName.REAR) | lock.lifted
    apart = (lock.front_used - lock.rear_used) / roads
    with np.errstate(invalid="ignore"):
        missed = np.isfinite(apart) & (apart < margin)
    known = lock.efficiency[np.isfinite(lock.efficiency)]
    return BalanceVerdict(
        rear_first=tuple(
            (int(case), float(roads[road])) for case, road in zip(*np.nonzero(rear), strict=True)
        ),
        out_of_reach=tuple(_out_of_reach(build, made)),
        rear_below=not swept(made, made.standing).rear_above().any(),
        missed=int(missed.sum()),
        mean_efficiency=float(known.mean()) if known.size else float("nan"),
        worst_efficiency=float(known.min()) if known.size else float("nan"),
    )


def _out_of_reach(build: Build, system: System) -> list[Wanted]:
    targets, found = build.targets, list[Wanted]()
    effort = effort_for(system, system.case(0), targets.deceleration)
    if np.isnan(effort):
        found.append("deceleration")
        effort = targets.comfortable_effort.value
    for half in half_failed(system, system.standing, targets.surface):
        if not np.all(half.meets_rule):
            found.append("half-failed")
            break
    lines = rolling_lines(system, pushrod_force(system, effort), system.case(0))
    if np.isnan(pedal_travel(system, np.asarray(effort), lines.front, lines.rear)):
        found.append("travel")
    return found
