"""The stops on record as cards, the next one dashed."""

from dataclasses import dataclass
from functools import partial

from PySide6.QtCore import QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QColor, QKeyEvent, QMouseEvent, QPainter, QPaintEvent
from PySide6.QtWidgets import QHBoxLayout, QScrollArea, QSizePolicy, QWidget

from urgens.ui.theme.paint import T, face, ink, laid_out, metrics, pen, width
from urgens.ui.widgets.board import write
from urgens.ui.widgets.cleared import clear
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.marks import disc, square
from urgens.ui.widgets.painted import Painted
from urgens.ui.widgets.scrolled import scrolled

WIDE = 152
HIGH = 92


@dataclass(frozen=True)
class StopFigures:
    """What stands on a card; `who` is none, front, rear, both or unknown; `dashed` is the next."""

    number: str
    setting: str
    large: str
    unit: str
    beside: str
    who: str
    foot: str
    dashed: bool = False
    left_out: bool = False
    spoken: str = ""


class StopCard(Painted):
    """One stop; a click or Enter opens it."""

    opened = Signal()

    def __init__(self, card: StopFigures) -> None:
        super().__init__()
        self.card = card
        self.setSizePolicy(QSizePolicy.Policy.Fixed, QSizePolicy.Policy.Fixed)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self.setAccessibleName(card.spoken)

    def sizeHint(self) -> QSize:
        return self.scaled(WIDE, HIGH)

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        self.opened.emit()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_Space):
            self.opened.emit()
        else:
            event.ignore()

    def paintEvent(self, event: QPaintEvent) -> None:
        card = self.card
        with self.begin() as painter:
            box = QRectF(1, 1, WIDE - 2, HIGH - 2)
            style = Qt.PenStyle.DashLine if card.dashed else Qt.PenStyle.SolidLine
            ink(
                painter,
                pen(T.ink if card.dashed else T.hair, 1.5, style),
                QColor(T.sheet if card.dashed else T.paper),
            )
            painter.drawRoundedRect(box, 4, 4)
            if self.hasFocus():
                painter.setPen(pen(T.front, 2))
                painter.drawRoundedRect(box.adjusted(2, 2, -2, -2), 3, 3)
            write(painter, card.number, QPointF(10, 22), size=15)
            write(painter, card.setting, QPointF(WIDE - 9, 22), size=16, weight=600, color=T.rear,
                  side="right")  # fmt: skip
            painter.setFont(face(26, 600, condensed=False))
            painter.setPen(pen(T.muted if card.dashed else T.ink))
            top = 54 - metrics(26, 600, condensed=False).ascent()
            painter.drawStaticText(QPointF(9, top), laid_out(card.large, 26, 600, condensed=False))
            across = 9 + width(card.large, 26, 600, condensed=False) + 4
            write(painter, card.unit, QPointF(across, 54), size=14)
            write(painter, card.beside, QPointF(WIDE - 9, 54), size=15, weight=600, color=T.ink,
                  side="right")  # fmt: skip
            self._who(painter, card)
            write(painter, card.foot, QPointF(WIDE - 9, 80), size=14, side="right")
            if card.left_out:
                painter.setPen(pen(T.muted, 1.5))
                painter.drawLine(QPointF(8, 46), QPointF(WIDE - 8, 46))

    def _who(self, painter: QPainter, card: StopFigures) -> None:
        at = QPointF(16, 75)
        words = {"unknown": "not seen"}.get(card.who, card.who)
        if card.who in ("front", "both"):
            disc(painter, at, 5.5)
        elif card.who == "rear":
            square(painter, at, 5)
        elif card.who == "none":
            painter.setPen(pen(T.muted, 2))
            painter.drawEllipse(at, 5, 5)
        color = {"front": T.front, "rear": T.rear, "both": T.danger}.get(card.who, T.muted)
        left = 27 if card.who in ("front", "both", "rear", "none") else 10
        write(painter, words, QPointF(left, 80), size=15, weight=600, color=color)


class StopCards(QWidget):
    """A row of cards that scrolls sideways; `opened` tells the place of a stop, −1 the next."""

    opened = Signal(int)

    def __init__(self) -> None:
        super().__init__()
        inner = QWidget()
        self._row = tight(QHBoxLayout(inner), 12)
        self.area: QScrollArea = scrolled(inner, "The stops", across=True)
        self.area.horizontalScrollBar().rangeChanged.connect(self._to_the_last)
        self.area.setVerticalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.area.setFixedHeight(round((HIGH + 16) * T.scale))
        column = tight(QHBoxLayout(self))
        column.addWidget(self.area)
        self.cards: list[StopCard] = []

    def show_cards(self, cards: list[StopFigures]) -> None:
        """Show these; the last is brought into sight."""
        if [one.card for one in self.cards] == cards:
            return
        clear(self._row)
        self.cards = []
        for place, card in enumerate(cards):
            made = StopCard(card)
            made.opened.connect(partial(self.opened.emit, -1 if card.dashed else place))
            self.cards.append(made)
            self._row.addWidget(made)
        self._row.addStretch()

    def _to_the_last(self, _: int, high: int) -> None:
        self.area.horizontalScrollBar().setValue(high)
