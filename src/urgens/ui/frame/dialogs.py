"""The list of keys, and what is found by typing."""

from collections.abc import Sequence

from PySide6.QtCore import QEvent, QObject, QPoint, Qt
from PySide6.QtGui import QKeyEvent
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

from urgens.ui.frame.findable import Findable, found
from urgens.ui.widgets.plain import plain_label

MOST = 60  # rows that are shown
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
    """The window's own panel: type parts of words, choose with the arrows, Enter goes there."""

    def __init__(self, things: Sequence[Findable], parent: QWidget) -> None:
        super().__init__(parent)
        self.setWindowTitle("Find anything")
        self.setWindowFlag(Qt.WindowType.FramelessWindowHint)
        self.setProperty("role", "panel")
        self._things = tuple(things)
        self._found: list[Findable] = []
        self.chosen: Findable | None = None
        self.line = QLineEdit()
        self.line.setPlaceholderText("a page, figure, part, procedure, fault, term; or what to do")
        self.line.setAccessibleName("What is looked for")
        self.list = QTreeWidget()  # for its columns: what it is, where it leads, its key
        self.list.setColumnCount(3)
        self.list.setHeaderHidden(True)
        self.list.setRootIsDecorated(False)
        self.list.setAccessibleName("What was found")
        self.list.header().setStretchLastSection(False)
        self.list.header().setSectionResizeMode(0, QHeaderView.ResizeMode.Stretch)
        for place in (1, 2):
            self.list.header().setSectionResizeMode(place, QHeaderView.ResizeMode.ResizeToContents)
        self.nothing = plain_label("Nothing has these words; try fewer letters.")
        column = QVBoxLayout(self)
        column.addWidget(self.line)
        column.addWidget(self.nothing)
        column.addWidget(self.list)
        self.line.textChanged.connect(self._filter)
        self.line.returnPressed.connect(self._accept)
        self.line.installEventFilter(self)
        self.list.itemActivated.connect(self._accept)
        self.resize(min(640, parent.width() - 40), 420)
        middle = (parent.width() - self.width()) // 2
        self.move(parent.mapToGlobal(QPoint(middle, TOP)))
        self._filter("")

    def _filter(self, typed: str) -> None:
        self.list.clear()
        self._found = found(self._things, typed, MOST)
        for one in self._found:
            QTreeWidgetItem(self.list, [one.words, one.where, one.key])
        self._mark(0)
        self.nothing.setHidden(bool(self._found))

    def _mark(self, index: int) -> None:
        item = self.list.topLevelItem(index)
        if item is not None:
            self.list.setCurrentItem(item)

    def _accept(self) -> None:
        row = self.list.indexOfTopLevelItem(self.list.currentItem())
        if row >= 0:
            self.chosen = self._found[row]
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
