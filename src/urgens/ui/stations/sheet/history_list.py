"""What happened, the latest first: four lanes beside the dates, a row each."""

from collections.abc import Callable

from PySide6.QtCore import QPointF, QRectF, QSize, Qt
from PySide6.QtGui import (
    QColor,
    QGuiApplication,
    QKeyEvent,
    QKeySequence,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QPolygonF,
)
from PySide6.QtWidgets import QSizePolicy

from urgens.guidance.tracing.chronicle import KINDS, Happened, Kind
from urgens.ui.theme.paint import T, metrics, pen, width
from urgens.ui.widgets.board import write
from urgens.ui.widgets.painted import Painted, ring
from urgens.ui.widgets.scrolled import bring_into_sight

HEAD, ROW, LANE, DATE = 30.0, 46.0, 22.0, 104.0  # px
LANES = LANE * len(KINDS)
NAMES: dict[Kind, str] = {
    "change": "changes", "symptom": "symptoms", "service": "services", "note": "notes",
}  # fmt: skip


class HistoryList(Painted):
    """One row is chosen; arrow keys go to the next."""

    def __init__(self) -> None:
        super().__init__()
        self.rows: tuple[Happened, ...] = ()
        self.chosen = 0
        self.chose: Callable[[int], None] = self.choose
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)

    def show_rows(self, rows: tuple[Happened, ...]) -> None:
        """Show what happened."""
        self.rows = rows
        self.setFixedHeight(round((HEAD + ROW * max(len(rows), 1)) * self.scale))
        self.choose(min(self.chosen, max(len(rows) - 1, 0)))

    def choose(self, row: int) -> None:
        """Let one row stand out, and say it to who listens."""
        self.chosen = row
        if self.rows:
            place = f"{row + 1} of {len(self.rows)}"
            self.setAccessibleName(f"{place}: {_line(self.rows[row])}")
            self._bring_into_sight(row)
        else:
            self.setAccessibleName("Nothing is on record yet")
        self.update()

    def _bring_into_sight(self, row: int) -> None:
        middle = round((HEAD + ROW * (row + 0.5)) * self.scale)
        bring_into_sight(self, middle, round(ROW * self.scale))

    def sizeHint(self) -> QSize:
        return self.scaled(420, HEAD + ROW * max(len(self.rows), 1))

    def box(self, row: int) -> QRectF:
        """Return where a row is [px]."""
        return QRectF(0, HEAD + row * ROW, self.across, ROW)

    # --- painting --------------------------------------------------------------------------

    def paintEvent(self, event: QPaintEvent) -> None:
        with self.begin() as painter:
            if self.hasFocus() and not self.rows:
                ring(painter, self)
            x = 0.0
            for kind in KINDS:  # the legend of the marks
                kind_mark(painter, kind, QPointF(x + 9, 12), 6)
                write(painter, NAMES[kind], QPointF(x + 20, 17), size=14)
                x += width(NAMES[kind], 14) + 36
            if not self.rows:
                write(painter, "Nothing is on record yet.", QPointF(0, HEAD + 24))
            for place in range(len(KINDS)):
                at = LANE * (place + 0.5)
                painter.setPen(pen(T.grid, 1))
                painter.drawLine(QPointF(at, HEAD), QPointF(at, self.down))
            for row in range(len(self.rows)):
                self._draw(painter, row)

    def _draw(self, painter: QPainter, row: int) -> None:
        one, box = self.rows[row], self.box(row)
        if row == self.chosen:
            painter.fillRect(box.adjusted(LANES, 1, 0, -1), QColor(T.paper))
            if self.hasFocus():
                painter.setPen(pen(T.front, 2))
                painter.setBrush(Qt.BrushStyle.NoBrush)
                painter.drawRect(box.adjusted(LANES + 1, 2, -1, -2))
        painter.setPen(pen(T.hair, 1))
        painter.drawLine(QPointF(LANES, box.bottom()), box.bottomRight())
        lane = LANE * (KINDS.index(one.kind) + 0.5)
        kind_mark(painter, one.kind, QPointF(lane, box.top() + 15), 7)
        first, second = box.top() + 20, box.top() + 38
        left = LANES + 10
        before = self.rows[row - 1].at.date() if row else None
        new = one.at.date() != before
        if new:
            day = f"{one.at.day} {one.at:%b %Y}"
            write(painter, day, QPointF(left, first), weight=600, color=T.ink)
        write(painter, f"{one.at:%H:%M}", QPointF(left, second if new else first), size=13)
        room = self.across - left - DATE - 6
        for words, size, weight, y, color in (
            (one.what, 16, 600, first, T.ink), (one.why, 14, 400, second, T.muted),
        ):  # fmt: skip
            cut = metrics(size, weight).elidedText(words, Qt.TextElideMode.ElideRight, room)
            at = QPointF(left + DATE, y)
            write(painter, cut, at, size=size, weight=weight, color=color)

    # --- hands -----------------------------------------------------------------------------

    def mousePressEvent(self, event: QMouseEvent) -> None:
        row = int((self.spot(event).y() - HEAD) // ROW)
        if 0 <= row < len(self.rows):
            self.chose(row)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.matches(QKeySequence.StandardKey.Copy) and self.rows:
            QGuiApplication.clipboard().setText(_line(self.rows[self.chosen]))
            return
        last = len(self.rows) - 1
        steps = {Qt.Key.Key_Up: self.chosen - 1, Qt.Key.Key_Down: self.chosen + 1,
                 Qt.Key.Key_Home: 0, Qt.Key.Key_End: last}  # fmt: skip
        row = steps.get(Qt.Key(event.key()))
        if row is None or not self.rows:
            event.ignore()
            return
        self.chose(min(max(row, 0), last))


def _line(happened: Happened) -> str:
    """Return one of them as a line of text."""
    return f"{happened.at:%Y-%m-%d}, {happened.kind}: {happened.what}. {happened.why}".strip()


def kind_mark(painter: QPainter, kind: Kind, at: QPointF, radius: float) -> None:
    """Draw the mark of a kind: a full square, a triangle, a ring, a dash."""
    painter.setPen(Qt.PenStyle.NoPen)
    painter.setBrush(QColor(T.ink))
    if kind == "change":
        painter.drawRect(QRectF(at.x() - radius * 0.8, at.y() - radius * 0.8, radius * 1.6,
                                radius * 1.6))  # fmt: skip
    elif kind == "symptom":
        painter.setBrush(QColor(T.warn))
        top, low = QPointF(0, -radius), radius * 0.8
        painter.drawPolygon(QPolygonF([at + top, at + QPointF(radius, low),
                                       at + QPointF(-radius, low)]))  # fmt: skip
    elif kind == "service":
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setPen(pen(T.good, 3))
        painter.drawEllipse(at, radius - 1.5, radius - 1.5)
    else:
        painter.setPen(pen(T.muted, 3))
        painter.drawLine(at - QPointF(radius - 1, 0), at + QPointF(radius - 1, 0))
