"""Set-ups side by side: every figure that sizing is judged by, one column each."""

from collections.abc import Callable
from dataclasses import dataclass, replace

import numpy as np

from urgens.document import Build, with_setup
from urgens.document.cylinders import cylinder_kind
from urgens.physics.atmosphere import GRAVITY
from urgens.quantity import FORCE, LENGTH, PRESSURE, Kind
from urgens.solve.effort import effort_for
from urgens.solve.line_pressure import pushrod_force
from urgens.solve.lock import AxleName
from urgens.solve.press import press, rolling_lines
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


@dataclass(frozen=True)
class Row:
    """One figure of all columns: a kind of quantity, else a pure number or words."""

    name: str
    kind: Kind | None
    values: tuple[float | str, ...]
    unit: str = ""
    decimals: int = 2


def columns(build: Build, load_case: str | None, surface: float | None) -> tuple[Column, ...]:
    """Return the build and its set-ups, solved.

    build: the document itself [object]; load_case: name of one they all have, else each one's
    first [text]; surface: tyre-road coefficient, None for each one's own [-].
    Source: solve, one way.
    """
    found = []
    for name in (None, *(setup.name for setup in build.setups)):
        one = build if name is None else with_setup(build, name)
        names = {case.name for case in one.vehicle.load_cases}
        solution = solve(one, load_case=load_case if load_case in names else None, surface=surface)
        effort = one.targets.comfortable_effort.value
        found.append(Column(name, solution, feel(solution.system, solution.standing, effort)))
    return tuple(found)


def rows(found: tuple[Column, ...]) -> tuple[Row, ...]:
    """Return the figures of all columns, in the order of the work.

    found: columns [objects].
    Source: their solutions.
    """
    return tuple(
        Row(name, kind, tuple(of(column) for column in found), unit, decimals)
        for name, kind, unit, decimals, of in _FIGURES
        if any(of(column) != "" for column in found)
    )


def _bore(column: Column) -> str:
    master = column.solution.build.master
    return " / ".join(getattr(master, bore).text for bore in cylinder_kind(master).bores)


def _booster(column: Column) -> str:
    fitted = column.solution.build.booster
    return f"{fitted.kind}, lost" if not fitted.works else fitted.kind


def _comfortable(column: Column) -> float:
    return column.solution.build.targets.comfortable_effort.value


def _travel(column: Column) -> float | str:
    return column.feel.travel if column.feel.left > 0 else "on the floor"


def _pressure(column: Column) -> float:
    made, comfortable = column.made, column.solution.build.targets.comfortable_effort.value
    lines = rolling_lines(made, pushrod_force(made, comfortable), column.solution.standing)
    return float(lines.master_front)


def _wanted(column: Column) -> float:
    wanted = column.solution.build.targets.deceleration
    return effort_for(column.made, column.solution.standing, wanted)


def _booster_lost(column: Column) -> float | str:
    made = column.made
    if column.solution.build.booster.kind == "none":
        return ""
    lost = replace(made, booster=replace(made.booster, assist_limit=0.0))
    solution = column.solution
    pressed = press(lost, lost.max_effort, solution.standing, solution.surface)
    return float(pressed.achieved_z) * GRAVITY


def _half(of: Callable[[Column], tuple[float, ...]]) -> Callable[[Column], float | str]:
    def worst(column: Column) -> float | str:
        values = of(column)
        return float(np.min(values)) if values else ""

    return worst


def _halves_left(column: Column) -> tuple[float, ...]:
    solution = column.solution
    return tuple(float(half.z[solution.case]) * GRAVITY for half in solution.half_failed)


def _halves_height(column: Column) -> tuple[float, ...]:
    solution = column.solution
    floor = float(column.made.volumes.floor)
    if column.made.split == "single":
        return ()
    return tuple(floor - float(h.pedal_travel[solution.case]) for h in solution.half_failed)


def _lock(column: Column) -> str:
    solution = column.solution
    axle = AxleName(int(solution.lock.axle[solution.case, solution.road]))
    return "nothing" if axle is AxleName.NONE else axle.name.lower()


def _of_lock(name: str) -> Callable[[Column], float]:
    def of(column: Column) -> float:
        solution = column.solution
        return float(getattr(solution.lock, name)[solution.case, solution.road])

    return of


def _hold(column: Column) -> float | str:
    held = column.solution.hold
    if held is None:
        return ""
    return float("nan") if held.effort is None else held.effort


_Figure = tuple[str, Kind | None, str, int, Callable[[Column], float | str]]
_FIGURES: tuple[_Figure, ...] = (
    ("Bore", None, "", 0, _bore),
    ("Pedal ratio", None, ": 1", 2, lambda c: float(c.made.pedal_ratio)),
    ("Booster", None, "", 0, _booster),
    ("Comfortable foot", FORCE, "", 0, _comfortable),
    ("Pressure there", PRESSURE, "", 0, _pressure),
    ("Foot for the wanted deceleration", FORCE, "", 0, _wanted),
    ("Pedal travel at the comfortable foot", LENGTH, "", 0, _travel),
    ("Left above the floor", LENGTH, "", 0, lambda c: max(c.feel.left, 0.0)),
    ("Fullest chamber", None, "% of its stroke", 0, lambda c: 100 * max(c.feel.used)),
    ("Locks first", None, "", 0, _lock),
    ("Foot at first lock", FORCE, "", 0, _of_lock("effort")),
    ("Deceleration at first lock", None, "g", 2, _of_lock("z")),
    ("Grip used there", None, "%", 0, lambda c: 100 * _of_lock("efficiency")(c)),
    ("One half lost leaves", None, "m/s²", 2, _half(_halves_left)),
    ("Pedal left then", LENGTH, "", 0, _half(_halves_height)),
    ("Booster lost leaves", None, "m/s²", 2, _booster_lost),
    ("Foot that holds the launch", FORCE, "", 0, _hold),
)
