"""The residual valve: some pressure stays in the line."""

from typing import Annotated, Any, ClassVar, Literal

from urgens.document.entry import Entry
from urgens.document.kinds.valves.kind import PLAIN, InUnits, Loads, ValveKind, ValvePart
from urgens.document.model import Pressure
from urgens.document.numeric import NumericBuild
from urgens.physics.valve_law import ResidualLaw, ValveLaw
from urgens.quantity import PRESSURE, show


class Residual(ValvePart):
    """Keeps some pressure in the line when the pedal is let go."""

    keeps_pressure: ClassVar[bool] = True

    kind: Literal["residual"]
    pressure: Annotated[
        Pressure,
        Entry(
            "Residual pressure",
            "a gauge, pedal up",
            "Pressure left in the line at rest",
            beside="Keeps",
        ),
    ]


def _law(part: NumericBuild) -> ValveLaw:
    return ResidualLaw(part["pressure"])


def _briefly(part: Residual, units: InUnits) -> str:
    return ""


def _passes(part: Residual, units: InUnits) -> str:
    return f"passes all, keeps {show(part.pressure.value, PRESSURE, units)}"


def _new(loads: Loads) -> dict[str, Any]:
    return {"kind": "residual", "pressure": "15 psi"}


RESIDUAL = ValveKind(
    model=Residual,
    name="Residual valve",
    what="Keeps a little pressure in the line when the pedal is up: for cups of drums, never for "
    "discs.",
    typical="usual: about {15 psi} for drums",
    law=_law,
    briefly=_briefly,
    new=_new,
    drawing=("check disc",),
    passes=_passes,
    fastened=False,
    looks={**PLAIN, "inline": (True,)},
    seen_by="thin, with an arrow: it keeps a little pressure in the line behind it",
)
