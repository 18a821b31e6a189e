"""Rows painted by their owner in Qt's own list: chosen by keys and mouse, scrolled, read aloud."""

from collections.abc import Callable, Sequence

from PySide6.QtCore import (
    QAbstractListModel,
    QModelIndex,
    QPersistentModelIndex,
    QPointF,
    QRect,
    QRectF,
    QSize,
    Qt,
    Signal,
)
from PySide6.QtGui import QFocusEvent, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QResizeEvent
from PySide6.QtWidgets import QFrame, QListView, QStyle, QStyledItemDelegate, QStyleOptionViewItem

from urgens.ui.theme.paint import T, outline
from urgens.ui.widgets.board import write

Index = QModelIndex | QPersistentModelIndex
Draw = Callable[[QPainter, QRectF, int], None]
LEAST = 34.0  # px of the usual scale, of a list with no row in it
SPOKEN = (Qt.ItemDataRole.DisplayRole, Qt.ItemDataRole.AccessibleTextRole)


class _Lines(QAbstractListModel):
    """Each row as a line of text: what is read aloud and copied."""

    lines: tuple[str, ...] = ()

    def rowCount(self, parent: Index = QModelIndex()) -> int:  # noqa: B008 - Qt's own default
        return 0 if parent.isValid() else len(self.lines)

    def data(self, index: Index, role: int = Qt.ItemDataRole.DisplayRole) -> str | None:
        return self.lines[index.row()] if index.isValid() and role in SPOKEN else None

    def show_lines(self, lines: tuple[str, ...]) -> None:
        self.beginResetModel()
        self.lines = lines
        self.endResetModel()


class _RowPainter(QStyledItemDelegate):
    """Gives the owner a painter in px of the usual scale, and draws the ring of the focus."""

    def __init__(self, owner: "RowList") -> None:
        super().__init__(owner)
        self._owner = owner

    def sizeHint(self, option: QStyleOptionViewItem, index: Index) -> QSize:
        return QSize(0, round(self._owner.tall(index.row()) * T.scale))

    def paint(self, painter: QPainter, option: QStyleOptionViewItem, index: Index) -> None:
        box: QRect = option.rect
        state: QStyle.StateFlag = option.state
        painter.save()
        try:
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            painter.translate(box.topLeft())
            painter.scale(T.scale, T.scale)
            own = QRectF(0, 0, box.width() / T.scale, box.height() / T.scale)
            self._owner.draw(painter, own, index.row())
            current = index.row() == self._owner.chosen and self._owner.hasFocus()
            if current and state & QStyle.StateFlag.State_Enabled:
                outline(painter, T.front, 2)
                painter.drawRect(own.adjusted(1, 2, -1, -2))
        finally:
            painter.restore()


class RowList(QListView):
    """One row is chosen; `chose` says which, `entered` that Enter or a double click is meant.

    `tall` is how high a row is [px of the usual scale]; `draw` paints it; `empty` stands where no
    row is.
    """

    chose = Signal(int)
    entered = Signal(int)

    def __init__(self, name: str, empty: str, tall: Callable[[int], float], draw: Draw) -> None:
        super().__init__()
        self.tall, self.draw, self._empty, self._title = tall, draw, empty, name
        self._model = _Lines(self)
        self._quiet = False
        self.setModel(self._model)
        self.setItemDelegate(_RowPainter(self))
        self.setProperty("ring", "true")
        self.setProperty("rows", "true")
        self.setFrameShape(QFrame.Shape.Box)
        self.setVerticalScrollMode(QListView.ScrollMode.ScrollPerPixel)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setEditTriggers(QListView.EditTrigger.NoEditTriggers)
        self.setAccessibleName(f"{name}: {empty}")
        self.selectionModel().currentChanged.connect(self._say)

    @property
    def chosen(self) -> int:
        """The row that stands out, the first where none was chosen."""
        return max(self.currentIndex().row(), 0)

    def show_rows(self, lines: Sequence[str], chosen: int | None = None) -> None:
        """Show rows, as they are read aloud; the one that was chosen stays, or another is."""
        row = self.chosen if chosen is None else chosen
        self._quiet = True
        self._model.show_lines(tuple(lines))
        self._quiet = False
        self.choose(row)
        self.viewport().update()

    def choose(self, row: int) -> None:
        """Let one row stand out and be seen, none below 0; nobody is told."""
        self._quiet = True
        self.setCurrentIndex(self._model.index(min(row, len(self._model.lines) - 1), 0))
        self._quiet = False
        self._name_it()
        self.viewport().update()

    def fit(self) -> None:
        """Be as high as all rows, for one that is scrolled with what is around it."""
        rows = sum(self.tall(row) for row in range(len(self._model.lines)))
        self.setFixedHeight(round(max(rows, LEAST) * T.scale) + 2 * self.frameWidth())

    def spot(self, row: int) -> QRect:
        """Return where a row is in the viewport [px]."""
        return self.visualRect(self._model.index(row, 0))

    def _say(self, index: QModelIndex) -> None:
        if not self._quiet and index.isValid():
            self._name_it()
            self.chose.emit(index.row())

    def _name_it(self) -> None:
        lines = self._model.lines
        said = f"{self.chosen + 1} of {len(lines)}: {lines[self.chosen]}" if lines else self._empty
        self.setAccessibleName(f"{self._title}, {said}")

    def paintEvent(self, event: QPaintEvent) -> None:
        super().paintEvent(event)
        if not self._model.lines:
            with QPainter(self.viewport()) as painter:
                painter.scale(T.scale, T.scale)
                write(painter, self._empty, QPointF(0, 22))

    def focusInEvent(self, event: QFocusEvent) -> None:
        self._quiet = True  # Qt goes to the first row then; nobody has chosen it
        super().focusInEvent(event)
        self._quiet = False
        self.viewport().update()

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self.scheduleDelayedItemsLayout()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and self._model.lines:
            self.entered.emit(self.chosen)
        else:
            super().keyPressEvent(event)

    def mouseDoubleClickEvent(self, event: QMouseEvent) -> None:
        super().mouseDoubleClickEvent(event)
        if self.indexAt(event.position().toPoint()).isValid():
            self.entered.emit(self.chosen)

    def keyboardSearch(self, search: str) -> None:
        """Do nothing: letters are keys of the window."""
