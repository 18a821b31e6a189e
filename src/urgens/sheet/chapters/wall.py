"""Page one, for the workshop's wall: what is set, what it gives, who locks first, what to heed."""

import math
from collections.abc import Iterator
from datetime import datetime, time

import numpy as np

from urgens.document import value_at
from urgens.document.catalogue import counting
from urgens.document.ledger.records import ProcedureRun
from urgens.guidance import Severity
from urgens.guidance.condition.holds import Condition, condition
from urgens.guidance.procedures.records import title_of
from urgens.physics.axle import AXLES
from urgens.physics.valve import adjusted_knee
from urgens.quantity import FORCE, LENGTH, PRESSURE, Units, show, shown
from urgens.sheet.blocks import Big, BigFigure, Block, Drawing, Paragraphs, Pictured
from urgens.sheet.chapters.told import SheetContext
from urgens.sheet.content import road_name
from urgens.sheet.fitted import counted_in
from urgens.sheet.lock_pictures import WORDS, lock_picture
from urgens.sheet.table import MARKS
from urgens.solve import AxleName, press

# What is set by hand on a vehicle: settings, and what holds them.
BAR = "master.bar_offset"
SET = ("pedal.pivot_to_pushrod", "pedal.pushrod_clearance", BAR)
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
MINUS = "-\N{MINUS SIGN}"
BLANK = "______________"
NOTHING_HOLDS = "Nothing on record holds the vehicle."
FOOT_OF_PAGE = "* rests on a figure that is only assumed, † on one that is planned."


def wall(context: SheetContext) -> Iterator[Block]:
    """Yield what hangs on the wall; context: of a build."""
    yield Big("Set this", tuple(_settings(context)))
    yield Big("Expect this", tuple(_pressures(context)))
    yield _locks(context)
    now = condition(context.build, datetime.combine(context.day, time(23, 59)))
    heeded, held = tuple(_heeded(context)), tuple(_held(now))
    if heeded:
        yield Paragraphs(heeded, "danger")
    yield Paragraphs(held or (NOTHING_HOLDS,), "warning" if held else "")
    yield Paragraphs((_checked(context, now),))
    yield Paragraphs(context.sheet.cautions)
    yield Paragraphs((f"{FOOT_OF_PAGE} {context.sheet.known}",), "muted")


def _mark(context: SheetContext, *places: str) -> str:
    """Return the mark of what rests on figures at these places, if one was not found out."""
    told = {known for path, known in context.sheet.unseen.items() if path.startswith(places)}
    return next((mark.strip() for known, mark in MARKS.items() if known in told), "")


def _settings(context: SheetContext) -> Iterator[BigFigure]:
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
        unit, number = figure.unit or counted_in(build, path), figure.number
        column, how = one.entry.column, f"{one.entry.help}: {one.entry.settled}"
        if path == BAR and number.startswith(tuple(MINUS)):  # said to where the bearing is
            number = number.lstrip(MINUS)
            column, how = (words.replace("front", "rear") for words in (column, how))
        yield BigFigure(_name(path, column), number, unit, mark, how)
        if path.endswith(".turns"):
            yield _knee_there(context, path, mark)


def _knee_there(context: SheetContext, path: str, mark: str) -> BigFigure:
    """Return the knee at an adjustable valve's setting."""
    valve = value_at(context.build, path.removesuffix(".turns"))
    knees = [knee.value for _, knee in valve.table]
    knee = show(float(adjusted_knee(valve.turns, valve.settings, knees)), PRESSURE, context.units)
    name = _name(path, f"knee at {valve.turns:g} {valve.counted}")
    return BigFigure(name, knee.number, knee.unit, mark, "Two gauges across the valve")


def _name(path: str, column: str) -> str:
    if not path.startswith("valves."):
        return column
    axle, _, rest = path.removeprefix("valves.").partition("[")
    number = int(rest.partition("]")[0])
    which = f"{axle} valve" if number == 0 else f"{axle} valve {number + 1}"
    return f"{which.capitalize()}, {column.lower()}"


def _pressures(context: SheetContext) -> Iterator[BigFigure]:
    solution, targets = context.solution, context.build.targets
    effort = targets.comfortable_effort.value
    pressed = press(solution.system, np.array(effort), solution.standing, solution.surface)
    load = solution.system.case_names[solution.case]
    for name, value, kind, how in (
        ("Foot", effort, FORCE, "A scale between foot and pad"),
        ("Front line", float(pressed.front_pressure), PRESSURE, "A gauge at a front bleeder"),
        ("Rear line", float(pressed.rear_pressure), PRESSURE, "A gauge at a rear bleeder"),
        ("Pedal travel", float(pressed.pedal_travel), LENGTH, "A rule at the pad, from rest"),
    ):
        mark = _mark(context, *RESTS[name])
        if math.isnan(value):
            yield BigFigure(name, "beyond", "stroke or floor", mark, how)
            continue
        figure = show(value, kind, context.units)
        yield BigFigure(name, figure.number, figure.unit, mark, how)
    mark, how = _mark(context, *RESTS["Deceleration"]), f"{load}, on μ {solution.surface:.2f}"
    yield BigFigure("Deceleration", f"{float(pressed.achieved_z):.2f}", "g", mark, how)


def _locks(context: SheetContext) -> Pictured:
    """Return who locks first for each load on each road, as pictures and in two words."""
    solution, mark = context.solution, _mark(context, *RESTS["Deceleration"])
    roads = [(at, solution.surfaces[at]) for at in solution.shown]
    found = [
        (name, [AxleName(int(solution.lock.axle[case, at])) for at, _ in roads])
        for case, name in enumerate(solution.system.case_names)
    ]
    found.sort(key=lambda row: AxleName.REAR not in row[1])
    rows: list[tuple[str, tuple[tuple[str, Drawing | None], ...]]] = [
        (name, tuple((WORDS[axle] + mark, lock_picture(axle)) for axle in axles))
        for name, axles in found[:MOST]
    ]
    if len(found) > MOST:
        rows.append(
            (f"… and {len(found) - MOST} more loads", (("see Balance", None),) * len(roads))
        )
    heads = ("Load", *(road_name(solution, mu) for _, mu in roads))
    return Pictured("Who locks first", heads, tuple(rows))


def _checked(context: SheetContext, now: Condition) -> str:
    """Return whose looks at what is proved still hold, with room to sign."""
    done = {one.name: one.at for one in now.standing.proofs if one.state == "done"}
    looks = [
        f"“{title_of(run.procedure)}” by {run.checked_by}"
        for run in context.base.records
        if run.checked_by and _made_then(run, done.get(run.procedure))
    ]
    told = f"Checked, and still proved: {', '.join(looks)}. " if looks else ""
    return f"{told}Looked at by a qualified person: {BLANK} on {BLANK}"


def _made_then(run: ProcedureRun, at: datetime | None) -> bool:
    """Tell whether a proof that holds was made in a run; at: when it was, None where none holds."""
    return at is not None and run.started <= at and (run.ended is None or at <= run.ended)


def _heeded(context: SheetContext) -> Iterator[str]:
    found = [one for one in context.sheet.findings if one.severity is Severity.DANGER]
    for one in found[:MOST]:
        yield f"Danger: {one.message}"
    if len(found) > MOST:
        yield f"… and {len(found) - MOST} more dangers: see Balance and findings."


def _held(found: Condition) -> Iterator[str]:
    """Yield what holds the vehicle as it stands, every proof that has lapsed among it."""
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
