"""Each kind of way fitted once more: the best that leaves the rear first in few builds alone."""

from collections.abc import Callable, Iterator, Sequence

import numpy as np

from urgens.document import Build, with_changes
from urgens.document.kinds.bores import sold_bores
from urgens.document.kinds.brakes import brake_kind
from urgens.studies.rear_first_chance import rear_first_chances
from urgens.studies.valve_fits import (
    KNEES,
    FittedWay,
    Search,
    bar_way,
    bore_way,
    limiting_way,
    load_sensing_way,
    piston_way,
    sold_reducing,
)

LIMIT = 0.05  # of the draws in which the rear may be first: common practice
DRAWS = 2_000  # while searching; what is found is drawn in full
STEPS = 24  # between a fit and the least rear braking of its kind

Row = Sequence[FittedWay]  # of one kind, ever less braking behind


def surer_ways(search: Search, way: FittedWay, build: Build) -> Iterator[FittedWay]:
    """Yield ways of a kind that keep the chance of the rear first within the limit.

    way: as it was fitted without asking for that; build: what they are fitted to.
    Of each row that has less braking behind from one to the next, the first that does.
    Source: bisection; `studies.rear_first_chance`.
    """
    for row in ROWS[way.kind](search, way):
        found = _first_within(build, row)
        if found is not None:
            yield found


def _first_within(build: Build, row: Row) -> FittedWay | None:
    """Return the first way of a row within the limit, None where even the last is not."""
    low, high = -1, len(row) - 1
    if high < 0 or not _within(build, row[high]):
        return None
    while high - low > 1:
        middle = (low + high) // 2
        low, high = (low, middle) if _within(build, row[middle]) else (middle, high)
    return row[high]


def _within(build: Build, way: FittedWay) -> bool:
    (chance,) = rear_first_chances([with_changes(build, way.changes)], DRAWS)
    return chance <= LIMIT


def _reducing(search: Search, way: FittedWay) -> Iterator[Row]:
    rows: dict[tuple[float | None, tuple[str, ...]], list[FittedWay]] = {}
    for one in sold_reducing(search):
        rows.setdefault((one.slope, tuple(one.changes)), []).append(one)
    for row in rows.values():
        yield sorted(row, key=lambda one: -(one.knee or 0.0))


def _limiting(search: Search, way: FittedWay) -> Iterator[Row]:
    assert way.knee is not None
    yield [limiting_way(search, knee) for knee in np.geomspace(way.knee, KNEES[0], STEPS)]


def _load_sensing(search: Search, way: FittedWay) -> Iterator[Row]:
    assert way.knee is not None
    assert way.heavy is not None
    assert way.slope is not None
    yield [
        load_sensing_way(search, way.knee * share, way.heavy * share, way.slope)
        for share in np.geomspace(1.0, 0.1, STEPS)
    ]


def _bar(search: Search, way: FittedWay) -> Iterator[Row]:
    assert search.made.bar_length is not None
    assert way.bar_offset is not None
    most = float(search.made.bar_length) / 4.0
    yield [bar_way(search, offset) for offset in np.linspace(way.bar_offset, most, STEPS)]


def _bores(search: Search, way: FittedWay) -> Iterator[Row]:
    assert way.size is not None
    yield [bore_way(search, one) for one in sold_bores() if one.value >= way.size.value]


def _pistons(search: Search, way: FittedWay) -> Iterator[Row]:
    assert way.size is not None
    sizes = brake_kind(search.build.rear.brake).sold()
    smaller = [one for one in sizes if one.value <= way.size.value]
    yield [piston_way(search, one) for one in sorted(smaller, key=lambda one: -one.value)]


def _none(search: Search, way: FittedWay) -> Iterator[Row]:
    yield from ()


ROWS: dict[str, Callable[[Search, FittedWay], Iterator[Row]]] = {
    "none": _none, "reducing": _reducing, "limiting": _limiting, "load-sensing": _load_sensing,
    "bar": _bar, "bores": _bores, "pistons": _pistons,
}  # fmt: skip
