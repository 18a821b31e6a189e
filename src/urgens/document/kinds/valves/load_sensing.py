"""The load-sensing valve: its knee follows the rear axle's load, by two points or by a lever."""

from collections.abc import Iterator
from typing import Annotated, Any, ClassVar, Literal

import numpy as np

from urgens.document.entry import VALVE_GAUGES, Entry
from urgens.document.kinds.valves.kind import (
    LOWEST_KNEE,
    PLAIN,
    InUnits,
    Loads,
    Move,
    ValveKind,
    ValvePart,
    Wanted,
)
from urgens.document.kinds.valves.reducing import SOLD, Slope
from urgens.document.model import (
    DocumentModel,
    Force,
    Length,
    Load,
    PartFault,
    Pressure,
    SpringRate,
)
from urgens.document.numeric import NumericBuild
from urgens.physics.arrays import Bools
from urgens.physics.cylinder import bore_area
from urgens.physics.valve import lever_knee, spring_force
from urgens.physics.valve_law import LoadSensingLaw, ValveLaw
from urgens.quantity import FORCE, PRESSURE

LEVER = "rule, spring scale"
MOST_TRAVEL = 1.0  # m; no suspension has as much, so it is no stop
LEAST_PRELOAD = 1.0  # N


class Lever(DocumentModel):
    """What pushes a load-sensing valve: a spring from the rear axle at the end of an arm.

    `preload` is the spring's force with `at_load` on the rear axle; `suspension_rate` is of both
    sides together; `bump` and `droop` are what the axle travels from there to its stops, where
    given.
    """

    arm: Annotated[
        Length,
        Entry(
            "Lever, pivot to spring",
            LEVER,
            "Lever from its pivot to the spring",
            beside="Pivot to spring",
        ),
    ]
    piston_arm: Annotated[
        Length,
        Entry(
            "Lever, pivot to piston",
            LEVER,
            "Lever from its pivot to the valve's piston",
            beside="Pivot to piston",
        ),
    ]
    piston_diameter: Annotated[
        Length,
        Entry(
            "Lever's piston",
            LEVER,
            "Outlet end of the stepped piston that the lever pushes",
            beside="Piston",
        ),
    ]
    spring_rate: Annotated[
        SpringRate,
        Entry(
            "Lever's spring", LEVER, "Force per length of the lever's spring", beside="Its spring"
        ),
    ]
    preload: Annotated[
        Force,
        Entry(
            "Lever's force as set",
            LEVER,
            "Force of the lever's spring as it is set",
            beside="Its force as set",
        ),
    ]
    at_load: Annotated[
        Load,
        Entry(
            "Rear load as set",
            LEVER,
            "Rear axle load at which the spring was set",
            beside="Rear load then",
        ),
    ]
    suspension_rate: Annotated[
        SpringRate,
        Entry(
            "Suspension rate", LEVER, "Rear suspension, both sides together", beside="Suspension"
        ),
    ]
    bump: (
        Annotated[
            Length,
            Entry(
                "Way up to the stop",
                LEVER,
                "What the axle rises to its stop",
                beside="Up to the stop",
            ),
        ]
        | None
    ) = None
    droop: (
        Annotated[
            Length,
            Entry(
                "Way down to the stop",
                LEVER,
                "What the axle falls to its stop",
                beside="Down to the stop",
            ),
        ]
        | None
    ) = None


LightLoad = Annotated[Load, Entry("Light load", VALVE_GAUGES, "Rear load of the first point")]
LightKnee = Annotated[Pressure, Entry("Light knee", VALVE_GAUGES, "Knee at the light load")]
HeavyLoad = Annotated[Load, Entry("Heavy load", VALVE_GAUGES, "Rear load of the second point")]
HeavyKnee = Annotated[Pressure, Entry("Heavy knee", VALVE_GAUGES, "Knee at the heavy load")]
Points = Annotated[
    tuple[tuple[LightLoad, LightKnee], tuple[HeavyLoad, HeavyKnee]],
    Entry("Knees", VALVE_GAUGES, "The knee at two calibrated loads"),
]


class LoadSensing(ValvePart):
    """A reducing valve whose knee follows the rear axle's load.

    Between two calibrated points, or as its lever and spring have it.
    """

    reduces: ClassVar[bool] = True
    feels_load: ClassVar[bool] = True

    kind: Literal["load-sensing"]
    points: Points | None = None
    lever: Lever | None = None
    slope: Slope
    follows: Literal["static", "dynamic"]

    def rules(self) -> Iterator[PartFault]:
        """Check that one of the two ways is given, loads rise strictly and knees do not fall."""
        if (self.points is None) == (self.lever is None):
            given = "neither points nor" if self.points is None else "both points and"
            yield PartFault(
                "points",
                f"it has {given} a lever",
                "write either two points of load and knee, or the lever with its spring",
            )
        if self.points is None:
            return
        (load_before, knee_before), (load, knee) = self.points
        if load.value <= load_before.value:
            yield PartFault(
                "points[1][0]",
                f'the load "{load.text}" does not come after "{load_before.text}"',
                "write the lighter load first",
            )
        if knee.value < knee_before.value:
            yield PartFault(
                "points[1][1]",
                f'the knee falls from "{knee_before.text}" to "{knee.text}"',
                "write a knee that rises with the load",
            )


def _law(part: NumericBuild) -> ValveLaw:
    valve: LoadSensing = part.part
    dynamic = valve.follows == "dynamic"
    if valve.lever is not None:
        return _lever_law(part, dynamic=dynamic)
    (light, light_knee), (heavy, heavy_knee) = part.table("points")
    return LoadSensingLaw(light, heavy, light_knee, heavy_knee, part["slope"], dynamic)


def _lever_law(part: NumericBuild, *, dynamic: bool) -> LoadSensingLaw:
    """Return the law of a lever: its knee is straight in the load, between slack and the stops."""
    lever = part.of("lever")
    force, rate, at_load = lever["preload"], lever["suspension_rate"], lever["at_load"]
    rates = np.divide(lever["spring_rate"], rate)
    light = at_load - np.divide(force, rates)  # where the spring is slack
    droop, bump = lever.get("droop"), lever.get("bump")
    if droop is not None:
        light = np.maximum(light, at_load - rate * droop)
    heavy = at_load + rate * (MOST_TRAVEL if bump is None else bump)
    area = bore_area(lever["piston_diameter"])
    low, high = (
        lever_knee(
            spring_force(load, at_load, force, rates),
            *(lever["arm"], lever["piston_arm"], area, part["slope"]),
        )
        for load in (light, heavy)
    )
    return LoadSensingLaw(light, heavy, low, high, part["slope"], dynamic)


def _possible(part: NumericBuild) -> Bools:
    if part.part.points is None:
        return np.asarray(True)
    (light, light_knee), (heavy, heavy_knee) = part.table("points")
    return np.less(light, heavy) & np.less_equal(light_knee, heavy_knee)


def _briefly(part: LoadSensing, units: InUnits) -> str:
    return f"slope {part.slope:.2f}"


def _new(loads: Loads) -> dict[str, Any]:
    points = [[loads.light, "200 psi"], [loads.heavy, "500 psi"]]
    return {"kind": "load-sensing", "points": points, "slope": 0.4, "follows": "dynamic"}


def _moves(part: LoadSensing, law: ValveLaw, wanted: Wanted) -> list[Move]:
    """Return the edits that raise its knees together, by the spring or by both points."""
    load = wanted.rear_load
    if part.lever is not None:
        return [Move("lever.preload", _preload(part.lever, part.slope, wanted), FORCE)]
    assert isinstance(law, LoadSensingLaw)
    assert part.points is not None
    factor = wanted.knee / float(law.knee_at(load))
    return [
        Move(f"points[{row}][1]", max(point[1].value * factor, LOWEST_KNEE), PRESSURE)
        for row, point in enumerate(part.points)
    ]


def _preload(lever: Lever, slope: float, wanted: Wanted) -> float:
    """Return the force [N] a lever's spring is to be set to for a knee at a rear load."""
    area = bore_area(lever.piston_diameter.value)
    per_newton = lever_knee(1.0, lever.arm.value, lever.piston_arm.value, area, slope)
    more = (wanted.rear_load - lever.at_load.value) / lever.suspension_rate.value
    force = wanted.knee / float(per_newton) - more * lever.spring_rate.value
    return max(force, LEAST_PRELOAD)


def _dragging(part: LoadSensing, knee: str) -> str:
    way = "its spring" if part.lever is not None else "both its points"
    return f"It feels the rear axle's load: dragging the knee moves {way}; see Valves."


LOAD_SENSING = ValveKind(
    model=LoadSensing,
    name="Load-sensing valve",
    what="A reducing valve whose knee moves with the rear suspension. Other springs or another "
    "ride height change its setting; it can seize.",
    typical="usual: the light knee a third to a half of the heavy one",
    law=_law,
    briefly=_briefly,
    new=_new,
    drawing=("spring", "lever"),
    moves=_moves,
    knee_figure="points[0][1]",
    dragging=_dragging,
    together="points",
    possible=_possible,
    sold=SOLD,
    looks={**PLAIN, "ins": (1, 2), "outs": (1, 2), "lever": (True,)},
    seen_by="a lever to the axle: a reducing valve whose knee goes with the load",
)
