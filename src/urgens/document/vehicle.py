"""The vehicle: its loads, wheelbase and use."""

from collections.abc import Iterator
from typing import Annotated, Literal

from pydantic import Field

from urgens.document.part import (
    Area,
    Efficiency,
    Fault,
    Length,
    LengthOrZero,
    Load,
    Name,
    Part,
    PositiveNumber,
    Torque,
    TorqueOrZero,
)
from urgens.quantity import LENGTH, TORQUE, parse


class LoadCase(Part):
    """One state of loading, at rest on level ground."""

    name: Name
    front_axle: Load
    rear_axle: Load
    cg_height: Length


class Downforce(Part):
    """Lift coefficient times area of each axle; positive presses the axle down."""

    front_cl_area: Area
    rear_cl_area: Area


class Launch(Part):
    """The driveline a drag car's brakes hold against at the line."""

    stall_torque: Torque
    converter_ratio: PositiveNumber = 1.8
    gear_ratio: PositiveNumber
    final_drive: PositiveNumber
    driven: Literal["rear", "front"]
    efficiency: Efficiency = 0.9
    surface: PositiveNumber | None = None


class Vehicle(Part):
    """What the brakes have to stop."""

    use: Literal["street", "track", "drag", "restoration", "truck"]
    body: Literal["roadster", "saloon", "coupe", "pickup", "dragster", "generic"] | None = None
    wheelbase: Length
    load_cases: Annotated[tuple[LoadCase, ...], Field(min_length=1)]
    downforce: Downforce | None = None
    altitude: LengthOrZero = parse("0 m", LENGTH)
    engine_drag: TorqueOrZero = parse("0 N.m", TORQUE)
    steering: Literal["left", "right"] | None = None
    launch: Launch | None = None

    def rules(self) -> Iterator[Fault]:
        """Check that load cases are told apart by their names."""
        seen: dict[str, int] = {}
        for index, case in enumerate(self.load_cases):
            first = seen.setdefault(case.name, index)
            if first != index:
                yield Fault(
                    f"load_cases[{index}].name",
                    f'"{case.name}" is also the name of load case {first + 1}',
                    "give each load case a name of its own",
                )
