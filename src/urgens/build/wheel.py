"""One axle's wheel ends: tyre and brake."""

from collections.abc import Iterator
from typing import Annotated, Literal

from pydantic import BeforeValidator, Field

from urgens.build.part import (
    ComplianceOrZero,
    Efficiency,
    Fault,
    Length,
    LengthOrZero,
    Part,
    PositiveNumber,
    PressureOrZero,
    broken,
    in_words,
)
from urgens.physics.tyre import size_code
from urgens.quantity import COMPLIANCE, LENGTH, PRESSURE, parse


def _read_size(given: object) -> object:
    fault = Fault(
        "",
        f"is {in_words(given)}, not a metric tyre size",
        'write width/aspect R rim, for example "185/60R14", or give rolling_radius',
    )
    if not isinstance(given, str):
        raise broken(fault)
    try:
        size_code(given)
    except ValueError:
        raise broken(fault) from None
    return given


class Tyre(Part):
    """A tyre, by measured rolling radius or by size code; of both, the radius counts."""

    rolling_radius: Length | None = None
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
    piston_diameters: Annotated[tuple[Length, ...], Field(min_length=1)]
    pad_friction: PositiveNumber
    effective_radius: Length | None = None
    rotor_outer_diameter: Length | None = None
    pad_height: Length | None = None
    threshold: PressureOrZero = parse("0 psi", PRESSURE)
    efficiency: Efficiency = 1.0
    clearance: LengthOrZero = parse("0.1 mm", LENGTH)
    compliance: ComplianceOrZero = parse("0.1 cm^3/MPa", COMPLIANCE)

    def rules(self) -> Iterator[Fault]:
        """Check that the radius is given, or follows from rotor and pad."""
        if self.effective_radius is not None:
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


class Drum(Part):
    """A drum brake of one wheel, by the shoe factor of the whole brake."""

    kind: Literal["drum"]
    layout: Literal["leading-trailing", "two-leading", "duo-servo"]
    cylinder_diameter: Length
    drum_diameter: Length
    shoe_factor: PositiveNumber
    threshold: PressureOrZero = parse("50 psi", PRESSURE)
    efficiency: Efficiency = 1.0
    clearance: LengthOrZero = parse("0.5 mm", LENGTH)
    compliance: ComplianceOrZero = parse("0.05 cm^3/MPa", COMPLIANCE)


Brake = Annotated[Disc | Drum, Field(discriminator="kind")]


class Axle(Part):
    """What is at both ends of one axle."""

    tyre: Tyre
    brake: Brake
