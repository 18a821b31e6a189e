"""Work that is not saved yet, kept aside so that a kill or a crash loses nothing.

Each window keeps its work under a name of its own, beside a file that it holds locked. The system
gives a lock up with the process that held it, however that ends, so that a lock which can be
taken says that its window is gone; the number of a process may be in use again.
"""

import contextlib
import fcntl
import json
import os
import uuid
from dataclasses import dataclass
from pathlib import Path

from PySide6.QtCore import QElapsedTimer, QObject, Signal

from urgens.document import Build, BuildErrors, dumps, loads
from urgens.document.whole_file import content
from urgens.ui.session import Session
from urgens.ui.widgets.timers import once

QUIET = 700  # ms after the last change
LATEST = 2000  # after the first that is not kept
OWNER_ONLY = 0o700
OWNER_FILE = 0o600
LOCK = ".lock"


@dataclass(frozen=True)
class RecoveredWork:
    """Work left by a window that is gone: where it is kept, the build, and the file it was of."""

    kept: Path
    build: Build
    path: Path | None

    def forget(self) -> None:
        """Remove what was kept; raises OSError."""
        self.kept.unlink(missing_ok=True)
        self.kept.with_suffix(LOCK).unlink(missing_ok=True)


class Recovery(QObject):
    """Keeps the session's unsaved build in a folder of the user's, locked while this window is."""

    failed = Signal(str)  # why nothing can be kept; said once

    def __init__(self, session: Session, folder: Path, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._session = session
        self.file = folder / f"{uuid.uuid4().hex}.json"
        self._lock: int | None = None
        self._told = False
        self._timer = once(self, QUIET, self.keep)
        self._kept: Build | None = None  # what stands aside now
        self._waiting = QElapsedTimer()  # since the first change that does not
        session.solution_changed.connect(self._changed)
        session.file_changed.connect(self._changed)

    def _changed(self) -> None:
        if not self._session.modified:
            self.clear()
        elif self._session.base is not self._kept:  # else it is only looked at in another way
            if not self._timer.isActive():
                self._waiting.start()
            self._timer.start(max(min(QUIET, LATEST - self._waiting.elapsed()), 0))

    def keep(self) -> None:
        """Write the unsaved build aside; where that fails it is said once, and work goes on."""
        self._timer.stop()
        if not self._session.modified:
            return
        try:
            self._write()
        except OSError as error:
            if not self._told:
                self._told = True
                self.failed.emit(error.strerror or str(error))

    def _write(self) -> None:
        path, build = self._session.path, self._session.base
        kept = {"path": str(path.absolute()) if path else None, "build": dumps(build)}
        self.file.parent.mkdir(parents=True, exist_ok=True)
        self.file.parent.chmod(OWNER_ONLY)
        if self._lock is None:
            self._lock = _locked(self.file.with_suffix(LOCK))
        aside = self.file.with_suffix(".tmp")
        handle = os.open(aside, os.O_CREAT | os.O_TRUNC | os.O_WRONLY, OWNER_FILE)
        with os.fdopen(handle, "w", encoding="utf-8") as file:
            json.dump(kept, file)
        aside.replace(self.file)
        self._kept = build

    def clear(self) -> None:
        """Forget what was kept: it is saved, or given up."""
        self._timer.stop()
        self._kept = None
        with contextlib.suppress(OSError):  # then it is offered once more, which loses nothing
            for suffix in (".json", ".tmp", LOCK):
                self.file.with_suffix(suffix).unlink(missing_ok=True)
        if self._lock is not None:
            os.close(self._lock)
            self._lock = None


def found(folder: Path) -> tuple[tuple[RecoveredWork, ...], tuple[Path, ...]]:
    """Return the work that windows no longer there have left in `folder`.

    Beside it stand the files that should hold some and cannot be read.
    """
    left, unread = [], []
    _clear_rests(folder)
    for kept in sorted(folder.glob("*.json")):
        if _held(kept.with_suffix(LOCK)):
            continue
        try:
            document = json.loads(content(kept).decode())
            build = loads(document["build"])
            path = Path(document["path"]) if document["path"] else None
        except (OSError, ValueError, KeyError, TypeError, BuildErrors):
            unread.append(kept)
        else:
            left.append(RecoveredWork(kept, build, path))
    return tuple(left), tuple(unread)


def _clear_rests(folder: Path) -> None:
    """Remove what windows that are gone have left beside their work, or of work half written."""
    for rest in (*folder.glob("*.tmp"), *folder.glob(f"*{LOCK}")):
        kept, lock = rest.with_suffix(".json"), rest.with_suffix(LOCK)
        if (rest.suffix == ".tmp" or not kept.exists()) and not _held(lock):
            with contextlib.suppress(OSError):
                rest.unlink()


def _locked(path: Path) -> int:
    """Return an open file that this process alone holds locked; raises OSError."""
    file = os.open(path, os.O_CREAT | os.O_RDWR, OWNER_FILE)
    try:
        fcntl.flock(file, fcntl.LOCK_EX | fcntl.LOCK_NB)
    except OSError:
        os.close(file)
        raise
    return file


def _held(path: Path) -> bool:
    """Tell whether a window that is there holds this lock."""
    if not path.exists():
        return False
    try:
        os.close(_locked(path))
    except BlockingIOError:
        return True
    except OSError:  # no lock of ours: a folder of that name, or another user's
        return False
    return False
