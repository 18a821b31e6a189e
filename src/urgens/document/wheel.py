"""One axle's wheel ends: tyre and brake."""

import re
from collections.abc import Iterator
from math import pi
from typing import Annotated, Literal

from pydantic import BeforeValidator, Field

from urgens.document.part import (
    Angle,
    Area,
    ComplianceOrZero,
    Efficiency,
    Fault,
    Length,
    LengthOrZero,
    Mass,
    Part,
    PositiveNumber,
    PressureOrZero,
    broken,
    in_words,
    no_longer_than,
)
from urgens.physics.drum import shoe_moments
from urgens.physics.tyre import size_code
from urgens.quantity import COMPLIANCE, LENGTH, PRESSURE, Quantity, parse

Piston = Annotated[Quantity, no_longer_than(0.3)]
Bleeders = Annotated[int, Field(strict=True, ge=1, le=4)]
Cooling = Literal["open", "ducted", "inboard"]

_NUMERIC_CODE = re.compile(r"\s*\d{1,2}\.\d{2}\s*(?:R|-)\s*\d{2}\s*")  # "6.50-16"


def _read_size(given: object) -> object:
    fault = Fault(
        "",
        f"is {in_words(given)}, not a tyre size known here",
        'write it like "185/60R14" or "28x10.50-15", or give rolling_radius',
    )
    if not isinstance(given, str):
        raise broken(fault)
    try:
        size_code(given)
    except ValueError:
        if _NUMERIC_CODE.fullmatch(given):
            fault = Fault(
                "",
                f'"{given}" does not say how high its section is',
                'mark the tyre, roll it out and give "rolling_radius": "343 mm"',
            )
        raise broken(fault) from None
    return given


class Tyre(Part):
    """A tyre, by measured rolling radius or by size code; of both, the radius counts."""

    rolling_radius: Annotated[Quantity, no_longer_than(1.5)] | None = None
    size: Annotated[str, BeforeValidator(_read_size)] | None = None

    def rules(self) -> Iterator[Fault]:
        """Check that one of the two is given."""
        if self.rolling_radius is None and self.size is None:
            yield Fault(
                "",
                "has neither rolling_radius nor size",
                'give "rolling_radius": "285 mm" or "size": "185/60R14"',
            )


class Disc(Part):
    """A disc brake of one wheel; `piston_diameters` are those of one side of the disc."""

    kind: Literal["disc"]
    caliper: Literal["opposed", "sliding"]
    piston_diameters: Annotated[tuple[Piston, ...], Field(min_length=1)]
    pad_friction: PositiveNumber
    effective_radius: Length | None = None
    rotor_outer_diameter: Length | None = None
    pad_height: Length | None = None
    pad_inner_radius: Length | None = None
    pad_outer_radius: Length | None = None
    pad_pressure: Literal["uniform-wear", "uniform-pressure"] = "uniform-wear"
    threshold: PressureOrZero = parse("0 psi", PRESSURE)
    efficiency: Efficiency = 1.0
    clearance: LengthOrZero = parse("0.1 mm", LENGTH)
    compliance: ComplianceOrZero = parse("0.1 cm^3/MPa", COMPLIANCE)
    rotor_mass: Mass | None = None
    cooling: Cooling | None = None
    pad_thickness: Length | None = None
    pad_area: Area | None = None
    bleeders: Bleeders = 1

    def rules(self) -> Iterator[Fault]:
        """Check that the radius is given, or follows from rotor and pad."""
        inner, outer = self.pad_inner_radius, self.pad_outer_radius
        if (inner is None) != (outer is None):
            lacking = "pad_inner_radius" if inner is None else "pad_outer_radius"
            yield Fault(lacking, "is missing", "give both radii of the pad, or neither")
        elif inner is not None and outer is not None and inner.value >= outer.value:
            yield Fault(
                "pad_inner_radius",
                f'"{inner.text}" is not less than the outer radius "{outer.text}"',
                "write where the pad begins, seen from the axle",
            )
        if self.effective_radius is not None or outer is not None or inner is not None:
            return
        if self.rotor_outer_diameter is None or self.pad_height is None:
            yield Fault(
                "effective_radius",
                "is missing, and so is rotor_outer_diameter or pad_height",
                'give "effective_radius": "115 mm", or both rotor_outer_diameter and pad_height',
            )
        elif self.pad_height.value >= self.rotor_outer_diameter.value / 2:
            yield Fault(
                "pad_height",
                f'"{self.pad_height.text}" is not less than the rotor\'s radius',
                f'write a height below half of "{self.rotor_outer_diameter.text}"',
            )


class Shoe(Part):
    """A pinned shoe; angles from the line between hinge and drum centre, `arm` to the actuator."""

    lining_friction: PositiveNumber
    hinge_distance: Length
    arm: Length
    heel_angle: Angle
    toe_angle: Angle


class Drum(Part):
    """A drum brake of one wheel, by the shoe factor of the whole brake or its shoes' geometry."""

    kind: Literal["drum"]
    layout: Literal["leading-trailing", "two-leading", "duo-servo"]
    cylinder_diameter: Piston
    drum_diameter: Annotated[Quantity, no_longer_than(1.5)]
    shoe_factor: PositiveNumber | None = None
    shoe: Shoe | None = None
    threshold: PressureOrZero = parse("50 psi", PRESSURE)
    efficiency: Efficiency = 1.0
    clearance: LengthOrZero = parse("0.5 mm", LENGTH)
    compliance: ComplianceOrZero = parse("0.05 cm^3/MPa", COMPLIANCE)
    drum_mass: Mass | None = None
    cooling: Cooling | None = None
    bleeders: Bleeders = 1

    def rules(self) -> Iterator[Fault]:
        """Check that the shoe factor is given, or follows from a shoe that does not grab."""
        if self.shoe_factor is not None:
            return
        if self.shoe is None:
            yield Fault(
                "shoe_factor",
                "is missing, and so is shoe",
                'give "shoe_factor": 2.3, or the geometry of its shoes',
            )
        else:
            yield from shoe_faults(self.layout, self.shoe, self.drum_diameter.value / 2)


def shoe_faults(layout: str, shoe: Shoe, radius: float) -> Iterator[Fault]:
    """Yield what is wrong with a shoe in a drum of `radius` [m]."""
    if layout == "duo-servo":
        yield Fault(
            "shoe",
            "does not describe a duo-servo brake, whose shoes push each other",
            "give its shoe_factor; 4.5 to 6 is usual",
        )
        return
    if shoe.hinge_distance.value >= radius:
        yield Fault(
            "shoe.hinge_distance",
            f'"{shoe.hinge_distance.text}" is not less than the drum\'s radius',
            "write the distance from the hinge to the drum's centre",
        )
        return
    if not shoe.heel_angle.value < shoe.toe_angle.value <= pi + 1e-9:
        yield Fault(
            "shoe.toe_angle",
            f'"{shoe.toe_angle.text}" is not between "{shoe.heel_angle.text}" and "180 deg"',
            "write where the lining ends, seen from the hinge",
        )
        return
    friction_moment, normal_moment = shoe_moments(
        shoe.lining_friction,
        radius,
        shoe.hinge_distance.value,
        shoe.heel_angle.value,
        shoe.toe_angle.value,
    )
    if normal_moment <= friction_moment:
        limit = shoe.lining_friction * float(normal_moment / friction_moment)
        yield Fault(
            "shoe.lining_friction",
            f"{shoe.lining_friction:g} makes the leading shoe grab: it locks by itself",
            f"write a friction below {limit:.2f}, or another geometry",
        )


Brake = Annotated[Disc | Drum, Field(discriminator="kind")]


class Axle(Part):
    """What is at both ends of one axle."""

    tyre: Tyre
    brake: Brake
