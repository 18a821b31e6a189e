"""The pedal."""

from typing import Annotated, Literal

from pydantic import BeforeValidator

from urgens.document.entry import CALIPER, RULE, TAPE, Entry
from urgens.document.model import (
    DocumentModel,
    Efficiency,
    Length,
    LengthOrZero,
    PartFault,
    Tilt,
    broken,
    in_words,
)
from urgens.document.practice import pitch_of
from urgens.quantity import ANGLE, LENGTH, parse


def _read_thread(given: object) -> object:
    if not isinstance(given, str) or pitch_of(given) is None:
        told = f"is {in_words(given)}, not a thread known here"
        raise broken(PartFault("", told, 'write it like "M8 x 1.25" or "3/8-24"'))
    return given


LEVEL = "spirit level with a scale, pedal at rest"
PadHeight = Annotated[Length, Entry("Brake pad above floor", RULE, "Pad at rest above the floor")]
ThrottleHeight = Annotated[
    Length, Entry("Throttle above floor", RULE, "Throttle at rest above the floor")
]
RodLength = Annotated[
    Length, Entry("Rod, pin to far end", RULE, "Pushrod from its pin to its far end")
]
RodThread = Annotated[
    str,
    BeforeValidator(_read_thread),
    Entry("Pushrod's thread", "thread gauge", "As it is sold: a turn of its nut is its pitch"),
]
Axis = Annotated[
    Length, Entry("Cylinder's line from pivot", RULE, "From the pivot square to that line")
]
HoleDiameter = Annotated[Length, Entry("Holes are wide", CALIPER, "Width of the pin's holes")]


class PedalAngles(DocumentModel):
    """Where the arms point at rest, from straight down, towards the driver positive.

    A floor pedal's arms are taken from straight up. `cylinder` is the slope of the cylinder's
    line, rising forwards positive.
    """

    pad: Annotated[Tilt, Entry("Pad's arm from upright", LEVEL, "Where the pad's arm points")]
    pushrod: Annotated[Tilt, Entry("Pin's arm from upright", LEVEL, "Where the pin's arm points")]
    cylinder: Annotated[
        Tilt, Entry("Cylinder rises forwards", LEVEL, "Slope of the cylinder's line")
    ] = parse("0 deg", ANGLE)


class Pedal(DocumentModel):
    """The brake pedal; both lengths from its pivot.

    `holes` are those there are for the pushrod's pin, from the pivot too, the one it came in
    first. `rod_length` is from the pin to the rod's far end, `axis` from the pivot to the
    cylinder's line, square to it; without it the line goes through the pin at rest.
    """

    pivot_to_pad: Annotated[
        Length, Entry("Pivot to pad", "tape, square to the foot's force", "Pivot to mid-pad")
    ]
    pivot_to_pushrod: Annotated[
        Length,
        Entry("Pivot to pushrod", "rule, square to the pushrod", "Pivot to the pushrod's pin"),
    ]
    efficiency: Annotated[
        Efficiency,
        Entry(
            "Pedal efficiency",
            "spring scale",
            "Share of the force that the pivots leave",
            step=0.01,
            beside="Efficiency",
        ),
    ] = 1.0
    travel_available: Annotated[
        Length, Entry("Pad to floor", TAPE, "What the pad can travel before it meets the floor")
    ] = parse("5 in", LENGTH)
    pushrod_clearance: Annotated[
        LengthOrZero, Entry("Pushrod's play", "feeler gauge", "Play between pushrod and piston")
    ] = parse("1 mm", LENGTH)
    pad_height: PadHeight | None = None
    throttle_height: ThrottleHeight | None = None
    pushrod_thread: RodThread | None = None
    mount: Literal["swing", "floor"] | None = None
    angles: PedalAngles | None = None
    rod_length: RodLength | None = None
    axis: Axis | None = None
    holes: tuple[Annotated[Length, Entry("Hole", RULE, "Pivot to a hole for the pin")], ...] = ()
    hole_diameter: HoleDiameter | None = None
