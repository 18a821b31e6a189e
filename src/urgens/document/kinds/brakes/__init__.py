"""The brakes of one wheel; one record for each kind."""

from typing import TYPE_CHECKING

from urgens.document.kinds.brakes.disc import DISC
from urgens.document.kinds.brakes.drum import DRUM
from urgens.document.kinds.brakes.kind import BrakeKind, BrakePart
from urgens.document.kinds.one_of import one_of
from urgens.document.numeric import NumericBuild

BRAKES: tuple[BrakeKind, ...] = (DISC, DRUM)
_BY_NAME = {record.kind: record for record in BRAKES}

if TYPE_CHECKING:
    Brake = BrakePart
else:
    Brake = one_of(BRAKES)


def brake_kind(brake: BrakePart | str) -> BrakeKind:
    """Return the record of a brake's kind, or of the kind so called; raises KeyError."""
    return _BY_NAME[brake if isinstance(brake, str) else brake.kind]


def piston_area(brake: BrakePart) -> float:
    """Return the piston area [m²] that presses at one wheel.

    All pistons of one side of a disc, or one piston of a wheel cylinder.
    """
    return float(brake_kind(brake).piston_area(NumericBuild(brake)))
