"""The vehicle as it stands, from long records: wanted at most 20 ms for 2,000 entries.

Beside it a bare sort of as many dated rows: what no condition can be had without.
"""

from collections.abc import Iterator
from datetime import datetime, timedelta
from typing import Any

import pytest
from PySide6.QtCore import QEvent
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication
from tests.builds import bed, on_record, whole_run

from urgens.document import Build, with_changes
from urgens.guidance.condition.holds import condition
from urgens.ui.application import dress
from urgens.ui.frame.window import MainWindow
from urgens.ui.session import Session

AT = datetime(2026, 12, 1, 12)


def worked(entries: int) -> Build:
    """The van, proved once and bled again until so many entries are on record."""
    van = bed("library")
    whole = on_record(van)
    runs, day, kept = [], 3, 0
    while kept < entries:
        runs.append(whole_run(van, "bleed", day % 26 + 3))
        kept += len(runs[-1]["entries"])
        day += 1
    return with_changes(van, {**whole, "records": [*whole["records"], *runs]})


@pytest.mark.benchmark(group="condition: 2,000 entries, after an edit")
def test_condition_of_long_records(benchmark: Any) -> None:
    build = worked(2000)
    edits = iter(with_changes(build, {"notes": f"{n}"}) for n in range(1000))

    def fresh() -> tuple[tuple[Build, datetime], dict[str, Any]]:
        return (next(edits), AT), {}

    assert benchmark.pedantic(condition, setup=fresh, rounds=20, warmup_rounds=1).holds


@pytest.mark.benchmark(group="condition: 2,000 entries, after an edit")
def test_bare_sort_of_as_many(benchmark: Any) -> None:
    rows = [(AT - timedelta(minutes=37 * n % 9973), False, 0, n) for n in range(7000)]
    assert benchmark(lambda: sorted(rows))


@pytest.fixture
def window(qapp: QApplication) -> Iterator[MainWindow]:
    dress(qapp)
    shown = MainWindow(Session(worked(200)))
    shown.show()
    QTest.qWait(300)
    yield shown
    shown.session.undo_stack.setClean()
    shown.close()
    shown.deleteLater()
    qapp.sendPostedEvents(None, QEvent.Type.DeferredDelete.value)


@pytest.mark.benchmark(group="to the repainted page")
@pytest.mark.parametrize("page", ["Card", "As it stands"])
def test_edit_to_repaint_with_records(
    benchmark: Any, window: MainWindow, qapp: QApplication, page: str
) -> None:
    window.show_station("Bleed")
    window.station("Bleed").show_page_named(page)
    QTest.qWait(300)
    slopes = iter([0.25, 0.26] * 10_000)

    def settle() -> None:
        qapp.processEvents()
        qapp.processEvents()

    def edit() -> None:
        window.session.edit("valves.rear[0].slope", next(slopes))
        qapp.sendPostedEvents()  # paints the page; timers wait

    benchmark.pedantic(edit, setup=settle, rounds=40, warmup_rounds=3)
    assert window.session.build.valves.rear[0].slope in (0.25, 0.26)
