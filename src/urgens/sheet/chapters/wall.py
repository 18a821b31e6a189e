"""Page one, for the workshop's wall: what is set, what it gives, who locks first, what to heed."""

import math
from collections.abc import Iterator
from datetime import datetime, time

import numpy as np

from urgens.document import value_at
from urgens.document.catalogue import counting
from urgens.guidance import Severity
from urgens.guidance.condition.holds import condition
from urgens.guidance.procedures.records import title_of
from urgens.physics.axle import AXLES
from urgens.physics.valve import adjusted_knee
from urgens.quantity import FORCE, LENGTH, PRESSURE, Units, show, shown
from urgens.sheet.blocks import Big, Block, Paragraphs, Rows
from urgens.sheet.chapters.told import SheetContext
from urgens.sheet.fitted import counted_in
from urgens.sheet.table import MARKS, Table
from urgens.solve import AxleName, press

# What is set by hand on a vehicle: settings, and what holds them.
SET = ("pedal.pivot_to_pushrod", "pedal.pushrod_clearance", "master.bar_offset")
SET_OF_A_VALVE = ("knee", "slope", "turns", "close", "open", "pressure", "preload", "ball_angle")
# What each figure rests on.
LINE = ("pedal.", "booster.", "master.", "valves.")
TRAVEL = (*LINE, "front.brake.", "rear.brake.", "lines.", "plumbing.")
RESTS = {
    "Foot": ("targets.comfortable_effort",), "Front line": LINE, "Rear line": LINE,
    "Pedal travel": TRAVEL, "Deceleration": (*LINE, "vehicle.", "front.", "rear.", "targets."),
}  # fmt: skip
PROOFS = {
    "proof-failed": "Proof failed", "proof-lapsed": "Proof lapsed", "proof-open": "Not proved",
}  # fmt: skip
NEEDLESS = "not-needed"
HELD = 2  # things that hold the vehicle, each in words
MOST = 8  # findings and items: a wall is read in passing
FOOT_OF_PAGE = "* rests on a figure that is only assumed, † on one that is planned."


def wall(context: SheetContext) -> Iterator[Block]:
    """Yield what hangs on the wall; context: of a build."""
    yield Big(tuple(_settings(context)))
    yield Big(tuple(_pressures(context)))
    yield Rows(_locks(context))
    yield Paragraphs(tuple(_heeded(context)), "danger")
    yield Paragraphs(tuple(_held(context)), "warning")
    yield Paragraphs(context.sheet.cautions)
    yield Paragraphs((f"{FOOT_OF_PAGE} {context.sheet.known}",), "muted")


def _mark(context: SheetContext, *places: str) -> str:
    """Return the mark of what rests on figures at these places, if one was not found out."""
    told = {known for path, known in context.sheet.unseen.items() if path.startswith(places)}
    return next((mark.strip() for known, mark in MARKS.items() if known in told), "")


def _settings(context: SheetContext) -> Iterator[tuple[str, str, str, str]]:
    build = context.build
    units = context.units if isinstance(context.units, Units) else Units(context.units)
    places = [*SET]
    places += [f"valves.{axle}[{n}].{name}" for axle in AXLES
               for n in range(len(build.valves.of(axle))) for name in SET_OF_A_VALVE]  # fmt: skip
    known = {one.path: one for one in counting(build)}
    for path in places:
        one = known.get(path)
        if one is None or one.value is None:
            continue
        figure, mark = shown(one.value, one.kind, one.shown_in(units)), _mark(context, path)
        unit = figure.unit or counted_in(build, path)
        yield _name(path, one.entry.column), figure.number, unit, mark
        if path.endswith(".turns"):
            yield _knee_there(context, path, mark)


def _knee_there(context: SheetContext, path: str, mark: str) -> tuple[str, str, str, str]:
    """Return the knee at an adjustable valve's setting."""
    valve = value_at(context.build, path.removesuffix(".turns"))
    knees = [knee.value for _, knee in valve.table]
    knee = show(float(adjusted_knee(valve.turns, valve.settings, knees)), PRESSURE, context.units)
    name = _name(path, f"knee at {valve.turns:g} {valve.counted}")
    return name, knee.number, knee.unit, mark


def _name(path: str, column: str) -> str:
    if not path.startswith("valves."):
        return column
    axle, _, rest = path.removeprefix("valves.").partition("[")
    number = int(rest.partition("]")[0])
    which = f"{axle} valve" if number == 0 else f"{axle} valve {number + 1}"
    return f"{which.capitalize()}, {column.lower()}"


def _pressures(context: SheetContext) -> Iterator[tuple[str, str, str, str]]:
    solution, targets = context.solution, context.build.targets
    effort = targets.comfortable_effort.value
    pressed = press(solution.system, np.array(effort), solution.standing, solution.surface)
    for name, value, kind in (
        ("Foot", effort, FORCE), ("Front line", float(pressed.front_pressure), PRESSURE),
        ("Rear line", float(pressed.rear_pressure), PRESSURE),
        ("Pedal travel", float(pressed.pedal_travel), LENGTH),
    ):  # fmt: skip
        mark = _mark(context, *RESTS[name])
        if math.isnan(value):
            yield name, "beyond", "stroke or floor", mark
            continue
        figure = show(value, kind, context.units)
        yield name, figure.number, figure.unit, mark
    mark = _mark(context, *RESTS["Deceleration"])
    yield "Deceleration", f"{float(pressed.achieved_z):.2f}", "g", mark


def _locks(context: SheetContext) -> Table:
    """Return who locks first for each load on each road, in one word."""
    solution, mark = context.solution, _mark(context, *RESTS["Deceleration"])
    roads = [(at, solution.surfaces[at]) for at in solution.shown]
    words = {AxleName.NONE: "nothing", AxleName.FRONT: "front", AxleName.REAR: "REAR FIRST"}
    rows = [
        (name, *(words[AxleName(int(solution.lock.axle[case, at]))] + mark for at, _ in roads))
        for case, name in enumerate(solution.system.case_names)
    ]
    rows.sort(key=lambda row: not any(cell.startswith("REAR") for cell in row[1:]))
    if len(rows) > MOST:
        more = f"… and {len(rows) - MOST} more loads"
        rows = [*rows[:MOST], (more, *("see Balance" for _ in roads))]
    heads = ("Load", *(f"μ {mu:.2f}" for _, mu in roads))
    return Table("Who locks first", heads, tuple(rows))


def _heeded(context: SheetContext) -> Iterator[str]:
    found = [one for one in context.sheet.findings if one.severity is Severity.DANGER]
    for one in found[:MOST]:
        yield f"Danger: {one.message}"
    if len(found) > MOST:
        yield f"… and {len(found) - MOST} more dangers: see Balance and findings."


def _held(context: SheetContext) -> Iterator[str]:
    """Yield what holds the vehicle as it stands, every proof that has lapsed among it."""
    found = condition(context.build, datetime.combine(context.day, time(23, 59)))
    holds, wanted = found.holds, [one for one in found.standing.proofs if one.state != NEEDLESS]
    others = [one.words for one in holds if one.code not in PROOFS]
    told = []
    if others:
        more = f"; and {len(others) - HELD} more: see Open" if len(others) > HELD else ""
        told.append(f"Holds the vehicle: {'; '.join(others[:HELD])}{more}.")
    for code, words in PROOFS.items():
        names = [f"“{title_of(one.place)}”" for one in holds if one.code == code]
        if len(names) == len(wanted) and code == "proof-open":
            told.append(f"{words}: none of {len(names)} standing proofs.")
        elif names:
            told.append(f"{words}: {', '.join(names)}.")
    if told:
        yield " ".join(told)
