"""The inertia-sensing valve: a ball on a ramp shuts it."""

import math
from typing import Annotated, Any, ClassVar, Literal

from urgens.document.entry import Entry
from urgens.document.kinds.valves.kind import InUnits, Loads, Move, ValveKind, ValvePart, Wanted
from urgens.document.kinds.valves.reducing import KNEE_SPREAD, Slope
from urgens.document.model import RampAngle
from urgens.document.numeric import NumericBuild
from urgens.physics.valve import ball_closes
from urgens.physics.valve_law import InertiaSensingLaw, ValveLaw
from urgens.quantity import ANGLE

ANGLES = (math.radians(1.0), math.radians(55.0))  # rad, between which a ramp is tilted


class InertiaSensing(ValvePart):
    """A reducing valve that a ball shuts: its knee is where the vehicle slows hard enough.

    The ball rolls up a ramp of `ball_angle`, so a heavier load case has a higher knee.
    """

    reduces: ClassVar[bool] = True
    feels_deceleration: ClassVar[bool] = True

    kind: Literal["inertia-sensing"]
    ball_angle: Annotated[
        RampAngle,
        Entry(
            "Ramp",
            "level, as mounted",
            "Angle of the ball's ramp, the vehicle standing level",
            spread=KNEE_SPREAD,
            beside="Ramp of the ball",
        ),
    ]
    slope: Slope


def _law(part: NumericBuild) -> ValveLaw:
    return InertiaSensingLaw(ball_closes(part["ball_angle"]), part["slope"])


def _briefly(part: InertiaSensing, units: InUnits) -> str:
    return f"ramp {part.ball_angle.text}, slope {part.slope:.2f}"


def _new(loads: Loads) -> dict[str, Any]:
    return {"kind": "inertia-sensing", "ball_angle": "17 deg", "slope": 0.4}


def _moves(part: InertiaSensing, law: ValveLaw, wanted: Wanted) -> list[Move]:
    angle = math.atan(wanted.deceleration)
    return [Move("ball_angle", min(max(angle, ANGLES[0]), ANGLES[1]), ANGLE)]


def _dragging(part: InertiaSensing, knee: str) -> str:
    return f"Its ball rolls on a ramp of {part.ball_angle.text}: dragging the knee tilts the ramp."


INERTIA_SENSING = ValveKind(
    model=InertiaSensing,
    name="Inertia-sensing valve",
    what="A ball rolls up a ramp and shuts it once the vehicle slows hard enough; then it reduces. "
    "A heavier load takes more pressure to slow, so its knee rises with it. On a road too slippery "
    "to roll the ball it stays open; and its angle is that of the body: rake and slopes count.",
    typical="usual: a ramp of 10 to 20 degrees, slope about 0.3 to 0.5",
    law=_law,
    briefly=_briefly,
    new=_new,
    drawing=("ball",),
    moves=_moves,
    knee_figure="ball_angle",
    dragging=_dragging,
    laid_as="reducing",  # a body of the same two ports
)
