"""How each line of a layout is made: its bends, its developed length, what goes on first."""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from urgens.document.layout.layout import BendingTools, BrakeLine, LineEnd, Plumbing
from urgens.document.layout.threads import Tube, thread_table
from urgens.physics.arrays import Array
from urgens.physics.bends import BendSheet, RouteError, bend_sheet
from urgens.quantity import LENGTH, Quantity, parse

# Common practice, until the builder has measured his own tools.
NUT_AND_GRIP = parse("30 mm", LENGTH)  # straight before a flare
FORMER_GRIP = parse("12 mm", LENGTH)  # straight between two bends
FORMER = parse("13 mm", LENGTH)  # to the tube's middle, of the usual former for 3/16 in
# Tube that a flare takes
INVERTED_TAKES = parse("5 mm", LENGTH)
OTHER_TAKES = parse("3 mm", LENGTH)
USUAL_TUBE = parse("3/16 in", LENGTH)
DIAMETERS = 3.0  # the least radius of other tubes, of their diameter
TIGHT = 1e-6  # m; a straight shorter than it has to be by less is long enough
SQUARE = np.pi / 2.0  # rad


@dataclass(frozen=True)
class MadeLine:
    """One line as it is made; `fault` says why its route cannot be bent at all, else empty."""

    line: BrakeLine
    index: int
    sheet: BendSheet | None
    length: float  # m, developed, with what the flares take
    settings: Array  # rad, of the bender for each bend: the tube springs back
    fault: str = ""

    @property
    def before_flare(self) -> tuple[str, ...]:
        """What has to be on the tube before it is flared and bent, in order from its start."""
        nuts = [f"nut {end.nut}" for end in self.line.ends]
        return (*nuts[:1], *self.line.slide_on_first, *nuts[1:])


def routed(plumbing: Plumbing) -> tuple[MadeLine, ...]:
    """Return how every line is made that has a route; those of the last layout are kept.

    Source: `physics.bends`; what a flare takes is the builder's own figure, else common practice.
    """
    global _last
    if _last is None or _last[0] is not plumbing:
        _last = (
            plumbing,
            tuple(
                _made(line, index, plumbing.bench)
                for index, line in enumerate(plumbing.lines)
                if not line.direct and len(line.route) > 1
            ),
        )
    return _last[1]


_last: tuple[Plumbing, tuple[MadeLine, ...]] | None = None


@lru_cache(maxsize=2048)  # an edit leaves most lines as they are
def _made(line: BrakeLine, index: int, bench: BendingTools) -> MadeLine:
    points = np.array([[one.value for one in point] for point in line.route])
    try:
        sheet = bend_sheet(points, radius_of(line).value)
    except RouteError as error:
        return MadeLine(line, index, None, np.nan, np.array([]), str(error))
    flares = sum(flare_takes(end, bench) for end in line.ends)
    opens = 0.0 if bench.springback is None else bench.springback.value
    return MadeLine(line, index, sheet, sheet.length + flares, sheet.angle * (1.0 + opens / SQUARE))


def radius_of(line: BrakeLine) -> Quantity:
    """Return the radius of all bends, its own or else that of the usual former.

    line: of a layout.
    Source: common practice.
    """
    return line.bend_radius or FORMER


def least_radius(line: BrakeLine) -> float:
    """Return the least radius [m] that a line can be bent with; line: of a layout.

    Source: common practice: the former for 3/16 in, 3 diameters of any other tube.
    """
    if line.tube is None or abs(line.tube.value - USUAL_TUBE.value) < 2e-4:
        return FORMER.value
    return DIAMETERS * line.tube.value


def flare_takes(end: LineEnd, bench: BendingTools) -> float:
    """Return the tube that a flare takes [m].

    end: of a line; bench: of the builder.
    Source: common practice, where it is not measured.
    """
    if end.flare == "inverted":
        return (bench.inverted_flare or INVERTED_TAKES).value
    return (bench.bubble_flare or OTHER_TAKES).value


def tube_of(line: BrakeLine) -> Tube | None:
    """Return the tube of a line, None where it is not said or not sold so.

    line: of a layout.
    """
    return None if line.tube is None else thread_table().tube(line.tube)
