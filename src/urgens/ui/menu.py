"""The window's actions and the menu under the build's name, made from the table of deeds."""

from typing import TYPE_CHECKING

from PySide6.QtGui import QAction, QKeySequence
from PySide6.QtWidgets import QMenu

from urgens.ui.actions import (
    ALL_DEEDS,
    BORROW_DEEDS,
    DEMO_DEEDS,
    FILE_DEEDS,
    HELP_DEEDS,
    LAST_DEEDS,
    Deed,
)

if TYPE_CHECKING:
    from urgens.ui.window import Window


def actions(window: "Window") -> dict[str, QAction]:
    """Give the window an action for every deed; return them by the deeds' names."""
    made = {}
    for deed in ALL_DEEDS:
        action = QAction(deed.title, window)
        action.setShortcuts([QKeySequence(keys) for keys in deed.keys])
        action.triggered.connect(lambda _=False, done=deed: _do(window, done))
        window.addAction(action)
        made[deed.name] = action
    return made


def _do(window: "Window", deed: Deed) -> None:
    """Do it; what belongs to the build waits while none is shown."""
    if deed.anywhere or not window.starting:
        deed.run(window)


def undo_actions(window: "Window") -> tuple[QAction, QAction]:
    """Give the window undo and redo, named after the step they take."""
    stack = window.session.undo_stack
    undo, redo = stack.createUndoAction(window, "Undo:"), stack.createRedoAction(window, "Redo:")
    undo.setShortcut(QKeySequence("Ctrl+Z"))
    redo.setShortcut(QKeySequence("Ctrl+Shift+Z"))
    window.addActions([undo, redo])
    return undo, redo


def build_menu(window: "Window") -> QMenu:
    """Return the menu under the build's name."""
    menu = QMenu(window)
    recent = menu.addMenu("Open recent")
    menu.aboutToShow.connect(lambda: _fill_recent(window, recent))
    for group in (FILE_DEEDS, BORROW_DEEDS, DEMO_DEEDS, HELP_DEEDS, LAST_DEEDS):
        for deed in group:
            menu.addAction(window.deeds[deed.name])
        menu.addSeparator()
    return menu


def _fill_recent(window: "Window", menu: QMenu) -> None:
    menu.clear()
    recent = window.settings.recent if window.settings is not None else ()
    menu.setEnabled(bool(recent))
    for path in recent:
        action = menu.addAction(f"{path.name}  ({path.parent})")
        action.triggered.connect(lambda _=False, file=path: window.files.open_path(file))
