"""What all tests share: documents to start from, and a window that leaves nothing behind."""

import copy
import json
import os
import threading
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

import pytest
from hypothesis import settings

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

from PySide6.QtCore import QEvent, QTimer
from PySide6.QtWidgets import QApplication

from tests.builds import bed, bed_text
from tests.fuzzing import MINUTES
from urgens.document import Build, loads, with_changes
from urgens.ui.application import dress
from urgens.ui.frame.stations import FIRST
from urgens.ui.frame.window import MainWindow
from urgens.ui.session import Session
from urgens.ui.theme.paint import T
from urgens.ui.theme.switch import use_theme
from urgens.ui.widgets import motion
from urgens.ui.widgets.background import any_running, wait_for_all
from urgens.ui.widgets.dimension_label import DimensionLabel
from urgens.ui.widgets.garbage import collect_some

# Speed is a benchmark, never a test. `make test` draws the same each time, so that what it says
# of a change is of the change; `make fuzz` draws anew, and more.
settings.register_profile(
    "urgens", deadline=None, derandomize=not MINUTES, max_examples=1000 if MINUTES else 40
)
settings.load_profile("urgens")


@pytest.fixture
def bakery() -> Build:
    return bed("bakery")


@pytest.fixture
def roadster() -> Build:
    return bed("roadster")


@pytest.fixture
def document() -> dict[str, Any]:
    """The bakery's build file as parsed JSON, to be damaged."""
    return copy.deepcopy(json.loads(bed_text("bakery")))


@pytest.fixture
def built(document: dict[str, Any]) -> Callable[..., Build]:
    """Makes a build from the bakery's document after changes {path: value}."""

    def make(changes: dict[str, Any] | None = None) -> Build:
        return with_changes(loads(json.dumps(document)), changes or {})

    return make


@pytest.fixture(scope="session")
def dressed(qapp: QApplication) -> QApplication:
    dress(qapp)
    motion.LONGEST = 0  # what is drawn is there at once, but where motion itself is tried
    return qapp


def python_threads() -> list[threading.Thread]:
    """Threads of Python's own, but for the one that ends a test that hangs."""
    others = ("Dummy", "pytest_timeout")
    return [t for t in threading.enumerate() if not t.name.startswith(others)]


@pytest.fixture(autouse=True)
def own_config(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    """Let parts and prices that a builder keeps on this machine be none of the tests' business."""
    monkeypatch.setenv("XDG_CONFIG_HOME", str(tmp_path / "config"))


@pytest.fixture(autouse=True)
def garbage() -> Iterator[None]:
    """Collect between tests as the window does between events, where a test has begun with that."""
    yield
    collect_some()


@pytest.fixture
def open_window(
    dressed: QApplication, qtbot: Any, request: pytest.FixtureRequest
) -> Iterator[Callable[[Build], MainWindow]]:
    """Opens windows, at the `STATION` of the file; at the end nothing of them may be left."""
    first = getattr(request.module, "STATION", FIRST)
    threads = python_threads()
    opened: list[MainWindow] = []

    def make(build: Build) -> MainWindow:
        window = MainWindow(Session(build), first=first)
        opened.append(window)
        window.show()
        window.activateWindow()
        qtbot.waitUntil(window.isActiveWindow)
        return window

    yield make
    for window in opened:
        for label in window.findChildren(DimensionLabel):
            label.leave_out()  # else closing asks about what a test that failed has typed
        window.session.undo_stack.setClean()
        window.close()
        assert [timer for timer in window.findChildren(QTimer) if timer.isActive()] == []
        window.deleteLater()
    dressed.sendPostedEvents(None, QEvent.Type.DeferredDelete.value)
    dressed.processEvents()
    if T.dark or T.stands_back:
        use_theme(dressed, dark=False)  # as the next test expects it
    wait_for_all(60.0)  # it was told to stop: on a slow machine that takes a while
    left = [
        (type(widget).__name__, widget.accessibleName(), getattr(widget, "text", str)())
        for widget in dressed.topLevelWidgets()
        if widget.isVisible()
    ]
    assert left == []
    assert not any_running()
    assert python_threads() == threads


@pytest.fixture
def window(open_window: Callable[[Build], MainWindow], bakery: Build) -> MainWindow:
    return open_window(bakery)
