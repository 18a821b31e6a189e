"""Master cylinders, and the balance bar between two of them; one record for each kind."""

from typing import TYPE_CHECKING

from urgens.document.cylinders.kind import CylinderKind, CylinderPart
from urgens.document.cylinders.single import SINGLE
from urgens.document.cylinders.tandem import TANDEM
from urgens.document.cylinders.twin import TWIN
from urgens.document.kinds import one_of

CYLINDERS: tuple[CylinderKind, ...] = (SINGLE, TANDEM, TWIN)
_BY_NAME = {record.kind: record for record in CYLINDERS}

if TYPE_CHECKING:
    Master = CylinderPart
else:
    Master = one_of(CYLINDERS)


def cylinder_kind(master: CylinderPart | str) -> CylinderKind:
    """Return the record of a cylinder's kind, or of the kind so called; raises KeyError."""
    return _BY_NAME[master if isinstance(master, str) else master.kind]
