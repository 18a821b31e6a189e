"""Changes of a line's route: points moved, put in and taken out, bends typed, the other side's."""

from dataclasses import replace
from typing import Literal

import numpy as np

from urgens.document.layout.layout import BrakeLine
from urgens.physics.arrays import Array
from urgens.physics.bends import BendSheet, RouteError, route, start_frame
from urgens.quantity import LENGTH, Units, UnitSystem, retype

START = 0.3  # m, of the straight that a new route begins as
ENDS = 2
EXACT = {"mm": 3, "in": 4}  # places that keep the angles of typed bends
Figure = Literal["feed", "rotation", "angle"]


def points_of(line: BrakeLine) -> Array:
    """Return the corners of a line's route, shape (n, 3) [m]; line: of a layout.

    The build file. None of them where it has no route.
    """
    points = [[one.value for one in point] for point in line.route]
    return np.array(points, dtype=float).reshape(-1, 3)


def new_route() -> Array:
    """Return the route that a line without one begins as: a straight, shape (2, 3) [m].

    Something to be drawn at; nobody has measured it.
    """
    return np.array([[0.0, 0.0, 0.0], [START, 0.0, 0.0]])


def as_written(points: Array, units: Units | UnitSystem) -> list[list[str]]:
    """Return a route as it is written into the build file.

    points: corners (n, 3) [m]; units: to write in.

    Whole thousandths of a millimetre, which keep what is bent.
    """
    name = retype(0.0, LENGTH, units).partition(" ")[2]
    places = EXACT.get(name, 4)
    return [[retype(float(one), LENGTH, units, places) for one in point] for point in points]


def moved(points: Array, index: int, to: Array) -> Array:
    """Return a route with one corner elsewhere.

    points: corners (n, 3) [m]; index: which [-]; to: where (3,) [m].
    Raises RouteError where it would stand on the one beside it.
    Source: by definition.
    """
    made = np.array(points, dtype=float)
    made[index] = to
    for beside in (index - 1, index + 1):
        if 0 <= beside < len(made) and np.array_equal(made[beside], made[index]):
            raise RouteError(index, "would stand on the one beside it", "put it elsewhere")
    return made


def with_point(points: Array, after: int) -> Array:
    """Return a route with one more corner, in the middle of a leg.

    points: corners (n, 3) [m]; after: the corner that the leg begins at [-]. Behind the end it is
    put into the last leg.
    Source: by definition.
    """
    leg = min(after, len(points) - ENDS)
    middle = (points[leg] + points[leg + 1]) / 2.0
    return np.insert(points, leg + 1, middle, axis=0)


def without_point(points: Array, index: int) -> Array:
    """Return a route without a corner; points: (n, 3) [m]; index: which [-].

    Raises RouteError where only both ends are left.
    Source: by definition.
    """
    if len(points) <= ENDS:
        raise RouteError(index, "is an end of the line", "give the line a route of its own ends")
    return np.delete(points, index, axis=0)


def other_side(points: Array) -> Array:
    """Return the route of the vehicle's other side; points: corners (n, 3) [m].

    Source: mirrored at the plane through the middle of the vehicle.
    """
    return np.asarray(points * np.array([1.0, -1.0, 1.0]) + 0.0)


def with_bend(points: Array, sheet: BendSheet, bend: int, figure: Figure, value: float) -> Array:
    """Return the route with one figure of a bend as it is typed.

    points: corners (n, 3) [m]; sheet: of that route; bend: which [-]; figure: which of its
    figures [text]; value: of a feed [m], of a rotation or an angle [rad].
    The feed of the bend behind the last is the last straight.
    """
    if figure == "feed" and bend == len(sheet.feed):
        made = replace(sheet, last=value)
    else:
        row = getattr(sheet, figure).copy()
        row[bend] = value
        made = replace(sheet, **{figure: row})
    return route(made, start_frame(points))


def with_new_bend(points: Array, sheet: BendSheet) -> Array:
    """Return the route with a square bend more at its end, as measured bends are entered.

    points: corners (n, 3) [m]; sheet: of that route.

    Half of the last straight before it, half behind; to be typed over.
    """
    half = max(sheet.last / 2.0, sheet.radius)
    made = BendSheet(
        np.append(sheet.feed, half),
        np.append(sheet.rotation, 0.0),
        np.append(sheet.angle, np.pi / 2.0),
        half,
        sheet.radius,
    )
    return route(made, start_frame(points))
