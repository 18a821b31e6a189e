"""The hydraulic booster."""

from typing import Annotated, Literal

from urgens.document.entry import Entry
from urgens.document.kinds.boosters.kind import PEDAL_SCALE, BoosterKind, FittedBooster
from urgens.document.model import Force
from urgens.document.numeric import NumericBuild
from urgens.physics.booster import Assist


class HydraulicBooster(FittedBooster):
    """A booster fed by a pump, with the most it can assist."""

    kind: Literal["hydraulic"]
    max_assist: Annotated[
        Force, Entry("Most it assists", PEDAL_SCALE, "Assist that it cannot go beyond")
    ]


def _assist(part: NumericBuild) -> Assist:
    return Assist(part["crack_force"], part["jump_in"], part["gain"], part["max_assist"])


HYDRAULIC = BoosterKind(
    model=HydraulicBooster,
    name="Hydraulic booster",
    assist=_assist,
    new={"kind": "hydraulic", "gain": 4.0, "max_assist": "2500 N"},
)
