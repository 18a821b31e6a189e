"""One of a few words of the build, chosen from a menu."""

from collections.abc import Mapping

from PySide6.QtWidgets import QMenu, QToolButton

from urgens.document import BuildErrors, value_at
from urgens.ui.session import Session


class ChoiceButton(QToolButton):
    """Shows what is chosen after its name; a menu chooses another.

    `path` is where it is written, `read` where it stands if that is called otherwise.
    """

    def __init__(
        self,
        session: Session,
        name: str,
        path: str,
        words: Mapping[str, str] | Mapping[bool, str],
        *,
        read: str | None = None,
        none: str = "not given",
    ) -> None:
        super().__init__()
        self._session, self._name, self._path = session, name, path
        self._read, self._none = read or path, none
        self._words: dict[str | bool, str] = dict(words.items())
        self.setProperty("role", "kind")
        self.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
        menu = QMenu(self)
        for value, said in self._words.items():
            menu.addAction(said, lambda v=value: self._choose(v))
        self.setMenu(menu)
        self.refresh()

    @property
    def path(self) -> str:
        """Where it is written in the build."""
        return self._path

    @property
    def value(self) -> str | bool | None:
        """What is chosen, None where nothing is."""
        try:
            found = value_at(self._session.build, self._read)
        except BuildErrors:
            return None
        return found if found is None or isinstance(found, bool) else str(found)

    def refresh(self) -> None:
        """Say what is chosen now."""
        value = self.value
        said = self._none if value is None else self._words.get(value, str(value))
        self.setText(f"{self._name}: {said}")
        self.setAccessibleName(self.text())

    def _choose(self, value: str | bool) -> None:
        said = f"{self._name} {self._words[value]}"
        self._session.edit(self._path, value, said)
