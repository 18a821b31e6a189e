"""What follows when the pushrod's pin moves to another hole."""

import math

import numpy as np

from urgens.document import Build
from urgens.quantity import LENGTH, Units, UnitSystem, show, shown
from urgens.studies.pedal_linkage import linkage, metal_between

WALL = 1.0  # hole diameters of metal between two holes, at least: common practice
NEAR = 5e-4  # m within which a pin stands in a hole


def where_to_drill(build: Build, ratio: float) -> float:
    """Return how far from the pivot the pin has to be for a ratio [m]; the pad stays."""
    return build.pedal.pivot_to_pad.value / ratio


def edge_caution(build: Build, pin: float, units: Units | UnitSystem) -> str:
    """Return what to look at before drilling at a distance from the pivot [m], in words."""
    metal = metal_between(build, pin)
    least, nearest = float(np.min(metal)), int(np.argmin(metal))
    neighbour = "the pivot"
    if nearest > 0:
        neighbour = f"the hole at {shown(build.pedal.holes[nearest - 1], LENGTH, units)}"
    diameter = build.pedal.hole_diameter
    if diameter is None:
        return (
            f"From middle to middle it is {show(least, LENGTH, units)} to {neighbour}; leave at "
            "least a hole's width of metal between two holes and to the edge of the arm "
            "(common practice). Give the hole's diameter to have it worked out."
        )
    if least < WALL * diameter.value:
        left = "nothing" if least <= 0 else str(show(least, LENGTH, units))
        return (
            f"Too near: {left} of metal left to {neighbour}, less than the hole is wide (common "
            "practice). Weld in a bush plate or take another arm; a pedal that tears kills."
        )
    return (
        f"{show(least, LENGTH, units)} of metal stay to {neighbour}; keep as much to the edge of "
        "the arm, ream, do not file, and look for cracks."
    )


def stands_in(build: Build) -> int | None:
    """Return which of the holes there are the pin stands in, None for none of them."""
    pin = build.pedal.pivot_to_pushrod.value
    for index, hole in enumerate(build.pedal.holes):
        if abs(hole.value - pin) < NEAR:
            return index
    return None


def consequences(build: Build, units: Units | UnitSystem) -> tuple[str, ...]:
    """Return what else has to be looked at with the pin where it is now, in words."""
    if not build.pedal.holes:
        return ("Give the holes there are: then what moves with the pin can be worked out.",)
    if stands_in(build) == 0:
        return ("The pin stands in the hole it came in: nothing else moves.",)
    found = []
    if build.brake_light_switch in (None, "pedal"):
        found.append(
            "The brake-light switch was set for the other hole: move its bracket with the pin, "
            "else the pedal is adjusted up against the switch and sits high."
        )
    made = linkage(build)
    if made is None or build.pedal.rod_length is None:
        found.append(
            "The pad rests elsewhere with the same rod: give the arms' angles and the rod's "
            "length to have it worked out, and set the rod again."
        )
    elif math.isnan(made.pad_moved):
        found.append("The same rod does not reach this hole: it needs another length.")
    elif abs(made.pad_moved) >= 1e-3:
        way = "nearer to you" if made.pad_moved > 0 else "farther from you"
        moved = show(abs(made.pad_moved), LENGTH, units)
        turn = "shorten" if made.pad_moved > 0 else "lengthen"
        found.append(
            f"With the same rod the pad rests {moved} {way}: {turn} the rod until it is back, "
            "and set the gap to the piston again."
        )
    return tuple(found)
