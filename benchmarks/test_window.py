"""From an edit to the repainted window, offscreen."""

import os
from collections.abc import Callable, Iterator

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

import pytest
from PySide6.QtCore import QEvent
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication

from benchmarks.conftest import median
from urgens.build import demo, demo_names
from urgens.ui.application import dress
from urgens.ui.session import Session
from urgens.ui.window import Window

Report = Callable[..., None]


@pytest.fixture(params=demo_names())
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


def test_edit_to_repaint(window: Window, qapp: QApplication, report: Report) -> None:
    slopes = iter([0.25, 0.26] * 100)

    def edit() -> None:
        window.session.edit("valves.rear[0].slope", next(slopes))
        qapp.processEvents()

    name = window.session.build.name
    report(f"edit to repaint, {name}", median(edit, 60), wanted="under 16 ms")


def test_press_to_repaint(window: Window, qapp: QApplication, report: Report) -> None:
    efforts = iter([200.0, 205.0] * 100)

    def press() -> None:
        window.session.set_effort(next(efforts))
        qapp.processEvents()

    name = window.session.build.name
    report(f"press to repaint, {name}", median(press, 60), wanted="under 16 ms")
