"""The stepped cylinder: a large bore takes up what is slack, a small one presses."""

from collections.abc import Iterator
from typing import Annotated, Any, ClassVar, Literal

import numpy as np

from urgens.document.entry import Entry
from urgens.document.kinds.cylinders.kind import STAMPED, CylinderKind, CylinderPart, OfBore, Split
from urgens.document.kinds.cylinders.tandem import TwoChambers, chamber_strokes, possible_strokes
from urgens.document.model import PartFault, Pressure
from urgens.document.numeric import NumericBuild
from urgens.physics.arrays import Bools
from urgens.physics.axle import Pair
from urgens.physics.cylinder import Chamber, Cylinder, Step, bore_area
from urgens.quantity import PRESSURE, parse

TO_SMALL = 1.35  # large bore to small one, as such cylinders usually are; common practice
RELIEF = "5 bar"  # common practice


class SteppedMaster(TwoChambers):
    """Two chambers in line whose piston at the rod has two bores.

    The large one works until its relief opens and fills both circuits, then the small one alone
    presses; the piston at the far end is an ordinary one.
    """

    bore_fields: ClassVar[tuple[str, ...]] = ("small_bore", "large_bore", "secondary_bore")

    kind: Literal["stepped"]
    large_bore: Annotated[OfBore, Entry("Large bore", STAMPED, "Bore that takes up what is slack")]
    small_bore: Annotated[OfBore, Entry("Small bore", STAMPED, "Bore that presses from there on")]
    relief_pressure: Annotated[
        Pressure,
        Entry(
            "Large bore's relief",
            "a gauge, pressed slowly: where the pedal grows hard",
            "Pressure from which the large bore's fluid goes back to the reservoir",
        ),
    ] = parse(RELIEF, PRESSURE)
    secondary_bore: (
        Annotated[
            OfBore,
            Entry("Far piston's bore", STAMPED, "Bore of the ordinary piston at the far end"),
        ]
        | None
    ) = None

    def rules(self) -> Iterator[PartFault]:
        """Check that there is a step."""
        yield from super().rules()
        if self.large_bore.value <= self.small_bore.value:
            yield PartFault(
                "large_bore",
                f'"{self.large_bore.text}" is not larger than the small bore '
                f'"{self.small_bore.text}"',
                "write the bore next to the rod, or take a tandem cylinder",
            )


def _cylinders(part: NumericBuild) -> Pair[Cylinder]:
    step = Step(bore_area(part["large_bore"]), part["relief_pressure"])
    small = bore_area(part["small_bore"])
    both = Cylinder(1.0, small, part["spring_preload"], part["efficiency"], step)
    return Pair(both, both)


def _chambers(part: NumericBuild, split: Split) -> tuple[Chamber, ...]:
    near, far = chamber_strokes(part)
    step = Step(bore_area(part["large_bore"]), part["relief_pressure"])
    small = bore_area(part["small_bore"])
    other = part.get("secondary_bore")
    behind = small if other is None else bore_area(other)
    if split == "diagonal":
        return (Chamber(0.5, 0.5, small, near, 1.0, step), Chamber(0.5, 0.5, behind, far, 1.0))
    if part.part.primary_feeds == "front":
        return (Chamber(1.0, 0.0, small, near, 1.0, step), Chamber(0.0, 1.0, behind, far, 1.0))
    return (Chamber(1.0, 0.0, behind, far, 1.0), Chamber(0.0, 1.0, small, near, 1.0, step))


def _possible(part: NumericBuild) -> Bools:
    return np.asarray(possible_strokes(part) & np.greater(part["large_bore"], part["small_bore"]))


def _new(master: CylinderPart) -> dict[str, Any]:
    small = master.main_bore
    return {
        "kind": "stepped",
        "large_bore": f"{small.value * TO_SMALL * 1e3:.4g} mm",
        "small_bore": small.text,
        "stroke": master.stroke.text,
    }


STEPPED = CylinderKind(
    model=SteppedMaster,
    name="Stepped cylinder (quick take-up)",
    circuits=("front-rear", "diagonal"),
    bores=("large_bore", "small_bore"),
    cylinders=_cylinders,
    chambers=_chambers,
    possible=_possible,
    new=_new,
)
