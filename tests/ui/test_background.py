"""Work away from the hand: no garbage is collected where objects of the window must not go."""

import gc
import threading

from PySide6.QtCore import QObject
from pytestqt.qtbot import QtBot

from urgens.ui.widgets.background import Background, any_running


def test_no_garbage_is_collected_while_a_task_runs(qtbot: QtBot) -> None:
    """A collection in a thread of its own would destroy widgets there, and hang the window."""
    parent, go_on, seen = QObject(), threading.Event(), []
    work = Background(parent)

    def task(progress: object) -> None:
        seen.append(gc.isenabled())
        go_on.wait(10.0)

    work.run(task)
    qtbot.waitUntil(lambda: seen == [False], timeout=5000)
    work.stop()  # nobody waits for it any more; it runs on
    qtbot.wait(400)
    assert not gc.isenabled()
    go_on.set()
    qtbot.waitUntil(lambda: not any_running() and gc.isenabled(), timeout=5000)
