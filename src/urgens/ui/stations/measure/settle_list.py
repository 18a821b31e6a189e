"""Still to settle: open figures, the one that moves the balance most on top."""

import re

from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QColor, QHideEvent, QKeyEvent, QMouseEvent, QPainter
from PySide6.QtWidgets import QMenu

from urgens.document import Build
from urgens.document.catalogue import named
from urgens.guidance import Severity
from urgens.quantity import shown
from urgens.studies.settle import Settled, still_to_settle
from urgens.ui.session import READING, Session
from urgens.ui.theme.paint import T, metrics, outline, pen
from urgens.ui.widgets.board import write
from urgens.ui.widgets.evidence_keys import STATES
from urgens.ui.widgets.marks import severity_mark
from urgens.ui.widgets.plain import point_out
from urgens.ui.widgets.row_list import RowList
from urgens.ui.widgets.seen import WhenSeen
from urgens.ui.widgets.timers import once

ROW = 60.0
BAR = 50.0  # px, for what moves the margin by WHOLE
STATED = {"assumed": (", assumed", "warn"), "planned": (", planned", "ink")}  # words, colour
WHOLE = 0.2  # of the road's coefficient, front above rear


class SettleList(RowList):
    """One row a figure: what is said of it, how far it moves the margin, how it is settled.

    A click, or Enter, goes to the figure; S, or the right button, says what is known about it.
    """

    wanted = Signal(str)

    def __init__(self, session: Session) -> None:
        self._session = session
        self._of: Build | None = None
        self.rows: tuple[Settled, ...] = ()
        self._names: tuple[str, ...] = ()
        empty = "Nothing: every figure is known."
        super().__init__("Still to settle", empty, lambda _: ROW, self._draw)
        self.viewport().setCursor(Qt.CursorShape.PointingHandCursor)
        point_out(self, "Click to go to the figure; right button to say what is known about it")
        self.entered.connect(lambda row: self.wanted.emit(self.rows[row].figure.path))
        self._seen = WhenSeen(self, self.rank)
        # the ranking varies every open figure: the edit is seen first
        self._later = once(self, READING, self._seen.ask)
        session.told.connect(self._ask)
        session.opened.connect(self._seen.ask)

    def _ask(self) -> None:
        self._seen.ask_for(self._later.start)

    def hideEvent(self, event: QHideEvent) -> None:
        if self._later.isActive():
            self._later.stop()
            self._seen.forget()

    def rank(self) -> None:
        """Rank anew if the build has changed since."""
        self._later.stop()
        solution = self._session.solution
        if solution.build is self._of:
            return
        self._of = solution.build
        path = self.rows[self.chosen].figure.path if self.rows else ""
        self.rows = still_to_settle(solution.build, self._session.open_figures)
        self._names = tuple(named(solution.build, row.figure.path) for row in self.rows)
        self.show_rows([self._line(place) for place in range(len(self.rows))], self._place_of(path))

    def _place_of(self, path: str) -> int | None:
        places = (place for place, row in enumerate(self.rows) if row.figure.path == path)
        return next(places, None)

    def _figure(self, row: Settled) -> str:
        """Return a row's figure in the units that are shown."""
        one = row.figure.figure
        return str(shown(one.value, one.kind, one.shown_in(self._session.units))).strip()

    def _line(self, place: int) -> str:
        row = self.rows[place]
        return f"{self._names[place]} {self._figure(row)}, {row.figure.state}; {_settled(row)}"

    def _draw(self, painter: QPainter, box: QRectF, place: int) -> None:
        row, name = self.rows[place], self._names[place]
        figure = row.figure
        top, right = box.top(), box.right() - 4
        said, color = STATED.get(figure.state, ("", "muted"))
        if figure.state == "assumed":
            severity_mark(painter, Severity.WARNING, QPointF(9, top + 17), 7)
        else:
            outline(painter, T.ink if said else T.muted, 2)
            if said:
                painter.drawRect(QRectF(3.5, top + 10.5, 11, 11))  # what is to be, drawn empty
            else:
                painter.drawEllipse(QPointF(9, top + 16), 6, 6)
        fitting = metrics(16, 600).elidedText(name, Qt.TextElideMode.ElideRight, right - 24)
        write(painter, fitting, QPointF(24, top + 21), size=16, weight=600, color=T.ink)
        spread = "" if figure.spread is None else f" ±{_plain(figure.spread)}"
        told = f"{self._figure(row)}{spread}{said}"
        room = right - 24 - (BAR + 6 if figure.spread is not None else 0)
        write(
            painter,
            _fitting(told, 500, room),
            QPointF(24, top + 38),
            size=14,
            weight=500,
            color=str(getattr(T, color)),
        )
        settled = _fitting(_settled(row), 400, right - 24)
        write(painter, settled, QPointF(24, top + 54), size=14)
        if figure.spread is not None:
            bar = QRectF(right - BAR, top + 31, BAR, 6)
            painter.fillRect(bar, QColor(T.band))
            share = min(row.moves / WHOLE, 1.0)
            painter.fillRect(QRectF(bar.left(), bar.top(), BAR * share, 6), QColor(T.ink))
        painter.setPen(pen(T.hair))
        painter.drawLine(QPointF(0, box.bottom() - 0.5), QPointF(box.right(), box.bottom() - 0.5))

    # --- the hand --------------------------------------------------------------------------

    def mousePressEvent(self, event: QMouseEvent) -> None:
        seen = self.indexAt(event.position().toPoint()).row()
        if seen < 0:
            return
        path = self.rows[seen].figure.path
        self.rank()
        index = self._place_of(path)
        if index is None:  # it went with the last edit
            return
        self.choose(index)
        if event.button() == Qt.MouseButton.RightButton:
            self.menu(index).popup(event.globalPosition().toPoint())
        else:
            self.wanted.emit(path)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        self.rank()
        if event.key() == Qt.Key.Key_S and not event.modifiers() and self.rows:
            under = self.spot(self.chosen).bottomLeft()
            self.menu(self.chosen).popup(self.viewport().mapToGlobal(under))
        else:
            super().keyPressEvent(event)

    def menu(self, index: int) -> QMenu:
        """Return the menu that says what is known about a figure."""
        menu = QMenu(self)
        menu.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        path = self.rows[index].figure.path
        for state, words, _ in STATES:
            action = menu.addAction(words)
            action.triggered.connect(lambda _=False, s=state: self._session.settle(path, s))
        return menu


def _settled(row: Settled) -> str:
    """Return how a figure is found out; one that is planned only once it is fitted."""
    how = row.figure.figure.entry.settled
    return f"when it is fitted: {how}" if row.figure.state == "planned" else how


def _plain(spread: str) -> str:
    return re.sub(r"^[±\s]+", "", spread)


def _fitting(words: str, weight: int, room: float) -> str:
    return metrics(14, weight).elidedText(words, Qt.TextElideMode.ElideRight, room)
