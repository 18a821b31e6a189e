"""Work away from the hand: no garbage is collected where objects of the window must not go."""

import gc
import subprocess
import sys
import threading
import weakref

import pytest
from PySide6.QtCore import QObject
from PySide6.QtWidgets import QApplication
from pytestqt.qtbot import QtBot

from urgens.ui.widgets import garbage
from urgens.ui.widgets.background import Background, Work, any_running


class Node(QObject):
    """Something of Qt that holds itself, so that only a collection ends it."""

    def __init__(self) -> None:
        super().__init__()
        self.own = self


def test_garbage_is_collected_between_events_alone(
    dressed: QApplication, qtbot: QtBot, monkeypatch: pytest.MonkeyPatch
) -> None:
    """In the middle of a call of Qt, or in a task's thread, it would hang the window."""
    assert not gc.isenabled()
    gc.collect()  # nothing is young now
    threads: list[int] = []
    gone = weakref.finalize(Node(), lambda: threads.append(threading.get_ident()))
    _ = [[] for _ in range(2 * garbage.YOUNG)]
    assert gone.alive  # however much is made meanwhile
    parent = QObject()
    work = Background(parent)
    kept: list[object] = []
    work.run(lambda progress: kept.extend([] for _ in range(4 * garbage.YOUNG)))
    monkeypatch.setattr(garbage, "_collections", garbage.ALL - 1)
    qtbot.waitUntil(lambda: not gone.alive, timeout=5000)
    assert threads == [threading.get_ident()]
    qtbot.waitUntil(lambda: not any_running(), timeout=5000)
    assert not gc.isenabled()


def test_tasks_that_nobody_waits_for_never_pile_up(qtbot: QtBot) -> None:
    """Edit after edit: one task runs, the last one is run, those between are not begun."""
    parent, go_on = QObject(), threading.Event()
    work, begun, came = Background(parent), [], []
    work.ended.connect(came.append)

    def task(number: int) -> Work:
        def run(progress: object) -> int:
            begun.append(number)
            go_on.wait(10.0)
            return number

        return run

    for number in range(5):
        work.run(task(number))
        qtbot.wait(20)
    assert begun == [0]
    assert work.busy
    go_on.set()
    qtbot.waitUntil(lambda: came == [4], timeout=5000)
    assert begun == [0, 4]


STUBBORN = """
import sys, time
from PySide6.QtCore import QTimer
from PySide6.QtWidgets import QApplication
from urgens.document import demo
from urgens.ui.application import dress
from urgens.ui.frame.window import MainWindow
from urgens.ui.session import Session
from urgens.ui.widgets.background import Background
application = QApplication([])
dress(application)
window = MainWindow(Session(demo("library")))
window.show()
work = Background(window)
work.run(lambda progress: time.sleep(600))
QTimer.singleShot(50, window.close)
QTimer.singleShot(80, application.quit)
application.exec()
print("closed")
"""


def test_a_task_that_does_not_look_up_never_outlives_the_window() -> None:
    run = subprocess.run(
        [sys.executable, "-c", STUBBORN], capture_output=True, text=True, check=False, timeout=120
    )
    assert (run.returncode, run.stdout) == (0, "closed\n"), run.stderr
