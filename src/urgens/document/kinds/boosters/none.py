"""No booster."""

from typing import Literal

from urgens.document.kinds.boosters.kind import BoosterKind, BoosterPart


class NoBooster(BoosterPart):
    """The pedal works the cylinder alone."""

    kind: Literal["none"] = "none"


NONE = BoosterKind(model=NoBooster, name="No booster", assist=None, new={"kind": "none"})
