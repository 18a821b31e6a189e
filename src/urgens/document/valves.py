"""The valves of each circuit, in flow order from the cylinder."""

from collections.abc import Iterator
from typing import Annotated, Literal

from pydantic import Field

from urgens.document.part import (
    Fault,
    Force,
    Length,
    Load,
    Number,
    Part,
    Pressure,
    PressureOrZero,
    RampAngle,
    SpringRate,
    Text,
)
from urgens.quantity import PRESSURE, parse

Slope = Annotated[Number, Field(ge=0, lt=1)]
Turns = Annotated[Number, Field(ge=0, le=1e4)]


class _Valve(Part):
    body: Text = ""  # parts with the same text sit in one casting


class Reducing(_Valve):
    """Passes pressure up to the knee, then a share of what comes on top."""

    kind: Literal["reducing"]
    knee: Pressure
    slope: Slope


class Limiting(_Valve):
    """Passes pressure up to the knee and nothing of what comes on top."""

    kind: Literal["limiting"]
    knee: Pressure


class Adjustable(_Valve):
    """A reducing valve whose knee follows from its setting by its own table.

    One with a lever has notches: only the settings of its table can be taken.
    """

    kind: Literal["adjustable"]
    table: Annotated[tuple[tuple[Turns, Pressure], ...], Field(min_length=2)]
    slope: Slope
    turns: Turns
    counted: Literal["turns", "notches"] = "turns"

    def nearest(self, turns: float, step: float) -> float:
        """Return the setting next to `turns`: a notch, or a whole number of steps of a turn."""
        settings = [row[0] for row in self.table]
        if self.counted == "notches":
            return min(settings, key=lambda setting: abs(setting - turns))
        return min(max(round(turns / step) * step, settings[0]), settings[-1])

    def rules(self) -> Iterator[Fault]:
        """Check that turns rise strictly, knees do not fall, and a notch is one of its own."""
        for row in range(1, len(self.table)):
            (turns, knee), (turns_before, knee_before) = self.table[row], self.table[row - 1]
            if turns <= turns_before:
                yield Fault(
                    f"table[{row}][0]",
                    f"{turns:g} turns do not come after {turns_before:g}",
                    "order the rows by rising turns, each once",
                )
            if knee.value < knee_before.value:
                yield Fault(
                    f"table[{row}][1]",
                    f'the knee falls from "{knee_before.text}" to "{knee.text}"',
                    "write knees that rise with the turns; count turns the other way if need be",
                )
        notches = [row[0] for row in self.table]
        if self.counted == "notches" and self.turns not in notches:
            yield Fault(
                "turns",
                f"there is no notch {self.turns:g}",
                f"choose one of its table: {', '.join(f'{n:g}' for n in notches)}",
            )


class Metering(_Valve):
    """Holds the front brakes back until the rear shoes have moved."""

    kind: Literal["metering"]
    close: PressureOrZero = parse("10 psi", PRESSURE)
    open: Pressure = parse("130 psi", PRESSURE)
    full: Pressure | None = None

    @property
    def full_pressure(self) -> float:
        """Inlet pressure [Pa] from which the valve passes everything."""
        return 2 * self.open.value if self.full is None else self.full.value

    def rules(self) -> Iterator[Fault]:
        """Check that it closes before it opens, and is fully open last."""
        if self.close.value > self.open.value:
            yield Fault(
                "close",
                f'"{self.close.text}" is above the opening pressure "{self.open.text}"',
                "write a closing pressure at or below open",
            )
        if self.full is not None and self.full.value <= self.open.value:
            yield Fault(
                "full",
                f'"{self.full.text}" is not above the opening pressure "{self.open.text}"',
                "write a pressure above open, or leave full out (it is then twice open)",
            )


class Lever(Part):
    """What pushes a load-sensing valve: a spring from the rear axle at the end of an arm.

    `preload` is the spring's force with `at_load` on the rear axle; `suspension_rate` is of both
    sides together; `bump` and `droop` are what the axle travels from there to its stops, where
    given.
    """

    arm: Length
    piston_arm: Length
    piston_diameter: Length
    spring_rate: SpringRate
    preload: Force
    at_load: Load
    suspension_rate: SpringRate
    bump: Length | None = None
    droop: Length | None = None


class LoadSensing(_Valve):
    """A reducing valve whose knee follows the rear axle's load.

    Between two calibrated points, or as its lever and spring have it.
    """

    kind: Literal["load-sensing"]
    points: tuple[tuple[Load, Pressure], tuple[Load, Pressure]] | None = None
    lever: Lever | None = None
    slope: Slope
    follows: Literal["static", "dynamic"]

    def rules(self) -> Iterator[Fault]:
        """Check that one of the two ways is given, loads rise strictly and knees do not fall."""
        if (self.points is None) == (self.lever is None):
            given = "neither points nor" if self.points is None else "both points and"
            yield Fault(
                "points",
                f"it has {given} a lever",
                "write either two points of load and knee, or the lever with its spring",
            )
        if self.points is None:
            return
        (load_before, knee_before), (load, knee) = self.points
        if load.value <= load_before.value:
            yield Fault(
                "points[1][0]",
                f'the load "{load.text}" does not come after "{load_before.text}"',
                "write the lighter load first",
            )
        if knee.value < knee_before.value:
            yield Fault(
                "points[1][1]",
                f'the knee falls from "{knee_before.text}" to "{knee.text}"',
                "write a knee that rises with the load",
            )


class InertiaSensing(_Valve):
    """A reducing valve that a ball shuts: its knee is where the vehicle slows hard enough.

    The ball rolls up a ramp of `ball_angle`, so a heavier load case has a higher knee.
    """

    kind: Literal["inertia-sensing"]
    ball_angle: RampAngle
    slope: Slope


class Residual(_Valve):
    """Keeps some pressure in the line when the pedal is let go."""

    kind: Literal["residual"]
    pressure: Pressure


Valve = Annotated[
    Reducing | Limiting | Adjustable | Metering | LoadSensing | InertiaSensing | Residual,
    Field(discriminator="kind"),
]
KNEED = (
    Reducing | Limiting | Adjustable | LoadSensing | InertiaSensing
)  # what takes pressure away above a knee


class Valves(Part):
    """Both circuits' valves."""

    front: tuple[Valve, ...] = ()
    rear: tuple[Valve, ...] = ()

    def rules(self) -> Iterator[Fault]:
        """Check that no two balls are to feel the same deceleration one after the other."""
        balls = [
            f"{circuit}[{index}]"
            for circuit in ("front", "rear")
            for index, valve in enumerate(getattr(self, circuit))
            if isinstance(valve, InertiaSensing)
        ]
        for place in balls[1:]:
            yield Fault(
                place,
                f"is a second inertia-sensing valve beside {balls[0]}",
                "keep one: both would feel the same deceleration",
            )
