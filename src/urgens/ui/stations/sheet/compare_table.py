"""The figures of two builds beside each other, the better one marked."""

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QPainter, QPaintEvent
from PySide6.QtWidgets import QVBoxLayout, QWidget

from urgens.guidance.advice.build_comparison import ComparedFigure, Value
from urgens.quantity import ShownFigure, show, written
from urgens.ui.session import Session
from urgens.ui.theme.paint import T, metrics, pen
from urgens.ui.widgets.board import write
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.marks import severity_mark
from urgens.ui.widgets.painted import Painted
from urgens.ui.widgets.row_list import RowList

# px; of a row that says why
HEAD = 32.0
ROW = 30.0
TALL = 48.0
NAMES = 0.46  # of the width


class CompareRows(RowList):
    """One row a figure; a judged one says why."""

    def __init__(self, session: Session) -> None:
        self._session = session
        self.rows: tuple[ComparedFigure, ...] = ()
        self.names = ("", "")
        tall = lambda row: _tall(self.rows[row])  # noqa: E731 - of whatever is shown then
        super().__init__("What differs", "No figure is shown", tall, self._draw)

    def shown(self, figure: ComparedFigure, value: Value) -> ShownFigure:
        """Return a figure as a builder reads it."""
        if isinstance(value, str):
            return ShownFigure(value, "")
        if value != value:
            return ShownFigure("none", "")
        if figure.kind is not None:
            return show(value, figure.kind, self._session.units)
        return ShownFigure(written(value, figure.decimals), figure.unit)

    def words(self, row: int) -> str:
        """Return a row as a line of text."""
        one = self.rows[row]
        values = [str(self.shown(one, value)).strip() for value in (one.here, one.other)]
        better = {"here": f"; better {self.names[0]}", "other": f"; better {self.names[1]}"}
        said = f"{better[one.better]}: {one.why}" if one.better else ""
        return f"{one.name}: {values[0]}, {values[1]}{said}"

    def _draw(self, painter: QPainter, box: QRectF, row: int) -> None:
        one = self.rows[row]
        painter.setPen(pen(T.hair, 1))
        painter.drawLine(box.topLeft(), box.topRight())
        left, y = box.width() * NAMES, box.top() + 21
        wide = (box.width() - left) / 2
        name = metrics(16).elidedText(one.name, Qt.TextElideMode.ElideRight, left - 12)
        write(painter, name, QPointF(4, y), size=16, color=T.ink)
        if one.better:
            why = metrics(14).elidedText(one.why, Qt.TextElideMode.ElideRight, left - 12)
            write(painter, why, QPointF(4, y + 18), size=14)
        for place, (side, value) in enumerate((("here", one.here), ("other", one.other))):
            x = left + place * wide
            if one.better == side:
                painter.fillRect(QRectF(x, box.top() + 3, wide - 6, box.height() - 6),
                                 QColor(T.good_ground))  # fmt: skip
                severity_mark(painter, None, QPointF(x + 9, y - 5), 6)
            figure = self.shown(one, value)
            words = f"{figure.number} {figure.unit}".strip()
            weight = 700 if one.better == side else 500
            cut = metrics(16, weight).elidedText(words, Qt.TextElideMode.ElideRight, wide - 24)
            write(painter, cut, QPointF(x + 18, y), size=16, weight=weight, color=T.ink)


class _Names(Painted):
    """The names of both builds over their columns."""

    def __init__(self, rows: CompareRows) -> None:
        super().__init__()
        self._rows = rows
        self.setFixedHeight(round(HEAD * self.scale))
        self.setAccessibleName("Nothing is compared yet")

    def paintEvent(self, event: QPaintEvent) -> None:
        across = self._rows.viewport().width() / self.scale
        left = across * NAMES
        wide = (across - left) / 2
        with self.begin() as painter:
            for place, name in enumerate(self._rows.names):
                cut = metrics(16, 700).elidedText(name, Qt.TextElideMode.ElideRight, wide - 22)
                at = QPointF(left + place * wide + 20, 20)
                write(painter, cut, at, size=16, weight=700, color=T.ink)


class CompareTable(QWidget):
    """The rows under the names of both."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.rows = CompareRows(session)
        self._names = _Names(self.rows)
        column = tight(QVBoxLayout(self), 0)
        column.addWidget(self._names)
        column.addWidget(self.rows, 1)

    def show_rows(self, rows: tuple[ComparedFigure, ...], names: tuple[str, str]) -> None:
        """Show figures of two, so called."""
        self.rows.rows, self.rows.names = rows, names
        self.rows.show_rows([self.rows.words(row) for row in range(len(rows))])
        self._names.setAccessibleName(f"{names[0]}, beside {names[1]}")
        self._names.update()


def _tall(figure: ComparedFigure) -> float:
    return TALL if figure.better else ROW
