"""The vacuum booster."""

from typing import Annotated, ClassVar, Literal

import numpy as np
from pydantic import Field

from urgens.document.entry import Entry
from urgens.document.kinds.boosters.kind import VACUUM_UNITS, BoosterKind, FittedBooster, Reservoir
from urgens.document.model import Length, PressureOrZero
from urgens.document.numeric import NumericBuild
from urgens.physics.arrays import Floats
from urgens.physics.booster import Assist, vacuum_assist_limit

GAUGE = "vacuum gauge, warm engine"


class VacuumBooster(FittedBooster):
    """A vacuum booster; `vacuum` is the depression below the air around it.

    `pump` is the depression that a pump holds: the deeper of the two is there.
    """

    by_vacuum: ClassVar[bool] = True

    kind: Literal["vacuum"]
    diaphragm_diameters: Annotated[
        tuple[
            Annotated[
                Length,
                Entry("Diaphragm, working", "of its maker; less than the shell", "One diaphragm"),
            ],
            ...,
        ],
        Field(min_length=1),
    ]
    vacuum: Annotated[
        PressureOrZero,
        Entry("Vacuum at idle", GAUGE, "Depression below the air around", units=VACUUM_UNITS),
    ]
    pump: (
        Annotated[
            PressureOrZero,
            Entry("A pump holds", GAUGE, "Depression that a pump holds", units=VACUUM_UNITS),
        ]
        | None
    ) = None
    reservoir: Reservoir | None = None

    @property
    def depression(self) -> float:
        """The vacuum that is there [Pa], the engine's or the pump's."""
        return float(depression(NumericBuild(self)))


def depression(part: NumericBuild) -> Floats:
    """Return the vacuum that is there [Pa], the engine's or the pump's, whichever is deeper."""
    pump = part.get("pump")
    return part["vacuum"] if pump is None else np.maximum(part["vacuum"], pump)


def _assist(part: NumericBuild) -> Assist:
    diameters = np.stack(np.broadcast_arrays(*part.row("diaphragm_diameters")), axis=-1)
    limit = vacuum_assist_limit(diameters.astype(float), depression(part))
    return Assist(part["crack_force"], part["jump_in"], part["gain"], limit)


VACUUM = BoosterKind(
    model=VacuumBooster,
    name="Vacuum booster",
    assist=_assist,
    new={"kind": "vacuum", "diaphragm_diameters": ["8 in"], "vacuum": "18 inHg", "gain": 3.0},
)
