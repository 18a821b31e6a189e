"""Personal settings, kept apart from every build."""

from pathlib import Path
from typing import Any

from PySide6.QtCore import QSettings

MOST_RECENT = 8


class Settings:
    """Theme, recent files and whether the caution has been read; in an INI file of the user's."""

    def __init__(self, file: Path | None = None) -> None:
        if file is not None:
            self._store = QSettings(str(file), QSettings.Format.IniFormat)
        else:
            scope = QSettings.Scope.UserScope
            self._store = QSettings(QSettings.Format.IniFormat, scope, "urgens", "urgens")

    @property
    def dark(self) -> bool:
        """Whether the dark theme was chosen."""
        return str(self._store.value("dark", "false")) == "true"

    def set_dark(self, dark: bool) -> None:
        """Remember the theme."""
        self._store.setValue("dark", "true" if dark else "false")

    @property
    def caution_read(self) -> bool:
        """Whether the caution of the first run has been put away."""
        return str(self._store.value("caution_read", "false")) == "true"

    def set_caution_read(self) -> None:
        """Remember that the caution has been read."""
        self._store.setValue("caution_read", "true")

    @property
    def recent(self) -> tuple[Path, ...]:
        """The files opened or saved last, the latest first, those that are still there."""
        stored: Any = self._store.value("recent", [])
        names = [stored] if isinstance(stored, str) else list(stored or [])
        return tuple(path for name in names if (path := Path(name)).is_file())

    def add_recent(self, path: Path) -> None:
        """Put a file at the head of the recent ones."""
        latest = path.resolve()
        kept = [known for known in self.recent if known != latest]
        self._store.setValue("recent", [str(p) for p in (latest, *kept)[:MOST_RECENT]])
