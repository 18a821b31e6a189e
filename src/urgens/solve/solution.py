"""The one way from a build to figures."""

from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np

from urgens.document import Build, BuildErrors
from urgens.physics.arrays import Array
from urgens.physics.vehicle import StaticVehicle
from urgens.solve.achieved import Way, way_known
from urgens.solve.adhesion_curve import (
    AdhesionCurve,
    Crossings,
    Regulation,
    crossings,
    regulation,
    whole_line,
)
from urgens.solve.effort import effort_for
from urgens.solve.first_rise import AxleName, rolls_again
from urgens.solve.half_failed import HalfFailed, half_failed
from urgens.solve.launch_hold import Hold, hold
from urgens.solve.line_pressure import pushrod_force
from urgens.solve.lock import FirstLock, first_lock
from urgens.solve.press import Presses, press
from urgens.solve.rear_first import judged_roads
from urgens.solve.roads import named_roads
from urgens.solve.rolling_forces import rolling_lines
from urgens.solve.system import System, system
from urgens.solve.travel import pedal_travel


@dataclass(frozen=True)
class Solution:
    """The figures of one build.

    `presses` are for the chosen load case and surface. Everything else is worked out when it is
    first asked for, and kept.
    """

    build: Build
    system: System
    case: int
    surface: float  # the chosen tyre-road coefficient [-]
    pressed: Array  # foot forces that `presses` is of [N]

    @cached_property
    def presses(self) -> Presses:
        """What the foot forces do that were asked for."""
        return self.press(self.pressed)

    @cached_property
    def _way(self) -> Way:
        """The way of the foot to the first lock, on the road and with the load that are chosen."""
        at, lock = (self.case, self.road), self.lock
        axle, effort = np.asarray(lock.axle[at]), np.asarray(lock.effort[at])
        return way_known(self.system, self.standing, self.surface, axle, effort)

    @cached_property
    def _judged(self) -> tuple[float, ...]:
        return judged_roads(self.build, self.system)

    @property
    def _with_names(self) -> set[float]:
        return {*named_roads(self.build), self.surface}

    @cached_property
    def surfaces(self) -> tuple[float, ...]:
        """The roads that are looked at, rising [-]."""
        return tuple(sorted({*self._judged, *self._with_names}))

    @cached_property
    def roads(self) -> tuple[int, ...]:
        """Places of those who locks first is judged on."""
        return tuple(self.surfaces.index(road) for road in self._judged)

    @cached_property
    def named(self) -> tuple[int, ...]:
        """Places of those that have a name or are chosen."""
        return tuple(sorted(self.surfaces.index(road) for road in self._with_names))

    @cached_property
    def lock(self) -> FirstLock:
        """The first lock of every load case (rows) on every one of `surfaces` (columns)."""
        return first_lock(self.system, self.system.cases, np.array(self.surfaces))

    @cached_property
    def shown(self) -> tuple[int, ...]:
        """Places of the named roads, and the worst of each load case that is bad on none."""
        return _shown(self.named, self.roads, self.lock)

    @cached_property
    def _whole(self) -> AdhesionCurve:
        return whole_line(self.system, self.standing)

    @cached_property
    def crossings(self) -> Crossings:
        """Where the chosen load case's adhesion curves cross."""
        return crossings(self.system, self.standing, self._whole)

    @cached_property
    def regulation(self) -> Regulation:
        """The chosen load case beside the rules."""
        return regulation_of(self.system, self.standing, (self._whole, self.crossings))

    @cached_property
    def half_failed(self) -> tuple[HalfFailed, ...]:
        """What is left with one half lost, for every load case on the target surface."""
        return half_failed(self.system, self.system.standing, self.build.targets.surface)

    @cached_property
    def wanted_effort(self) -> float:
        """Foot for the wanted deceleration in the first load case [N], NaN if none gives it."""
        return effort_for(self.system, self.system.case(0), self.build.targets.deceleration)

    @cached_property
    def hold(self) -> Hold | None:
        """What the brakes hold at a launch, None where the build has none."""
        return hold(self.build, self.system, self.standing, self.surface)

    @property
    def locks_before_wanted(self) -> tuple[AxleName, float, float] | None:
        """The axle that locks before the wanted deceleration, at which foot [N] and z [g].

        On the road and with the load case that are chosen; None where none does.
        """
        at = self.case, self.road
        axle, z = AxleName(int(self.lock.axle[at])), float(self.lock.z[at])
        if axle is AxleName.NONE or not z < self.build.targets.deceleration:
            return None
        return axle, float(self.lock.effort[at]), z

    @property
    def road(self) -> int:
        """The chosen surface's place among `surfaces`."""
        return self.surfaces.index(self.surface)

    @property
    def max_effort(self) -> float:
        """The hardest the driver can press [N]."""
        return float(self.system.max_effort)

    @property
    def case_name(self) -> str:
        """The chosen load case's name."""
        return self.system.case_names[self.case]

    @property
    def standing(self) -> StaticVehicle:
        """The chosen load case's loads."""
        return self.system.case(self.case)

    def beside(self, build: Build) -> "Solution":
        """Return these figures as those of another build that has the same.

        build: differs in what is done and read on the vehicle alone, or in a layout that changes no
        figure.
        """
        known = {name: one for name, one in vars(self).items() if name != "build"}
        other = replace(self, build=build)
        vars(other).update(known)  # what was worked out already
        return other

    def press(self, effort: float | Array) -> Presses:
        """Return presses with the chosen load case on the chosen surface; effort: [N]."""
        way = self._way if np.max(effort) <= self.max_effort else None
        return press(self.system, effort, self.standing, self.surface, way)

    def rolls_again(self, presses: Presses) -> float:
        """Return the foot [N] down to which a press is let off until all wheels roll again.

        presses: one press, with an axle locked at least.
        """
        locked = bool(presses.front_locked), bool(presses.rear_locked)
        return float(rolls_again(self.system, self.standing, self.surface, *locked))

    def travel(self, effort: Array) -> Array:
        """Return the pad's travel [m] with the chosen load case; effort: any shape [N]."""
        made = self.system
        lines = rolling_lines(made, pushrod_force(made, effort), self.standing)
        return pedal_travel(made, effort, lines.front, lines.rear)


def solve(
    build: Build,
    *,
    load_case: str | None = None,
    surface: float | None = None,
    speed: float = 0.0,
    efforts: Array | None = None,
) -> Solution:
    """Return the figures of `build`, each worked out when it is first asked for.

    load_case: its name, else the first [text]; surface: tyre-road
    coefficient, else the target's [-]; speed: for downforce [m/s]; efforts: foot forces, else the
    comfortable one, (m,) [N].
    Raises BuildErrors where the load case is unknown.
    """
    made = system(build, speed)
    case = case_index(build, load_case)
    chosen = build.targets.surface if surface is None else surface
    pressed = np.array([build.targets.comfortable_effort.value]) if efforts is None else efforts
    return Solution(
        build=build,
        system=made,
        case=case,
        surface=chosen,
        pressed=pressed,
    )


def _shown(named: tuple[int, ...], roads: tuple[int, ...], lock: FirstLock) -> tuple[int, ...]:
    """Return the places of named roads, and of the worst between where only there it is bad."""
    rear = lock.axle == AxleName.REAR
    lead = np.where(rear, lock.rear_used - lock.front_used, -np.inf)
    worst = [
        max(roads, key=lambda road, case=case: lead[case, road])  # type: ignore[misc]
        for case in range(len(rear))
        if rear[case, list(roads)].any() and not rear[case, list(named)].any()
    ]
    return tuple(sorted({*named, *worst}))


def regulation_of(
    system: System, standing: StaticVehicle, found: tuple[AdhesionCurve, Crossings] | None = None
) -> Regulation:
    """Compare a load case with the rules, which know no downforce and look at adhesion alone.

    system: the system; standing: one load case [N, -]; found: its line and crossings, where they
    are known.
    """
    plain = standing.plain
    if found is None or plain != standing:
        whole = whole_line(system, plain)
        found = whole, crossings(system, plain, whole)
    return regulation(system, plain, *found)


def case_index(build: Build, name: str | None) -> int:
    """Return a load case's place, the first one's without a name; raises BuildErrors.

    name: of the case [text].
    Source: by definition.
    """
    if name is None:
        return 0
    names = [case.name for case in build.vehicle.load_cases]
    if name not in names:
        known = ", ".join(f'"{known}"' for known in names)
        raise BuildErrors.one(
            "vehicle.load_cases", f'there is no load case "{name}"', f"choose one of {known}"
        )
    return names.index(name)
