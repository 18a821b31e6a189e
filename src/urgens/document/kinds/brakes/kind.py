"""What there is to know of one kind of brake, in one place."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Annotated, Any, ClassVar, Literal

from pydantic import Field

from urgens.document.entry import Entry
from urgens.document.kinds.one_of import KindRecord
from urgens.document.model import (
    ComplianceOrZero,
    DocumentModel,
    Efficiency,
    PressureOrZero,
    no_longer_than,
)
from urgens.document.numeric import NumericBuild
from urgens.physics.arrays import Array, Bools, Floats
from urgens.quantity import Quantity

Cooling = Literal["open", "ducted", "inboard"]
Piston = Annotated[Quantity, no_longer_than(0.3)]
Bleeders = Annotated[
    int,
    Field(strict=True, ge=1, le=4),
    Entry("Bleed screws", "count them", "Bleed screws of one brake"),
]
BrakeEfficiency = Annotated[
    Efficiency,
    Entry(
        "Efficiency",
        "two gauges and one measured stop",
        "Share of the force that guides and seals leave",
        step=0.01,
    ),
]
Compliance = Annotated[
    ComplianceOrZero,
    Entry(
        "Compliance",
        "pedal travel at two efforts",
        "Fluid that one brake takes by bending, per pressure",
        beside="Gives way by",
    ),
]
SpringsGive = Annotated[
    PressureOrZero,
    Entry(
        "Threshold",
        "a gauge, and a hand on the wheel",
        "Pressure that springs take up before the brake presses",
        beside="Presses from",
    ),
]
LININGS = "ask for cold and hot figures"


class BrakePart(DocumentModel):
    """What any brake of one wheel has: pads on a disc, or shoes in a drum."""

    has_pads: ClassVar[bool] = False
    has_shoes: ClassVar[bool] = False

    kind: str
    cooling: Cooling | None = None
    bleeders: Bleeders = 1

    def grown(self, rise: float) -> float:
        """Return by how much its clearance is more than cold [-] when so much warmer; rise: [K]."""
        return 1.0


@dataclass(frozen=True)
class BrakeKind(KindRecord):
    """One kind of brake.

    `model` is its part in the document. Of the part as numbers: `torque_per_pressure` of one
    wheel [m³], `piston_area` that presses at one wheel [m²], `take_up` [Pa] over which its
    clearance goes, and where figures are `possible` together at all.
    `name` and `words` say what is fitted; `friction` is the figure
    that grips, `iron` the mass that takes the heat and loses 63 % of its excess in `cooling_time`
    [s] at road speed (assumed); `new` the figures it is put in with, all assumed; `sold` the
    pistons there are.
    """

    model: type[BrakePart]
    name: str
    torque_per_pressure: Callable[[NumericBuild], Array]
    piston_area: Callable[[NumericBuild], Floats]
    take_up: Callable[[NumericBuild], Floats]
    possible: Callable[[NumericBuild], Bools]
    words: Callable[[Any], str]
    friction: Callable[[Any], str]
    iron: str
    cooling_time: float
    new: dict[str, Any]
    sold: Callable[[], tuple[Quantity, ...]]
