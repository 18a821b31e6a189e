"""What stands on the sheet, before it has a form."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

import numpy as np

from urgens.guidance import Finding, findings
from urgens.guidance.cautions import CAUTIONS
from urgens.quantity import FORCE, LENGTH, PRESSURE, Units, UnitSystem, show
from urgens.sheet.fitted import Parts, assumed_words, fitted
from urgens.solve import ICE, WET, AxleName, Solution, press

LIMITS = (
    "One vehicle, level straight road, steady press; no anti-lock unit, cornering, fade or wear in "
    "these figures. Engine drag is counted where it is given. Friction and the grip of the tyres "
    "are as typed: no spread is applied."
)


@dataclass(frozen=True)
class Table:
    """Column heads, the first of which names the rows, and rows of ready text."""

    title: str
    heads: tuple[str, ...]
    rows: tuple[tuple[str, ...], ...]


@dataclass(frozen=True)
class Sheet:
    """One build sheet, ready to be set."""

    title: str
    notes: str
    printed: str
    known: str
    columns: tuple[Parts, Parts]
    presses: Table
    locks: Table
    findings: tuple[Finding, ...]
    cautions: tuple[str, ...]
    limits: str


def content(solution: Solution, units: UnitSystem | Units, day: date) -> Sheet:
    """Return the sheet of `solution` with figures in `units`, dated `day`."""
    build = solution.build
    found = fitted(build, units)
    return Sheet(
        title=build.name,
        notes=build.notes,
        printed=day.isoformat(),
        known=assumed_words(found),
        columns=_columns(found.parts),
        presses=_presses(solution, units),
        locks=_locks(solution, units),
        findings=findings(solution, units),
        cautions=CAUTIONS,
        limits=LIMITS,
    )


def _columns(parts: Parts) -> tuple[Parts, Parts]:
    """Return parts in two columns of about one length, in their order."""
    tall = [len(rows) + 2 for _, rows in parts]
    cut = min(range(1, len(parts) + 1), key=lambda at: abs(sum(tall[:at]) - sum(tall[at:])))
    return parts[:cut], parts[cut:]


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
                str(show(float(pressed.front_pressure), PRESSURE, units)),
                str(show(float(pressed.rear_pressure), PRESSURE, units)),
                f"{float(pressed.achieved_z):.2f} g",
                "beyond the stroke or floor"
                if math.isnan(travel)
                else str(show(travel, LENGTH, units)),
            )
        )
    title = f"With a foot of {show(effort, FORCE, units)} on μ {targets.surface:.2f}"
    heads = ("Load case", "Front line", "Rear line", "Deceleration", "Pedal travel")
    return Table(title, heads, tuple(rows))


def _locks(solution: Solution, units: UnitSystem | Units) -> Table:
    names = {ICE: "Ice, ", WET: "Wet, ", solution.build.targets.surface: "Target, "}
    roads = [(road, solution.surfaces[road]) for road in solution.shown]
    heads = ("Load case", *(f"{names.get(mu, '')}μ {mu:.2f}" for _, mu in roads))
    rows = [
        (name, *(_lock(solution, case, road, units) for road, _ in roads))
        for case, name in enumerate(solution.system.case_names)
    ]
    return Table("Which axle locks first", heads, tuple(rows))


def _lock(solution: Solution, case: int, road: int, units: UnitSystem | Units) -> str:
    lock = solution.lock
    axle = AxleName(int(lock.axle[case, road]))
    if axle is AxleName.NONE:
        most = show(solution.max_effort, FORCE, units)
        return f"none up to {most}"
    effort = show(float(lock.effort[case, road]), FORCE, units)
    return f"{axle.name.lower()}, {effort}, {lock.z[case, road]:.2f} g"


def csv_rows(sheet: Sheet) -> Sequence[tuple[str, ...]]:
    """Return the sheet as rows of section, item and figures."""
    rows: list[tuple[str, ...]] = [("build", sheet.title), ("printed", sheet.printed)]
    rows.append(("assumed", sheet.known))
    rows += [
        (f"fitted, {place}", *row)
        for parts in sheet.columns
        for place, part in parts
        for row in part
    ]
    for table in (sheet.presses, sheet.locks):
        rows.append((table.title, *table.heads))
        rows += [(table.title, *row) for row in table.rows]
    rows += [("finding", f.severity.word, f.code, f.message) for f in sheet.findings]
    return [*rows, *(("caution", text) for text in sheet.cautions), ("limits", sheet.limits)]
