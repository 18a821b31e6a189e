"""A rigid line as points in space and as rows of a bend sheet, each made from the other."""

from dataclasses import dataclass
from typing import NamedTuple

import numpy as np

from urgens.physics.arrays import Array, Floats

STRAIGHT = 1e-9  # rad; a point that turns the line by less is on a straight
FOLDED = np.pi - 1e-6  # rad; a point that turns it by more lays it on itself
X, Y, Z = np.eye(3)


class RouteError(ValueError):
    """A route that no tube has: the point it is about, the problem, the remedy."""

    def __init__(self, point: int, problem: str, remedy: str) -> None:
        super().__init__(f"point {point + 1} {problem}; {remedy}")
        self.point, self.problem, self.remedy = point, problem, remedy


class Frame(NamedTuple):
    """Where a tube starts [m], where it points to, and across it, of the first bend's plane [-]."""

    start: Array = np.zeros(3)
    along: Array = X
    across: Array = Z


FORWARD = Frame()


@dataclass(frozen=True)
class BendSheet:
    """One line's bends in order, each array of shape (bends,).

    `feed` the straight before each bend [m]; `rotation` about the tube's own axis from the plane
    of the bend before, right-handed looking along the feed, in (-π, π] and 0 for the first [rad];
    `angle` of each bend [rad]; `last` the straight behind the last bend [m]; `radius` of the bends
    to the tube's middle [m].
    """

    feed: Array
    rotation: Array
    angle: Array
    last: float
    radius: float

    @property
    def length(self) -> float:
        """Developed length of the middle of the tube, without flares [m]."""
        return float(self.feed.sum() + self.radius * self.angle.sum() + self.last)

    @property
    def straights(self) -> Array:
        """Straights from end to end, shape (bends + 1,) [m]; below zero where bends overlap."""
        return np.append(self.feed, self.last)

    @property
    def mirrored(self) -> "BendSheet":
        """The line of the other side of the vehicle: every rotation turned round."""
        turned = np.where(self.rotation == np.pi, np.pi, -self.rotation)
        return BendSheet(self.feed, turned + 0.0, self.angle, self.last, self.radius)


def directions(points: Array) -> tuple[Array, Array]:
    """Return the legs' directions, shape (n - 1, 3) [-], and lengths (n - 1,) [m].

    points: corners of the route, ends among them, shape (n, 3) [m].
    Raises RouteError where there are fewer than two, or one stands on the one before.
    Source: by definition.
    """
    points = np.asarray(points, dtype=float)
    if len(points) < 2:
        raise RouteError(0, "is the only one", "give at least both ends of the line")
    legs = np.diff(points, axis=0)
    lengths = np.linalg.norm(legs, axis=1)
    doubled = np.flatnonzero(lengths == 0.0)
    if doubled.size:
        raise RouteError(int(doubled[0]) + 1, "stands on the one before", "take one of them out")
    return legs / lengths[:, None], lengths


def bend_sheet(points: Array, radius: float) -> BendSheet:
    """Return the bends of a route.

    points: corners of the route, ends among them, shape (n, 3) [m]; radius: of all bends, to the
    tube's middle [m].
    A corner that does not turn makes no bend. Straights may come out below zero, where a bend is
    longer than its leg: `BendSheet.straights` tells.
    Raises RouteError as `directions`, and where the route folds back on itself.
    Source: tangent length R tan(angle / 2) on both legs of a corner; vector geometry.
    """
    along, lengths = directions(points)
    cross = np.cross(along[:-1], along[1:])
    sine, cosine = np.linalg.norm(cross, axis=1), np.einsum("ij,ij->i", along[:-1], along[1:])
    turn = np.arctan2(sine, cosine)
    folded = np.flatnonzero(turn > FOLDED)
    if folded.size:
        raise RouteError(int(folded[0]) + 1, "folds the line back on itself", "move it aside")
    bent = np.flatnonzero(turn > STRAIGHT)
    angle, normal = turn[bent], cross[bent] / sine[bent, None]
    tangent = radius * np.tan(angle / 2.0)
    # Corners on a straight join their legs: what counts is the way from bend to bend.
    reached = np.concatenate(([0.0], np.cumsum(lengths)))
    legs = np.diff(np.concatenate(([0.0], reached[bent + 1], [reached[-1]])))
    straights = legs - np.append(0.0, tangent) - np.append(tangent, 0.0)
    rotation = np.zeros(len(bent))
    if len(bent) > 1:
        rotation[1:] = _turned(normal[:-1], normal[1:], along[bent[1:]])
    return BendSheet(straights[:-1], rotation, angle, float(straights[-1]), radius)


def _turned(before: Array, after: Array, axis: Array) -> Array:
    """Return how far one direction is turned into another about an axis [rad]; all (n, 3)."""
    sine = np.einsum("ij,ij->i", np.cross(before, after), axis)
    turned = np.arctan2(sine, np.einsum("ij,ij->i", before, after))
    return np.where(turned <= -np.pi, np.pi, turned)


def start_frame(points: Array) -> Frame:
    """Return from where and how a route starts; points: its corners (n, 3) [m].

    A route without a bend is across to the left or, where it is itself, upwards.
    Source: the plane of the first bend.
    """
    along, _ = directions(points)
    cross = np.cross(along[:-1], along[1:])
    size = np.linalg.norm(cross, axis=1)
    bent = np.flatnonzero(size > STRAIGHT)
    if bent.size:
        across = cross[bent[0]] / size[bent[0]]
    else:
        beside = Y if abs(along[0] @ Y) < 0.9 else Z
        across = beside - (beside @ along[0]) * along[0]
        across = across / np.linalg.norm(across)
    return Frame(np.asarray(points, dtype=float)[0], along[0], across)


def route(sheet: BendSheet, frame: Frame = FORWARD) -> Array:
    """Return the corners of the route that a bend sheet makes, shape (bends + 2, 3) [m].

    sheet: of the line; frame: from where and how it starts [m, -].
    """
    tangent = sheet.radius * np.tan(sheet.angle / 2.0)
    legs = sheet.straights + np.append(0.0, tangent) + np.append(tangent, 0.0)
    corners, along, across = [np.asarray(frame.start, dtype=float)], frame.along, frame.across
    for leg, rotation, angle in zip(legs[:-1], sheet.rotation, sheet.angle, strict=True):
        corners.append(corners[-1] + leg * along)
        across = _rotated(across, along, rotation)
        along = _rotated(along, across, angle)
    return np.array([*corners, corners[-1] + legs[-1] * along])


def _rotated(what: Array, axis: Array, angle: Floats) -> Array:
    """Return a direction turned about an axis it stands square to, right-handed."""
    turned = np.cos(angle) * what + np.sin(angle) * np.cross(axis, what)
    return np.asarray(turned / np.linalg.norm(turned))


def middle_line(points: Array, radius: float, steps: int = 12) -> Array:
    """Return the middle of the tube as it is bent, shape (m, 3) [m]; to be drawn.

    points: corners of the route (n, 3) [m]; radius: of all bends [m]; steps: chords of each
    bend [-].
    Raises RouteError as `bend_sheet`.
    Source: circular arcs tangent to both legs of each corner.
    """
    points = np.asarray(points, dtype=float)
    along, _ = directions(points)
    bend_sheet(points, radius)  # says what cannot be bent
    found = [points[:1]]
    for corner, before, after in zip(points[1:-1], along[:-1], along[1:], strict=True):
        cross = np.cross(before, after)
        sine = float(np.linalg.norm(cross))
        angle = float(np.arctan2(sine, before @ after))
        if angle <= STRAIGHT:
            found.append(corner[None])
            continue
        inward = np.cross(cross / sine, before)
        start = corner - radius * np.tan(angle / 2.0) * before
        turned = np.linspace(0.0, angle, steps + 1)[:, None]
        found.append(start + radius * (np.sin(turned) * before + (1.0 - np.cos(turned)) * inward))
    return np.concatenate([*found, points[-1:]])
