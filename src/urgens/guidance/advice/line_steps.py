"""How one line is made at the bench, step by step, in the order of the work."""

from collections.abc import Iterator

import numpy as np

from urgens.document.layout.layout import BendingTools, BrakeLine
from urgens.document.layout.line_sheets import MadeLine, flare_takes
from urgens.guidance.words.parts import SEATS
from urgens.quantity import ANGLE, LENGTH, Units, UnitSystem, show

SQUARE = np.pi / 2.0
OVER = 1e-6  # rad; a square bend is none over it
OPPOSED = np.radians(150.0)  # turned by more, a bend goes back against the one before
REACH = 0.06  # m of the bender round its former; common practice
SHORT = 3.0  # radii; opposed bends nearer than that are hard to hold


def line_work(made: MadeLine, bench: BendingTools, units: Units | UnitSystem) -> Iterator[str]:
    """Yield the steps in which a line is made, as sentences.

    made: the line; bench: the builder's own tools.
    Source: common practice.
    """
    sheet, line = made.sheet, made.line
    if sheet is None:
        return
    yield "Measure the route with welding rod or string, and compare it with this sheet."
    yield f"Cut square at {show(made.length, LENGTH, units)}; deburr inside and outside."
    ends = line.ends
    first = [f"nut {ends[0].nut}"] if ends else []
    on_first = [*first, *line.slide_on_first]
    if on_first:
        yield f"Slide on {', '.join(on_first)}; the nut's thread faces the end."
    if ends:
        yield f"Flare the first end: {_flare(line, 0, bench, units)}."
    yield from _bends(made, units)
    yield f"Trim so that {show(sheet.last, LENGTH, units)} are left behind the last bend."
    if ends:
        yield f"Slide on nut {ends[1].nut}, its thread towards the second end."
        yield f"Flare the second end: {_flare(line, 1, bench, units)}."
    yield "Blow it through, and cap both ends with tape until it is fitted."


def _flare(line: BrakeLine, end: int, bench: BendingTools, units: Units | UnitSystem) -> str:
    takes = show(flare_takes(line.ends[end], bench), LENGTH, units)
    return f"{SEATS[line.ends[end].flare]}, which takes {takes}"


def _bends(line: MadeLine, units: Units | UnitSystem) -> Iterator[str]:
    """Yield each bend: fed, turned, bent, and what is looked at."""
    sheet = line.sheet
    assert sheet is not None
    near = clears_bender(line, REACH)
    rows = zip(sheet.feed, sheet.rotation, sheet.angle, line.settings, strict=True)
    for place, (feed, rotation, angle, setting) in enumerate(rows):
        turn = ""
        if place:
            way = "right" if rotation > 0 else "left"
            turn = f"turn it {show(abs(rotation), ANGLE, units)} to the {way}, "
            turn = turn if abs(rotation) > OVER else ""
        bend = show(angle, ANGLE, units)
        over = f" (set {show(setting, ANGLE, units)}, it springs back)" if setting > angle else ""
        said = f"Bend {place + 1}: feed {show(feed, LENGTH, units)}, {turn}bend {bend}{over}"
        if angle > SQUARE + OVER:
            said += "; stop half way and look for flattening"
        if place and abs(rotation) > OPPOSED and feed < SHORT * sheet.radius:
            said += "; it goes back against the bend before with little between: hold that one"
        if place + 1 in near:
            said += "; what is bent comes near the bender: try it dry, else begin at the other end"
        yield f"{said}."


def clears_bender(line: MadeLine, reach: float) -> tuple[int, ...]:
    """Return the bends at which what is bent already comes near the bender, counted from 1.

    line: the line; reach: of the bender round its former [m].
    The tube turns with the bend: what is closer behind it than the bender reaches meets it.
    Source: common practice: bend from the end that leaves the longer straight free.
    """
    sheet = line.sheet
    if sheet is None:
        return ()
    near = (sheet.feed[1:] < reach) & (np.abs(sheet.rotation[1:]) > OPPOSED)
    return tuple(int(place) + 2 for place in np.flatnonzero(near))
