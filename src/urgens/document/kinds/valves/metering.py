"""The metering valve: it holds the front off until the rear shoes have moved."""

from collections.abc import Iterator
from typing import Annotated, Any, ClassVar, Literal

import numpy as np

from urgens.document.entry import VALVE_GAUGES, Entry
from urgens.document.kinds.valves.kind import PLAIN, InUnits, Loads, ValveKind, ValvePart
from urgens.document.model import PartFault, Pressure, PressureOrZero
from urgens.document.numeric import NumericBuild
from urgens.physics.arrays import Bools
from urgens.physics.valve_law import MeteringLaw, ValveLaw
from urgens.quantity import PRESSURE, parse


class Metering(ValvePart):
    """Holds the front brakes back until the rear shoes have moved."""

    holds_front_back: ClassVar[bool] = True

    kind: Literal["metering"]
    close: Annotated[
        PressureOrZero,
        Entry(
            "Closing pressure", VALVE_GAUGES, "Inlet pressure at which it shuts", beside="Shuts at"
        ),
    ] = parse("10 psi", PRESSURE)
    open: Annotated[
        Pressure,
        Entry(
            "Opening pressure",
            VALVE_GAUGES,
            "Inlet pressure at which it lets through again",
            beside="Opens at",
        ),
    ] = parse("130 psi", PRESSURE)
    full: (
        Annotated[
            Pressure,
            Entry(
                "Full pressure",
                VALVE_GAUGES,
                "Inlet pressure from which it holds nothing off",
                beside="Passes all from",
            ),
        ]
        | None
    ) = None

    @property
    def full_pressure(self) -> float:
        """Inlet pressure [Pa] from which the valve passes everything."""
        return 2 * self.open.value if self.full is None else self.full.value

    def rules(self) -> Iterator[PartFault]:
        """Check that it closes before it opens, and is fully open last."""
        if self.close.value > self.open.value:
            yield PartFault(
                "close",
                f'"{self.close.text}" is above the opening pressure "{self.open.text}"',
                "write a closing pressure at or below open",
            )
        if self.full is not None and self.full.value <= self.open.value:
            yield PartFault(
                "full",
                f'"{self.full.text}" is not above the opening pressure "{self.open.text}"',
                "write a pressure above open, or leave full out (it is then twice open)",
            )


def _law(part: NumericBuild) -> ValveLaw:
    full = part.get("full")
    return MeteringLaw(part["close"], part["open"], 2.0 * part["open"] if full is None else full)


def _possible(part: NumericBuild) -> Bools:
    law = _law(part)
    assert isinstance(law, MeteringLaw)
    return np.less_equal(law.closing, law.opening) & np.less(law.opening, law.full)


def _briefly(part: Metering, units: InUnits) -> str:
    return ""


def _new(loads: Loads) -> dict[str, Any]:
    return {"kind": "metering"}


def _holds(part: Metering, inlet: float, outlet: float, units: InUnits) -> str:
    shut = outlet <= part.close.value * (1 + 1e-9)
    return "shut: holds the front off" if shut else "opening"


METERING = ValveKind(
    model=Metering,
    name="Metering valve",
    what="Holds the front discs back until the rear shoes have overcome their springs. With rear "
    "discs it is not wanted.",
    typical="usual: shut at about {10 psi}, open from about {130 psi}",
    law=_law,
    briefly=_briefly,
    new=_new,
    drawing=("poppet spring",),
    holds=_holds,
    possible=_possible,
    looks={**PLAIN, "outs": (1, 2), "stem": (True,)},
    seen_by="a stem that moves under the foot: it holds the front off until the rear is on",
)
