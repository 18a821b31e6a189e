"""The reducing valve: one knee, then a share of the rise."""

from typing import Annotated, Any, ClassVar, Literal

from pydantic import Field

from urgens.document.entry import VALVE_GAUGES, Entry
from urgens.document.kinds.valves.kind import (
    PLAIN,
    InUnits,
    Loads,
    Move,
    Sold,
    ValveKind,
    ValvePart,
    Wanted,
)
from urgens.document.model import Number, Pressure
from urgens.document.numeric import NumericBuild
from urgens.physics.valve_law import ReducingLaw, ValveLaw
from urgens.quantity import PRESSURE, show

KNEE_SPREAD = "5 %"  # production
SLOPE_SPREAD = "0.03"  # common practice
Slope = Annotated[
    Number,
    Field(ge=0, lt=1),
    Entry(
        "Slope",
        VALVE_GAUGES,
        "Outlet rise over inlet rise above the knee",
        spread=SLOPE_SPREAD,
        step=0.01,
        beside="Slope after it",
    ),
]
Knee = Annotated[
    Pressure,
    Entry(
        "Knee",
        VALVE_GAUGES,
        "Inlet pressure from which the valve passes only a share of the rise",
        spread=KNEE_SPREAD,
    ),
]
SOLD = Sold(knees=(5e5, 70e5), slopes=(0.2, 0.6))
NEW: dict[str, Any] = {"kind": "reducing", "knee": "300 psi", "slope": 0.5}


class Reducing(ValvePart):
    """Passes pressure up to the knee, then a share of what comes on top."""

    reduces: ClassVar[bool] = True

    kind: Literal["reducing"]
    knee: Knee
    slope: Slope


def _law(part: NumericBuild) -> ValveLaw:
    return ReducingLaw(part["knee"], part["slope"])


def _briefly(part: Reducing, units: InUnits) -> str:
    return f"knee {show(part.knee.value, PRESSURE, units)}, slope {part.slope:.2f}"


def _new(loads: Loads) -> dict[str, Any]:
    return dict(NEW)


def knee_moved(part: Any, law: ValveLaw, wanted: Wanted) -> list[Move]:
    """Return the edit of a valve that states its knee."""
    return [Move("knee", wanted.knee, PRESSURE)]


def _dragging(part: Reducing, knee: str) -> str:
    if part.body:
        return (
            f"In the {part.body}: its knee moves only by fitting another one. "
            "Drag to see what to look for."
        )
    return f"Up to {knee} the valve does nothing; from there the rear gets a share of the rise."


REDUCING = ValveKind(
    model=Reducing,
    name="Reducing valve",
    what="Passes pressure up to its knee, then a share of the rise. It reduces pressure; it slows "
    "nothing and stops nothing.",
    typical="usual on older road cars: knee {250 psi} to {300 psi}, slope about one half",
    law=_law,
    briefly=_briefly,
    new=_new,
    drawing=("spring",),
    moves=knee_moved,
    dragging=_dragging,
    sold=SOLD,
    looks=PLAIN,
    seen_by="one in, one out and closed: above its knee the rear gets a share of the rise",
)
