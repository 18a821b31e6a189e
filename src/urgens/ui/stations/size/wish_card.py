"""A system out of wishes as a card, and the plane on which the systems lie."""

from collections.abc import Sequence

from PySide6.QtCore import QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QColor, QKeyEvent, QPaintEvent
from PySide6.QtWidgets import QFrame, QHBoxLayout, QVBoxLayout

from urgens.document import Build
from urgens.guidance.advice.wish_cards import WishCard, bought_words, figure_words, system_words
from urgens.quantity import FORCE, LENGTH, show, written
from urgens.studies.wishes.combinations import WishedSystem
from urgens.ui.session import Session
from urgens.ui.stations.size.wish_drawing import SystemDrawing
from urgens.ui.theme.paint import T, ink, outline, pen
from urgens.ui.widgets.board import write
from urgens.ui.widgets.buttons import push_button
from urgens.ui.widgets.layouts import spaced
from urgens.ui.widgets.painted import Painted
from urgens.ui.widgets.worded import wrapped

HIGH = 176.0  # px of the plane
LEFT, BELOW, ABOVE, RIGHT = 64.0, 34.0, 12.0, 16.0  # px beside it


class SystemCard(QFrame):
    """One system: what changes, its figures, what it gives and gives up; looked at, or taken."""

    looked = Signal(int)
    taken = Signal(int)

    def __init__(self, rank: int, card: WishCard, session: Session, made: Build) -> None:
        super().__init__()
        self.rank, one, units = rank, card.system, session.units
        self.setObjectName("card")
        self.setProperty("fitted", "false")
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        words = system_words(one, units)
        words = f"{words[:1].upper()}{words[1:]}"
        figures = "\u00a0 · ".join((
            f"{figure_words('effort', one.figures['effort'], units)} of foot",
            f"{figure_words('travel', one.figures['travel'], units)} of pedal",
            f"margin {written(100.0 * one.margin, 0)} %",
            f"rear first {figure_words('rear-first-chance', one.chance, units)}",
            bought_words(one),
        ))  # fmt: skip
        gives = f"{card.gives[:1].upper()}{card.gives[1:]}; gives up {card.gives_up}."
        self.setAccessibleName(f"{rank}: {words}. {figures}. {gives}")
        self.name = wrapped("heading", f"{rank}  {words}")
        column = spaced(QVBoxLayout(), 2)
        for widget in (self.name, wrapped("", figures), wrapped("muted", gives)):
            column.addWidget(widget)
        self.look = push_button(f"Look ({rank})", "quiet", lambda: self.looked.emit(rank))
        self.take = push_button("As a set-up", "quiet", lambda: self.taken.emit(rank))
        buttons = spaced(QHBoxLayout(), 6)
        for button in (self.look, self.take):
            button.setFixedWidth(round(112 * T.scale))
            button.setFocusPolicy(Qt.FocusPolicy.NoFocus)  # the card has keys for both
            buttons.addWidget(button)
        buttons.addStretch()
        column.addLayout(buttons)
        row = QHBoxLayout(self)
        row.setContentsMargins(8, 6, 8, 6)
        row.setSpacing(10)
        row.addWidget(SystemDrawing(made), 0, Qt.AlignmentFlag.AlignVCenter)
        row.addLayout(column, 1)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if Qt.Key(event.key()) in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.taken.emit(self.rank)
        elif Qt.Key(event.key()) == Qt.Key.Key_Space:
            self.looked.emit(self.rank)
        else:
            event.ignore()


class SystemPlane(Painted):
    """Foot against pedal of all that nobody beats; the cards have their numbers."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self._session = session
        self._systems: Sequence[WishedSystem] = ()
        self._cards: Sequence[WishCard] = ()
        self.setAccessibleName("Systems by foot and pedal: none yet")

    def sizeHint(self) -> QSize:
        return self.scaled(420, HIGH)

    def show_systems(self, systems: Sequence[WishedSystem], cards: Sequence[WishCard]) -> None:
        """Show where systems lie, and which of them have a card."""
        self._systems, self._cards = systems, cards
        units = self._session.units
        told = "; ".join(
            f"{rank}: {figure_words('effort', card.system.figures['effort'], units)}, "
            f"{figure_words('travel', card.system.figures['travel'], units)}"
            for rank, card in enumerate(cards, start=1)
        )
        self.setAccessibleName(f"Systems by foot and pedal: {told or 'none'}")
        self.setVisible(len(systems) > 1)
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        with self.begin() as painter:
            points = [(one.figures["effort"], one.figures["travel"]) for one in self._systems]
            if len(points) < 2:
                return
            box = QRectF(LEFT, ABOVE, self.across - LEFT - RIGHT, self.down - ABOVE - BELOW)
            feet, pads = zip(*points, strict=True)
            ends = [(min(each), max(each)) for each in (feet, pads)]

            def at(foot: float, pad: float) -> QPointF:
                shares = [
                    (value - low) / ((high - low) or 1.0)
                    for value, (low, high) in zip((foot, pad), ends, strict=True)
                ]
                return QPointF(box.left() + 14 + shares[0] * (box.width() - 28),
                               box.bottom() - 12 - shares[1] * (box.height() - 24))  # fmt: skip

            painter.setPen(pen(T.hair, 1))
            painter.drawLine(box.bottomLeft(), box.bottomRight())
            painter.drawLine(box.topLeft(), box.bottomLeft())
            units = self._session.units
            for foot, side, x in ((ends[0][0], "left", box.left()),
                                  (ends[0][1], "right", box.right())):  # fmt: skip
                write(painter, str(show(foot, FORCE, units)), QPointF(x, box.bottom() + 18),
                      size=13, side="left" if side == "left" else "right")  # fmt: skip
            middle = QPointF(box.center().x(), box.bottom() + 18)
            write(painter, "foot for the wanted deceleration", middle, size=13, side="middle")
            for pad, y in ((ends[1][1], box.top() + 16), (ends[1][0], box.bottom() - 8)):
                words = str(show(pad, LENGTH, units))
                write(painter, words, QPointF(box.left() - 6, y), size=13, side="right")
            write(painter, "pedal", QPointF(box.left() - 6, box.center().y() + 4), size=13,
                  side="right")  # fmt: skip
            ink(painter, Qt.PenStyle.NoPen, QColor(T.metal))
            for point in points:
                painter.drawEllipse(at(*point), 3, 3)
            for rank, card in enumerate(self._cards, start=1):
                figures = card.system.figures
                place = at(figures["effort"], figures["travel"])
                outline(painter, T.front, 2)
                painter.setBrush(QColor(T.paper))
                painter.drawEllipse(place, 9, 9)
                write(painter, str(rank), place + QPointF(0, 5), size=14, weight=700,
                      color=T.ink, side="middle")  # fmt: skip
