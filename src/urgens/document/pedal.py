"""The pedal."""

from typing import Literal

from urgens.document.part import Efficiency, Length, LengthOrZero, Part, Tilt
from urgens.quantity import ANGLE, LENGTH, parse


class PedalAngles(Part):
    """Where the arms point at rest, from straight down, towards the driver positive.

    A floor pedal's arms are taken from straight up. `cylinder` is the slope of the cylinder's
    line, rising forwards positive.
    """

    pad: Tilt
    pushrod: Tilt
    cylinder: Tilt = parse("0 deg", ANGLE)


class Pedal(Part):
    """The brake pedal; both lengths from its pivot.

    `holes` are those there are for the pushrod's pin, from the pivot too, the one it came in
    first. `rod_length` is from the pin to the rod's far end, `axis` from the pivot to the
    cylinder's line, square to it; without it the line goes through the pin at rest.
    """

    pivot_to_pad: Length
    pivot_to_pushrod: Length
    efficiency: Efficiency = 1.0
    travel_available: Length = parse("5 in", LENGTH)
    pushrod_clearance: LengthOrZero = parse("1 mm", LENGTH)
    pad_height: Length | None = None
    throttle_height: Length | None = None
    mount: Literal["swing", "floor"] | None = None
    angles: PedalAngles | None = None
    rod_length: Length | None = None
    axis: Length | None = None
    holes: tuple[Length, ...] = ()
    hole_diameter: Length | None = None
