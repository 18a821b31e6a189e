"""A route that cannot be bent, brought to one that can: a smaller former, a point moved or out."""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from urgens.document.layout.layout import BendingTools
from urgens.document.layout.line_sheets import (
    FORMER_GRIP,
    NUT_AND_GRIP,
    TIGHT,
    MadeLine,
    least_radius,
    radius_of,
)
from urgens.physics.arrays import Array
from urgens.physics.bends import RouteError, bend_sheet
from urgens.plumbing.route_edits import points_of

SPARE = 1e-3  # m that a straight gets more than it needs
FEWEST = 3  # points of a route that one can be taken out of


@dataclass(frozen=True)
class Mend:
    """What makes a line that can be bent: another radius [m], or other points (n, 3) [m].

    `point` is the one that is moved or taken out, counted from 0.
    """

    points: Array | None = None
    radius: float | None = None
    point: int = 0
    out: bool = False


def needed(count: int, bench: BendingTools) -> Array:
    """Return the least of every straight of a line, shape (count,) [m].

    count: of its straights [-]; bench: the builder's tools.
    Source: common practice, where the tools are not measured.
    """
    grip = (bench.former_grip or FORMER_GRIP).value
    least = np.full(count, grip)
    least[[0, -1]] = (bench.nut_and_grip or NUT_AND_GRIP).value
    return least


def mend_of(line: MadeLine, bench: BendingTools) -> Mend | None:
    """Return what lets a line be bent, None where no single step does.

    line: the line; bench: the builder's tools.
    Tried in order: the smallest former of its tube, the points moved along their legs, each by
    itself and with the next, and a point taken out. The ends stay where they are.
    Source: by trial against `physics.bends`.
    """
    radius, least = radius_of(line.line).value, least_radius(line.line)
    points = points_of(line.line)
    if radius > least + TIGHT and _bends(points, least, bench):
        return Mend(radius=least)
    for mend in _moves(points, radius, bench):
        if mend.points is not None and _bends(mend.points, radius, bench):
            return mend
    return None


def _bends(points: Array, radius: float, bench: BendingTools) -> bool:
    try:
        sheet = bend_sheet(points, radius)
    except RouteError:
        return False
    short = needed(len(sheet.straights), bench) - sheet.straights
    return bool(np.all(short <= TIGHT))


def _moves(points: Array, radius: float, bench: BendingTools) -> Iterator[Mend]:
    """Yield routes with corners moved along their legs by what is short, then without one."""
    short = _short(points, radius, bench)
    inner = range(1, len(points) - 1)
    for by in (short, 2.0 * short):
        for corner in inner:
            for leg in (corner - 1, corner):
                along = points[leg + 1] - points[leg]
                along = along / max(float(np.linalg.norm(along)), SPARE)
                for step in (along * by, -along * by):
                    for last in (corner, corner + 1):
                        if last in inner:
                            made = points.copy()
                            made[corner : last + 1] += step
                            yield Mend(points=made, point=corner)
    for corner in inner if len(points) >= FEWEST else ():
        yield Mend(points=np.delete(points, corner, axis=0), point=corner, out=True)


def _short(points: Array, radius: float, bench: BendingTools) -> float:
    """Return by how much the shortest straight is too short [m]."""
    try:
        sheet = bend_sheet(points, radius)
    except RouteError:
        return SPARE
    return max(float((needed(len(sheet.straights), bench) - sheet.straights).max()), 0.0) + SPARE
