"""What was seen, tested and read on the way from a fault to its cause."""

from collections.abc import Iterator
from datetime import datetime
from typing import Annotated

from pydantic import BeforeValidator

from urgens.document.dates import read_time
from urgens.document.model import DocumentModel, Name, PartFault, Text

At = Annotated[datetime, BeforeValidator(read_time)]


class SeenSign(DocumentModel):
    """A sign, looked for: whether it was seen."""

    at: At
    sign: Name
    seen: bool = True


class TestDone(DocumentModel):
    """A test, and what it showed."""

    __test__ = False  # it is no test of ours

    at: At
    test: Name
    outcome: Name


class ReadFigure(DocumentModel):
    """A reading as it was typed, at a foot."""

    at: At
    reading: Name
    value: Name
    effort: Name


class TraceRun(DocumentModel):
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

    def rules(self) -> Iterator[PartFault]:
        """Check that it does not end before it begins."""
        if self.ended is not None and self.ended < self.started:
            yield PartFault("ended", "is before it was started", "write the later time, or none")
