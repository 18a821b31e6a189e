"""The pedal."""

from typing import Literal

from urgens.build.part import Angle, Efficiency, Length, LengthOrZero, Part
from urgens.quantity import LENGTH, parse


class PedalAngles(Part):
    """Where the arms point at rest, from straight down, towards the driver positive."""

    pad: Angle
    pushrod: Angle


class Pedal(Part):
    """The brake pedal; both lengths from its pivot."""

    pivot_to_pad: Length
    pivot_to_pushrod: Length
    efficiency: Efficiency = 1.0
    travel_available: Length = parse("5 in", LENGTH)
    pushrod_clearance: LengthOrZero = parse("1 mm", LENGTH)
    pad_height: Length | None = None
    throttle_height: Length | None = None
    mount: Literal["swing", "floor"] | None = None
    angles: PedalAngles | None = None
