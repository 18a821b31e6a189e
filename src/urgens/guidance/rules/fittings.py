"""Parts that are there and do not do: fittings, washers, bleed screws, hoses, what is too small."""

import math
from collections.abc import Iterator

from urgens.document.circuits import Circuits, circuits_of
from urgens.document.layout.layout import FittedPart
from urgens.document.layout.line_sheets import routed
from urgens.document.layout.threads import thread_table
from urgens.document.practice import practice
from urgens.document.tables import fluid_table
from urgens.guidance.rules.finding import Fix, Remark, Severity
from urgens.guidance.rules.layout_fixes import part_set
from urgens.guidance.rules.registry import rule
from urgens.guidance.words.figures import FigureWords
from urgens.guidance.words.parts import thing_called
from urgens.guidance.words.pedal_feel import COLD_DENSITY, THICKEST
from urgens.physics.line import pressure_drop
from urgens.solve import Solution
from urgens.solve.line_pressure import pushrod_force
from urgens.solve.rolling_forces import rolling_lines
from urgens.solve.travel import axle_volume

STRAIGHT_ENDS = 2.0 * practice()["straight_ends"].value  # m of a hose that do not bend
SOLD_BY = 0.01  # m
THINNER = "DOT 5.1"  # which may be mixed with what most have
SILICONE = "DOT 5"  # which may not
REAR = frozenset({"rear-left", "rear-right"})
MATTERS = 1.5  # s; much of a stop is over by then
FAIR_WEATHER = ("track", "drag")


def _parts(solution: Solution, kind: str | None = None) -> Iterator[FittedPart]:
    layout = solution.build.plumbing
    for part in () if layout is None else layout.parts:
        if kind is None or part.kind == kind:
            yield part


def _called(solution: Solution, part: FittedPart) -> str:
    return thing_called(circuits_of(solution.build), part.id)


@rule("compression-fitting", Severity.DANGER)
def compression_fitting(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of fittings that only clamp the tube."""
    for part in _parts(solution):
        if part.compression:
            yield Remark(
                message=f"The {_called(solution, part)} clamps the tube with a ring: it is a "
                f"compression fitting.",
                why="It is made for a few bar: a hard press blows the tube out of it. Flare both "
                "ends and take a union.",
                where=part.id,
                fixes=part_set(
                    solution.build,
                    part,
                    "compression",
                    False,
                    f"It takes flared ends instead: {_called(solution, part)}",
                ),
            )


@rule("washer-missing", Severity.WARNING)
def washer_missing(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of banjos with too few washers."""
    for part in _parts(solution, "banjo"):
        eyes, wanted = part.eyes_on_bolt, part.washers_wanted
        if part.washers is not None and part.washers < wanted:
            yield Remark(
                message=f"The {_called(solution, part)} has {part.washers} washers for {eyes} eye"
                f"{'s' if eyes > 1 else ''}; {wanted} are wanted, new ones.",
                why="One under the bolt's head, one between two eyes, one at the body: each seals "
                "once.",
                where=part.id,
                fixes=part_set(
                    solution.build,
                    part,
                    "washers",
                    wanted,
                    f"Put {wanted} new washers on its bolt",
                ),
            )


@rule("bleeder-low", Severity.WARNING)
def bleeder_low(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of bleed screws that are not at the top."""
    for part in _parts(solution, "wheel-brake"):
        if part.bleeder_at_top is False:
            yield Remark(
                message=f"The bleed screw of the {_called(solution, part)} brake is not at the "
                f"top.",
                why="Air above it stays in, however long it is bled: the left brake is on the "
                "right, or it is bled off the mounting.",
                where=part.id,
                fixes=part_set(
                    solution.build,
                    part,
                    "bleeder_at_top",
                    True,
                    f"{_called(solution, part).capitalize()} is turned: its bleed screw is at the "
                    f"top",
                ),
            )


@rule("hose-too-short", Severity.WARNING)
def hose_too_short(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of hoses that the suspension or the steering pulls taut."""
    for part in _parts(solution, "hose"):
        if part.reach is None or part.free_length is None:
            continue
        least = part.reach.value + STRAIGHT_ENDS
        if part.free_length.value < least:
            yield Remark(
                message=f"The {_called(solution, part)} is {words.length(part.free_length.value)} "
                f"free; its ends "
                f"get {words.length(part.reach.value)} apart, which takes {words.length(least)}.",
                why="At full droop and lock it is pulled out of its ends, or it cracks there; "
                f"{words.practice('straight_ends')} at each end do not bend.",
                where=part.id,
                fixes=_longer_hose(solution, part, least, words),
            )


def _longer_hose(
    solution: Solution, part: FittedPart, least: float, words: FigureWords
) -> tuple[Fix, ...]:
    """Return the fix that takes a hose of the next whole centimetre."""
    whole = math.ceil(round(least / SOLD_BY, 6)) * SOLD_BY
    label = f"Take the {_called(solution, part)} {words.length(whole)} long"
    return part_set(solution.build, part, "free_length", f"{whole * 1e3:g} mm", label)


@rule("rear-line-slow", Severity.ADVICE)
def rear_line_slow(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell where cold fluid comes late to the rear, through long thin lines."""
    build, made, laid = solution.build, solution.system, circuits_of(solution.build)
    if laid is None or build.split == "diagonal" or build.vehicle.use in FAIR_WEATHER:
        return
    effort = build.targets.comfortable_effort.value
    lines = rolling_lines(made, pushrod_force(made, effort), solution.standing)
    taken = float(axle_volume(made.volumes, made.volumes.axles.rear, lines.rear))
    grade = THICKEST if build.fluid is None else build.fluid.grade
    viscosity = fluid_table().fluids[grade].cold_viscosity * 1e-6 * COLD_DENSITY
    per_wheel = {wheel: _lag(laid, wheel, viscosity, taken) for wheel in REAR}
    rear = float(lines.rear)
    if rear <= 0.0 or max(per_wheel.values()) < MATTERS * rear:
        return
    lag = max(per_wheel.values()) / rear
    yield Remark(
        message=f"At −40 °C the rear follows about {lag:.1f} s late, through its long thin line.",
        why=f"{grade} is thick in the cold: the front takes hold first, and the rear once the "
        "pedal has been held. A thinner fluid or a wider tube shortens that; warm it is nothing.",
        basis="laminar flow (Hagen-Poiseuille), viscosity as of the fluid's class",
        where="plumbing.lines",
        fixes=_thinner(grade, lag),
    )


def _thinner(grade: str, lag: float) -> tuple[Fix, ...]:
    """Return the fix that takes another fluid, where that is enough; lag: with the one now [s]."""
    fluids = fluid_table().fluids
    then = lag * fluids[THINNER].cold_viscosity / fluids[grade].cold_viscosity
    if grade == SILICONE or then >= MATTERS:
        return ()
    label = f"Fill with {THINNER}, which takes up water sooner than {grade}"
    return (Fix(label, "fluid", {"class": THINNER}),)


def _lag(laid: Circuits, wheel: str, viscosity: float, taken: float) -> float:
    """Return the pressure [Pa] over the lines to a wheel were what it takes to come in a second.

    Over the rear's pressure it is the time in which the rear follows the front [s].
    """
    found = 0.0
    for one in routed(laid.plumbing):
        tube = None if one.line.tube is None else thread_table().tube(one.line.tube)
        behind = laid.wheels_behind(one.line.id)
        if one.sheet is None or tube is None or wheel not in behind or not behind <= REAR:
            continue
        flow = taken * len(behind) / len(REAR)
        found += float(pressure_drop(viscosity, one.length, flow, tube.bore.value))
    return found
