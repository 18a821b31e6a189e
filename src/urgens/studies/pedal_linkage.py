"""The build's pedal as a linkage: its ratio along the stroke, and the pin in another hole."""

from dataclasses import dataclass

import numpy as np

from urgens.document import Build
from urgens.physics.arrays import Array
from urgens.physics.linkage import Swung, rest_with_pin_moved, swung

PLACES = ("at rest", "mid stroke", "at the floor")


@dataclass(frozen=True)
class Linkage:
    """The pedal's figures at rest, mid stroke and floor, in arrays of three.

    `swing` from rest [rad], `ratio` [-], `rod_angle` to the cylinder's line [rad]; `pad_moved` is
    how far the pad rests from where it did with the rod in its first hole [m], towards the driver
    positive, NaN where the rod's length is not known. `rest` and `axis` are where the pin's arm
    points at rest [rad] and the cylinder's line from the pivot [m].
    """

    swing: Array
    ratio: Array
    rod_angle: Array
    pad_moved: float
    rest: float
    axis: float


def linkage(build: Build) -> Linkage | None:
    """Return the pedal's figures along its stroke, None where its angles are not given.

    Physics.linkage. The angles are those with the rod in its first hole; in another one the same
    rod lets the pedal rest elsewhere.
    """
    made = build.pedal
    if made.angles is None:
        return None
    first = (made.holes[0] if made.holes else made.pivot_to_pushrod).value
    rest = _from_the_line(build)
    axis = first * float(np.cos(rest)) if made.axis is None else made.axis.value
    now, pin = rest, made.pivot_to_pushrod.value
    moved = 0.0
    if abs(pin - first) > 1e-9:
        moved = np.nan
        if made.rod_length is not None:
            now = float(rest_with_pin_moved(first, rest, pin, made.rod_length.value, axis))
            moved = made.pivot_to_pad.value * (now - rest)
    swing = made.travel_available.value / made.pivot_to_pad.value * np.array([0.0, 0.5, 1.0])
    found = _swung(build, now, axis, swing)
    return Linkage(swing, found.ratio, found.rod_angle, float(moved), now, axis)


def along_the_stroke(build: Build, linkage: Linkage, swing: Array) -> Swung:
    """Return the linkage at any swings.

    linkage: its linkage; swing: from rest, any shape [rad].
    """
    return _swung(build, linkage.rest, linkage.axis, swing)


def _from_the_line(build: Build) -> float:
    """Return the pin arm's angle at rest from square to the cylinder's line [rad]."""
    angles = build.pedal.angles
    assert angles is not None
    slope = angles.cylinder.value * (-1.0 if build.pedal.mount == "floor" else 1.0)
    return angles.pushrod.value + slope


def _swung(build: Build, rest: float, axis: float, swing: Array) -> Swung:
    made = build.pedal
    rod = np.inf if made.rod_length is None else made.rod_length.value
    return swung(made.pivot_to_pad.value, made.pivot_to_pushrod.value, rest, swing, rod, axis)


def metal_between(build: Build, pin: float) -> Array:
    """Return the metal left between a hole and each one there is, the pivot's first [m].

    pin: pivot to the hole's middle [m]. Negative where they
    overlap; a hole that is there already counts not for itself. Without a diameter it is the way
    from middle to middle.
    Source: geometry, holes of one diameter.
    """
    middles = np.array([0.0, *(hole.value for hole in build.pedal.holes)])
    diameter = build.pedal.hole_diameter
    apart = np.abs(middles - pin)
    apart = np.where(apart < 1e-6, np.inf, apart)
    return np.asarray(apart - (0.0 if diameter is None else diameter.value))
