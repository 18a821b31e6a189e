"""From an edit or a press to the repainted window, offscreen. Wanted: under 16 ms."""

from collections.abc import Iterator
from typing import Any

import pytest
from PySide6.QtCore import QEvent
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication

from urgens.document import demo
from urgens.ui.application import dress
from urgens.ui.frame.window import Window
from urgens.ui.session import Session
from urgens.ui.stations.balance.valve_setting import knee_moved, valve_setting


@pytest.fixture(params=("pickup", "roadster"))
def window(request: pytest.FixtureRequest, qapp: QApplication) -> Iterator[Window]:
    dress(qapp)
    shown = Window(Session(demo(request.param)))
    shown.show()
    QTest.qWait(300)
    yield shown
    shown.session.undo_stack.setClean()
    shown.close()
    shown.deleteLater()
    qapp.sendPostedEvents(None, QEvent.Type.DeferredDelete.value)


@pytest.mark.benchmark(group="to the repainted window")
def test_edit_to_repaint(benchmark: Any, window: Window, qapp: QApplication) -> None:
    slopes = iter([0.25, 0.26] * 10_000)

    def edit() -> None:
        window.session.edit("valves.rear[0].slope", next(slopes))
        qapp.processEvents()

    benchmark(edit)
    assert window.session.build.valves.rear[0].slope in (0.25, 0.26)


@pytest.mark.benchmark(group="to the repainted window")
@pytest.mark.parametrize("page", ["Map", "Pedal"])
def test_pin_to_repaint(benchmark: Any, window: Window, qapp: QApplication, page: str) -> None:
    """The pushrod's pin dragged: map, windows, linkage and press follow at every step."""
    window.show_station("Size")
    window.station("Size").show_page_named(page)
    QTest.qWait(100)
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
def test_knee_to_repaint(benchmark: Any, window: Window, qapp: QApplication) -> None:
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
def test_press_to_repaint(benchmark: Any, window: Window, qapp: QApplication) -> None:
    efforts = iter([200.0, 205.0] * 10_000)

    def press() -> None:
        window.session.set_effort(next(efforts))
        qapp.processEvents()

    benchmark(press)
    assert window.session.effort in (200.0, 205.0)
