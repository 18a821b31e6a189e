"""What is typed after an option, read: quantities, numbers, days, pairs; what is none is said."""

import argparse
from collections.abc import Callable
from datetime import datetime

from urgens.quantity import (
    FORCE,
    LENGTH,
    SPEED,
    QuantityError,
    QuantityKind,
    decimal,
    parse,
    whole_number,
)
from urgens.quantity.day import time_ago, typed_time
from urgens.quantity.limits import looked_at, road
from urgens.quantity.whole import LARGEST


def said(read: Callable[[str], float]) -> Callable[[str], float]:
    """Return a reader whose complaint argparse passes on."""

    def tried(text: str) -> float:
        try:
            return read(text)
        except QuantityError as error:
            raise argparse.ArgumentTypeError(str(error)) from error

    return tried


def quantity(kind: QuantityKind) -> Callable[[str], float]:
    """Return a reader of a quantity of a kind, zero or more, in SI."""

    def read(text: str) -> float:
        value = parse(text, kind).value
        if value < 0:
            raise QuantityError(f'"{text}" is negative', "write zero or more")
        return value

    return said(read)


def number_of(name: str, wanted: str, fits: Callable[[float], bool]) -> Callable[[str], float]:
    """Return a reader of a bare number, so called, that says what is wanted."""

    def read(text: str) -> float:
        try:
            value = decimal(text)
        except ValueError:
            value = float("nan")
        if not fits(value):
            raise argparse.ArgumentTypeError(f'"{text}" is no {name}; write {wanted}')
        return value

    return read


force, length = quantity(FORCE), quantity(LENGTH)
coefficient = said(road)
speed = said(lambda text: looked_at(parse(text, SPEED).value))
ratio = number_of("pedal ratio", "1 to 20, such as 6", lambda x: 1 <= x <= 20)
margin = number_of(
    "margin of adhesion", "0 or more and less than 1, such as 0.05", lambda x: 0 <= x < 1
)


def bores(text: str) -> tuple[float, float | None]:
    """Read a bore, or "FRONT:REAR" of twin cylinders."""
    front, colon, rear = text.partition(":")
    read = quantity(LENGTH)
    found = read(front), read(rear) if colon else None
    if any(bore == 0 for bore in found):
        raise argparse.ArgumentTypeError(f'"{text}" is zero; write a bore such as 7/8 in')
    return found


def count_of_draws(text: str) -> int:
    """Read how many builds are drawn."""
    count = whole_number(text, 10_000_000)
    if not count:
        raise argparse.ArgumentTypeError(
            f'"{text}" is no number of draws; write 1 to 10000000, such as 100000'
        )
    return count


def seed(text: str) -> int:
    """Read a seed, a whole number."""
    number = whole_number(text)
    if number is None:
        raise argparse.ArgumentTypeError(
            f'"{text}" is no seed; write a whole number up to {LARGEST}, such as 1'
        )
    return number


def outcome(text: str) -> tuple[str, str]:
    """Read TEST=OUTCOME."""
    test, equals, outcome = text.partition("=")
    if not (equals and test and outcome):
        raise argparse.ArgumentTypeError(
            f'"{text}" is no outcome; write TEST=OUTCOME, such as hold=sinks'
        )
    return test, outcome


def sign(text: str) -> tuple[str, tuple[str, ...]]:
    """Read SIGN, or SIGN:ANSWER with as many answers as it asks for."""
    name, *answers = (part.strip() for part in text.split(":"))
    if not name or not all(answers):
        raise argparse.ArgumentTypeError(
            f'"{text}" is no sign; write ID or ID:ANSWER, such as pulls:left'
        )
    return name, tuple(answers)


def reading(text: str) -> tuple[str, str, str, tuple[str, ...]]:
    """Read NAME=VALUE@FOOT;HOW, with or without quotes around value and foot."""
    whole, *how = (part.strip() for part in text.split(";"))
    name, equals, rest = whole.partition("=")
    value, _, foot = (part.strip().strip('"') for part in rest.partition("@"))
    if not (equals and name and value):
        raise argparse.ArgumentTypeError(
            f'"{text}" is no reading; write NAME=VALUE@FOOT, such as travel="60 mm"@"300 N"'
        )
    return name.strip(), value, foot, tuple(one for one in how if one)


def since(text: str) -> datetime:
    """Read since when something is so: a day, a weekday, a while ago."""
    try:
        return time_ago(text, datetime.now())
    except ValueError as error:
        raise argparse.ArgumentTypeError(str(error)) from None


def channel(text: str) -> tuple[str, str, str]:
    """Read NAME=COLUMN:UNIT; a column may hold a colon, a unit does not."""
    name, equals, rest = text.partition("=")
    column, colon, unit = rest.rpartition(":")
    if not (equals and colon and name and column and unit):
        raise argparse.ArgumentTypeError(
            f'"{text}" is no channel; write NAME=COLUMN:UNIT, such as front_pressure=P1:bar'
        )
    return name, column, unit


def moment(text: str) -> datetime:
    """Read a day, or a day and a time."""
    try:
        return typed_time(text)
    except ValueError:
        raise argparse.ArgumentTypeError(
            f'"{text}" is no day; write year-month-day, such as 2026-05-31'
        ) from None
