"""The standing proofs as a list: state, why, and where its card is."""

from functools import partial

from PySide6.QtCore import QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QColor, QPaintEvent
from PySide6.QtWidgets import QGridLayout, QPushButton, QSizePolicy, QWidget

from urgens.guidance import Severity
from urgens.guidance.condition.standing import StandingProof
from urgens.guidance.procedures.records import title_of
from urgens.ui.theme.paint import T, outline
from urgens.ui.widgets.buttons import push_button
from urgens.ui.widgets.cleared import clear
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.marks import severity_mark
from urgens.ui.widgets.painted import Painted
from urgens.ui.widgets.worded import worded, wrapped

NOTHING = "not on record"  # which its ring says
SIZE = 20  # px of the mark
WORDS = {"open": "Start", "begun": "Go on", "failed": "Again", "lapsed": "Again", "done": "Again"}


class StateMark(Painted):
    """An open ring, a tick, or an octagon; half the ring is full where some of it is answered."""

    def __init__(self, state: str) -> None:
        super().__init__()
        self._state = state
        self.setAccessibleName(state)
        self.setSizePolicy(QSizePolicy.Policy.Fixed, QSizePolicy.Policy.Fixed)

    def sizeHint(self) -> QSize:
        return self.scaled(SIZE, SIZE)

    def paintEvent(self, event: QPaintEvent) -> None:
        with self.begin() as painter:
            middle = QPointF(SIZE / 2, SIZE / 2)
            if self._state in ("open", "begun", "lapsed"):
                outline(painter, T.warn if self._state == "lapsed" else T.muted, 2)
                ring = QRectF(3, 3, SIZE - 6, SIZE - 6)
                painter.drawEllipse(ring)
                if self._state == "begun":
                    painter.setBrush(QColor(T.muted))
                    painter.drawPie(ring, 90 * 16, 180 * 16)
                return
            painter.setBrush(QColor(T.good))
            severity = Severity.DANGER if self._state == "failed" else None
            severity_mark(painter, severity, middle, 8.5)


class ProofsList(QWidget):
    """A row for each proof the layout makes; `asked` names the one whose card is wanted."""

    asked = Signal(str)

    def __init__(self) -> None:
        super().__init__()
        self.buttons: dict[str, QPushButton] = {}
        self._shown: tuple[StandingProof, ...] = ()
        self._grid = tight(QGridLayout(self))
        self._grid.setHorizontalSpacing(8)
        self._grid.setVerticalSpacing(2)
        self._grid.setColumnStretch(1, 1)

    def show_proofs(self, proofs: tuple[StandingProof, ...]) -> None:
        """Show these; rows are made anew only where something of them is another."""
        if proofs == self._shown:
            return
        self._shown = proofs
        clear(self._grid)
        self.buttons = {}
        wanted = [one for one in proofs if one.state != "not-needed"]
        for place, one in enumerate(wanted):
            row = 2 * place
            self._grid.addWidget(StateMark(one.state), row, 0, Qt.AlignmentFlag.AlignVCenter)
            title = worded(title_of(one.name), "heading")
            title.setAccessibleName(f"{title_of(one.name)}: {one.state}, {one.why}")
            self._grid.addWidget(title, row, 1)
            if one.why != NOTHING:
                self._grid.addWidget(wrapped("small", one.why), row + 1, 1, 1, 2)
            button = push_button(WORDS[one.state], "small")
            button.setAccessibleName(f"{WORDS[one.state]}: {title_of(one.name)}")
            button.clicked.connect(partial(self.asked.emit, one.name))
            self.buttons[one.name] = button
            self._grid.addWidget(button, row, 2)

    @property
    def words(self) -> str:
        """How many are done."""
        wanted = [one for one in self._shown if one.state != "not-needed"]
        done = sum(one.state == "done" for one in wanted)
        return f"{done} of {len(wanted)} done"
