"""The list of keys, and the command that is found by typing."""

from collections.abc import Sequence

from PySide6.QtCore import QEvent, QObject, Qt
from PySide6.QtGui import QAction, QKeyEvent
from PySide6.QtWidgets import (
    QDialog,
    QGridLayout,
    QLineEdit,
    QListWidget,
    QListWidgetItem,
    QScrollArea,
    QVBoxLayout,
    QWidget,
)

from urgens.ui.widgets.plain import plain_label


class KeyList(QDialog):
    """All keys and what they do."""

    def __init__(self, rows: Sequence[tuple[str, str]], parent: QWidget) -> None:
        super().__init__(parent)
        self.setWindowTitle("Keys")
        self.rows = tuple(rows)
        page = QWidget()
        grid = QGridLayout(page)
        grid.setHorizontalSpacing(24)
        grid.setVerticalSpacing(6)
        for index, (keys, words) in enumerate(self.rows):
            label = plain_label(keys)
            label.setProperty("role", "heading")
            grid.addWidget(label, index, 0)
            grid.addWidget(plain_label(words), index, 1)
        area = QScrollArea()
        area.setWidget(page)
        area.setWidgetResizable(True)
        column = QVBoxLayout(self)
        column.addWidget(area)
        self.resize(620, 560)


class CommandFinder(QDialog):
    """Type some letters of a command, choose with the arrows, Enter does it."""

    def __init__(self, actions: Sequence[QAction], parent: QWidget) -> None:
        super().__init__(parent)
        self.setWindowTitle("Find a command")
        self._actions = tuple(actions)
        self.chosen: QAction | None = None
        self.line = QLineEdit()
        self.line.setPlaceholderText("what do you want to do?")
        self.line.setAccessibleName("Command")
        self.list = QListWidget()
        column = QVBoxLayout(self)
        column.addWidget(self.line)
        column.addWidget(self.list)
        self.line.textChanged.connect(self._filter)
        self.line.returnPressed.connect(self._accept)
        self.line.installEventFilter(self)
        self.list.itemActivated.connect(self._accept)
        self.resize(520, 420)
        self._filter("")

    def _filter(self, typed: str) -> None:
        wanted = typed.lower().split()
        self.list.clear()
        for index, action in enumerate(self._actions):
            title = action.text()
            if action.isEnabled() and all(word in title.lower() for word in wanted):
                keys = action.shortcut().toString()
                item = QListWidgetItem(f"{title}    {keys}" if keys else title)
                item.setData(Qt.ItemDataRole.UserRole, index)
                self.list.addItem(item)
        self.list.setCurrentRow(0)

    def _accept(self) -> None:
        item = self.list.currentItem()
        if item is not None:
            self.chosen = self._actions[item.data(Qt.ItemDataRole.UserRole)]
            self.accept()

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        if isinstance(event, QKeyEvent) and event.type() == QEvent.Type.KeyPress:
            step = {Qt.Key.Key_Down: 1, Qt.Key.Key_Up: -1}.get(Qt.Key(event.key()))
            if step is not None and self.list.count():
                self.list.setCurrentRow((self.list.currentRow() + step) % self.list.count())
                return True
        return super().eventFilter(watched, event)
