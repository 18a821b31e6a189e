"""The list of keys, and the command that is found by typing."""

from collections.abc import Sequence

from PySide6.QtCore import QEvent, QObject, QPoint, Qt
from PySide6.QtGui import QAction, QKeyEvent
from PySide6.QtWidgets import (
    QDialog,
    QGridLayout,
    QHeaderView,
    QLineEdit,
    QScrollArea,
    QTreeWidget,
    QTreeWidgetItem,
    QVBoxLayout,
    QWidget,
)

from urgens.ui.widgets.plain import plain_label

TOP = 56  # px under the window's upper edge


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
        grid.setColumnStretch(1, 1)
        for index, (keys, words) in enumerate(self.rows):
            label, said = plain_label(keys), plain_label(words)
            label.setProperty("role", "heading")
            said.setWordWrap(True)
            grid.addWidget(label, index, 0, Qt.AlignmentFlag.AlignTop)
            grid.addWidget(said, index, 1)
        area = QScrollArea()
        area.setAccessibleName("Keys and what they do")
        area.setWidget(page)
        area.setWidgetResizable(True)
        column = QVBoxLayout(self)
        column.addWidget(area)
        self.resize(620, 560)


class CommandFinder(QDialog):
    """The window's own panel: type some letters, choose with the arrows, Enter does it."""

    def __init__(self, actions: Sequence[QAction], parent: QWidget) -> None:
        super().__init__(parent)
        self.setWindowTitle("Find a command")
        self.setWindowFlag(Qt.WindowType.FramelessWindowHint)
        self.setProperty("role", "panel")
        self._actions = tuple(actions)
        self.chosen: QAction | None = None
        self.line = QLineEdit()
        self.line.setPlaceholderText("what do you want to do?")
        self.line.setAccessibleName("Command")
        self.list = QTreeWidget()  # for its columns: what it does, and its key
        self.list.setColumnCount(2)
        self.list.setHeaderHidden(True)
        self.list.setRootIsDecorated(False)
        self.list.setAccessibleName("Commands")
        self.list.header().setStretchLastSection(False)
        self.list.header().setSectionResizeMode(0, QHeaderView.ResizeMode.Stretch)
        self.list.header().setSectionResizeMode(1, QHeaderView.ResizeMode.ResizeToContents)
        self.nothing = plain_label("No command has these words; try fewer letters.")
        column = QVBoxLayout(self)
        column.addWidget(self.line)
        column.addWidget(self.nothing)
        column.addWidget(self.list)
        self.line.textChanged.connect(self._filter)
        self.line.returnPressed.connect(self._accept)
        self.line.installEventFilter(self)
        self.list.itemActivated.connect(self._accept)
        self.resize(min(560, parent.width() - 40), 420)
        middle = (parent.width() - self.width()) // 2
        self.move(parent.mapToGlobal(QPoint(middle, TOP)))
        self._filter("")

    def _filter(self, typed: str) -> None:
        wanted = typed.lower().split()
        self.list.clear()
        for index, action in enumerate(self._actions):
            title = action.text()
            if action.isEnabled() and all(word in title.lower() for word in wanted):
                keys = action.shortcut().toString()
                item = QTreeWidgetItem(self.list, [title, keys])
                item.setData(0, Qt.ItemDataRole.UserRole, index)
        self._mark(0)
        self.nothing.setHidden(self.list.topLevelItemCount() > 0)

    def _mark(self, index: int) -> None:
        item = self.list.topLevelItem(index)
        if item is not None:
            self.list.setCurrentItem(item)

    def _accept(self) -> None:
        item = self.list.currentItem()
        if item is not None:
            self.chosen = self._actions[item.data(0, Qt.ItemDataRole.UserRole)]
            self.accept()

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        if isinstance(event, QKeyEvent) and event.type() == QEvent.Type.KeyPress:
            step = {Qt.Key.Key_Down: 1, Qt.Key.Key_Up: -1}.get(Qt.Key(event.key()))
            count = self.list.topLevelItemCount()
            if step is not None and count:
                now = self.list.indexOfTopLevelItem(self.list.currentItem())
                self._mark((now + step) % count)
                return True
        return super().eventFilter(watched, event)
