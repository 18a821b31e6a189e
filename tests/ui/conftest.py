"""Hands for the window: drags in data coordinates, answers to dialogs."""

from collections.abc import Callable, Iterator
from typing import Any

import pytest
from PySide6.QtCore import QPoint, QPointF, Qt, QTimer
from PySide6.QtTest import QTest
from PySide6.QtWidgets import (
    QApplication,
    QInputDialog,
    QLabel,
    QMessageBox,
    QWidget,
)  # fmt: skip

from tests.waiting import rest
from urgens.ui.frame.stations import STATIONS
from urgens.ui.frame.window import MainWindow
from urgens.ui.stations.measure.kinds import KindButton
from urgens.ui.widgets.figure_label import FigureLabel
from urgens.ui.widgets.file_chooser import FileChooser
from urgens.ui.widgets.plane import Plane

LEFT = Qt.MouseButton.LeftButton


def page_of(window: MainWindow, station: str, name: str) -> Any:
    """Show a page of a station; it is painted when it comes back."""
    window.show_station(station)
    window.station(station).show_page_named(name)
    rest(30)
    return window.station(station).page  # type: ignore[attr-defined]


def words(page: QWidget) -> str:
    """All that its labels say now."""
    rest(20)
    return "\n".join(one.text() for one in page.findChildren(QLabel) if one.isVisible())


def on_plot(plot: Plane, x: float, y: float) -> QPoint:
    """Where a point of the data is on the plot's viewport."""
    return plot.mapFromScene(plot.scene_point(x, y))


def drag(
    widget: QWidget, start: QPoint, end: QPoint, *, release: bool = True, steps: int = 8
) -> None:
    """Press, move in steps, release."""
    QTest.mouseMove(widget, start)
    QTest.mousePress(widget, LEFT, pos=start)
    for step in range(1, steps + 1):
        QTest.mouseMove(widget, start + (end - start) * step / steps)
        rest(5)
    if release:
        QTest.mouseRelease(widget, LEFT, pos=end)
        rest(5)


def every_page(window: MainWindow, ms: int = 20) -> Iterator[tuple[str, str]]:
    """Show every page of every station, each for so many ms before it is looked at."""
    for kind in STATIONS:
        for page in kind.pages or ("",):
            window.show_station(kind.name)
            if page:
                window.station(kind.name).show_page_named(page)
            rest(ms)
            yield kind.name, page


def pull(widget: QWidget, start: QPointF, by: QPointF) -> None:
    """Drag from a point by a distance, in pixels."""
    drag(widget, start.toPoint(), (start + by).toPoint())


@pytest.fixture
def answer(dressed: QApplication) -> Callable[..., list[str]]:
    """Presses a button of the next message box and returns what the box said."""

    def prepare(button: str) -> list[str]:
        said: list[str] = []

        def press() -> None:
            box = dressed.activeModalWidget()
            assert isinstance(box, QMessageBox)
            said.extend((box.text(), box.informativeText()))
            buttons: Any = {b.text().replace("&", ""): b for b in box.buttons()}
            if button not in buttons:
                box.reject()  # a test that fails must not wait for ever
            buttons[button].click()

        QTimer.singleShot(50, press)
        return said

    return prepare


@pytest.fixture
def no_dialogs(monkeypatch: pytest.MonkeyPatch) -> None:
    """No dialog asks for a file or for words: whoever was asked left it."""
    monkeypatch.setattr(FileChooser, "ask", lambda *_, **__: [])
    monkeypatch.setattr(QInputDialog, "getText", lambda *_, text="", **__: (text, False))
    monkeypatch.setattr(QInputDialog, "getMultiLineText", lambda *_, text="", **__: (text, False))


@pytest.fixture
def measuring(window: MainWindow) -> MainWindow:
    window.show_station("Measure")
    rest(30)
    return window


def label(window: MainWindow, path: str) -> FigureLabel:
    found = window.station("Measure").label(path)
    assert found is not None, path
    return found


def type_into(target: FigureLabel, text: str) -> None:
    """Open the label by key, type over what is there, Enter."""
    target.setFocus()
    QTest.keyClick(target, Qt.Key.Key_Return)
    assert target.editor is not None
    QTest.keyClicks(target.editor, text)
    QTest.keyClick(target.editor, Qt.Key.Key_Return)


def choose(head: KindButton, words: str) -> None:
    """Choose another kind from the head of a drawing."""
    head.fill()
    (action,) = [a for a in head.menu().actions() if a.text() == words]
    action.trigger()
