"""Master cylinders, and the balance bar between two of them; one record for each kind."""

from typing import TYPE_CHECKING

from urgens.document.kinds.cylinders.kind import CylinderKind, CylinderPart
from urgens.document.kinds.cylinders.single import SINGLE
from urgens.document.kinds.cylinders.stepped import STEPPED
from urgens.document.kinds.cylinders.tandem import TANDEM
from urgens.document.kinds.cylinders.twin import TWIN
from urgens.document.kinds.one_of import one_of, record_of

CYLINDERS: tuple[CylinderKind, ...] = (SINGLE, TANDEM, TWIN, STEPPED)
cylinder_kind = record_of(CYLINDERS)  # of a part, or of the kind so called

if TYPE_CHECKING:
    Master = CylinderPart
else:
    Master = one_of(CYLINDERS)
