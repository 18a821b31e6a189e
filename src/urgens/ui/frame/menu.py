"""The window's actions and the menu under the build's name, made from the table of commands."""

from collections.abc import Callable, Mapping, Sequence
from functools import partial
from pathlib import Path

from PySide6.QtGui import QAction, QKeySequence, QUndoStack
from PySide6.QtWidgets import QMenu, QWidget

from urgens.ui.frame.commands import (
    BORROW_COMMANDS,
    COMMANDS,
    DEMO_COMMANDS,
    FILE_COMMANDS,
    HELP_COMMANDS,
    LAST_COMMANDS,
    LOOK_COMMANDS,
    SHEET_COMMANDS,
    Command,
)
from urgens.ui.widgets.plain import button_words, point_out

# What is in the menu, and under which word where it has a menu of its own.
GROUPS = (
    (FILE_COMMANDS, ""),
    (SHEET_COMMANDS, "The sheet"),
    (BORROW_COMMANDS, "Take from another build"),
    (DEMO_COMMANDS, "Demo builds"),
    (HELP_COMMANDS, "Help"),
    (LOOK_COMMANDS, ""),
    (LAST_COMMANDS, ""),
)
TOGETHER = (SHEET_COMMANDS, BORROW_COMMANDS)  # with what follows: no line between


def actions(window: QWidget, do: Callable[[Command], None]) -> dict[str, QAction]:
    """Give the window an action for every command; return them by the commands' names."""
    made = {}
    for command in COMMANDS:
        action = QAction(command.title, window)
        action.setShortcuts([QKeySequence(keys) for keys in command.keys])
        action.triggered.connect(lambda _=False, done=command: do(done))
        window.addAction(action)
        made[command.name] = action
    return made


def undo_actions(window: QWidget, stack: QUndoStack) -> tuple[QAction, QAction]:
    """Give the window undo and redo, named after the step they take."""
    undo, redo = stack.createUndoAction(window, "Undo:"), stack.createRedoAction(window, "Redo:")
    undo.setShortcut(QKeySequence("Ctrl+Z"))
    redo.setShortcut(QKeySequence("Ctrl+Shift+Z"))
    for action in (undo, redo):
        action.changed.connect(partial(_point_out, action))
    window.addActions([undo, redo])
    return undo, redo


def _point_out(action: QAction) -> None:
    point_out(action, action.iconText())  # which may hold a name


def build_menu(
    parent: QWidget,
    commands: Mapping[str, QAction],
    recent: Callable[[], Sequence[Path]],
    open_path: Callable[[Path], None],
) -> QMenu:
    """Return the menu under the build's name, which goes with its parent."""
    menu = QMenu(parent)
    files = menu.addMenu("Open recent")
    menu.aboutToShow.connect(lambda: _fill_recent(files, recent(), open_path))
    for group, under in GROUPS:
        home = menu.addMenu(under) if under else menu  # so that the menu stays one column
        home.addActions([commands[command.name] for command in group])
        if group not in TOGETHER:
            menu.addSeparator()
    return menu


def _fill_recent(menu: QMenu, recent: Sequence[Path], open_path: Callable[[Path], None]) -> None:
    menu.clear()
    menu.setEnabled(bool(recent))
    for path in recent:
        action = menu.addAction(button_words(f"{path.name}  ({path.parent})"))
        action.triggered.connect(lambda _=False, file=path: open_path(file))
