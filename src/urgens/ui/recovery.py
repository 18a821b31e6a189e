"""Work that is not saved yet, kept aside so that a kill or a crash loses nothing."""

import contextlib
import json
import os
from dataclasses import dataclass
from pathlib import Path

from PySide6.QtCore import QObject, QTimer

from urgens.document import Build, BuildErrors, dumps, loads
from urgens.ui.session import Session

QUIET = 700  # ms after the last change


@dataclass(frozen=True)
class Found:
    """Work left by a window that is gone: where it is kept, the build, and the file it was of."""

    kept: Path
    build: Build
    path: Path | None


class Recovery(QObject):
    """Keeps the session's unsaved build in a folder of the user's, under this process's number."""

    def __init__(self, session: Session, folder: Path, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._session = session
        self._folder = folder
        self._timer = QTimer(self)
        self._timer.setSingleShot(True)
        self._timer.setInterval(QUIET)
        self._timer.timeout.connect(self.keep)
        session.solution_changed.connect(self._changed)
        session.file_changed.connect(self._changed)

    @property
    def file(self) -> Path:
        """Where this process keeps its work."""
        return self._folder / f"{os.getpid()}-{id(self._session):x}.json"

    def _changed(self) -> None:
        if self._session.modified:
            self._timer.start()
        else:
            self.clear()

    def keep(self) -> None:
        """Write the unsaved build aside; a full disk is no reason to disturb the work."""
        self._timer.stop()
        if not self._session.modified:
            return
        path = self._session.path
        kept = {"path": str(path) if path else None, "build": dumps(self._session.base)}
        aside = self.file.with_suffix(".tmp")
        with contextlib.suppress(OSError):
            self._folder.mkdir(parents=True, exist_ok=True)
            aside.write_text(json.dumps(kept), encoding="utf-8")
            aside.replace(self.file)

    def clear(self) -> None:
        """Forget what was kept: it is saved, or given up."""
        self._timer.stop()
        with contextlib.suppress(OSError):
            self.file.unlink(missing_ok=True)


def found(folder: Path) -> tuple[Found, ...]:
    """Return the work that processes no longer running have left in `folder`."""
    left = []
    for kept in sorted(folder.glob("*.json")):
        if _runs(kept.name.split("-")[0]):
            continue
        try:
            document = json.loads(kept.read_text(encoding="utf-8"))
            build = loads(document["build"])
            path = Path(document["path"]) if document["path"] else None
        except (OSError, ValueError, KeyError, TypeError, BuildErrors):
            continue  # half written; what was on disk before is still there
        left.append(Found(kept, build, path))
    return tuple(left)


def _runs(number: str) -> bool:
    """Tell whether the process with this number is running."""
    if not number.isdigit():
        return False
    try:
        os.kill(int(number), 0)
    except ProcessLookupError:
        return False
    except PermissionError:
        return True
    return True
