"""Each line on paper for the bender: its picture beside the table of feed, turn and bend."""

from dataclasses import dataclass

import numpy as np

from urgens.document import Build
from urgens.document.circuits import circuits_of
from urgens.document.layout.line_sheets import MadeLine, routed
from urgens.guidance.words.parts import line_name
from urgens.physics.arrays import Array
from urgens.quantity import ANGLE, LENGTH, Units, UnitSystem, show
from urgens.sheet.blocks import Beside, Block, Drawing, Paragraphs, Rows
from urgens.sheet.plot import INK
from urgens.sheet.table import Cell, Table

WIDE, HIGH = 1.1, 0.9  # inches of a picture
EDGE = 9.0  # px around it
DOT = 2.6  # px
PER_INCH = 100.0  # px
SHARE = 35  # % of the width is the picture's
# From the left, behind and above; the route's own axes are forwards, to the left and upwards.
ACROSS = np.array([-0.87, -0.5, 0.0])
DOWN = np.array([-0.25, 0.43, -0.87])


@dataclass(frozen=True)
class BentLine:
    """One line: how it looks, its bends in their order, what is on the tube before it."""

    drawing: Drawing
    table: Table
    first: str

    @property
    def block(self) -> Beside:
        """It, as a block of the sheet."""
        told = Paragraphs((f"On before the first flare: {self.first}",), "muted")
        return Beside((self.drawing,), (Rows(self.table), told), SHARE)


def bent_lines(build: Build, units: UnitSystem | Units) -> tuple[BentLine, ...]:
    """Return every line that can be bent as it is drawn; units: shown."""
    circuits = circuits_of(build)
    if circuits is None or build.plumbing is None:
        return ()
    return tuple(
        _bent(one, f"{one.line.id.removeprefix('L')}: {line_name(circuits, one.line)}", units)
        for one in routed(build.plumbing)
        if one.sheet is not None
    )


def two_by_two(lines: tuple[BentLine, ...]) -> tuple[Block, ...]:
    """Return lines in two columns, in the order in which they are read."""
    return tuple(
        Beside((one.block,), tuple(other.block for other in lines[at + 1 : at + 2]), 50)
        for at, one in enumerate(lines)
        if at % 2 == 0
    )


def _bent(line: MadeLine, name: str, units: UnitSystem | Units) -> BentLine:
    sheet = line.sheet
    assert sheet is not None
    rows: list[tuple[str, ...]] = [
        (str(number), Cell(show(feed, LENGTH, units)),
         Cell(show(turn, ANGLE, units)) if number > 1 else "", Cell(show(angle, ANGLE, units)))
        for number, (feed, turn, angle) in enumerate(
            zip(sheet.feed, sheet.rotation, line.settings, strict=True), start=1)
    ]  # fmt: skip
    rows.append(("last", Cell(show(sheet.last, LENGTH, units)), "", ""))
    first = [f"nut {end.nut}" for end in line.line.ends[:1]]
    words = ", ".join([*first, *line.line.slide_on_first]) or "nothing"
    table = Table(name, ("Bend", "Feed", "Turn", "Bend by"), tuple(rows))
    drawing = Drawing(_picture(line), WIDE, HIGH, f"Line {name}")
    return BentLine(drawing, table, words)


def _picture(line: MadeLine) -> bytes:
    """Return a route as SVG, its bends numbered, its first end a dot."""
    points = np.array([[one.value for one in point] for point in line.line.route])
    x, y = _fitted(np.stack([points @ ACROSS, points @ DOWN]))
    way = " ".join(f"{a:.1f},{b:.1f}" for a, b in zip(x, y, strict=True))
    wide, high = WIDE * PER_INCH, HIGH * PER_INCH
    drawn = [
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {wide:g} {high:g}">',
        f'<polyline points="{way}" fill="none" stroke="{INK}" stroke-width="2.4" '
        'stroke-linejoin="round" stroke-linecap="round"/>',
        f'<circle cx="{x[0]:.1f}" cy="{y[0]:.1f}" r="{2 * DOT:.1f}" fill="{INK}"/>',
    ]
    for a, b in zip(x[1:-1], y[1:-1], strict=True):
        drawn.append(f'<circle cx="{a:.1f}" cy="{b:.1f}" r="{DOT}" fill="#FFFFFF" stroke="{INK}"/>')
    return "\n".join([*drawn, "</svg>", ""]).encode()


def _fitted(flat: Array) -> Array:
    """Return a way on paper (2, n) as large as its picture lets it be, in px."""
    low, size = flat.min(axis=1), np.ptp(flat, axis=1)
    room = np.array([WIDE, HIGH]) * PER_INCH - 2 * EDGE
    scale = float(np.min(room / np.maximum(size, 1e-9)))
    spare = room - size * scale
    return np.asarray((flat - low[:, np.newaxis]) * scale + (EDGE + spare / 2)[:, np.newaxis])
