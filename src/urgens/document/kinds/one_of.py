"""Parts of several kinds in one field of the build: as many as a table has records."""

from collections.abc import Callable, Sequence
from typing import Annotated, Any, TypeVar, Union

from pydantic import Field


class KindRecord:
    """What is known of one kind of part; `model` is its part in the document."""

    model: type[Any]

    @property
    def kind(self) -> str:
        """Its name in the build file."""
        return str(self.model.model_fields["kind"].annotation.__args__[0])


R = TypeVar("R", bound=KindRecord)


def one_of(records: Sequence[KindRecord]) -> Any:
    """Return the type of a field that holds a part of any kind in the table, told by `kind`."""
    models = tuple(record.model for record in records)
    return Annotated[Union[models], Field(discriminator="kind")]  # noqa: UP007 - so many as there are


def record_of(records: Sequence[R]) -> Callable[[Any], R]:
    """Return what finds the record of a part's kind, or of the kind so called; raises KeyError."""
    by_name = {record.kind: record for record in records}
    return lambda part: by_name[part if isinstance(part, str) else part.kind]
