"""What was seen, tested and read on the way from a fault to its cause."""

from collections.abc import Iterator
from datetime import datetime
from typing import Annotated

from pydantic import BeforeValidator

from urgens.document.dates import read_time
from urgens.document.model import DocumentModel, Name, PartFault, Text

At = Annotated[datetime, BeforeValidator(read_time)]


class SeenSign(DocumentModel):
    """A sign, looked for: whether it was seen, and `how`: answers to what it asks besides."""

    at: At
    sign: Name
    seen: bool = True
    how: tuple[Name, ...] = ()


class TestDone(DocumentModel):
    """A test, and what it showed."""

    __test__ = False  # it is no test of ours

    at: At
    test: Name
    outcome: Name


class ReadFigure(DocumentModel):
    """A reading as it was typed, at a foot; `how` the vehicle was: moving, its engine off, hot."""

    at: At
    reading: Name
    value: Name
    effort: Name
    how: tuple[Name, ...] = ()


class TraceRun(DocumentModel):
    """One fault followed to its cause: what was seen, tested and read, and what it came to.

    `since` tells when the fault began, where that is known: what was recorded from then on counts,
    but for what is `left_out`; of what is older only what was `taken_in` does, each by its name.
    `cause` and `mended` are told at the end. Without an end it is to be resumed.
    """

    started: At
    since: At | None = None
    ended: At | None = None
    signs: tuple[SeenSign, ...] = ()
    tests: tuple[TestDone, ...] = ()
    readings: tuple[ReadFigure, ...] = ()
    left_out: tuple[Name, ...] = ()
    taken_in: tuple[Name, ...] = ()
    cause: Text = ""
    mended: bool = False
    note: Text = ""

    @property
    def began(self) -> datetime:
        """When the fault began: as it is told, else when it began to be followed."""
        return self.started if self.since is None else self.since

    def rules(self) -> Iterator[PartFault]:
        """Check that it does not end before it begins, nor begin after it was followed."""
        if self.since is not None and self.since > self.started:
            yield PartFault("since", "is after it was followed", "write the earlier time, or none")
        if self.ended is not None and self.ended < self.started:
            yield PartFault("ended", "is before it was started", "write the later time, or none")
