"""Dates and times as they stand in a build file."""

from collections.abc import Callable
from datetime import date, datetime
from typing import TypeVar

from urgens.document.model import PartFault, broken, in_words

T = TypeVar("T", bound=date)


def read_date(given: object) -> date:
    """Return a date as it is written, year-month-day; what is none is said in words."""
    return _read(given, "date", 'write year-month-day: "2026-05-31"', date.fromisoformat)


def read_time(given: object) -> datetime:
    """Return a time as it is written, to the minute; what is none is said in words."""
    return _read(given, "time", 'write day and time: "2026-05-31T14:10"', _of_the_clock)


def _of_the_clock(given: str) -> datetime:
    made = datetime.fromisoformat(given)
    if made.tzinfo is not None:  # a time of the wall's clock, so that all can be compared
        raise ValueError("has a zone")
    return made


def _read(given: object, what: str, remedy: str, read: Callable[[str], T]) -> T:
    fault = PartFault("", f"is {in_words(given)}, not a {what}", remedy)
    if not isinstance(given, str):
        raise broken(fault)
    try:
        return read(given)
    except ValueError:
        raise broken(fault) from None
