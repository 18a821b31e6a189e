"""The brakes of one wheel; one record for each kind."""

from typing import TYPE_CHECKING

from urgens.document.kinds.brakes.disc import DISC
from urgens.document.kinds.brakes.drum import DRUM
from urgens.document.kinds.brakes.kind import BrakeKind, BrakePart
from urgens.document.kinds.one_of import one_of, record_of
from urgens.document.numeric import NumericBuild

BRAKES: tuple[BrakeKind, ...] = (DISC, DRUM)
brake_kind = record_of(BRAKES)  # of a part, or of the kind so called

if TYPE_CHECKING:
    Brake = BrakePart
else:
    Brake = one_of(BRAKES)


def piston_area(brake: BrakePart) -> float:
    """Return the piston area [m²] that presses at one wheel.

    All pistons of one side of a disc, or one piston of a wheel cylinder.
    """
    return float(brake_kind(brake).piston_area(NumericBuild(brake)))
