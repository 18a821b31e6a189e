"""Two cylinders side by side, pushed through a balance bar."""

from collections.abc import Iterator
from typing import Annotated, Any, ClassVar, Literal

import numpy as np

from urgens.document.entry import RULE, Entry
from urgens.document.kinds.cylinders.kind import STAMPED, CylinderKind, CylinderPart, OfBore, Split
from urgens.document.model import Angle, Length, Offset, PartFault
from urgens.document.numeric import NumericBuild
from urgens.physics.arrays import Bools
from urgens.physics.axle import Pair
from urgens.physics.cylinder import Chamber, Cylinder, bar_shares, bore_area
from urgens.quantity import LENGTH, parse

BarAngle = Annotated[
    Angle, Entry("Bar's stop", "protractor, one rod held", "Tilt at which the bar meets its stop")
]
ThreadPitch = Annotated[
    Length, Entry("Bar's thread", "ten turns, then the rule", "What a turn of its adjuster moves")
]


class TwinMaster(CylinderPart):
    """Two cylinders side by side, pushed through a balance bar.

    `bar_thread_pitch` is by how much the bearing moves at a turn of its adjuster.
    """

    has_bar: ClassVar[bool] = True
    bore_fields: ClassVar[tuple[str, ...]] = ("front_bore", "rear_bore")

    kind: Literal["twin"]
    front_bore: Annotated[OfBore, Entry("Front bore", STAMPED, "Bore of the front's cylinder")]
    rear_bore: Annotated[OfBore, Entry("Rear bore", STAMPED, "Bore of the rear's cylinder")]
    bar_length: Annotated[Length, Entry("Bar", RULE, "Balance bar between its two rods")] = parse(
        "2.5 in", LENGTH
    )
    bar_max_angle: BarAngle | None = None
    bar_offset: Annotated[
        Offset,
        Entry("Bar, to the front", RULE, "Bearing from the middle, towards the front cylinder"),
    ] = parse("0 in", LENGTH)
    bar_thread_pitch: ThreadPitch | None = None

    def rules(self) -> Iterator[PartFault]:
        """Check that the bearing sits between the rods."""
        if abs(self.bar_offset.value) >= self.bar_length.value / 2:
            yield PartFault(
                "bar_offset",
                f'"{self.bar_offset.text}" puts the bearing at or beyond a rod of a bar '
                f'"{self.bar_length.text}" long',
                "write less than half of bar_length, towards the front cylinder positive",
            )


def _cylinders(part: NumericBuild) -> Pair[Cylinder]:
    shares = bar_shares(part["bar_length"], part["bar_offset"])
    front, rear = (
        Cylinder(share, bore_area(part[bore]), part["spring_preload"], part["efficiency"])
        for share, bore in zip(shares, ("front_bore", "rear_bore"), strict=True)
    )
    return Pair(front, rear)


def _chambers(part: NumericBuild, split: Split) -> tuple[Chamber, ...]:
    front, rear = _cylinders(part)
    stroke = part["stroke"]
    return (
        Chamber(1.0, 0.0, front.area, stroke, front.share),
        Chamber(0.0, 1.0, rear.area, stroke, rear.share),
    )


def _possible(part: NumericBuild) -> Bools:
    return np.asarray(np.less(np.abs(part["bar_offset"]), np.divide(part["bar_length"], 2.0)))


def _new(master: CylinderPart) -> dict[str, Any]:
    bore = master.main_bore.text
    return {"kind": "twin", "front_bore": bore, "rear_bore": bore}


TWIN = CylinderKind(
    model=TwinMaster,
    name="Twin cylinders with a bar",
    circuits=("front-rear",),
    bores=("front_bore", "rear_bore"),
    cylinders=_cylinders,
    chambers=_chambers,
    possible=_possible,
    new=_new,
)
