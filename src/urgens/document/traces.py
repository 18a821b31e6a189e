"""What was seen, tested and read on the way from a fault to its cause; what was changed when."""

from collections.abc import Iterator, Mapping
from datetime import datetime
from typing import Annotated, Any, Literal

from pydantic import AfterValidator, BeforeValidator, Field, PlainSerializer

from urgens.document.dates import read_time
from urgens.document.frozen import frozen, thawed
from urgens.document.part import Fault, Name, Part, Text

At = Annotated[datetime, BeforeValidator(read_time)]
PAIR = 2  # a change is an old value and a new one


class SeenSign(Part):
    """A sign, looked for: whether it was seen."""

    at: At
    sign: Name
    seen: bool = True


class TestDone(Part):
    """A test, and what it showed."""

    __test__ = False  # it is no test of ours

    at: At
    test: Name
    outcome: Name


class ReadFigure(Part):
    """A reading as it was typed, at a foot."""

    at: At
    reading: Name
    value: Name
    effort: Name


class TraceRun(Part):
    """One fault followed to its cause: what was seen, tested and read, and what it came to.

    `left_out` names what of the build's own records is not to count; `cause` and `mended` are told
    at the end. Without an end it is to be resumed.
    """

    started: At
    ended: At | None = None
    signs: tuple[SeenSign, ...] = ()
    tests: tuple[TestDone, ...] = ()
    readings: tuple[ReadFigure, ...] = ()
    left_out: tuple[Name, ...] = ()
    cause: Text = ""
    mended: bool = False
    note: Text = ""

    def rules(self) -> Iterator[Fault]:
        """Check that it does not end before it begins."""
        if self.ended is not None and self.ended < self.started:
            yield Fault("ended", "is before it was started", "write the later time, or none")


class HistoryEntry(Part):
    """What happened to the vehicle or its build on a day, and which figures it changed.

    `changes` holds an old value and a new one by path.
    """

    at: At
    what: Name
    why: Text = ""
    kind: Literal["change", "symptom", "service", "note"] = "change"
    changes: Annotated[Mapping[str, Any], AfterValidator(frozen), PlainSerializer(thawed)] = Field(
        default_factory=dict, validate_default=True
    )

    def rules(self) -> Iterator[Fault]:
        """Check that every change is a pair."""
        for path, pair in self.changes.items():
            if not isinstance(pair, tuple) or len(pair) != PAIR:
                yield Fault(f"changes.{path}", "is no pair", "write [old, new], null for nothing")
