"""The vehicle: its loads, wheelbase and use."""

from collections.abc import Iterator
from typing import Annotated, Literal

from pydantic import Field

from urgens.document.entry import Entry, wish
from urgens.document.model import (
    Area,
    DocumentModel,
    Efficiency,
    Length,
    LengthOrZero,
    Load,
    Name,
    PartFault,
    PositiveNumber,
    Torque,
    TorqueOrZero,
)
from urgens.physics.axle import Axle
from urgens.quantity import LENGTH, TORQUE, Quantity, parse

MOST_CASES = 1000
SCALES = "scales, as driven"
DYNO = "stall it on a dynamometer, or its papers"
WIND = "its maker, or a wind tunnel"
LIFT = ("m^2", "m^2")


class LoadCase(DocumentModel):
    """One state of loading, at rest on level ground."""

    name: Annotated[Name, Entry("Load case", "name it", "What this state of loading is called")]
    front_axle: Annotated[
        Load, Entry("Front axle load", SCALES, "Load of both front wheels at rest", spread="2 %")
    ]
    rear_axle: Annotated[
        Load, Entry("Rear axle load", SCALES, "Load of both rear wheels at rest", spread="2 %")
    ]
    cg_height: Annotated[
        Length,
        Entry(
            "Centre of gravity",
            "raise one axle, weigh again",
            "Height of the centre of gravity above the road",
            spread="5 %",
        ),
    ]

    def load(self, axle: Axle) -> Quantity:
        """Return the load at rest of one axle."""
        return self.front_axle if axle == Axle.FRONT else self.rear_axle


class Downforce(DocumentModel):
    """Lift coefficient times area of each axle; positive presses the axle down."""

    front_cl_area: Annotated[
        Area,
        Entry("Front, lift coefficient × area", WIND, "Presses the front axle down", units=LIFT),
    ]
    rear_cl_area: Annotated[
        Area, Entry("Rear, lift coefficient × area", WIND, "Presses the rear axle down", units=LIFT)
    ]


LineSurface = Annotated[
    PositiveNumber, wish("Road at the line", "Tyre-road coefficient at the line", step=0.05)
]


class Launch(DocumentModel):
    """The driveline a drag car's brakes hold against at the line."""

    stall_torque: Annotated[Torque, Entry("Engine at stall", DYNO, "Engine torque at stall")]
    converter_ratio: Annotated[
        PositiveNumber,
        Entry("Converter's ratio at stall", DYNO, "Torque out over torque in at stall", step=0.1),
    ] = 1.8
    gear_ratio: Annotated[PositiveNumber, Entry("Gear", DYNO, "Ratio of the gear", step=0.01)]
    final_drive: Annotated[
        PositiveNumber, Entry("Final drive", "count the teeth", "Ratio of the axle", step=0.01)
    ]
    driven: Literal["rear", "front"]
    efficiency: Annotated[
        Efficiency,
        Entry(
            "Driveline efficiency",
            DYNO,
            "Share of the torque the driveline leaves",
            step=0.01,
            beside="Efficiency",
        ),
    ] = 0.9
    surface: LineSurface | None = None


class VehicleSection(DocumentModel):
    """What the brakes have to stop."""

    use: Literal["street", "track", "drag", "restoration", "truck"]
    body: (
        Literal[
            "roadster",
            "saloon",
            "coupe",
            "pickup",
            "dragster",
            "van",
            "tractor",
            "tender",
            "generic",
        ]
        | None
    ) = None
    wheelbase: Annotated[
        Length, Entry("Wheelbase", "tape, both sides", "From front to rear wheel centre")
    ]
    load_cases: Annotated[tuple[LoadCase, ...], Field(min_length=1, max_length=MOST_CASES)]
    downforce: Downforce | None = None
    altitude: Annotated[
        LengthOrZero,
        Entry("Altitude driven at", "a map", "Height above the sea", units=("ft", "m")),
    ] = parse("0 m", LENGTH)
    engine_drag: Annotated[
        TorqueOrZero,
        Entry("Engine's drag", "coast down in gear", "Torque of the engine at the driven axle"),
    ] = parse("0 N.m", TORQUE)
    steering: Literal["left", "right"] | None = None
    launch: Launch | None = None

    def rules(self) -> Iterator[PartFault]:
        """Check that load cases are told apart by their names."""
        seen: dict[str, int] = {}
        for index, case in enumerate(self.load_cases):
            first = seen.setdefault(case.name, index)
            if first != index:
                yield PartFault(
                    f"load_cases[{index}].name",
                    f'"{case.name}" is also the name of load case {first + 1}',
                    "give each load case a name of its own",
                )
