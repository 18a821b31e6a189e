"""Personal settings, kept apart from every build."""

import json
from pathlib import Path
from typing import Any

from PySide6.QtCore import QSettings

from urgens.quantity import KINDS, UnitSystem
from urgens.ui.session import Overrides
from urgens.ui.session.scores import Score

MOST_RECENT = 8


class Settings:
    """Theme, own units, recent files, whether the caution was read: the user's INI file."""

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
    def walked(self) -> bool:
        """Whether the first steps were gone through, or left."""
        return str(self._store.value("walked", "false")) == "true"

    def set_walked(self) -> None:
        """Remember that the first steps are known."""
        self._store.setValue("walked", "true")

    @property
    def scores(self) -> tuple[Score, ...]:
        """What was reached in the trainer; what cannot be read is left out."""
        try:
            rows = json.loads(str(self._store.value("scores", "[]")))
        except json.JSONDecodeError:
            return ()
        kinds = (str, str, int, int, int, int)
        return tuple(
            Score(*row)
            for row in rows
            if isinstance(row, list) and [type(one) for one in row] == list(kinds)
        )

    def set_scores(self, scores: tuple[Score, ...]) -> None:
        """Remember what was reached in the trainer."""
        self._store.setValue("scores", json.dumps([list(one) for one in scores]))

    @property
    def unit_system(self) -> UnitSystem | None:
        """The units that were chosen last, None where none were."""
        name = str(self._store.value("unit-system", ""))
        return next((system for system in UnitSystem if system.name.lower() == name), None)

    def set_unit_system(self, system: UnitSystem) -> None:
        """Remember the units that are chosen."""
        self._store.setValue("unit-system", system.name.lower())

    @property
    def unit_overrides(self) -> Overrides:
        """Units of the builder's own; what this version does not know is left out."""
        kinds = {kind.noun: kind for kind in KINDS}
        found = []
        self._store.beginGroup("units")
        for noun in self._store.childKeys():
            name = str(self._store.value(noun))
            if noun in kinds and name in kinds[noun].units:
                found.append((kinds[noun], name))
        self._store.endGroup()
        return tuple(found)

    def set_unit_overrides(self, overrides: Overrides) -> None:
        """Remember the units of the builder's own, and no others."""
        self._store.remove("units")
        for kind, name in overrides:
            self._store.setValue(f"units/{kind.noun}", name)

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
