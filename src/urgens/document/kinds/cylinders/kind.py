"""What there is to know of one kind of master cylinder, in one place."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Annotated, Any, ClassVar, Literal

from urgens.document.entry import RULE, Entry
from urgens.document.kinds.one_of import KindRecord
from urgens.document.model import (
    DocumentModel,
    Efficiency,
    FluidVolume,
    ForceOrZero,
    Length,
    LengthOrZero,
    PressureOrZero,
    no_longer_than,
)
from urgens.document.numeric import NumericBuild
from urgens.physics.arrays import Bools
from urgens.physics.axle import Pair
from urgens.physics.cylinder import Chamber, Cylinder
from urgens.quantity import FORCE, LENGTH, Quantity, parse

DEPTH = "depth gauge"
STAMPED = "stamped on the body, or bore gauge"
ROD_PUSHED = "push it through on the bench"
Split = Literal["front-rear", "diagonal", "single"]
OfBore = Annotated[Quantity, no_longer_than(0.15)]
Bore = Annotated[
    OfBore, Entry("Master cylinder bore", STAMPED, "Bore of the master cylinder", beside="Bore")
]
SocketDepth = Annotated[
    Length,
    Entry("Pushrod's socket", DEPTH, "Depth of the socket in the primary piston", wanted=True),
]
PushrodLength = Annotated[Length, Entry("Pushrod", RULE, "Length of the pushrod", wanted=True)]
FlangeBolts = Annotated[
    Length, Entry("Flange bolts", RULE, "From the middle of one bolt to the other's")
]
ReservoirHeight = Annotated[
    Length, Entry("Reservoir above bore", RULE, "From the bore's middle to the top of its caps")
]
BodyLength = Annotated[
    Length, Entry("Cylinder ahead of flange", RULE, "From the flange to what is farthest ahead")
]
ReservoirVolume = Annotated[
    FluidVolume,
    Entry(
        "Reservoir, a circuit", "fill it with water and weigh", "What a circuit's reservoir holds",
        units=("ml", "ml"),
    ),
]  # fmt: skip


class Outlet(DocumentModel):
    """One outlet of a cylinder: which circuit it feeds, where it sits, what is behind its seat."""

    circuit: Literal["front", "rear", "primary", "secondary"]
    position: Literal["left", "right", "end", "top", "bottom"] | None = None
    residual: (
        Annotated[
            PressureOrZero,
            Entry("Residual valve keeps", "a gauge, pedal up", "Pressure left behind the seat"),
        ]
        | None
    ) = None


class CylinderPart(DocumentModel):
    """What any cylinder tells, with facts that no figure needs but a check does."""

    has_bar: ClassVar[bool] = False  # a balance bar presses two cylinders
    in_halves: ClassVar[bool] = False  # two chambers behind one rod
    one_chamber: ClassVar[bool] = False
    bore_fields: ClassVar[tuple[str, ...]] = ()  # the one another cylinder would start from first

    kind: str
    outlets: tuple[Outlet, ...] = ()
    socket_depth: SocketDepth | None = None
    pushrod_length: PushrodLength | None = None
    pushrod_held_by: Literal["none", "retainer", "insert"] | None = None
    made_for: Literal["manual", "booster"] | None = None
    reservoir_volume: ReservoirVolume | None = None
    flange_bolts: FlangeBolts | None = None
    reservoir_height: ReservoirHeight | None = None
    body_length: BodyLength | None = None
    mounting: Literal["firewall", "under-floor", "inside"] | None = None
    stroke: Annotated[Length, Entry("Stroke", ROD_PUSHED, "Whole stroke of the primary piston")] = (
        parse("1.1 in", LENGTH)
    )
    port_travel: Annotated[
        LengthOrZero,
        Entry("To cover the port", ROD_PUSHED, "Piston travel until the port is covered"),
    ] = parse("1.5 mm", LENGTH)
    spring_preload: Annotated[
        ForceOrZero, Entry("Return spring", "spring scale", "Force of the return spring at rest")
    ] = parse("0 N", FORCE)
    efficiency: Annotated[
        Efficiency,
        Entry(
            "Cylinder efficiency",
            "a scale on the pedal and a gauge",
            "Share of the force that the seals leave",
            step=0.01,
            beside="Efficiency",
        ),
    ] = 1.0

    @property
    def main_bore(self) -> Quantity:
        """The bore another cylinder in its place would start from."""
        bore: Quantity = getattr(self, self.bore_fields[0])
        return bore

    def of_bore(self, bore: Quantity) -> dict[str, str]:
        """Return the fields that give it another main bore, its others in proportion."""
        share = bore.value / self.main_bore.value
        given = {name: getattr(self, name) for name in self.bore_fields[1:]}
        others = {
            name: f"{other.value * share * 1e3:.6g} mm"
            for name, other in given.items()
            if other is not None
        }
        return {self.bore_fields[0]: bore.text} | others


class OneBore(CylinderPart):
    """A cylinder of one bore."""

    bore_fields: ClassVar[tuple[str, ...]] = ("bore",)

    bore: Bore


@dataclass(frozen=True)
class CylinderKind(KindRecord):
    """One kind of master cylinder.

    `model` is its part in the document; `circuits` what it can feed, the usual way first; `bores`
    the fields of its bores, front before rear. Of the part as numbers: `cylinders` that make
    pressure, `chambers` that give fluid for a split, and where figures are `possible` together.
    `name` is what a builder chooses; `new` the figures it is put in
    with in place of another, all assumed.
    """

    model: type[CylinderPart]
    name: str
    circuits: tuple[Split, ...]
    bores: tuple[str, ...]
    cylinders: Callable[[NumericBuild], Pair[Cylinder]]
    chambers: Callable[[NumericBuild, Split], tuple[Chamber, ...]]
    possible: Callable[[NumericBuild], Bools]
    new: Callable[["CylinderPart"], dict[str, Any]]
