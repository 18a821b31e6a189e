"""What there is to know of one kind of booster, in one place."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Annotated, Any, ClassVar, Literal

from pydantic import Field

from urgens.document.entry import TAPE, Entry
from urgens.document.kinds.one_of import KindRecord
from urgens.document.model import DocumentModel, FluidVolume, ForceOrZero, Length, Number, Pressure
from urgens.document.numeric import NumericBuild
from urgens.physics.booster import Assist
from urgens.quantity import FORCE, PRESSURE, parse

NO_FORCE = parse("0 N", FORCE)
PEDAL_SCALE = "a scale on the pedal and a gauge"
VACUUM_UNITS = ("inHg", "mbar")
ROOM = "tape; let the engine rock"
Gain = Annotated[
    Number,
    Field(ge=1, le=1e3),
    Entry(
        "Booster gain",
        PEDAL_SCALE,
        "Output over input slope before the assist runs out",
        step=0.1,
        beside="Gain",
    ),
]
Working = Annotated[bool, Field(strict=True)]
CrackForce = Annotated[
    ForceOrZero,
    Entry(
        "Crack force",
        PEDAL_SCALE,
        "Pushrod force below which nothing comes out",
        beside="Cracks at",
    ),
]
JumpIn = Annotated[
    ForceOrZero,
    Entry(
        "Jump-in", PEDAL_SCALE, "Assist that is there once it has cracked", beside="Jumps in with"
    ),
]


class Space(DocumentModel):
    """A round space: as wide as the booster's shell, as long as it is from firewall to cylinder."""

    diameter: Annotated[Length, Entry("Across", ROOM, "How wide it is")]
    length: Annotated[Length, Entry("Along", ROOM, "How long it is, firewall to cylinder")]


class Reservoir(DocumentModel):
    """A tank for vacuum, hose included; `swept` is the air that the booster takes at each press.

    Where `swept` is not given it is the diaphragms' area times the cylinder's stroke.
    """

    volume: Annotated[
        FluidVolume,
        Entry(
            "Vacuum reservoir",
            "fill it with water and weigh",
            "What reservoir and hose hold",
            units=("l", "l"),
            beside="Reservoir and hose",
        ),
    ]
    swept: (
        Annotated[
            FluidVolume,
            Entry(
                "Air of a press",
                TAPE,
                "Air the booster lets in at each press",
                units=("l", "l"),
                beside="It takes, a press",
            ),
        ]
        | None
    ) = None
    least: Annotated[
        Pressure,
        Entry(
            "Vacuum wanted", "choose it", "Least vacuum at which a stop is still assisted",
            units=VACUUM_UNITS, wish=True,
        ),
    ] = parse("15 inHg", PRESSURE)  # fmt: skip
    rests: Literal["vacuum", "air"] = "vacuum"


class BoosterPart(DocumentModel):
    """What any booster tells."""

    fitted: ClassVar[bool] = False
    by_vacuum: ClassVar[bool] = False

    kind: str

    @property
    def works(self) -> bool:
        """Whether it does what it is there for."""
        return True


class FittedBooster(BoosterPart):
    """A booster that is there: its force, the room it takes, and the room there is."""

    fitted: ClassVar[bool] = True

    gain: Gain
    crack_force: CrackForce = NO_FORCE
    jump_in: JumpIn = NO_FORCE
    working: Working = True
    envelope: Space | None = None
    room: Space | None = None

    @property
    def works(self) -> bool:
        """Whether it assists at all."""
        return self.working


@dataclass(frozen=True)
class BoosterKind(KindRecord):
    """One kind of booster.

    `model` is its part in the document; `assist` what it gives while it works, of the part as
    numbers, None for one that gives nothing. `name` is what a builder chooses, `new` the
    figures it is put in with, all assumed.
    """

    model: type[BoosterPart]
    name: str
    assist: Callable[[NumericBuild], Assist] | None
    new: dict[str, Any]
