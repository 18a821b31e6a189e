"""A window to be timed, and an edit timed to the repainted page: timers wait until it is over."""

from collections.abc import Callable, Iterator
from typing import Any

from PySide6.QtCore import QEvent
from PySide6.QtWidgets import QApplication
from tests.waiting import rest

from urgens.document import Build
from urgens.ui.application import dress
from urgens.ui.frame.window import MainWindow
from urgens.ui.session import Session

SLOPES = (0.25, 0.26)  # of the rear valve, one after the other


def opened(build: Build, qapp: QApplication) -> Iterator[MainWindow]:
    """Yield a window on a build, and close it."""
    dress(qapp)
    shown = MainWindow(Session(build))
    shown.show()
    rest(300)
    yield shown
    shown.session.undo_stack.setClean()
    shown.close()
    shown.deleteLater()
    qapp.sendPostedEvents(None, QEvent.Type.DeferredDelete.value)


def time_edits(
    benchmark: Any, qapp: QApplication, edit: Callable[[], object], rounds: int = 60
) -> None:
    """Time an edit until the page is painted, with nothing left over from the one before."""

    def settle() -> None:
        qapp.processEvents()
        qapp.processEvents()

    def timed() -> None:
        edit()
        qapp.sendPostedEvents()  # paints the page; timers wait

    benchmark.pedantic(timed, setup=settle, rounds=rounds, warmup_rounds=3)


def slopes_of(window: MainWindow) -> Callable[[], None]:
    """Return an edit that gives the rear valve another slope each time."""
    slopes = iter(SLOPES * 10_000)
    return lambda: window.session.edit("valves.rear[0].slope", next(slopes))
