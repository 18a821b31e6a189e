"""The job rail: the stations in the order of the work, each with its mark and one fact."""

from itertools import pairwise

from PySide6.QtCore import QEvent, QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QColor, QHelpEvent, QKeyEvent, QMouseEvent, QPainter, QPaintEvent
from PySide6.QtWidgets import QSizePolicy, QToolTip, QWidget

from urgens.guidance import Severity
from urgens.ui.session import Session
from urgens.ui.theme.paint import T, ink, pen
from urgens.ui.widgets.board import write
from urgens.ui.widgets.marks import severity_mark
from urgens.ui.widgets.plain import tip
from urgens.ui.widgets.station import StationKind

ITEM = 84  # px from one station to the next
LEAST = 66  # at most and at least
WIDTH = 124
NAME_UNDER = 28  # px from the middle of a mark to the line its name stands on, where folded
FOLDED_WIDTH = 64  # px, names under their marks


class Rail(QWidget):
    """Lets the builder go from station to station."""

    chosen = Signal(str)

    def __init__(
        self, session: Session, stops: tuple[StationKind, ...], parent: QWidget | None = None
    ) -> None:
        super().__init__(parent)
        self.setObjectName("rail")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.setFixedWidth(WIDTH)
        self.setSizePolicy(QSizePolicy.Policy.Fixed, QSizePolicy.Policy.Expanding)
        self.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.setAccessibleName("Stations")
        self._session, self._stops = session, stops
        self._current = 0
        self._folded = False
        self._shown: tuple[tuple[str, Severity | None], ...] = ()

    def sizeHint(self) -> QSize:
        return QSize(WIDTH, ITEM * len(self._stops))

    def set_folded(self, folded: bool) -> None:
        """Show names under their marks, or beside them with their facts."""
        self._folded = folded
        self.setFixedWidth(FOLDED_WIDTH if folded else WIDTH)
        self.update()

    def refresh(self) -> None:
        """Paint again if a mark or fact has changed."""
        shown = tuple((stop.fact(self._session), stop.mark(self._session)) for stop in self._stops)
        if shown != self._shown:
            self._shown = shown
            self.update()

    def set_current(self, name: str) -> None:
        """Mark a station as the one that is open."""
        self._current = [stop.name for stop in self._stops].index(name)
        self.update()

    @property
    def _pitch(self) -> float:
        """From one station to the next: less where the window is low, so that all are there."""
        return min(float(ITEM), max((self.height() - 8) / len(self._stops), LEAST))

    def item_box(self, index: int) -> QRectF:
        """Return where a station is on the rail."""
        return QRectF(0, 8 + index * self._pitch, self.width() - 1, self._pitch - 8)

    def paintEvent(self, event: QPaintEvent) -> None:
        super().paintEvent(event)
        with QPainter(self) as painter:
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            centers = [self._center(index) for index in range(len(self._stops))]
            current = self.item_box(self._current)
            painter.fillRect(current.adjusted(0, 0, 1, 0), QColor(T.sheet))
            painter.fillRect(QRectF(0, current.top(), 5, current.height()), QColor(T.ink))
            painter.setPen(pen(T.hair, 2))
            under = NAME_UNDER + 6 if self._folded else 14
            for above, below in pairwise(centers):
                painter.drawLine(above + QPointF(0, under), below - QPointF(0, 14))
            for index, stop in enumerate(self._stops):
                box = self.item_box(index)
                self._paint_mark(painter, stop, centers[index])
                weight = 600 if index == self._current else 500
                if self._folded:
                    name = centers[index] + QPointF(0, NAME_UNDER)
                    write(painter, stop.name, name, weight=weight, color=T.ink, side="middle")
                    continue
                name, fact = QPointF(42, box.top() + 34), QPointF(42, box.top() + 55)
                write(painter, stop.name, name, size=18, weight=weight, color=T.ink)
                color = _color(stop.mark(self._session))
                write(painter, stop.fact(self._session), fact, size=14, color=color)
            if self.hasFocus():
                painter.setPen(pen(T.front, 2))
                painter.drawRect(self.item_box(self._current).adjusted(2, 2, -2, -2))

    def _center(self, index: int) -> QPointF:
        """Return where a station's mark is."""
        top = self.item_box(index).top()
        return QPointF(self.width() / 2 + 2, top + 20) if self._folded else QPointF(23, top + 28)

    def _paint_mark(self, painter: QPainter, stop: StationKind, center: QPointF) -> None:
        if not stop.judged(self._session):
            ink(painter, pen(T.muted, 2), QColor(T.paper))
            painter.drawEllipse(center, 8, 8)
        else:
            severity_mark(painter, stop.mark(self._session), center, 10)

    def event(self, event: QEvent) -> bool:
        if self._folded and isinstance(event, QHelpEvent):
            for index, stop in enumerate(self._stops):
                if self.item_box(index).contains(QPointF(event.pos())):
                    said = f"{stop.name}: {stop.fact(self._session)}"
                    QToolTip.showText(event.globalPos(), tip(said), self)
                    return True
        return super().event(event)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        for index in range(len(self._stops)):
            if self.item_box(index).contains(event.position()):
                self.chosen.emit(self._stops[index].name)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        step = {Qt.Key.Key_Down: 1, Qt.Key.Key_Up: -1}.get(Qt.Key(event.key()))
        if step is None:
            event.ignore()
        else:
            self.chosen.emit(self._stops[(self._current + step) % len(self._stops)].name)


def _color(severity: Severity | None) -> str:
    """Return the colour of a fact."""
    if severity is Severity.DANGER:
        return str(T.danger)
    return str(T.warn if severity is Severity.WARNING else T.muted)
