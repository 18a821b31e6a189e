"""What stands on the sheet, before it has a form."""

import math
from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date
from itertools import combinations_with_replacement, pairwise

import numpy as np

from urgens.document import Build
from urgens.guidance import Finding, findings
from urgens.guidance.words.cautions import CAUTIONS
from urgens.quantity import FORCE, LENGTH, PRESSURE, ShownFigure, Units, UnitSystem, show, written
from urgens.sheet.bends import BentLine, bent_lines
from urgens.sheet.fitted import Parts, fitted, known_words
from urgens.sheet.laid import laid_tables
from urgens.sheet.table import Cell, Table
from urgens.solve import ICE, WET, AxleName, Solution, press
from urgens.solve.corner import corner_locks
from urgens.solve.lock import FirstLock

COLUMNS = 3  # of what is fitted
HEAD_ROWS = 2  # that a part's heading is as tall as
LABEL, VALUE = 21, 21  # letters that go on a line of such a column
LIMITS = (
    "One vehicle, level straight road, steady press; no anti-lock unit, cornering, fade or wear in "
    "these figures. Engine drag is counted where it is given. Friction and the grip of the tyres "
    "are as typed: no spread is applied."
)
CORNER = (
    "What locks with grip kept for a corner is an estimate, a friction circle of each axle: inside "
    "wheels, roll and cornering stiffness are left out."
)


@dataclass(frozen=True)
class Sheet:
    """One build sheet, ready to be set."""

    title: str
    notes: str
    printed: str
    known: str
    unseen: Mapping[str, str]  # figures nobody found out: assumed or planned, by path
    columns: tuple[Parts, ...]
    presses: Table
    locks: Table
    laid: tuple[Table, ...]
    bent: tuple[BentLine, ...]
    findings: tuple[Finding, ...]
    cautions: tuple[str, ...]
    limits: str

    @property
    def tables(self) -> tuple[Table, ...]:
        """All tables, in their order."""
        return self.presses, self.locks, *self.laid, *(one.table for one in self.bent)


def content(
    solution: Solution, units: UnitSystem | Units, day: date, base: Build | None = None
) -> Sheet:
    """Return the sheet of `solution` with figures in `units`, dated `day`.

    base: what the vehicle is, where the solution is of one of its set-ups: what stays of it is not
    bought.
    """
    build = solution.build
    found = fitted(build, units)
    return Sheet(
        title=build.name,
        notes=build.notes,
        printed=day.isoformat(),
        known=known_words(found),
        unseen=found.unseen,
        columns=_columns(found.parts),
        presses=_presses(solution, units),
        locks=_locks(solution, units),
        laid=laid_tables(build, units, base),
        bent=bent_lines(build, units),
        findings=findings(solution, units),
        cautions=CAUTIONS,
        limits=f"{LIMITS} {CORNER}" if build.targets.corner else LIMITS,
    )


def _columns(parts: Parts) -> tuple[Parts, ...]:
    """Return parts in columns of about one length, in their order."""
    tall = [HEAD_ROWS + sum(_lines(*row) for row in rows) for _, rows in parts]
    cuts = combinations_with_replacement(range(len(parts) + 1), COLUMNS - 1)
    ends = min(cuts, key=lambda cut: max(sum(tall[a:b]) for a, b in _between(cut, len(parts))))
    return tuple(parts[a:b] for a, b in _between(ends, len(parts)))


def _lines(label: str, value: str) -> int:
    return max(-(-len(label) // LABEL), -(-len(value) // VALUE))


def _between(cuts: tuple[int, ...], count: int) -> list[tuple[int, int]]:
    return [*pairwise((0, *cuts, count))]


def _presses(solution: Solution, units: UnitSystem | Units) -> Table:
    targets = solution.build.targets
    effort = targets.comfortable_effort.value
    rows = []
    for index, name in enumerate(solution.system.case_names):
        pressed = press(
            solution.system, np.array(effort), solution.system.case(index), targets.surface
        )
        travel = float(pressed.pedal_travel)
        rows.append(
            (
                name,
                Cell(show(float(pressed.front_pressure), PRESSURE, units)),
                Cell(show(float(pressed.rear_pressure), PRESSURE, units)),
                Cell(ShownFigure(written(float(pressed.achieved_z), 2), "g")),
                "beyond the stroke or floor"
                if math.isnan(travel)
                else Cell(show(travel, LENGTH, units)),
            )
        )
    title = f"With a foot of {show(effort, FORCE, units)} on μ {targets.surface:.2f}"
    heads = ("Load case", "Front line", "Rear line", "Deceleration", "Pedal travel")
    return Table(title, heads, tuple(rows))


def _locks(solution: Solution, units: UnitSystem | Units) -> Table:
    roads = [(road, solution.surfaces[road]) for road in solution.shown]
    heads = ("Load case", *(road_name(solution, mu) for _, mu in roads))
    most = show(solution.max_effort, FORCE, units)
    rows = [
        (name, *(_lock(solution.lock, case, road, units, str(most)) for road, _ in roads))
        for case, name in enumerate(solution.system.case_names)
    ]
    return Table("Which axle locks first", heads, (*rows, *_corner(solution, units)))


def road_name(solution: Solution, mu: float) -> str:
    """Return what a road is called in a head; mu: its tyre-road coefficient [-]."""
    names = {ICE: "Ice, ", WET: "Wet, ", solution.build.targets.surface: "Target, "}
    return f"{names.get(mu, '')}μ {mu:.2f}"


def _corner(solution: Solution, units: UnitSystem | Units) -> list[tuple[str, ...]]:
    """Return the same with the grip that the corner leaves, where one is asked for."""
    lateral = solution.build.targets.corner
    shown = tuple(solution.surfaces[road] for road in solution.shown)
    found = corner_locks(solution, shown)
    if found is None:
        return []
    roads, lock = found
    most = show(solution.max_effort, FORCE, units)
    rows = []
    for case, name in enumerate(solution.system.case_names):
        cells = (
            _lock(lock, case, roads.index(mu), units, str(most))
            if mu in roads
            else "no such corner"
            for mu in shown
        )
        rows.append((f"{name}, {lateral:g} g to the side", *cells))
    return rows


def _lock(lock: FirstLock, case: int, road: int, units: UnitSystem | Units, most: str) -> str:
    axle = AxleName(int(lock.axle[case, road]))
    if axle is AxleName.NONE:
        return f"none up to {most}"
    effort = show(float(lock.effort[case, road]), FORCE, units)
    return f"{axle.name.lower()}, {effort}, {lock.z[case, road]:.2f} g"
