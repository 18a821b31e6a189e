"""Logs beside the build: where each lies, whether it is the one that was read."""

import shutil
from pathlib import Path
from typing import Any

from urgens.bench.logs.channels import Mapped
from urgens.bench.logs.read import digest, lies
from urgens.bench.logs.table import SIMULATED
from urgens.document.ledger.proof import Log
from urgens.ui.session import Session
from urgens.ui.stations.prove.measured import now, put, rows_of


class LogFiles:
    """Finds a log's file beside the build, or where it was opened from in this session."""

    def __init__(self, session: Session) -> None:
        self._session = session
        self._opened: dict[str, Path] = {}  # by digest

    def path_of(self, log: Log) -> Path | None:
        """Return where a log lies, None where it is gone."""
        opened = self._opened.get(log.sha256)
        if opened is not None and opened.is_file():
            return opened
        return lies(log, self._session.path)

    def is_changed(self, log: Log, path: Path) -> bool:
        """Tell whether a file is another than the one that was read; raises OSError."""
        return digest(path) != log.sha256

    def is_beside(self, log: Log) -> bool:
        """Tell whether a log lies beside the build's own file."""
        own = self._session.path
        return own is not None and (own.parent / log.file).is_file()

    def copy_beside(self, log: Log) -> str:
        """Copy a log beside the build; return what came of it, in words."""
        own, path = self._session.path, self.path_of(log)
        if own is None:
            return "Save the build first: a log lies beside its file."
        if path is None:
            return f"{log.file} is gone: nothing could be copied."
        target = own.parent / log.file
        if target.exists():
            return f"There is a file {log.file} beside the build already; rename one of them."
        try:
            shutil.copyfile(path, target)
        except OSError as error:
            return f"It could not be copied ({error.strerror})."
        return f"{log.file} lies beside the build now."

    def add(
        self, path: Path, found: str, channels: dict[str, Mapped], case: str, *, simulated: bool
    ) -> int:
        """Note a log in the build, by its digest; return its place."""
        self._opened[found] = path
        rows = rows_of(self._session, "logs")
        for place, row in enumerate(rows):
            if row["sha256"] == found:
                return place
        source = {"source": SIMULATED} if simulated else {}
        rows.append({"at": now(), "file": path.name, "sha256": found, **source,
                     "channels": as_json(channels), "load_case": case})  # fmt: skip
        put(self._session, "logs", rows, f"Log {path.name}")
        return len(rows) - 1

    def map(self, place: int, channels: dict[str, Mapped], left_out: tuple[str, ...]) -> None:
        """Note which column is which, and which channels no column is."""
        rows = rows_of(self._session, "logs")
        rows[place]["channels"] = as_json(channels)
        rows[place]["left_out"] = list(left_out)
        put(self._session, "logs", rows, f"Channels of {rows[place]['file']}")

    def set(self, place: int, path: str, value: float | None) -> None:
        """Note how the build was set when a log was made."""
        rows = rows_of(self._session, "logs")
        rows[place]["setting"] = {} if value is None else {path: value}
        put(self._session, "logs", rows, f"Setting of {rows[place]['file']}")

    def drop(self, place: int) -> None:
        """Take a log out of the build; its file stays."""
        rows = rows_of(self._session, "logs")
        gone = rows.pop(place)
        put(self._session, "logs", rows, f"Log {gone['file']} taken out")


def as_json(channels: dict[str, Mapped]) -> dict[str, Any]:
    """Return channels as the build has them."""
    return {name: {"column": one.column, "unit": one.unit} for name, one in channels.items()}
