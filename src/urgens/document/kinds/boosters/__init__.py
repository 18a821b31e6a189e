"""Boosters: what helps the foot; one record for each kind."""

from typing import TYPE_CHECKING

from urgens.document.kinds.boosters.hydraulic import HYDRAULIC
from urgens.document.kinds.boosters.kind import BoosterKind, BoosterPart
from urgens.document.kinds.boosters.none import NONE
from urgens.document.kinds.boosters.vacuum import VACUUM
from urgens.document.kinds.one_of import one_of, record_of
from urgens.document.numeric import NumericBuild
from urgens.physics.booster import Assist

BOOSTERS: tuple[BoosterKind, ...] = (NONE, VACUUM, HYDRAULIC)
booster_kind = record_of(BOOSTERS)  # of a part, or of the kind so called

if TYPE_CHECKING:
    Booster = BoosterPart
else:
    Booster = one_of(BOOSTERS)


def assist(part: NumericBuild) -> Assist:
    """Return what a booster gives now: nothing beyond the foot's force where it is lost."""
    made = booster_kind(part.part).assist
    if made is None:
        return Assist()
    found = made(part)
    if part.part.works:
        return found
    return Assist(found.crack_force, found.jump_in, found.gain, 0.0)
