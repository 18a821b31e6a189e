"""Long work away from the hand: on an immutable build, cancelled and dropped when it is stale."""

import sys
from collections.abc import Callable
from concurrent.futures import Future, wait
from queue import Empty, SimpleQueue
from threading import Event, Thread
from typing import Any

from PySide6.QtCore import QObject, QTimer, Signal

from urgens.document import BuildErrors
from urgens.ui.widgets.timers import again

Work = Callable[[Callable[[float], bool]], Any]  # told whom to tell how far it is
EVERY = 30  # ms between two looks at what a task has said
SOON = 80  # ms before long work begins: who only leafs through starts none


class _Task:
    """Work in a thread of its own; what it says of its progress waits in a queue.

    It touches no object of the window, so that neither waits for the other.
    """

    def __init__(self, work: Work) -> None:
        self.said: SimpleQueue[float] = SimpleQueue()
        self.stopped = Event()
        self.future: Future[Any] = Future()
        # One that does not look whether it is to stop goes with the process, not after it.
        Thread(target=self._run, args=(work,), name="urgens", daemon=True).start()

    def _run(self, work: Work) -> None:
        self.future.set_running_or_notify_cancel()
        try:
            found = work(self._progress)
        except BaseException as error:  # noqa: BLE001 - told in the window's thread, as it is
            self.future.set_exception(error)
        else:
            self.future.set_result(found)

    def _progress(self, share: float) -> bool:
        """Tell how far the work is; answers whether to go on."""
        self.said.put(share)
        return not self.stopped.is_set()


class Background(QObject):
    """Runs one task at a time; a new one stops the one before, whose result is dropped.

    Work that fails is said in words: `failed`, and nothing else of it.
    """

    progressed = Signal(float)
    ended = Signal(object)
    failed = Signal(str)

    def __init__(self, parent: QObject) -> None:
        super().__init__(parent)
        self._task: _Task | None = None
        self._timer = again(self, EVERY, self._listen)
        self._waiting: Work | None = None
        self._before: Future[Any] | None = None  # of the last task, wanted or not
        self._later = QTimer(self)
        self._later.setSingleShot(True)
        self._later.timeout.connect(self._begin)

    @property
    def busy(self) -> bool:
        """Whether work is under way, or about to be, whose result is wanted."""
        return self._task is not None or self._waiting is not None

    def run(self, work: Work, later: int = 0) -> None:
        """Start work, at once or in so many ms.

        It tells its progress and is answered whether to go on.
        """
        self.stop()
        self._waiting = work
        if later:
            self._later.start(later)
        else:
            self._begin()

    def _begin(self) -> None:
        if self._before is not None and not self._before.done():
            self._later.start(EVERY)  # what is stale still runs: tasks never pile up
            return
        work, self._waiting = self._waiting, None
        if work is None:
            return
        self._task = _Task(work)
        self._before = self._task.future
        _running.add(self._task.future)
        self._task.future.add_done_callback(_running.discard)
        self._timer.start()

    def stop(self) -> None:
        """Stop what runs and drop what it finds."""
        self._waiting = None
        self._later.stop()
        if self._task is not None:
            self._task.stopped.set()
        self._task = None
        self._timer.stop()

    def _listen(self) -> None:
        """Pass on what the task has said since, and what it came to."""
        task = self._task
        if task is None:
            return
        done = task.future.done()  # asked first, so that nothing said before the end is lost
        while True:
            try:
                self.progressed.emit(task.said.get_nowait())
            except Empty:
                break
        if done and task is self._task:
            self.stop()
            self._end(task.future)

    def _end(self, future: Future[Any]) -> None:
        error = future.exception()
        if error is None:
            self.ended.emit(future.result())
        elif isinstance(error, BuildErrors):
            self.failed.emit("\n".join(str(one) for one in error.errors))
        else:  # a fault of Urgens itself: said where the builder looks, and where it can be traced
            self.failed.emit(f"This could not be worked out ({type(error).__name__}: {error}).")
            sys.excepthook(type(error), error, error.__traceback__)


_running: set[Future[Any]] = set()


def wait_for_all(seconds: float) -> None:
    """Wait until all work has ended, so many seconds at most."""
    wait(tuple(_running), timeout=seconds)


def any_running() -> bool:
    """Tell whether work is under way, wanted or not."""
    return bool(_running)
