"""Lines that cannot be made, or not as they are drawn."""

from collections.abc import Iterator

import numpy as np

from urgens.document.circuits import circuits_of
from urgens.document.layout.layout import BrakeLine
from urgens.document.layout.line_sheets import TIGHT, MadeLine, least_radius, radius_of, routed
from urgens.guidance.rules.finding import Fix, Remark, Severity
from urgens.guidance.rules.registry import rule
from urgens.guidance.words.figures import FigureWords
from urgens.guidance.words.parts import thing_called
from urgens.plumbing.route_edits import as_written, points_of
from urgens.plumbing.route_mends import mend_of, needed
from urgens.quantity import UnitSystem
from urgens.solve import Solution


def _called(solution: Solution, line: BrakeLine) -> str:
    words = thing_called(circuits_of(solution.build), line.id)
    return f"{words[:1].upper()}{words[1:]}"


def _routed(solution: Solution) -> tuple[MadeLine, ...]:
    layout = solution.build.plumbing
    return () if layout is None else routed(layout)


@rule("route-too-short", Severity.WARNING)
def route_too_short(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of a leg that is shorter than its bends take, and of a route that no tube has."""
    for made in _routed(solution):
        short = made.fault
        if made.sheet is not None:
            over = made.sheet.straights.min()
            if over >= -TIGHT:
                continue
            leg = int(made.sheet.straights.argmin()) + 1
            short = (
                f"its straight {leg} is {words.length(-float(over))} shorter than its bends take"
            )
        yield Remark(
            message=f"{_called(solution, made.line)}, cannot be bent: {short}.",
            why="Two bends would have to lie in one another; move a point, or take a smaller "
            "former.",
            basis="geometry",
            where=made.line.id,
            fixes=_bendable(solution, made, words),
        )


@rule("straight-too-short", Severity.WARNING)
def straight_too_short(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of straights that neither flaring tool nor former can hold."""
    layout = solution.build.plumbing
    for made in _routed(solution):
        if made.sheet is None or layout is None:
            continue
        straights = made.sheet.straights
        wanted = needed(len(straights), layout.bench)
        for place, (straight, least) in enumerate(zip(straights, wanted.tolist(), strict=True)):
            at_end = place in (0, len(straights) - 1)
            if not -TIGHT <= straight < least - TIGHT:
                continue
            holds = "the nut and the flaring tool" if at_end else "the former"
            yield Remark(
                message=f"{_called(solution, made.line)}: "
                f"straight {place + 1} of {len(straights)} is "
                f"{words.length(float(straight))}; {words.length(least)} are wanted for {holds}.",
                why="Where the tool finds no straight to grip it holds the bend, and the flare "
                "comes out crooked or the tube flat." if at_end else
                "The former holds the bend before, and pulls it open or flat.",
                where=made.line.id,
                fixes=_bendable(solution, made, words),
            )  # fmt: skip


def _bendable(solution: Solution, line: MadeLine, words: FigureWords) -> tuple[Fix, ...]:
    """Return the fix that lets a line be bent, where one step does."""
    layout = solution.build.plumbing
    mend = None if layout is None else mend_of(line, layout.bench)
    if mend is None:
        return ()
    place = f"plumbing.lines[{line.index}]"
    if mend.radius is not None:
        label = f"Bend it by a former of {words.length(mend.radius)}"
        return (Fix(label, f"{place}.bend_radius", f"{mend.radius * 1e3:.3f} mm"),)
    assert mend.points is not None
    label = f"Take point {mend.point + 1} of its route out"
    if not mend.out:
        by = np.abs(mend.points - points_of(line.line)).max()
        label = f"Move point {mend.point + 1} of its route by {words.length(float(by))}"
    return (Fix(label, f"{place}.route", as_written(mend.points, UnitSystem.METRIC)),)


@rule("bend-too-sharp", Severity.WARNING)
def bend_too_sharp(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of a bend sharper than a former makes it."""
    for made in _routed(solution):
        radius, least = radius_of(made.line).value, least_radius(made.line)
        if made.sheet is None or not made.sheet.angle.size or radius >= least - TIGHT:
            continue
        yield Remark(
            message=f"{_called(solution, made.line)}, is bent with {words.length(radius)}, less "
            f"than the "
            f"{words.length(least)} that the tube takes.",
            why="A bend sharper than its former flattens or kinks, and a kink cracks.",
            where=made.line.id,
            fixes=(
                Fix(
                    f"Bend it by a former of {words.length(least)}",
                    f"plumbing.lines[{made.index}].bend_radius",
                    f"{least * 1e3:.3f} mm",
                ),
            ),
        )


@rule("slide-on-first", Severity.ADVICE)
def slide_on_first(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell what has to be on the tube before it is flared."""
    for made in _routed(solution):
        if not made.line.slide_on_first:
            continue
        first = ", ".join(made.line.slide_on_first)
        yield Remark(
            message=f"{_called(solution, made.line)}: slide on {first} before the second end is "
            f"flared.",
            why="Over a flare or round a bend they do not go on any more.",
            where=made.line.id,
        )


@rule("plain-copper", Severity.DANGER)
def plain_copper(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of lines of plain copper."""
    layout = solution.build.plumbing
    for index, line in enumerate(() if layout is None else layout.lines):
        if line.material == "plain-copper":
            yield Remark(
                message=f"{_called(solution, line)}, is of plain copper.",
                why="It hardens as it shakes, and cracks without warning: copper-nickel bends as "
                "easily and does not.",
                where=line.id,
                fixes=(
                    Fix(
                        "Make it of copper-nickel",
                        f"plumbing.lines[{index}].material",
                        "copper-nickel",
                    ),
                ),
            )
