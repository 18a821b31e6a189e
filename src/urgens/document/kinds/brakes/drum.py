"""The drum brake, by the shoe factor of the whole brake or by its shoes' geometry."""

from collections.abc import Iterator
from math import isfinite, pi
from typing import Annotated, Any, ClassVar, Literal

import numpy as np

from urgens.document.entry import RULE, Entry
from urgens.document.kinds.brakes.kind import (
    BrakeEfficiency,
    BrakeKind,
    BrakePart,
    Compliance,
    Piston,
    SpringsGive,
)
from urgens.document.kinds.pistons import piston_table
from urgens.document.model import (
    Angle,
    DocumentModel,
    Face,
    Length,
    LengthOrZero,
    Mass,
    PartFault,
    PositiveNumber,
    no_longer_than,
)
from urgens.document.numeric import NumericBuild
from urgens.physics import cylinder, drum
from urgens.physics.arrays import Array, Bools, Floats
from urgens.physics.volume import CLEARANCE_PRESSURE
from urgens.quantity import COMPLIANCE, LENGTH, PRESSURE, Quantity, parse

EXPANSION = 11e-6  # 1/K, of grey cast iron
STOP = "two gauges and one measured stop"
Layout = Literal["leading-trailing", "two-leading", "duo-servo"]
# what a factor is off by where nothing is said: common practice
FACTOR_SPREADS = {"leading-trailing": "15 %", "two-leading": "20 %", "duo-servo": "30 %"}


class Shoe(DocumentModel):
    """A pinned shoe; angles from the line between hinge and drum centre, `arm` to the actuator."""

    lining_friction: Annotated[
        PositiveNumber,
        Entry("Lining friction", STOP, "Coefficient of lining on drum", spread="10 %", step=0.01),
    ]
    hinge_distance: Annotated[
        Length, Entry("Hinge to centre", RULE, "From the shoe's hinge to the drum's centre")
    ]
    arm: Annotated[
        Length, Entry("Hinge to actuator", RULE, "From the hinge to the wheel cylinder's force")
    ]
    heel_angle: Annotated[
        Angle, Entry("Lining from", "protractor", "Where the lining starts, seen from the hinge")
    ]
    toe_angle: Annotated[
        Angle, Entry("Lining to", "protractor", "Where the lining ends, seen from the hinge")
    ]


def _factor_spread(part: "Drum") -> str:
    return FACTOR_SPREADS[part.layout]


ShoeFactor = Annotated[
    PositiveNumber,
    Entry(
        "Shoe factor",
        STOP,
        "Friction force of both shoes over the force on one shoe's tip",
        spread=_factor_spread,
        step=0.1,
    ),
]

LiningArea = Annotated[Face, Entry("Lining area", RULE, "Face of one shoe's lining")]
DrumMass = Annotated[Mass, Entry("Drum mass", "kitchen scales", "Iron of one drum", wanted=True)]


class Drum(BrakePart):
    """A drum brake of one wheel, by the shoe factor of the whole brake or its shoes' geometry."""

    has_shoes: ClassVar[bool] = True

    kind: Literal["drum"]
    layout: Layout
    cylinder_diameter: Annotated[
        Piston, Entry("Wheel cylinder", "stamped, or bore gauge", "Piston of one wheel cylinder")
    ]
    drum_diameter: Annotated[
        Quantity,
        no_longer_than(1.5),
        Entry("Drum", "drum gauge; stamped at the rim", "Inner diameter of the drum"),
    ]
    shoe_factor: ShoeFactor | None = None
    shoe: Shoe | None = None
    threshold: SpringsGive = parse("50 psi", PRESSURE)
    efficiency: BrakeEfficiency = 1.0
    clearance: Annotated[
        LengthOrZero,
        Mass,
        Entry("Clearance", "feeler gauge", "Travel of a wheel cylinder's piston to contact"),
    ] = parse("0.5 mm", LENGTH)
    compliance: Compliance = parse("0.05 cm^3/MPa", COMPLIANCE)
    drum_mass: DrumMass | None = None
    lining_area: LiningArea | None = None
    cup_expanders: bool | None = None  # in the wheel cylinders; None: nobody has looked

    @property
    def idle(self) -> tuple[str, ...]:
        """Fields that count nothing beside the ones given: a factor counts before the shoes."""
        return () if self.shoe_factor is None else ("shoe",)

    @property
    def factor(self) -> float:
        """The shoe factor C* [-], given or following from its shoes."""
        return float(shoe_factor(NumericBuild(self)))

    @property
    def grabs_from(self) -> float | None:
        """The lining friction [-] from which its leading shoe grabs, None if none is known."""
        if self.shoe is None:
            return None
        limit = float(self_locking_friction(NumericBuild(self)))
        return limit if isfinite(limit) else None

    def grown(self, rise: float) -> float:
        """Return by how much its clearance is more than cold [-] when so much warmer; rise: [K].

        Source: a ring of grey cast iron, 11e-6 per kelvin (handbooks, from memory).
        """
        cold, larger = self.clearance.value, EXPANSION * self.drum_diameter.value / 2 * rise
        return 1.0 + larger / cold if cold > 0.0 else 1.0

    def rules(self) -> Iterator[PartFault]:
        """Check that the shoe factor is given, or follows from a shoe that does not grab."""
        if self.shoe_factor is not None:
            return
        if self.shoe is None:
            yield PartFault(
                "shoe_factor",
                "is missing, and so is shoe",
                'give "shoe_factor": 2.3, or the geometry of its shoes',
            )
        else:
            yield from shoe_faults(self.layout, self.shoe, self.drum_diameter.value / 2)


def shoe_faults(layout: str, shoe: Shoe, radius: float) -> Iterator[PartFault]:
    """Yield what is wrong with a shoe in a drum of `radius` [m]."""
    if layout == "duo-servo":
        yield PartFault(
            "shoe",
            "does not describe a duo-servo brake, whose shoes push each other",
            "give its shoe_factor; 4.5 to 6 is usual",
        )
        return
    if shoe.hinge_distance.value >= radius:
        yield PartFault(
            "shoe.hinge_distance",
            f'"{shoe.hinge_distance.text}" is not less than the drum\'s radius',
            "write the distance from the hinge to the drum's centre",
        )
        return
    if not shoe.heel_angle.value < shoe.toe_angle.value <= pi + 1e-9:
        yield PartFault(
            "shoe.toe_angle",
            f'"{shoe.toe_angle.text}" is not between "{shoe.heel_angle.text}" and "180 deg"',
            "write where the lining ends, seen from the hinge",
        )
        return
    friction_moment, normal_moment = drum.shoe_moments(
        shoe.lining_friction,
        radius,
        shoe.hinge_distance.value,
        shoe.heel_angle.value,
        shoe.toe_angle.value,
    )
    if normal_moment <= friction_moment:
        limit = shoe.lining_friction * float(normal_moment / friction_moment)
        yield PartFault(
            "shoe.lining_friction",
            f"{shoe.lining_friction:g} makes the leading shoe grab: it locks by itself",
            f"write a friction below {limit:.2f}, or another geometry",
        )


def shoe_factor(part: NumericBuild) -> Floats:
    """Return the shoe factor C* [-] of a drum brake.

    A given factor counts before the shoes' geometry.
    """
    factor = part.get("shoe_factor")
    if factor is not None:
        return factor
    shoe = part.of("shoe")
    return drum.pinned_shoe_factor(
        shoe["lining_friction"],
        np.divide(part["drum_diameter"], 2.0),
        shoe["hinge_distance"],
        shoe["arm"],
        shoe["heel_angle"],
        shoe["toe_angle"],
        two_leading=part.part.layout == "two-leading",
    )


def self_locking_friction(part: NumericBuild) -> Floats:
    """Return the lining friction [-] from which the leading shoe of a described drum grabs."""
    shoe = part.of("shoe")
    friction_moment, normal_moment = drum.shoe_moments(
        1.0,
        np.divide(part["drum_diameter"], 2.0),
        shoe["hinge_distance"],
        shoe["heel_angle"],
        shoe["toe_angle"],
    )  # the friction's moment is proportional to the friction
    with np.errstate(divide="ignore", invalid="ignore"):
        limit = normal_moment / friction_moment
    return np.where(friction_moment > 0.0, limit, np.inf)


def _possible(part: NumericBuild) -> Bools:
    if part.part.shoe_factor is not None or part.part.shoe is None:
        return np.asarray(True)
    shoe = part.of("shoe")
    fits = np.less(shoe["hinge_distance"], np.divide(part["drum_diameter"], 2.0))
    lined = np.less(shoe["heel_angle"], shoe["toe_angle"]) & np.less_equal(shoe["toe_angle"], pi)
    releases = np.less(shoe["lining_friction"], self_locking_friction(part))
    return np.asarray(fits & lined & releases)


def _area(part: NumericBuild) -> Floats:
    return cylinder.bore_area(part["cylinder_diameter"])


def _torque_per_pressure(part: NumericBuild) -> Array:
    radius = np.divide(part["drum_diameter"], 2.0)
    return drum.torque_per_pressure(_area(part), shoe_factor(part), radius, part["efficiency"])


def _take_up(part: NumericBuild) -> Floats:
    return np.maximum(CLEARANCE_PRESSURE, part["threshold"])


def _words(part: Drum) -> str:
    return f"drum, {part.layout}"


def _friction(part: Drum) -> str:
    return "shoe_factor" if part.shoe_factor is not None else "shoe.lining_friction"


def _sold() -> tuple[Quantity, ...]:
    return piston_table().wheel_cylinders


NEW: dict[str, Any] = {
    "kind": "drum",
    "layout": "leading-trailing",
    "cylinder_diameter": "3/4 in",
    "drum_diameter": "8 in",
    "shoe_factor": 2.2,
}
DRUM = BrakeKind(
    model=Drum,
    name="Drum brake",
    torque_per_pressure=_torque_per_pressure,
    piston_area=_area,
    take_up=_take_up,
    possible=_possible,
    words=_words,
    friction=_friction,
    iron="drum_mass",
    cooling_time=600.0,
    new=NEW,
    sold=_sold,
)
