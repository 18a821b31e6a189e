"""Parts of several kinds in one field of the build: as many as a table has records."""

from collections.abc import Sequence
from typing import Annotated, Any, Protocol, Union

from pydantic import Field


class KindRecord(Protocol):
    """What a table of kinds holds, as far as the field is concerned."""

    @property
    def model(self) -> type[Any]:
        """The model of one such part."""


def one_of(records: Sequence[KindRecord]) -> Any:
    """Return the type of a field that holds a part of any kind in the table, told by `kind`."""
    models = tuple(record.model for record in records)
    return Annotated[Union[models], Field(discriminator="kind")]  # noqa: UP007 - so many as there are
