"""The vehicle: its loads, wheelbase and use."""

from collections.abc import Iterator
from typing import Annotated, Literal

from pydantic import Field

from urgens.build.part import Area, Fault, Length, LengthOrZero, Load, Name, Part
from urgens.quantity import LENGTH, parse


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


class Vehicle(Part):
    """What the brakes have to stop."""

    use: Literal["street", "track", "drag", "restoration", "truck"]
    wheelbase: Length
    load_cases: Annotated[tuple[LoadCase, ...], Field(min_length=1)]
    downforce: Downforce | None = None
    altitude: LengthOrZero = parse("0 m", LENGTH)

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
