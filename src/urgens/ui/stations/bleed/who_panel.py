"""Who does what now: a row for each person, with the mark of where he works."""

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QColor, QPainter, QPaintEvent
from PySide6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from urgens.guidance.procedures import Step
from urgens.guidance.procedures.people import IN_WORDS, Role, State, duty
from urgens.ui.theme.paint import T, pen
from urgens.ui.widgets.cleared import clear
from urgens.ui.widgets.marks import disc, square
from urgens.ui.widgets.painted import Painted
from urgens.ui.widgets.worded import worded, wrapped

MARK = 22.0  # px


class RoleMark(Painted):
    """A shoe for the foot, a disc or square for the axle, a ring for all screws, a level."""

    def __init__(self, role: Role) -> None:
        super().__init__()
        self._role = role
        self.setFixedSize(self.scaled(MARK, MARK))

    def paintEvent(self, event: QPaintEvent) -> None:
        painter, middle = self.begin(), QPointF(MARK / 2, MARK / 2)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(QColor(T.ink))
        if self._role == "front":
            disc(painter, middle, 7)
        elif self._role == "rear":
            square(painter, middle, 7)
        elif self._role == "reservoir":
            self._level(painter)
        elif self._role == "screws":
            painter.setPen(pen(T.ink, 3))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawEllipse(middle, 7, 7)
        else:
            painter.drawRoundedRect(QRectF(5, 3, 6, 12), 2, 2)
            painter.drawRoundedRect(QRectF(5, 12, 13, 6), 2, 2)

    @staticmethod
    def _level(painter: QPainter) -> None:
        painter.setBrush(QColor(T.fluid[1]))
        painter.drawRect(QRectF(5, 11, 12, 8))
        painter.setPen(pen(T.ink, 2))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawRoundedRect(QRectF(4, 4, 14, 15), 2, 2)


class WhoPanel(QWidget):
    """Rows made anew for each step."""

    def __init__(self) -> None:
        super().__init__()
        self._rows = QVBoxLayout(self)
        self._rows.setContentsMargins(0, 0, 0, 0)
        self._rows.setSpacing(6)
        self.said: dict[Role, str] = {}

    def show_roles(self, who: tuple[Role, ...], step: Step | None, state: State) -> None:
        """Show what each does at a step; of none only who there is."""
        clear(self._rows)
        self.said = {}
        for role in who:
            words = "" if step is None or role == "alone" else duty(role, step, state)
            self.said[role] = words
            row, column = QHBoxLayout(), QVBoxLayout()
            row.setSpacing(8)
            column.setSpacing(0)
            column.addWidget(worded(IN_WORDS[role], "heading"))
            if words:
                column.addWidget(wrapped("muted", words))
            row.addWidget(RoleMark(role), 0, Qt.AlignmentFlag.AlignTop)
            row.addLayout(column, 1)
            self._rows.addLayout(row)
