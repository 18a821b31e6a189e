"""Long work away from the hand: on an immutable build, cancelled and dropped when it is stale."""

from collections.abc import Callable
from queue import Empty, SimpleQueue
from threading import Event
from typing import Any

from PySide6.QtCore import QObject, QRunnable, QThreadPool, QTimer, Signal

Work = Callable[[Callable[[float], bool]], Any]  # told whom to tell how far it is
EVERY = 30  # ms between two looks at what a task has said


class _Task(QRunnable):
    """Does the work in a thread of the pool; what it says waits in a queue.

    It touches no object of the window, so that neither waits for the other.
    """

    def __init__(self, work: Work) -> None:
        super().__init__()
        self.setAutoDelete(False)
        self.said: SimpleQueue[tuple[bool, Any]] = SimpleQueue()
        self.stopped = Event()
        self._work = work

    def run(self) -> None:
        self.said.put((True, self._work(self._progress)))

    def _progress(self, share: float) -> bool:
        """Tell how far the work is; answers whether to go on."""
        self.said.put((False, share))
        return not self.stopped.is_set()


class Background(QObject):
    """Runs one task at a time; a new one stops the one before, whose result is dropped."""

    progressed = Signal(float)
    ended = Signal(object)

    def __init__(self, parent: QObject) -> None:
        super().__init__(parent)
        self._task: _Task | None = None
        self._timer = QTimer(self)
        self._timer.setInterval(EVERY)
        self._timer.timeout.connect(self._listen)

    @property
    def busy(self) -> bool:
        """Whether work is under way whose result is wanted."""
        return self._task is not None

    def run(self, work: Work) -> None:
        """Start work, which tells its progress and is answered whether to go on."""
        self.stop()
        self._task = _Task(work)
        _kept.append(self._task)
        QThreadPool.globalInstance().start(self._task)
        self._timer.start()

    def stop(self) -> None:
        """Stop what runs and drop what it finds."""
        if self._task is not None:
            self._task.stopped.set()
        self._task = None
        self._timer.stop()
        _forget_what_is_done()

    def _listen(self) -> None:
        """Pass on what the task has said since."""
        task = self._task
        while task is not None and task is self._task:
            try:
                done, said = task.said.get_nowait()
            except Empty:
                return
            if done:
                self._task = None
                self._timer.stop()
                self.ended.emit(said)
            else:
                self.progressed.emit(said)


_kept: list[_Task] = []  # a task outlives whoever asked for it, until its thread is through


def _forget_what_is_done() -> None:
    if QThreadPool.globalInstance().activeThreadCount() == 0:
        _kept.clear()
