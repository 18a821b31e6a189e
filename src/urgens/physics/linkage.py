"""The pedal as a linkage: the pin on its circle, the far end of the rod on the cylinder's line.

Angles are from square to the cylinder's line, towards the driver positive; the pedal swings away
from the driver. Lengths across are from the pivot, square to that line.
"""

from typing import NamedTuple

import numpy as np

from urgens.physics.arrays import Array, Floats


class Swung(NamedTuple):
    """A swung pedal: ratio [-], way of the rod's end since rest [m], rod to its line [rad].

    NaN where the rod does not reach its line; a ratio is NaN too where the pin is past the point
    from which it pushes.
    """

    ratio: Array
    rod_travel: Array
    rod_angle: Array


def swung(
    pivot_to_pad: Floats,
    pivot_to_pushrod: Floats,
    rest: Floats,
    swing: Floats,
    rod_length: Floats = np.inf,
    axis: Floats | None = None,
) -> Swung:
    """Return ratio, rod travel and rod angle of a pedal swung from rest.

    pivot_to_pad: [m]; pivot_to_pushrod: [m]; rest: of the pin's arm [rad]; swing: away from the
    driver [rad]; rod_length: from pin to its far end [m], without end where not given; axis:
    distance of the cylinder's line from the pivot [m], through the pin at rest where not given.

    Circle and line; the ratio is the pad's way over the rod's, by virtual work.
    """
    radius = np.asarray(pivot_to_pushrod, dtype=float)
    now = np.subtract(rest, swing)
    line = radius * np.cos(rest) if axis is None else np.asarray(axis, dtype=float)
    with np.errstate(invalid="ignore", divide="ignore"):
        lean, lean_0 = ((line - radius * np.cos(at)) / rod_length for at in (now, rest))
        straight, straight_0 = (np.sqrt(1.0 - np.square(part)) for part in (lean, lean_0))
        # The far end's way by the rod's leaning, written so that a rod without end has none.
        leaned = (np.square(lean) - np.square(lean_0)) / (straight + straight_0)
        drawn = np.where(np.isinf(rod_length), 0.0, np.multiply(rod_length, leaned))
        rate = radius * (np.cos(now) + np.sin(now) * lean / straight)
        ratio = np.where(rate > 0.0, np.asarray(pivot_to_pad) / rate, np.nan)
        moved = radius * (np.sin(rest) - np.sin(now)) - drawn
        return Swung(ratio, np.asarray(moved), np.arcsin(lean))


def rest_with_pin_moved(
    pivot_to_pushrod: Floats,
    rest: Floats,
    moved_to: Floats,
    rod_length: Floats,
    axis: Floats | None = None,
) -> Array:
    """Return where the pin's arm rests [rad] when the same rod is put into another hole.

    pivot_to_pushrod: of the hole before [m]; rest: of the arm before [rad]; moved_to: pivot to
    the new hole [m]; rod_length: from pin to its far end, which stays where it is [m]; axis: as
    in `swung` [m].
    NaN where the rod does not reach.
    Source: the hole's circle about the pivot meets the rod's about its far end; cosine rule.
    """
    radius = np.asarray(pivot_to_pushrod, dtype=float)
    line = radius * np.cos(rest) if axis is None else np.asarray(axis, dtype=float)
    with np.errstate(invalid="ignore"):
        across = line - radius * np.cos(rest)
        along = np.sqrt(np.square(rod_length) - np.square(across)) - radius * np.sin(rest)
        away = np.hypot(along, line)
        spread = (np.square(moved_to) + np.square(away) - np.square(rod_length)) / (
            2.0 * np.asarray(moved_to) * away
        )
        return np.asarray(np.arccos(spread) - np.arctan2(along, line))
