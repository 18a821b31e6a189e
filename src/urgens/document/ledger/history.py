"""What happened to a vehicle on a day, and which figures it changed."""

from collections.abc import Iterator, Mapping
from datetime import datetime
from typing import Annotated, Any, Literal

from pydantic import AfterValidator, BeforeValidator, Field, PlainSerializer

from urgens.document.dates import read_time
from urgens.document.frozen import frozen, thawed
from urgens.document.model import DocumentModel, Name, PartFault, Text

At = Annotated[datetime, BeforeValidator(read_time)]
PAIR = 2  # a change is an old value and a new one


class HistoryEntry(DocumentModel):
    """What happened to the vehicle or its build on a day, and which figures it changed.

    `changes` holds an old value and a new one by path, null for nothing.
    """

    at: At
    what: Name
    why: Text = ""
    kind: Literal["change", "symptom", "service", "note"] = "change"
    changes: Annotated[Mapping[str, Any], AfterValidator(frozen), PlainSerializer(thawed)] = Field(
        default_factory=dict, validate_default=True
    )

    def rules(self) -> Iterator[PartFault]:
        """Check that every change is a pair."""
        for path, pair in self.changes.items():
            if not isinstance(pair, tuple) or len(pair) != PAIR:
                yield PartFault(
                    f"changes.{path}", "is no pair", "write [old, new], null for nothing"
                )
