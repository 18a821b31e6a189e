"""The figures of two builds beside each other, the better one marked."""

from PySide6.QtCore import QPointF, QRectF, QSize, Qt
from PySide6.QtGui import (
    QColor,
    QGuiApplication,
    QKeyEvent,
    QKeySequence,
    QMouseEvent,
    QPainter,
    QPaintEvent,
)
from PySide6.QtWidgets import QSizePolicy, QVBoxLayout, QWidget

from urgens.guidance.advice.build_comparison import ComparedFigure, Value
from urgens.quantity import ShownFigure, show, written
from urgens.ui.session import Session
from urgens.ui.theme.paint import T, metrics, pen
from urgens.ui.widgets.board import write
from urgens.ui.widgets.marks import severity_mark
from urgens.ui.widgets.painted import Painted, ring
from urgens.ui.widgets.scrolled import bring_into_sight, scrolled

HEAD, ROW, TALL = 32.0, 30.0, 48.0  # px; of a row that says why
NAMES = 0.46  # of the width


class _Rows(Painted):
    """One row a figure; a judged one says why. Arrow keys go from row to row, Ctrl+C copies."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self._session = session
        self.rows: tuple[ComparedFigure, ...] = ()
        self.names = ("", "")
        self.chosen = 0
        self.choose(0)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)

    def fit(self) -> None:
        self.setFixedHeight(round((HEAD + sum(map(_tall, self.rows)) + 4) * self.scale))
        self.update()

    def sizeHint(self) -> QSize:
        return self.scaled(420, HEAD + ROW)

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

    def choose(self, row: int) -> None:
        """Let one row stand out, and say it to who listens."""
        self.chosen = min(max(row, 0), max(len(self.rows) - 1, 0))
        if self.rows:
            place = f"{self.chosen + 1} of {len(self.rows)}"
            self.setAccessibleName(f"{place}: {self.words(self.chosen)}")
        else:
            self.setAccessibleName("No figure is shown")
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        with self.begin() as painter:
            if self.hasFocus() and not self.rows:
                ring(painter, self)
            left = self.across * NAMES
            wide = (self.across - left) / 2
            for place, name in enumerate(self.names):
                cut = metrics(16, 700).elidedText(name, Qt.TextElideMode.ElideRight, wide - 22)
                at = QPointF(left + place * wide + 18, 20)
                write(painter, cut, at, size=16, weight=700, color=T.ink)
            top = HEAD
            for row, one in enumerate(self.rows):
                self._draw(painter, row, one, QRectF(0, top, self.across, _tall(one)))
                top += _tall(one)

    def _draw(self, painter: QPainter, row: int, one: ComparedFigure, box: QRectF) -> None:
        if row == self.chosen and self.hasFocus():
            painter.setPen(pen(T.front, 2))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRect(box.adjusted(1, 2, -1, -1))
        painter.setPen(pen(T.hair, 1))
        painter.drawLine(box.topLeft(), box.topRight())
        left, y = self.across * NAMES, box.top() + 21
        wide = (self.across - left) / 2
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

    def mousePressEvent(self, event: QMouseEvent) -> None:
        y, top = self.spot(event).y(), HEAD
        for row, one in enumerate(self.rows):
            if top <= y < top + _tall(one):
                self.choose(row)
            top += _tall(one)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.matches(QKeySequence.StandardKey.Copy) and self.rows:
            QGuiApplication.clipboard().setText(self.words(self.chosen))
            return
        steps = {Qt.Key.Key_Up: -1, Qt.Key.Key_Down: 1, Qt.Key.Key_PageUp: -10,
                 Qt.Key.Key_PageDown: 10}  # fmt: skip
        step = steps.get(Qt.Key(event.key()))
        if step is None or not self.rows:
            event.ignore()
            return
        self.choose(self.chosen + step)
        top = HEAD + sum(map(_tall, self.rows[: self.chosen]))
        bring_into_sight(self, round((top + ROW) * self.scale), round(2 * ROW * self.scale))


class CompareTable(QWidget):
    """The rows, to be scrolled."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.rows = _Rows(session)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.addWidget(scrolled(self.rows, "What differs"))

    def show_rows(self, rows: tuple[ComparedFigure, ...], names: tuple[str, str]) -> None:
        """Show figures of two, so called."""
        self.rows.rows, self.rows.names = rows, names
        self.rows.choose(self.rows.chosen)
        self.rows.fit()


def _tall(figure: ComparedFigure) -> float:
    return TALL if figure.better else ROW
