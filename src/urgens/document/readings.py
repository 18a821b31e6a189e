"""What was read on the vehicle for a figure that is worked out from it, kept beside the figure."""

import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated, Literal

import numpy as np
from pydantic import Field

from urgens.document.model import (
    Distance,
    DocumentModel,
    Length,
    LengthOrZero,
    Load,
    LoadOrZero,
    PartFault,
    Text,
)
from urgens.physics import raised_axle
from urgens.physics.axle import Axle
from urgens.quantity import Quantity

MOST_LIFT = 0.7  # of the wheelbase
LEAST_ERROR = 1e-9  # m: no reading is exact


@dataclass(frozen=True)
class HeightEstimate:
    """A height [m], how far off it may be [m], and from how many liftings."""

    height: float
    error: float
    count: int


class Lifting(DocumentModel):
    """How far the hubs were raised, and what the other axle's scales read then."""

    lift: Length
    load: Load


class RaisedAxleReadings(DocumentModel):
    """Weighings with one axle raised, and on level ground before; ± of scales and tape."""

    kind: Literal["raised-axle"] = "raised-axle"
    raised: Axle
    front_axle: Load
    rear_axle: Load
    liftings: Annotated[tuple[Lifting, ...], Field(min_length=1)]
    scale_error: LoadOrZero
    lift_error: LengthOrZero

    def rules(self) -> Iterator[PartFault]:
        """Check that the axle that stays down gains load by each lifting."""
        for index, one in enumerate(self.liftings):
            if one.load.value <= self.stays.value:
                said = f"{one.load.text} is no more than the {self.stays.text} at rest"
                yield PartFault(f"liftings[{index}].load", said, "read the scales again")

    @property
    def stays(self) -> Quantity:
        """The load at rest of the axle that stays down."""
        return self.rear_axle if self.raised is Axle.FRONT else self.front_axle

    def radius_under(self, front: float, rear: float) -> float:
        """Return the rolling radius under the centre of gravity [m]; front, rear: tyres' [m]."""
        share = self.rear_axle.value / (self.front_axle.value + self.rear_axle.value)
        return front * (1.0 - share) + rear * share

    def height(self, wheelbase: float, radii: tuple[float, float]) -> HeightEstimate:
        """Return the height above the road; raises ValueError with what is wrong, in words.

        wheelbase: of the vehicle [m]; radii: of front and rear tyres [m].
        Source: least squares over the liftings, errors added as squares of independent readings.
        """
        radius = self.radius_under(*radii)
        weight = self.front_axle.value + self.rear_axle.value
        lifts = np.array([one.lift.value for one in self.liftings])
        if (lifts > MOST_LIFT * wheelbase).any():
            raise ValueError("That lift is most of the wheelbase: is it in the right unit?")
        gained = np.array([one.load.value for one in self.liftings]) - self.stays.value
        if (gained <= 0).any():
            raise ValueError(
                f"The axle that stays down has to gain on its {self.stays.text} at rest."
            )
        high = raised_axle.fitted_height(weight, wheelbase, radius, gained, lifts)
        if high > wheelbase:
            raise ValueError(
                "That is higher than the wheelbase is long: look at the readings again."
            )
        scale, tape = self.scale_error.value, self.lift_error.value
        each = raised_axle.height_error(weight, wheelbase, high - radius, lifts, scale, tape)
        error = 1.0 / math.sqrt(float(np.sum(1.0 / np.square(np.maximum(each, LEAST_ERROR)))))
        return HeightEstimate(high, error, lifts.size)


class CornerReadings(DocumentModel):
    """What stood on the scales under both wheels of an axle."""

    kind: Literal["four-corners"] = "four-corners"
    left: LoadOrZero
    right: LoadOrZero


class PadCode(DocumentModel):
    """The letters on a pad's edge, cold and hot."""

    kind: Literal["friction-code"] = "friction-code"
    code: Text


class RollOut(DocumentModel):
    """How far a tyre rolled in some turns."""

    kind: Literal["roll-out"] = "roll-out"
    turns: Annotated[int, Field(strict=True, ge=1)]
    way: Distance


# Which figure each says something of, by the end of its path.
FIGURE_OF = {
    "raised-axle": ".cg_height", "four-corners": "_axle", "friction-code": ".pad_friction",
    "roll-out": ".rolling_radius",
}  # fmt: skip
Readings = Annotated[
    RaisedAxleReadings | CornerReadings | PadCode | RollOut, Field(discriminator="kind")
]
