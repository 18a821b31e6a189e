"""Logs are read away from the hand: a new one into the build, a noted one into the page."""

from collections.abc import Callable
from pathlib import Path

from PySide6.QtCore import QObject, Signal

from urgens.bench.logs.channels import Mapped
from urgens.bench.logs.file import read_log
from urgens.bench.logs.read import digest, look_through
from urgens.bench.logs.table import LogFile
from urgens.document import BuildErrors
from urgens.ui.session import Session
from urgens.ui.stations.prove.log_files import LogFiles
from urgens.ui.widgets.background import Background

KEPT = 3  # files read that are kept: the one shown, the one beside it, the one before

Found = tuple[Path, str, dict[str, Mapped], bool]


class ReadFiles:
    """Files of logs, each read once as long as it stays the same."""

    def __init__(self) -> None:
        self._kept: dict[tuple[str, int, int], LogFile] = {}

    def read(self, path: Path) -> LogFile:
        """Return a log's file; raises BuildErrors where it cannot be read, OSError when gone."""
        now = path.stat()
        key = (str(path), now.st_mtime_ns, now.st_size)
        self._kept[key] = self._kept.pop(key) if key in self._kept else read_log(path)
        while len(self._kept) > KEPT:
            self._kept.pop(next(iter(self._kept)))
        return self._kept[key]


class LogOpening(QObject):
    """Opens logs one after another; `opened` says each one's place, `failed` what went wrong."""

    opened = Signal(int)
    failed = Signal(str)

    def __init__(self, session: Session, files: LogFiles, read: ReadFiles, parent: QObject) -> None:
        super().__init__(parent)
        self._session, self._files, self._read = session, files, read
        self._waiting: list[Path] = []
        self._work = Background(self)
        self._work.ended.connect(self._note)
        self._work.failed.connect(self._say_failed)
        session.opened.connect(self._stop)  # another build has no use for these

    @property
    def busy(self) -> bool:
        """Whether a log is being read."""
        return self._work.busy or bool(self._waiting)

    def open(self, path: Path) -> None:
        """Read a log, and note it in the build."""
        self._waiting.append(path)
        self._go_on()

    def _stop(self) -> None:
        self._waiting.clear()
        self._work.stop()

    def _go_on(self) -> None:
        if self._work.busy or not self._waiting:
            return
        path, read = self._waiting.pop(0), self._read

        def work(progress: Callable[[float], bool]) -> Found:
            try:
                found = look_through(read.read(path), {})
                told = digest(path)
            except OSError as error:
                problem = f"cannot be read ({error.strerror})"
                raise BuildErrors.one(path.name, problem, "look where it lies") from None
            sure = {n: c for n, c in found.channels.items() if n not in found.questions}
            return path, told, sure, found.file.simulated

        self._work.run(work)

    def _note(self, found: object) -> None:
        assert isinstance(found, tuple)  # what the work returns
        path, told, sure, simulated = found
        case = self._session.solution.case_name
        self.opened.emit(self._files.add(path, told, sure, case, simulated=simulated))
        self._go_on()

    def _say_failed(self, words: str) -> None:
        self.failed.emit(words)
        self._go_on()
