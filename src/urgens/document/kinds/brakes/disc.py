"""The disc brake."""

from collections.abc import Iterator
from typing import Annotated, Any, ClassVar, Literal

import numpy as np
from pydantic import Field

from urgens.document.entry import CALIPER, RULE, Entry
from urgens.document.kinds.brakes.kind import (
    LININGS,
    BrakeEfficiency,
    BrakeKind,
    BrakePart,
    Compliance,
    Piston,
    SpringsGive,
)
from urgens.document.kinds.pistons import piston_table
from urgens.document.model import Face, Length, LengthOrZero, Mass, PartFault, PositiveNumber
from urgens.document.numeric import NumericBuild
from urgens.physics import cylinder, disc
from urgens.physics.arrays import Array, Bools, Floats
from urgens.physics.volume import CLEARANCE_PRESSURE
from urgens.quantity import COMPLIANCE, LENGTH, PRESSURE, Quantity, parse

LENGTHS = "rule, from the axle"
PadRadius = Annotated[Length, Entry("Effective radius", "rule, to mid-pad", "Axle to mid-pad")]
Rotor = Annotated[Length, Entry("Rotor", "rule or caliper gauge", "Outer diameter of the rotor")]
PadHeight = Annotated[Length, Entry("Pad height", "rule, along the radius", "Pad along the radius")]
PadInner = Annotated[Length, Entry("Pad, inner radius", LENGTHS, "Axle to where the pad begins")]
PadOuter = Annotated[Length, Entry("Pad, outer radius", LENGTHS, "Axle to where the pad ends")]
PadThickness = Annotated[
    Length, Entry("Pad lining", CALIPER, "Lining of one pad that is left to wear")
]
RotorMass = Annotated[Mass, Entry("Rotor mass", "kitchen scales", "Iron of one rotor", wanted=True)]
PadArea = Annotated[Face, Entry("Pad area", RULE, "Face of one pad")]


class Disc(BrakePart):
    """A disc brake of one wheel; `piston_diameters` are those of one side of the disc."""

    has_pads: ClassVar[bool] = True

    kind: Literal["disc"]
    caliper: Literal["opposed", "sliding"]
    piston_diameters: Annotated[
        tuple[
            Annotated[
                Piston, Entry("Piston", CALIPER, "A piston, of those on one side of the disc")
            ],
            ...,
        ],
        Field(min_length=1),
    ]
    pad_friction: Annotated[
        PositiveNumber,
        Entry("Pad friction", LININGS, "Coefficient of pad on rotor", spread="10 %", step=0.01),
    ]
    effective_radius: PadRadius | None = None
    rotor_outer_diameter: Rotor | None = None
    pad_height: PadHeight | None = None
    pad_inner_radius: PadInner | None = None
    pad_outer_radius: PadOuter | None = None
    pad_pressure: Literal["uniform-wear", "uniform-pressure"] = "uniform-wear"
    threshold: SpringsGive = parse("0 psi", PRESSURE)
    efficiency: BrakeEfficiency = 1.0
    clearance: Annotated[
        LengthOrZero, Entry("Clearance", "feeler gauge", "Running clearance of one pad")
    ] = parse("0.1 mm", LENGTH)
    compliance: Compliance = parse("0.1 cm^3/MPa", COMPLIANCE)
    rotor_mass: RotorMass | None = None
    pad_thickness: PadThickness | None = None
    pad_area: PadArea | None = None
    seal: Literal["square", "rolled-back"] | None = None  # of the pistons; None: nobody has looked

    @property
    def idle(self) -> tuple[str, ...]:
        """Fields that count nothing beside the ones given: one way to say the radius is enough."""
        by_pad = ("pad_inner_radius", "pad_outer_radius")
        by_rotor = ("rotor_outer_diameter", "pad_height")
        if self.effective_radius is not None:
            return (*by_pad, *by_rotor)
        return by_rotor if self.pad_inner_radius is not None else ()

    @property
    def radius(self) -> float:
        """The effective radius [m], given or following from pad and rotor."""
        return float(disc_radius(NumericBuild(self)))

    def rules(self) -> Iterator[PartFault]:
        """Check that the radius is given, or follows from rotor and pad."""
        inner, outer = self.pad_inner_radius, self.pad_outer_radius
        if (inner is None) != (outer is None):
            lacking = "pad_inner_radius" if inner is None else "pad_outer_radius"
            yield PartFault(lacking, "is missing", "give both radii of the pad, or neither")
        elif inner is not None and outer is not None and inner.value >= outer.value:
            yield PartFault(
                "pad_inner_radius",
                f'"{inner.text}" is not less than the outer radius "{outer.text}"',
                "write where the pad begins, seen from the axle",
            )
        if self.effective_radius is not None or outer is not None or inner is not None:
            return
        if self.rotor_outer_diameter is None or self.pad_height is None:
            yield PartFault(
                "effective_radius",
                "is missing, and so is rotor_outer_diameter or pad_height",
                'give "effective_radius": "115 mm", or both rotor_outer_diameter and pad_height',
            )
        elif self.pad_height.value >= self.rotor_outer_diameter.value / 2:
            yield PartFault(
                "pad_height",
                f'"{self.pad_height.text}" is not less than the rotor\'s radius',
                f'write a height below half of "{self.rotor_outer_diameter.text}"',
            )


def disc_radius(part: NumericBuild) -> Floats:
    """Return the effective radius [m] of a disc brake.

    A given radius counts before the pad's own two, and those before rotor and pad.
    """
    radius = part.get("effective_radius")
    if radius is not None:
        return radius
    inner, outer = part.get("pad_inner_radius"), part.get("pad_outer_radius")
    if inner is not None and outer is not None:
        worn = part.part.pad_pressure == "uniform-wear"
        return (disc.effective_radius if worn else disc.even_pressure_radius)(inner, outer)
    outer = np.divide(part["rotor_outer_diameter"], 2.0)
    return disc.effective_radius(outer - part["pad_height"], outer)


def _area(part: NumericBuild) -> Floats:
    return sum(cylinder.bore_area(diameter) for diameter in part.row("piston_diameters"))


def _torque_per_pressure(part: NumericBuild) -> Array:
    return disc.torque_per_pressure(
        _area(part), part["pad_friction"], disc_radius(part), part["efficiency"]
    )


def _take_up(part: NumericBuild) -> Floats:
    return CLEARANCE_PRESSURE


def _possible(part: NumericBuild) -> Bools:
    inner, outer = part.get("pad_inner_radius"), part.get("pad_outer_radius")
    rotor, height = part.get("rotor_outer_diameter"), part.get("pad_height")
    found: Bools = np.asarray(True)
    if inner is not None and outer is not None:
        found = found & np.less(inner, outer)
    if rotor is not None and height is not None:
        found = found & np.less(height, np.divide(rotor, 2.0))
    return found


def _words(part: Disc) -> str:
    count = len(part.piston_diameters) * (2 if part.caliper == "opposed" else 1)
    return f"{part.caliper}, {count} piston{'s' if count > 1 else ''}"


def _friction(part: Disc) -> str:
    return "pad_friction"


def _sold() -> tuple[Quantity, ...]:
    return piston_table().calipers


NEW: dict[str, Any] = {
    "kind": "disc",
    "caliper": "sliding",
    "piston_diameters": ["54 mm"],
    "pad_friction": 0.40,
    "effective_radius": "110 mm",
}
DISC = BrakeKind(
    model=Disc,
    name="Disc brake",
    torque_per_pressure=_torque_per_pressure,
    piston_area=_area,
    take_up=_take_up,
    possible=_possible,
    words=_words,
    friction=_friction,
    iron="rotor_mass",
    cooling_time=300.0,
    new=NEW,
    sold=_sold,
)
