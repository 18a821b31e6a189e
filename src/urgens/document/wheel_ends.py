"""One axle's wheel ends: tyre and brake."""

import re
from collections.abc import Iterator
from typing import Annotated

from pydantic import BeforeValidator, Field

from urgens.document.entry import Entry
from urgens.document.kinds.brakes import Brake
from urgens.document.model import DocumentModel, PartFault, broken, in_words, no_longer_than
from urgens.document.numeric import NumericBuild
from urgens.physics import tyre
from urgens.physics.arrays import Floats
from urgens.physics.tyre import size_code
from urgens.quantity import Quantity

_NUMERIC_CODE = re.compile(r"\s*\d{1,2}\.\d{2}\s*(?:R|-)\s*\d{2}\s*")  # "6.50-16"
ROLL_OUT = "mark it and roll it out two turns"


def _read_size(given: object) -> object:
    fault = PartFault(
        "",
        f"is {in_words(given)}, not a tyre size known here",
        'write it like "185/60R14" or "28x10.50-15", or give rolling_radius',
    )
    if not isinstance(given, str):
        raise broken(fault)
    try:
        size_code(given)
    except ValueError:
        if _NUMERIC_CODE.fullmatch(given):
            fault = PartFault(
                "",
                f'"{given}" does not say how high its section is',
                'mark the tyre, roll it out and give "rolling_radius": "343 mm"',
            )
        raise broken(fault) from None
    return given


RollingRadius = Annotated[
    Quantity,
    no_longer_than(1.5),
    Entry("Rolling radius", ROLL_OUT, "Road rolled in one turn, over 2π"),
]
Size = Annotated[
    str,
    BeforeValidator(_read_size),
    Entry("Tyre size", ROLL_OUT, "The code on the sidewall; the radius follows from it"),
]


def _grip_spread(tyre: "Tyre") -> str | None:
    """Return what a factor is off by that somebody gave; tyres that are alike are so exactly."""
    return "5 %" if "grip" in tyre.model_fields_set else None


Grip = Annotated[
    float,
    Field(strict=True, allow_inf_nan=False, ge=0.5, le=2.0),
    Entry(
        "Tyre grip",
        "stops that lock one axle alone, on one road",
        "Coefficient of this axle's tyres over that of the road: 1 where both axles' are alike",
        spread=_grip_spread,
        step=0.01,
    ),
]


class Tyre(DocumentModel):
    """A tyre, by measured rolling radius or by size code; of both, the radius counts."""

    rolling_radius: RollingRadius | None = None
    size: Size | None = None
    grip: Grip = 1.0

    @property
    def radius(self) -> float:
        """The rolling radius [m], measured or following from the size code."""
        return float(rolling_radius(NumericBuild(self)))

    def rules(self) -> Iterator[PartFault]:
        """Check that one of the two is given."""
        if self.rolling_radius is None and self.size is None:
            yield PartFault(
                "",
                "has neither rolling_radius nor size",
                'give "rolling_radius": "285 mm" or "size": "185/60R14"',
            )


class WheelEnds(DocumentModel):
    """What is at both ends of one axle."""

    tyre: Tyre
    brake: Brake


def rolling_radius(part: NumericBuild) -> Floats:
    """Return the rolling radius [m] of a tyre: a measured one counts before the size code."""
    measured = part.get("rolling_radius")
    if measured is not None:
        return measured
    return tyre.rolling_radius(*tyre.size_code(part.part.size or ""))
