"""From an edit or a press to the repainted page, offscreen. Wanted: under 16 ms.

After an edit the page is painted first; what is only read follows with the next turn of the loop.
"""

from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from PySide6.QtCore import QEvent
from PySide6.QtWidgets import QApplication
from tests.builds import bed, largest
from tests.waiting import rest

from benchmarks.repaint import SLOPES, opened, slopes_of, time_edits
from urgens.sheet.files import write_solution
from urgens.ui.frame.window import MainWindow
from urgens.ui.stations.balance.valve_setting import knee_moved, valve_setting


@pytest.fixture(params=("bakery", "roadster"))
def window(request: pytest.FixtureRequest, qapp: QApplication) -> Iterator[MainWindow]:
    yield from opened(bed(request.param), qapp)


@pytest.fixture(params=("bakery", "largest"))
def either(request: pytest.FixtureRequest, qapp: QApplication) -> Iterator[MainWindow]:
    """The demo, and a build as large as any: 60 load cases, 20 set-ups, 200 figures known."""
    build = largest() if request.param == "largest" else bed("bakery")
    yield from opened(build, qapp)


PAGES = [("Measure", ""), ("Size", "Map"), ("Size", "Pedal"), ("Balance", ""), ("Plumb", ""),
         ("Bleed", ""), ("Prove", "Gauges"), ("Trace", "Fault"), ("Sheet", ""), ("Sheet", "Plan"),
         ("Sheet", "History"), ("Sheet", "Compare"), ("Sheet", "Ladder")]  # fmt: skip


@pytest.mark.benchmark(group="to the repainted page")
@pytest.mark.parametrize(("station", "page"), PAGES)
def test_edit_to_repaint(
    benchmark: Any, window: MainWindow, qapp: QApplication, station: str, page: str
) -> None:
    window.show_station(station)
    if page:
        window.station(station).show_page_named(page)
    rest(200)
    time_edits(benchmark, qapp, slopes_of(window))
    assert window.session.build.valves.rear[0].slope in SLOPES


@pytest.mark.benchmark(group="to the repainted window, all of it")
def test_edit_to_all_told(benchmark: Any, window: MainWindow, qapp: QApplication) -> None:
    slopes = iter([0.25, 0.26] * 10_000)

    def edit() -> None:
        window.session.edit("valves.rear[0].slope", next(slopes))
        while window.session.telling:
            qapp.processEvents()
        qapp.processEvents()

    benchmark(edit)
    assert not window.session.telling


@pytest.mark.benchmark(group="large and small: to the repainted window, at most 5 times")
def test_edit_to_repaint_of_the_largest(
    benchmark: Any, either: MainWindow, qapp: QApplication
) -> None:
    slopes = iter([0.25, 0.26] * 10_000)

    def edit() -> None:
        either.session.edit("valves.rear[0].slope", next(slopes))
        qapp.processEvents()

    benchmark(edit)
    assert either.session.build.valves.rear[0].slope in (0.25, 0.26)


@pytest.mark.benchmark(group="large and small: theme, at most 0.5 s on the demo")
def test_switch_of_theme(benchmark: Any, either: MainWindow, qapp: QApplication) -> None:
    def switch() -> None:
        either.switch_theme()
        qapp.processEvents()

    def gone() -> None:  # what is let go goes between two switches, as in the running window
        qapp.sendPostedEvents(None, QEvent.Type.DeferredDelete.value)

    benchmark.pedantic(switch, setup=gone, rounds=6, warmup_rounds=1)
    assert either.bench.current().isVisible()


@pytest.mark.benchmark(group="large and small: sheet, at most 3 s")
@pytest.mark.parametrize("form", ["pdf", "html"])
def test_sheet(benchmark: Any, either: MainWindow, tmp_path: Path, form: str) -> None:
    path, session = tmp_path / f"sheet.{form}", either.session
    benchmark(write_solution, session.solution, path, session.units)
    assert path.stat().st_size > 1000


@pytest.mark.benchmark(group="to the repainted window")
@pytest.mark.parametrize("page", ["Map", "Pedal"])
def test_pin_to_repaint(benchmark: Any, window: MainWindow, qapp: QApplication, page: str) -> None:
    """The pushrod's pin dragged: map, windows, linkage and press follow at every step."""
    window.show_station("Size")
    window.station("Size").show_page_named(page)
    rest(100)
    pad = window.session.build.pedal.pivot_to_pad.value
    pins = iter([f"{pad / 5.0:.4f} m", f"{pad / 5.1:.4f} m"] * 10_000)
    window.session.begin_drag()

    def move() -> None:
        window.session.edit("pedal.pivot_to_pushrod", next(pins))
        qapp.processEvents()

    benchmark(move)
    window.session.end_drag()
    assert float(window.session.solution.system.pedal_ratio) == pytest.approx(5.05, abs=0.06)


@pytest.mark.benchmark(group="to the repainted window")
def test_knee_to_repaint(benchmark: Any, window: MainWindow, qapp: QApplication) -> None:
    """The rear valve's knee dragged: both plots follow at every step, words and press soon."""
    knees = iter([22e5, 24e5] * 10_000)
    window.session.begin_drag()

    def move() -> None:
        setting = valve_setting(window.session)
        assert setting is not None
        window.session.make(knee_moved(window.session, setting, next(knees)))
        qapp.processEvents()

    benchmark(move)
    window.session.end_drag()
    setting = valve_setting(window.session)
    assert setting is not None
    assert setting.knee == pytest.approx(23e5, abs=2e5)


@pytest.mark.benchmark(group="to the repainted window")
def test_press_to_repaint(benchmark: Any, window: MainWindow, qapp: QApplication) -> None:
    efforts = iter([200.0, 205.0] * 10_000)

    def press() -> None:
        window.session.set_effort(next(efforts))
        qapp.processEvents()

    benchmark(press)
    assert window.session.effort in (200.0, 205.0)
