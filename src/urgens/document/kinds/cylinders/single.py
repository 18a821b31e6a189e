"""The single cylinder."""

from typing import Any, ClassVar, Literal

import numpy as np

from urgens.document.kinds.cylinders.kind import CylinderKind, CylinderPart, OneBore, Split
from urgens.document.numeric import NumericBuild
from urgens.physics.arrays import Bools
from urgens.physics.axle import Pair
from urgens.physics.cylinder import Chamber, Cylinder, bore_area


class SingleMaster(OneBore):
    """One bore, one chamber."""

    one_chamber: ClassVar[bool] = True

    kind: Literal["single"]


def one_bore(part: NumericBuild) -> Pair[Cylinder]:
    """Return the one bore that makes both circuits' pressure."""
    area = bore_area(part["bore"])
    both = Cylinder(1.0, area, part["spring_preload"], part["efficiency"])
    return Pair(both, both)


def _chambers(part: NumericBuild, split: Split) -> tuple[Chamber, ...]:
    return (Chamber(1.0, 1.0, bore_area(part["bore"]), part["stroke"], 1.0),)


def _possible(part: NumericBuild) -> Bools:
    return np.asarray(True)


def _new(master: CylinderPart) -> dict[str, Any]:
    return {"kind": "single", "bore": master.main_bore.text, "stroke": master.stroke.text}


SINGLE = CylinderKind(
    model=SingleMaster,
    name="Single cylinder",
    circuits=("single",),
    bores=("bore",),
    cylinders=one_bore,
    chambers=_chambers,
    possible=_possible,
    new=_new,
)
