"""Set-ups where they are seen: a new one, a copy, another name, taken out, compared."""

from collections.abc import Callable

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import (
    QDialog,
    QDialogButtonBox,
    QLineEdit,
    QMenu,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from urgens.document import BuildErrors
from urgens.document.edits.past import figure_words
from urgens.document.edits.save_as import saved_as_setup, what_is_tried
from urgens.document.edits.setup_list import renamed, setup_line, taken_out
from urgens.ui.session import Session
from urgens.ui.widgets.plain import button_words, point_out
from urgens.ui.widgets.worded import wrapped

COMPARED = "setups:"  # the place where they stand side by side
NO_NAME = "Give it a name, such as: front discs."
WIDE = 420  # px of the question
SHOWN = 4  # changes that are told beforehand


class SetupMenu(QToolButton):
    """A button whose menu does with set-ups what can be done, and says what a new one changed."""

    place_asked = Signal(str)
    said = Signal(str)  # what was done, in one line

    def __init__(self, session: Session, words: str) -> None:
        super().__init__()
        self._session = session
        self.setText(words)
        self.setAccessibleName("Set-ups: new, copy, rename, take out, compare")
        point_out(self, "Set-ups: a new one, a copy, another name, taken out, compared")
        self.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
        self.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        menu = QMenu(self)
        menu.aboutToShow.connect(self.fill)
        self.setMenu(menu)

    def fill(self) -> None:
        """Offer what can be done now."""
        menu, name = self.menu(), self._session.setup
        menu.clear()
        menu.addAction("New set-up…", self.add)
        if name is not None:
            menu.addSeparator()
            menu.addAction(button_words(f"Copy “{name}”…"), self.add)
            menu.addAction(button_words(f"Rename “{name}”…"), self.rename)
            menu.addAction(button_words(f"Take “{name}” out"), self.take_out)
            menu.actions()[0].setVisible(False)  # a new one starts as a copy of what is looked at
        if self._session.base.setups:
            menu.addSeparator()
            menu.addAction("Compare them", lambda: self.place_asked.emit(COMPARED))

    def add(self) -> None:
        """Ask for the name of a new one: a copy of what is looked at, else what was tried."""
        session, shown = self._session, self._session.setup
        title = "New set-up" if shown is None else f"Copy of {shown}"
        NameQuestion(title, tried_words(session), "", self._add, self).exec()

    def _add(self, name: str) -> None:
        self.said.emit(keep_as_setup(self._session, name))

    def rename(self) -> None:
        """Ask for another name of the one that is looked at."""
        name = self._session.setup
        if name is not None:
            words = "Its work on record keeps to it."
            NameQuestion(f"Rename {name}", words, name, self._rename, self).exec()

    def _rename(self, name: str) -> None:
        session, old = self._session, self._session.setup
        if old is not None and name != old:
            session.take(renamed(session.base, old, name), in_setup=False)
            session.set_setup(name)
            self.said.emit(f"“{old}” is called “{name}”.")

    def take_out(self) -> None:
        """Take the one that is looked at out; an undo brings it back."""
        session, name = self._session, self._session.setup
        if name is not None:
            session.make(taken_out(session.base, name), in_setup=False)
            self.said.emit(f"“{name}” is taken out; undo brings it back.")


class NameQuestion(QDialog):
    """Asks for a name, and stays where it is not taken."""

    def __init__(
        self, title: str, words: str, name: str, take: Callable[[str], None], parent: QWidget
    ) -> None:
        super().__init__(parent.window())
        self.setWindowTitle(title)
        self._take = take
        self.name, self.refused = QLineEdit(name), wrapped("error")
        self.name.setAccessibleName("Name of the set-up")
        self.name.setPlaceholderText("its name")
        self.refused.hide()
        answers = QDialogButtonBox(
            QDialogButtonBox.StandardButton.Ok | QDialogButtonBox.StandardButton.Cancel
        )
        answers.accepted.connect(self.take)
        answers.rejected.connect(self.reject)
        column = QVBoxLayout(self)
        for widget in (wrapped("muted", words), self.name, self.refused, answers):
            column.addWidget(widget)
        self.setMinimumWidth(WIDE)

    def take(self) -> None:
        """Take the name, or say why not."""
        name = self.name.text().strip()
        said = NO_NAME
        if name:
            try:
                self._take(name)
            except BuildErrors as errors:
                said = "\n".join(f"{one.problem}; {one.remedy}" for one in errors.errors)
            else:
                self.accept()
                return
        self.refused.setText(said)
        self.refused.show()
        self.name.setFocus()


def keep_as_setup(session: Session, name: str) -> str:
    """Make a set-up of what is looked at, or was tried since the build was saved, and look at it.

    Return what it changes, in a line. Raises BuildErrors where there can be none of that name.
    """
    made = saved_as_setup(session.document.saved, session.base, name, session.setup)
    session.document.put(made, f"Set-up {name}")
    session.set_setup(name)
    return setup_line(session.base, name)


def tried_words(session: Session) -> str:
    """Return what a new set-up would hold."""
    if session.setup is not None:
        return f"A copy of “{session.setup}”, which is looked at, to go on from."
    changes = what_is_tried(session.document.saved, session.base)
    if not changes:
        return (
            "Nothing was changed since the build was saved: it would start empty, like the build."
        )
    rows = [f"{name} {words}" for name, words in figure_words((session.base,), changes)]
    more = f"; and {len(rows) - SHOWN} more" if len(rows) > SHOWN else ""
    return f"What was changed since the build was saved: {'; '.join(rows[:SHOWN])}{more}."
