"""Set-ups side by side: each solved, with the figures that sizing is judged by."""

from dataclasses import dataclass, replace

import numpy as np

from urgens.document import Build, with_setup
from urgens.solve.effort import effort_for
from urgens.solve.first_rise import AxleName
from urgens.solve.half_failed import worst_half
from urgens.solve.line_pressure import pushrod_force
from urgens.solve.press import press
from urgens.solve.rolling_forces import rolling_lines
from urgens.solve.solution import Solution, solve
from urgens.solve.system import System
from urgens.studies.feel import Feel, feel


@dataclass(frozen=True)
class Column:
    """One set-up: name (None the build itself), solution, feel at its own comfortable effort."""

    name: str | None
    solution: Solution
    feel: Feel

    @property
    def made(self) -> System:
        """Its numbers."""
        return self.solution.system

    @property
    def comfortable(self) -> float:
        """The build's comfortable effort [N]."""
        return self.solution.build.targets.comfortable_effort.value

    @property
    def pressure(self) -> float:
        """The front chamber's pressure at the comfortable effort [Pa]."""
        pushed = pushrod_force(self.made, self.comfortable)
        return float(rolling_lines(self.made, pushed, self.solution.standing).master_front)

    @property
    def wanted(self) -> float:
        """The effort for the deceleration that is wanted [N]."""
        wanted = self.solution.build.targets.deceleration
        return effort_for(self.made, self.solution.standing, wanted)

    @property
    def booster_lost(self) -> float | None:
        """The deceleration the greatest effort leaves without assist [g], None without one."""
        made, solution = self.made, self.solution
        if not solution.build.booster.fitted:
            return None
        lost = replace(made, booster=replace(made.booster, assist_limit=0.0))
        pressed = press(lost, lost.max_effort, solution.standing, solution.surface)
        return float(pressed.achieved_z)

    @property
    def half_lost(self) -> float:
        """The deceleration that the worse half leaves [g], NaN where its pedal is on the floor."""
        worst = worst_half(self.solution.half_failed, self.solution.case)
        at = self.solution.case
        return float(worst.z[at]) if worst.reached[at] else float("nan")

    @property
    def half_lost_height(self) -> float | None:
        """How far above the floor the lower pedal is then [m], NaN where one is on it.

        None on a single circuit.
        """
        if self.made.split == "single":
            return None
        at, floor = self.solution.case, float(self.made.volumes.floor)
        left = [floor - float(half.pedal_travel[at]) for half in self.solution.half_failed]
        return float(np.min(left))  # NaN where any is

    @property
    def locks_first(self) -> AxleName:
        """The axle that locks first in the load case and on the road looked at."""
        at = self.solution.case, self.solution.road
        return AxleName(int(self.solution.lock.axle[at]))

    def at_lock(self, name: str) -> float:
        """Return a figure of that first lock; name: of the field [text]. Source: first lock."""
        return float(getattr(self.solution.lock, name)[self.solution.case, self.solution.road])


def columns(build: Build, load_case: str | None, surface: float | None) -> tuple[Column, ...]:
    """Return the build and its set-ups, solved.

    build: the build itself; load_case: name of one they all have, else each one's
    first [text]; surface: tyre-road coefficient, None for each one's own [-].
    """
    names = (None, *(setup.name for setup in build.setups))
    variants = (build if name is None else with_setup(build, name) for name in names)
    return tuple(
        column(one, name, load_case, surface) for one, name in zip(variants, names, strict=True)
    )


def column(build: Build, name: str | None, load_case: str | None, surface: float | None) -> Column:
    """Return one build, solved, as a column.

    build: with a set-up laid over it or not; name: of that set-up [text]; load_case: as
    `columns` [text]; surface: as there [-].
    """
    names = {case.name for case in build.vehicle.load_cases}
    solution = solve(build, load_case=load_case if load_case in names else None, surface=surface)
    effort = build.targets.comfortable_effort.value
    return Column(name, solution, feel(solution.system, solution.standing, effort))
