"""The vehicle as it stands, from long records: wanted at most 20 ms for 2,000 events.

An event opened, shut, fitted, took off or read something: one deed of the fold.

Beside it a bare sort of as many dated rows: what no condition can be had without.
"""

from collections.abc import Iterator
from datetime import datetime, timedelta
from typing import Any

import pytest
from PySide6.QtWidgets import QApplication
from tests.builds import bed, on_record, whole_run
from tests.waiting import rest

from benchmarks.repaint import SLOPES, opened, slopes_of, time_edits
from urgens.document import Build, with_changes
from urgens.guidance.condition.deeds import deeds
from urgens.guidance.condition.holds import condition
from urgens.ui.frame.window import MainWindow

AT = datetime(2026, 12, 1, 12)


def worked(events: int) -> Build:
    """The van, proved once and bled again until so many events are on record."""
    van = bed("library")
    whole = on_record(van)
    each = len(deeds(with_changes(van, {"records": [whole_run(van, "bleed")]}), AT))
    count = max((events - len(deeds(with_changes(van, whole), AT))) // each, 0)
    runs = [whole_run(van, "bleed", 3 + number % 26) for number in range(count)]
    return with_changes(van, {**whole, "records": [*whole["records"], *runs]})


@pytest.mark.benchmark(group="condition: 2,000 events, after an edit")
def test_condition_of_long_records(benchmark: Any) -> None:
    build = worked(2000)
    edits = iter(with_changes(build, {"notes": f"{n}"}) for n in range(1000))

    def fresh() -> tuple[tuple[Build, datetime], dict[str, Any]]:
        return (next(edits), AT), {}

    assert benchmark.pedantic(condition, setup=fresh, rounds=20, warmup_rounds=1).holds


@pytest.mark.benchmark(group="condition: 2,000 events, after an edit")
def test_bare_sort_of_as_many(benchmark: Any) -> None:
    rows = [(AT - timedelta(minutes=37 * n % 9973), False, 0, n) for n in range(2000)]
    assert benchmark(lambda: sorted(rows))


@pytest.fixture
def window(qapp: QApplication) -> Iterator[MainWindow]:
    yield from opened(worked(200), qapp)


@pytest.mark.benchmark(group="to the repainted page")
@pytest.mark.parametrize("page", ["Card", "As it stands"])
def test_edit_to_repaint_with_records(
    benchmark: Any, window: MainWindow, qapp: QApplication, page: str
) -> None:
    window.show_station("Bleed")
    window.station("Bleed").show_page_named(page)
    rest(300)
    time_edits(benchmark, qapp, slopes_of(window))
    assert window.session.build.valves.rear[0].slope in SLOPES


@pytest.mark.benchmark(group="to the repainted page")
def test_card_to_repaint_with_records(
    benchmark: Any, window: MainWindow, qapp: QApplication
) -> None:
    """An edit of Bleed itself: a card that goes on, back and forth."""
    window.show_station("Bleed")
    window.station("Bleed").show_page_named("Card")
    page = window.station("Bleed").page
    page.choose("bleed")
    page.go_on()
    page.go_on()
    ways = iter([1, -1] * 10_000)
    time_edits(benchmark, qapp, lambda: page.run.go(next(ways)))
    assert page.run.number in (2, 3)
