"""What stops the vehicle before anything is traced, and what excludes what."""

from collections.abc import Iterator, Mapping
from functools import lru_cache

from pydantic import Field

from urgens.data import trace_table
from urgens.document.model import TableRow
from urgens.guidance.faults.tables import tables

NOT = "not "


class Excluding(TableRow):
    """Two things that are not both so, and what to say of it."""

    pair: tuple[str, str]
    words: str


class Stopping(TableRow):
    """What stops the vehicle when all of it is seen, and why."""

    all: tuple[str, ...] = Field(min_length=1)
    words: str


class _Together(TableRow):
    excluding: tuple[Excluding, ...]
    stops: tuple[Stopping, ...]


@lru_cache(maxsize=1)
def _together() -> _Together:
    whole, known = _Together.model_validate(trace_table("together")), set(_known())
    for token in (*(t for one in whole.excluding for t in one.pair),
                  *(t for one in whole.stops for t in one.all)):  # fmt: skip
        if token.removeprefix(NOT) not in known:
            raise ValueError(f"together: there is no {token}")
    return whole


def _known() -> Iterator[str]:
    whole = tables()
    yield from (one.id for one in whole.signs)
    for test in whole.tests:
        yield from (f"{test.id}={one.id}" for one in test.outcomes)


def _said(signs: Mapping[str, bool], outcomes: Mapping[str, str]) -> set[str]:
    seen = {name if yes else f"{NOT}{name}" for name, yes in signs.items()}
    return seen | {f"{test}={outcome}" for test, outcome in outcomes.items()}


def contradictions(signs: Mapping[str, bool], outcomes: Mapping[str, str]) -> tuple[str, ...]:
    """Return what excludes each other, in words.

    signs: whether each was seen; outcomes: of tests, by their ids [text].
    Source: common practice: one of the two was seen or noted wrongly, or two things are wrong.
    """
    said = _said(signs, outcomes)
    return tuple(one.words for one in _together().excluding if set(one.pair) <= said)


def stops(signs: Mapping[str, bool], outcomes: Mapping[str, str]) -> tuple[str, ...]:
    """Return why the vehicle is not to be driven, in words.

    signs, outcomes: as for `contradictions`.
    Source: common practice: a sinking or lost pedal, a leak, a lamp with a falling pedal.
    """
    said = _said(signs, outcomes)
    told = (f"{one.words}. {one.stops}" for one in tables().signs
            if one.stops and one.id in said)  # fmt: skip
    more = (one.words for one in _together().stops if set(one.all) <= said)
    return (*told, *more)
