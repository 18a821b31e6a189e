"""The curve of a hose between its two ends: straight fittings, and a bend as long as is left."""

from dataclasses import dataclass

import numpy as np

from urgens.physics.arrays import Array

POINTS = 241
HALVINGS = 60
LONGEST_HANDLE = 6.0  # of the way between the ends, that a curve is looked for with


@dataclass(frozen=True)
class HoseCurve:
    """Points along the hose (n, 2) [m], and the least radius that it bends with [m]."""

    points: Array
    least_radius: float


class HoseTooShortError(ValueError):
    """A hose that does not reach: `by` how much it is short [m]."""

    def __init__(self, by: float) -> None:
        super().__init__("the hose does not reach")
        self.by = by


def hose_curve(
    apart: float, first: float, second: float, length: float, straight: float
) -> HoseCurve:
    """Return how a hose lies between two ends.

    apart: from one fitting's end to the other's [m]; first: which way the hose leaves the first
    end, from the straight way to the other [rad]; second: which way it comes into the other end
    [rad]; length: free, between the fittings [m]; straight: at each end, that does not bend [m].
    Raises HoseTooShortError where it does not reach.
    Source: a smooth curve (cubic) that leaves and comes in as its ends point, of that length; the
    true one bends less sharply, by up to an eighth round a half circle.
    """
    ends = np.array([[0.0, 0.0], [apart, 0.0]])
    ways = np.array([[np.cos(first), np.sin(first)], [np.cos(second), np.sin(second)]])
    begin, stop = ends[0] + straight * ways[0], ends[1] - straight * ways[1]
    left = length - 2.0 * straight
    chord = float(np.linalg.norm(stop - begin))
    if left < chord:
        raise HoseTooShortError(chord - left)

    def along(handle: float) -> Array:
        return _cubic(begin, begin + handle * ways[0], stop - handle * ways[1], stop)

    least, most = 1e-6 * max(chord, straight), LONGEST_HANDLE * max(left, chord)
    if _long(along(least)) >= left:
        handle = least
    else:
        for _ in range(HALVINGS):  # the longer the handle the longer the curve
            handle = (least + most) / 2.0
            least, most = (handle, most) if _long(along(handle)) < left else (least, handle)
        handle = (least + most) / 2.0
    middle = along(handle)
    points = np.concatenate([ends[:1], middle, ends[1:]])
    return HoseCurve(points, _least_radius(middle))


def _cubic(one: Array, two: Array, three: Array, four: Array) -> Array:
    t = np.linspace(0.0, 1.0, POINTS)[:, None]
    s = 1.0 - t
    return s**3 * one + 3 * s**2 * t * two + 3 * s * t**2 * three + t**3 * four


def _long(points: Array) -> float:
    return float(np.linalg.norm(np.diff(points, axis=0), axis=1).sum())


def _least_radius(points: Array) -> float:
    """Return the least radius of a curve: of the circle through each three points of it."""
    a, b, c = points[:-2], points[1:-1], points[2:]
    sides = [np.linalg.norm(x, axis=1) for x in (b - a, c - b, c - a)]
    cross = np.abs((b - a)[:, 0] * (c - a)[:, 1] - (b - a)[:, 1] * (c - a)[:, 0])
    flat = cross <= 1e-15
    product = sides[0] * sides[1] * sides[2]
    radius = np.where(flat, np.inf, product / (2.0 * np.where(flat, 1.0, cross)))
    return float(radius.min(initial=np.inf))
