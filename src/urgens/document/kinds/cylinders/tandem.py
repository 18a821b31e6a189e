"""The tandem cylinder."""

from collections.abc import Iterator
from typing import Annotated, Any, ClassVar, Literal

import numpy as np

from urgens.document.entry import Entry
from urgens.document.kinds.cylinders.kind import (
    ROD_PUSHED,
    CylinderKind,
    CylinderPart,
    OneBore,
    Split,
)
from urgens.document.kinds.cylinders.single import one_bore
from urgens.document.model import Length, PartFault
from urgens.document.numeric import NumericBuild
from urgens.physics.arrays import Bools, Floats
from urgens.physics.axle import Pair
from urgens.physics.cylinder import Chamber, bore_area

PrimaryStroke = Annotated[
    Length,
    Entry(
        "Primary stroke",
        ROD_PUSHED,
        "Stroke of the chamber next to the pushrod",
        beside="Primary chamber's",
    ),
]
SecondaryStroke = Annotated[
    Length,
    Entry(
        "Secondary stroke",
        ROD_PUSHED,
        "Stroke of the chamber at the far end",
        beside="Secondary chamber's",
    ),
]


class TwoChambers(CylinderPart):
    """Two chambers in line; `stroke` is shared by them."""

    in_halves: ClassVar[bool] = True

    primary_stroke: PrimaryStroke | None = None
    secondary_stroke: SecondaryStroke | None = None
    primary_feeds: Literal["front", "rear"] = "front"

    def rules(self) -> Iterator[PartFault]:
        """Check that a chamber's stroke leaves something for the other."""
        both = ("primary_stroke", self.primary_stroke), ("secondary_stroke", self.secondary_stroke)
        for (name, given), (_, other) in (both, both[::-1]):
            if given is not None and other is None and given.value >= self.stroke.value:
                yield PartFault(
                    name,
                    f'"{given.text}" leaves nothing of the whole stroke "{self.stroke.text}"',
                    "write less than the whole stroke, or give both chambers' strokes",
                )

    @property
    def chamber_strokes(self) -> tuple[float, float]:
        """Primary and secondary stroke [m]: what is not given is the rest, or half of it each."""
        primary, secondary = chamber_strokes(NumericBuild(self))
        return float(primary), float(secondary)


class TandemMaster(TwoChambers, OneBore):
    """One bore, two chambers in line."""

    kind: Literal["tandem"]


def chamber_strokes(part: NumericBuild) -> tuple[Floats, Floats]:
    """Return primary and secondary stroke [m]; one not given is the rest, or half each."""
    whole = part["stroke"]
    primary, secondary = part.get("primary_stroke"), part.get("secondary_stroke")
    if primary is None and secondary is None:
        return whole / 2, whole / 2
    if primary is None:
        return whole - secondary, secondary  # type: ignore[operator,return-value]
    return primary, whole - primary if secondary is None else secondary


def _chambers(part: NumericBuild, split: Split) -> tuple[Chamber, ...]:
    area, strokes = bore_area(part["bore"]), chamber_strokes(part)
    if split == "diagonal":  # each chamber feeds half of each axle
        return tuple(Chamber(0.5, 0.5, area, stroke, 1.0) for stroke in strokes)
    ends = Pair(*(strokes if part.part.primary_feeds == "front" else strokes[::-1]))
    return (Chamber(1.0, 0.0, area, ends.front, 1.0), Chamber(0.0, 1.0, area, ends.rear, 1.0))


def possible_strokes(part: NumericBuild) -> Bools:
    """Return where both chambers have a stroke."""
    primary, secondary = chamber_strokes(part)
    return np.asarray(np.greater(primary, 0.0) & np.greater(secondary, 0.0))


def _new(master: CylinderPart) -> dict[str, Any]:
    return {"kind": "tandem", "bore": master.main_bore.text, "stroke": master.stroke.text}


TANDEM = CylinderKind(
    model=TandemMaster,
    name="Tandem cylinder",
    circuits=("front-rear", "diagonal"),
    bores=("bore",),
    cylinders=one_bore,
    chambers=_chambers,
    possible=possible_strokes,
    new=_new,
)
