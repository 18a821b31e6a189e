"""Who does what now: a row for each person, with the mark of where he works."""

from functools import partial

from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QColor, QPainter, QPaintEvent
from PySide6.QtWidgets import QHBoxLayout, QLabel, QToolButton, QVBoxLayout, QWidget

from urgens.guidance.procedures import ProcedureStep
from urgens.guidance.procedures.people import IN_WORDS, Role, duties
from urgens.guidance.procedures.workshop import Workshop
from urgens.ui.theme.paint import T, ink, outline
from urgens.ui.widgets.cleared import clear
from urgens.ui.widgets.layouts import spaced, tight
from urgens.ui.widgets.marks import disc, square
from urgens.ui.widgets.painted import Painted
from urgens.ui.widgets.segment import segment
from urgens.ui.widgets.worded import wrapped

MARK = 22.0  # px
GAP = 4  # px: behind the mark
PADDING = 12  # px: of a name in its button


class RoleMark(Painted):
    """A shoe for the foot, a disc or square for the axle, a ring for all screws, a level."""

    def __init__(self, role: Role) -> None:
        super().__init__()
        self._role = role
        self.setAccessibleName(f"who: {role}")
        self.setFixedSize(self.scaled(MARK, MARK))

    def paintEvent(self, event: QPaintEvent) -> None:
        middle = QPointF(MARK / 2, MARK / 2)
        with self.begin() as painter:
            ink(painter, Qt.PenStyle.NoPen, QColor(T.ink))
            if self._role == "front":
                disc(painter, middle, 7)
            elif self._role == "rear":
                square(painter, middle, 7)
            elif self._role == "reservoir":
                self._level(painter)
            elif self._role == "screws":
                outline(painter, T.ink, 3)
                painter.drawEllipse(middle, 7, 7)
            else:
                painter.drawRoundedRect(QRectF(5, 3, 6, 12), 2, 2)
                painter.drawRoundedRect(QRectF(5, 12, 13, 6), 2, 2)

    @staticmethod
    def _level(painter: QPainter) -> None:
        painter.setBrush(QColor(T.fluid[1]))
        painter.drawRect(QRectF(5, 11, 12, 8))
        outline(painter, T.ink, 2)
        painter.drawRoundedRect(QRectF(4, 4, 14, 15), 2, 2)


class WhoPanel(QWidget):
    """A row for each who is there; a name puts that person's card in place of the whole one."""

    asked = Signal(str)

    def __init__(self) -> None:
        super().__init__()
        self.names: dict[Role, QToolButton] = {}
        self._rows = tight(QVBoxLayout(self), 0)
        self.said: dict[Role, str] = {}
        self._duties: dict[Role, QLabel] = {}

    def show_roles(
        self, who: tuple[Role, ...], step: ProcedureStep | None, now: Workshop, own: Role | None
    ) -> None:
        """Show what each does at a step, of none only who there is; own: whose card is shown."""
        if who != tuple(self.names):
            self._lay_out(who)
        told = {} if step is None else duties(who, step, now)
        self.said = {role: "" if role == "alone" else told.get(role, "") for role in who}
        for role, words in self.said.items():
            self.names[role].setChecked(role == own)
            self._duties[role].setText(words)
            self._duties[role].setVisible(bool(words))

    def _lay_out(self, who: tuple[Role, ...]) -> None:
        clear(self._rows)
        self.names, self._duties = {}, {}
        for role in who:
            row = spaced(QHBoxLayout(), GAP)
            row.addWidget(RoleMark(role))
            row.addWidget(self._name(role))
            row.addStretch()
            self._rows.addLayout(row)
            self._duties[role] = self._duty()
            self._rows.addWidget(self._duties[role])

    @staticmethod
    def _duty() -> QLabel:
        label = wrapped("muted")
        label.setContentsMargins(round((MARK + GAP + PADDING) * T.scale), 0, 0, 4)
        return label

    def _name(self, role: Role) -> QToolButton:
        button = segment(IN_WORDS[role])
        button.setProperty("narrow", "true")
        button.setAccessibleName(f"Card of who is {IN_WORDS[role]}")
        button.clicked.connect(partial(self.asked.emit, role))
        self.names[role] = button
        return button
