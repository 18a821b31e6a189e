"""The limiting valve: nothing above its knee."""

from typing import Any, ClassVar, Literal

from urgens.document.kinds.valves.kind import PLAIN, InUnits, Loads, Sold, ValveKind, ValvePart
from urgens.document.kinds.valves.reducing import Knee, knee_moved
from urgens.document.numeric import NumericBuild
from urgens.physics.valve_law import ReducingLaw, ValveLaw
from urgens.quantity import PRESSURE, show


class Limiting(ValvePart):
    """Passes pressure up to the knee and nothing of what comes on top."""

    reduces: ClassVar[bool] = True

    kind: Literal["limiting"]
    knee: Knee


def _law(part: NumericBuild) -> ValveLaw:
    return ReducingLaw(part["knee"], 0.0)


def _briefly(part: Limiting, units: InUnits) -> str:
    return str(show(part.knee.value, PRESSURE, units))


def _new(loads: Loads) -> dict[str, Any]:
    return {"kind": "limiting", "knee": "450 psi"}


def _holds(part: Limiting, inlet: float, outlet: float, units: InUnits) -> str:
    return f"shut: {show(inlet - outlet, PRESSURE, units)} kept back"


def _dragging(part: Limiting, knee: str) -> str:
    return f"Up to {knee} the valve does nothing; from there the rear gets no more."


LIMITING = ValveKind(
    model=Limiting,
    name="Limiting valve",
    what="Passes pressure up to its knee and nothing of what comes on top.",
    typical="usual: {300 psi} to {600 psi}",
    law=_law,
    briefly=_briefly,
    new=_new,
    drawing=("spring",),
    holds=_holds,
    moves=knee_moved,
    dragging=_dragging,
    sold=Sold(knees=(5e5, 70e5), slopes=(0.0, 0.0)),
    looks=PLAIN,
    seen_by="one in, one out and closed: above its knee the rear gets no more",
)
