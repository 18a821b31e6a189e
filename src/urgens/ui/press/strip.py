"""The press folded to a strip, where the window is narrow: what it says first, and its handle."""

from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QColor, QPainter, QPaintEvent
from PySide6.QtWidgets import QSizePolicy, QToolButton, QVBoxLayout, QWidget

from urgens.guidance import Severity
from urgens.quantity import FORCE, show
from urgens.ui.press.verdict import PressState, verdict
from urgens.ui.session import Session
from urgens.ui.theme.paint import T
from urgens.ui.widgets.board import write
from urgens.ui.widgets.marks import disc, severity_mark
from urgens.ui.widgets.painted import Painted

WIDTH = 74  # px
BAR = (22.0, 190.0)  # px: how wide and how tall a bar of grip is


class _Readings(Painted):
    """Effort, deceleration and grip in a column, and who is first as a mark."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self._session = session
        self.setSizePolicy(QSizePolicy.Policy.Fixed, QSizePolicy.Policy.Expanding)
        self.setFixedWidth(round(WIDTH * T.scale))
        session.press_changed.connect(self._refresh)
        self._refresh()

    def _refresh(self) -> None:
        session = self._session
        said = verdict(session.pressed_solution, session.pressed, session.units)
        effort = show(session.effort, FORCE, session.units)
        z = float(session.pressed.achieved_z)
        fitted = f"not fitted: {session.considered}; " if session.considered else ""
        self.setAccessibleName(f"{fitted}Foot {effort}, {z:.2f} g, {said.heading}, {said.detail}")
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        session = self._session
        with self.begin() as painter:
            effort = show(session.effort, FORCE, session.units)
            middle = self.across / 2
            rows = (
                (effort.number, 24, 700, T.ink, 30.0), (effort.unit, 15, 400, T.muted, 48.0),
                (f"{float(session.pressed.achieved_z):.2f}", 24, 700, T.ink, 88.0),
                ("g", 15, 400, T.muted, 106.0),
            )  # fmt: skip
            for words, size, weight, color, y in rows:
                write(
                    painter, words, QPointF(middle, y), size=size, weight=weight, color=color,
                    side="middle",
                )  # fmt: skip
            self._draw_grip(painter, 124.0)
            self._draw_verdict(painter, QPointF(middle, 124.0 + BAR[1] + 52.0))

    def _draw_grip(self, painter: QPainter, top: float) -> None:
        pressed, surface = self._session.pressed, self._session.pressed_solution.surface
        for index, (color, used, locked) in enumerate(
            (
                (T.front, float(pressed.front_used), bool(pressed.front_locked)),
                (T.rear, float(pressed.rear_used), bool(pressed.rear_locked)),
            )
        ):
            share = 1.0 if locked or used != used else min(used / surface, 1.0)
            left = self.across / 2 - BAR[0] - 3 + index * (BAR[0] + 6)
            box = QRectF(left, top, *BAR)
            painter.fillRect(box, QColor(T.band))
            painter.fillRect(box.adjusted(0, BAR[1] * (1 - share), 0, 0), QColor(color))
            painter.fillRect(QRectF(left, top - 2, BAR[0], 3), QColor(T.danger))
            name = "FR"[index]
            at = QPointF(box.center().x(), box.bottom() + 18)
            write(painter, name, at, weight=600, color=color, side="middle")

    def _draw_verdict(self, painter: QPainter, at: QPointF) -> None:
        session = self._session
        said = verdict(session.pressed_solution, session.pressed, session.units)
        bad = said.outcome in (PressState.REAR_FIRST, PressState.REAR_LOCKED)
        if bad:
            severity_mark(painter, Severity.DANGER, at, 11)
        elif said.outcome is PressState.NOTHING:
            severity_mark(painter, None, at, 9)
        else:
            disc(painter, at, 9)
        for line, word in enumerate(said.brief):
            place = at + QPointF(0, 30 + 17 * line)
            color = T.danger if bad else T.ink
            write(painter, word, place, weight=600, color=color, side="middle")
        if session.considered:  # as the press says, which is not seen here
            for line, word in enumerate(("not", "fitted")):
                place = at + QPointF(0, 30 + 17 * (len(said.brief) + 1 + line))
                write(painter, word, place, weight=600, color=T.warn, side="middle")


class PressStrip(QWidget):
    """What the press says first; a button brings all of it over the bench, and takes it away."""

    asked = Signal()

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.setObjectName("press")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.open = QToolButton()
        self.open.setText("Press")
        self.open.setCheckable(True)
        self.open.setProperty("segment", "true")
        self.open.setProperty("narrow", "true")
        self.open.clicked.connect(self.asked)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 8, 0, 8)
        column.addWidget(self.open, 0, Qt.AlignmentFlag.AlignHCenter)
        column.addWidget(_Readings(session), 1)
