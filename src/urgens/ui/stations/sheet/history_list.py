"""What happened, the latest first: four lanes beside the dates, a row each."""

from PySide6.QtCore import QPointF, QRectF, QSize, Qt
from PySide6.QtGui import QColor, QPainter, QPaintEvent, QPolygonF

from urgens.guidance.tracing.chronicle import KINDS, Happened, Kind
from urgens.ui.theme.paint import T, ink, metrics, outline, pen, width
from urgens.ui.widgets.board import write
from urgens.ui.widgets.painted import Painted
from urgens.ui.widgets.row_list import RowList

HEAD = 30.0  # px
ROW = 46.0  # px
LANE = 22.0  # px
DATE = 104.0  # px
LANES = LANE * len(KINDS)
NAMES: dict[Kind, str] = {
    "change": "changes", "symptom": "symptoms", "service": "services", "note": "notes",
}  # fmt: skip


class KindLegend(Painted):
    """The marks of the four lanes, named."""

    def __init__(self) -> None:
        super().__init__()
        self.setAccessibleName(f"Marks: {', '.join(NAMES.values())}")

    def sizeHint(self) -> QSize:
        return self.scaled(420, HEAD)

    def paintEvent(self, event: QPaintEvent) -> None:
        with self.begin() as painter:
            x = 0.0
            for kind in KINDS:
                kind_mark(painter, kind, QPointF(x + 9, 12), 6)
                write(painter, NAMES[kind], QPointF(x + 20, 17), size=14)
                x += width(NAMES[kind], 14) + 36


class HistoryList(RowList):
    """A row each; the day stands where it is another than that above."""

    def __init__(self) -> None:
        self.rows: tuple[Happened, ...] = ()
        super().__init__("What happened", "Nothing is on record yet.", lambda _: ROW, self._draw)

    def show_happened(self, rows: tuple[Happened, ...]) -> None:
        """Show what happened."""
        self.rows = rows
        self.show_rows([_line(one) for one in rows])

    def _draw(self, painter: QPainter, box: QRectF, row: int) -> None:
        one = self.rows[row]
        painter.setPen(pen(T.grid, 1))
        for place in range(len(KINDS)):
            at = LANE * (place + 0.5)
            painter.drawLine(QPointF(at, box.top()), QPointF(at, box.bottom()))
        if row == self.chosen:
            painter.fillRect(box.adjusted(LANES, 1, 0, -1), QColor(T.paper))
        painter.setPen(pen(T.hair, 1))
        painter.drawLine(QPointF(LANES, box.bottom()), box.bottomRight())
        lane = LANE * (KINDS.index(one.kind) + 0.5)
        kind_mark(painter, one.kind, QPointF(lane, box.top() + 15), 7)
        first, second = box.top() + 20, box.top() + 38
        left = LANES + 10
        new = not row or one.at.date() != self.rows[row - 1].at.date()
        if new:
            day = f"{one.at.day} {one.at:%b %Y}"
            write(painter, day, QPointF(left, first), weight=600, color=T.ink)
        write(painter, f"{one.at:%H:%M}", QPointF(left, second if new else first), size=13)
        room = box.width() - left - DATE - 6
        for words, size, weight, y, color in (
            (one.what, 16, 600, first, T.ink), (one.why, 14, 400, second, T.muted),
        ):  # fmt: skip
            cut = metrics(size, weight).elidedText(words, Qt.TextElideMode.ElideRight, room)
            write(painter, cut, QPointF(left + DATE, y), size=size, weight=weight, color=color)


def _line(happened: Happened) -> str:
    """Return one of them as a line of text."""
    return f"{happened.at:%Y-%m-%d}, {happened.kind}: {happened.what}. {happened.why}".strip()


def kind_mark(painter: QPainter, kind: Kind, at: QPointF, radius: float) -> None:
    """Draw the mark of a kind: a full square, a triangle, a ring, a dash."""
    ink(painter, Qt.PenStyle.NoPen, QColor(T.ink))
    if kind == "change":
        painter.drawRect(QRectF(at.x() - radius * 0.8, at.y() - radius * 0.8, radius * 1.6,
                                radius * 1.6))  # fmt: skip
    elif kind == "symptom":
        painter.setBrush(QColor(T.warn))
        top, low = QPointF(0, -radius), radius * 0.8
        painter.drawPolygon(QPolygonF([at + top, at + QPointF(radius, low),
                                       at + QPointF(-radius, low)]))  # fmt: skip
    elif kind == "service":
        outline(painter, T.good, 3)
        painter.drawEllipse(at, radius - 1.5, radius - 1.5)
    else:
        painter.setPen(pen(T.muted, 3))
        painter.drawLine(at - QPointF(radius - 1, 0), at + QPointF(radius - 1, 0))
