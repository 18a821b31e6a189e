"""Master cylinders, and the balance bar between two of them; one record for each kind."""

from typing import TYPE_CHECKING, Annotated, Union

from pydantic import Field

from urgens.document.cylinders.kind import CylinderKind, CylinderPart
from urgens.document.cylinders.single import SINGLE
from urgens.document.cylinders.tandem import TANDEM
from urgens.document.cylinders.twin import TWIN

CYLINDERS: tuple[CylinderKind, ...] = (SINGLE, TANDEM, TWIN)
_BY_NAME = {record.kind: record for record in CYLINDERS}

if TYPE_CHECKING:
    Master = CylinderPart
else:
    Master = Annotated[
        Union[tuple(record.model for record in CYLINDERS)],  # noqa: UP007 - as many as there are
        Field(discriminator="kind"),
    ]


def cylinder_kind(master: CylinderPart | str) -> CylinderKind:
    """Return the record of a cylinder's kind, or of the kind so called; raises KeyError."""
    return _BY_NAME[master if isinstance(master, str) else master.kind]
