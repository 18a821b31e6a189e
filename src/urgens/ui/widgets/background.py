"""Long work away from the hand: on an immutable build, cancelled and dropped when it is stale."""

from collections.abc import Callable
from threading import Event
from typing import Any

from PySide6.QtCore import QObject, QRunnable, QThreadPool, Signal, Slot

Work = Callable[[Callable[[float], bool]], Any]  # told whom to tell how far it is


class _Told(QObject):
    """Carries what a task says from its thread to the window's."""

    progressed = Signal(int, float)
    ended = Signal(int, object)


class _Task(QRunnable):
    def __init__(
        self,
        number: int,
        told: _Told,
        stopped: Event,
        work: Work,
    ) -> None:
        super().__init__()
        self._number, self._told, self._stopped, self._work = number, told, stopped, work

    def run(self) -> None:
        found = self._work(self._progress)
        if not self._stopped.is_set():
            self._told.ended.emit(self._number, found)

    def _progress(self, share: float) -> bool:
        """Tell how far the work is; answers whether to go on."""
        if self._stopped.is_set():
            return False
        self._told.progressed.emit(self._number, share)
        return True


class Background(QObject):
    """Runs one task at a time; a new one stops the one before, whose result is dropped."""

    progressed = Signal(float)
    ended = Signal(object)

    def __init__(self, parent: QObject) -> None:
        super().__init__(parent)
        self._number = 0
        self._stopped = Event()
        self._told = _Told()
        self._told.progressed.connect(self._progress)
        self._told.ended.connect(self._end)
        self.busy = False

    def run(self, work: Work) -> None:
        """Start work, which tells its progress and is answered whether to go on."""
        self.stop()
        self._number += 1
        self._stopped = Event()
        self.busy = True
        task = _Task(self._number, self._told, self._stopped, work)
        QThreadPool.globalInstance().start(task)

    def stop(self) -> None:
        """Stop what runs and drop what it finds."""
        self._stopped.set()
        self._number += 1
        self.busy = False

    @Slot(int, float)
    def _progress(self, number: int, share: float) -> None:
        if number == self._number:
            self.progressed.emit(share)

    @Slot(int, object)
    def _end(self, number: int, found: object) -> None:
        if number == self._number:
            self.busy = False
            self.ended.emit(found)
