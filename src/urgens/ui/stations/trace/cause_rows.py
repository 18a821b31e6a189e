"""What it may come from: a row a cause, its share, one reason, its place; what mends it."""

from functools import partial

from PySide6.QtCore import QRectF, QSize, Qt, Signal
from PySide6.QtGui import QColor, QKeyEvent, QMouseEvent, QPainter, QPaintEvent
from PySide6.QtWidgets import QHBoxLayout, QLabel, QSizePolicy, QVBoxLayout, QWidget

from urgens.guidance.tracing.ranking import Ranked
from urgens.guidance.tracing.trace import Traced
from urgens.guidance.words.figures import FigureWords
from urgens.ui.theme.paint import T, pen
from urgens.ui.widgets.buttons import push_button
from urgens.ui.widgets.cleared import clear
from urgens.ui.widgets.layouts import spaced, tight
from urgens.ui.widgets.painted import Painted
from urgens.ui.widgets.worded import worded, wrapped

ROWS = 5  # rows that are shown
BAR = 8  # px of a bar
LEAST = 0.01  # share under which a cause is not shown
OTHER_WORDS = "Something not in this list"
NOTE = (
    "Only what this layout has is listed. Shares come from signs, tests and readings so far; how "
    "often a cause shows so is assumed."
)


class ShareBar(Painted):
    """A share as a bar."""

    def __init__(self, share: float, known: bool = True) -> None:
        super().__init__()
        self._share, self._known = share, known
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)

    def sizeHint(self) -> QSize:
        return self.scaled(200, BAR)

    def paintEvent(self, event: QPaintEvent) -> None:
        with self.begin() as painter:
            painter.fillRect(QRectF(0, 0, self.across, BAR), QColor(T.band))
            color = QColor(T.ink if self._known else T.muted)
            painter.fillRect(QRectF(0, 0, self.across * self._share, BAR), color)


class CauseRow(QWidget):
    """One cause; a click or Enter chooses it."""

    chosen = Signal()

    def __init__(self, number: int, words: str, share: float, reason: str, place: str) -> None:
        super().__init__()
        self.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self.setAccessibleName(f"{number}: {words}, {100 * share:.0f} of 100; {reason}")
        column = spaced(QVBoxLayout(self), 2, (4, 4, 4, 4))
        head = QHBoxLayout()
        name = wrapped("heading", f"{number}  {words}")
        head.addWidget(name, 1)
        head.addWidget(worded(f"{100 * share:.0f}", "share"), 0, Qt.AlignmentFlag.AlignTop)
        column.addLayout(head)
        column.addWidget(ShareBar(share))
        foot = QHBoxLayout()
        if not T.stands_back:
            foot.addWidget(wrapped("small", reason), 1)
        self.place = push_button(place, "small")
        self.place.setAccessibleName(f"Show where: {place}")
        if not place or T.stands_back:
            self.place.hide()
        foot.addWidget(self.place, 0, Qt.AlignmentFlag.AlignTop)
        column.addLayout(foot)

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        self.chosen.emit()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_Space):
            self.chosen.emit()
        else:
            event.ignore()

    def paintEvent(self, event: QPaintEvent) -> None:
        super().paintEvent(event)
        if self.hasFocus():
            with QPainter(self) as painter:
                painter.setPen(pen(T.front, 2))
                painter.drawRoundedRect(self.rect().adjusted(1, 1, -1, -1), 4, 4)


class CauseRows(QWidget):
    """The likeliest causes, then something else; `placed` names the cause to be looked at."""

    chosen = Signal(str)
    placed = Signal(str)

    def __init__(self) -> None:
        super().__init__()
        self.rows: dict[str, CauseRow] = {}
        column = tight(QVBoxLayout(self), 4)
        head = QHBoxLayout()
        head.addWidget(worded("What it may come from", "heading"), 1)
        head.addWidget(worded("of 100", "small"))
        column.addLayout(head)
        self._rows = QVBoxLayout()
        self._rows.setSpacing(2)
        column.addLayout(self._rows)
        self.note: QLabel = wrapped("small", NOTE)
        column.addWidget(self.note)
        column.addStretch()

    def show_found(self, trace: Traced, words: FigureWords, places: dict[str, str]) -> None:
        """Show the causes of what is known; `places` says where each sits, by its id."""
        clear(self._rows)
        self.rows = {}
        shown = [one for one in trace.ranked[:ROWS] if one.share >= LEAST]
        for number, one in enumerate(shown, start=1):
            self._add(number, one, trace.reason(one, words), places.get(one.cause.id, ""))
        self._rows.addWidget(_other(trace.other))

    def _add(self, number: int, ranked: Ranked, reason: str, place: str) -> None:
        row = CauseRow(number, ranked.cause.words, ranked.share, reason, place)
        row.chosen.connect(partial(self.chosen.emit, ranked.cause.id))
        row.place.clicked.connect(partial(self.placed.emit, ranked.cause.id))
        self.rows[ranked.cause.id] = row
        self._rows.addWidget(row)


def _other(share: float) -> QWidget:
    other = QWidget()
    column = spaced(QVBoxLayout(other), 2, (4, 4, 4, 4))
    head = QHBoxLayout()
    head.addWidget(worded(OTHER_WORDS, "muted"), 1)
    head.addWidget(worded(f"{100 * share:.0f}", "share"))
    column.addLayout(head)
    column.addWidget(ShareBar(share, known=False))
    column.addWidget(worded("kept open, always", "small"))
    return other
