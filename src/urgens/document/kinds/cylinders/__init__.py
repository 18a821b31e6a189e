"""Master cylinders, and the balance bar between two of them; one record for each kind."""

from typing import TYPE_CHECKING

from urgens.document.kinds.cylinders.kind import CylinderKind, CylinderPart
from urgens.document.kinds.cylinders.single import SINGLE
from urgens.document.kinds.cylinders.tandem import TANDEM
from urgens.document.kinds.cylinders.twin import TWIN
from urgens.document.kinds.one_of import one_of

CYLINDERS: tuple[CylinderKind, ...] = (SINGLE, TANDEM, TWIN)
_BY_NAME = {record.kind: record for record in CYLINDERS}

if TYPE_CHECKING:
    Master = CylinderPart
else:
    Master = one_of(CYLINDERS)


def cylinder_kind(master: CylinderPart | str) -> CylinderKind:
    """Return the record of a cylinder's kind, or of the kind so called; raises KeyError."""
    return _BY_NAME[master if isinstance(master, str) else master.kind]
