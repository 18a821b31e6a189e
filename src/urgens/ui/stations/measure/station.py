"""The Measure station: the vehicle drawn, its figures on the drawings, what is still open."""

from typing import cast

from PySide6.QtCore import Qt
from PySide6.QtWidgets import (
    QButtonGroup,
    QHBoxLayout,
    QPushButton,
    QStackedWidget,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from urgens.physics.axle import AXLES, Axle
from urgens.ui.session import Session
from urgens.ui.stations.measure.brake_board import BrakeBoard
from urgens.ui.stations.measure.facts_board import FactsBoard
from urgens.ui.stations.measure.kinds import BodyButton, KindButton
from urgens.ui.stations.measure.load_cases import LoadCaseRow
from urgens.ui.stations.measure.mark_dialog import MarkDialog
from urgens.ui.stations.measure.pedal_board import PedalBoard
from urgens.ui.stations.measure.settle_list import SettleList
from urgens.ui.stations.measure.side_board import SideBoard
from urgens.ui.theme.paint import T
from urgens.ui.widgets.board import Board
from urgens.ui.widgets.figure_label import FigureLabel
from urgens.ui.widgets.layouts import spaced, tight, upright
from urgens.ui.widgets.station import Kept, Station
from urgens.ui.widgets.worded import worded

LIST_WIDTH = 236
PARTS = ("Brakes", "Pedal and cylinder", "Facts")
LEGEND = "·· typed   — known   - - a guess   - · planned"


class MeasureStation(Station):
    """Everything that is taken with tape, scales and caliper."""

    def __init__(self, session: Session, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._session = session
        self.side = SideBoard(session)
        self.front, self.rear = BrakeBoard(session, Axle.FRONT), BrakeBoard(session, Axle.REAR)
        self.pedal = PedalBoard(session)
        self.facts = FactsBoard(session)
        self.cases = LoadCaseRow(session)
        self.body = BodyButton(session)
        self.settle = SettleList(session)
        self.settle.wanted.connect(self.go_to)
        self.heads = [KindButton(session, axle) for axle in (*AXLES, None)]
        self.parts = QStackedWidget()
        self.choices: list[QToolButton] = []
        self._lay_out()
        session.opened.connect(self._show_first)

    def _show_first(self) -> None:
        self.show_part(0)

    @property
    def boards(self) -> tuple[Board, ...]:
        """The drawings, in the order of the work."""
        return (self.side, self.front, self.rear, self.pedal)

    def _lay_out(self) -> None:
        body = spaced(QHBoxLayout(), 18)
        body.addLayout(self._drawings(), 1)
        if not T.stands_back:
            hairline = upright()
            body.addWidget(hairline)
            body.addLayout(self._still_open())
        column = spaced(QVBoxLayout(self), 6, (18, 12, 18, 8))
        column.addLayout(self._head())
        column.addLayout(body, 1)

    def _head(self) -> QHBoxLayout:
        title = worded("Measure", "title")
        head = spaced(QHBoxLayout(), 14)
        head.addWidget(title)
        head.addWidget(self.body)
        head.addStretch()
        if not T.stands_back:
            head.addWidget(self.cases)
        else:
            self.cases.setParent(self)
            self.cases.hide()
        return head

    def _drawings(self) -> QVBoxLayout:
        group = QButtonGroup(self)
        choose = spaced(QHBoxLayout(), 2)
        for index, words in enumerate(PARTS):
            button = QToolButton()
            button.setText(words)
            button.setCheckable(True)
            button.setChecked(index == 0)
            button.setProperty("segment", "true")
            button.setFocusPolicy(Qt.FocusPolicy.TabFocus)
            button.clicked.connect(lambda _=False, part=index: self.show_part(part))
            group.addButton(button)
            choose.addWidget(button)
            self.choices.append(button)
        choose.addStretch()
        brakes = QWidget()
        row = tight(QHBoxLayout(brakes), 14)
        for board, head, name, color in (
            (self.front, self.heads[0], "Front brake", T.front),
            (self.rear, self.heads[1], "Rear brake", T.rear),
        ):
            row.addLayout(_headed(board, head, name, color), 1)
        pedal = QWidget()
        column = tight(QVBoxLayout(pedal))
        column.addLayout(_headed(self.pedal, self.heads[2], "Foot to pressure", T.ink))
        self.parts.addWidget(brakes)
        self.parts.addWidget(pedal)
        self.parts.addWidget(self.facts)
        drawings = spaced(QVBoxLayout(), 2)
        drawings.addWidget(self.side, 56)
        if T.stands_back:
            drawings.addWidget(self.parts)
            self.parts.hide()
            for button in self.choices:
                button.setParent(self)
                button.hide()
            return drawings
        choose.addWidget(worded(LEGEND, "small"))
        drawings.addLayout(choose)
        drawings.addWidget(self.parts, 44)
        return drawings

    def _still_open(self) -> QVBoxLayout:
        self.settle.setFixedWidth(LIST_WIDTH)
        head = QHBoxLayout()
        head.addWidget(worded("Still to settle", "heading"))
        head.addStretch()
        head.addWidget(worded("moves balance by", "muted"))
        column = spaced(QVBoxLayout(), 2)
        column.addLayout(head)
        column.addWidget(self.settle, 1)
        self.mark = QPushButton("Mark many at once…")
        self.mark.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.mark.clicked.connect(self._mark_many)
        column.addWidget(self.mark)
        return column

    def _mark_many(self) -> None:
        MarkDialog(self._session, self).open()

    def show_part(self, index: int) -> None:
        """Show the brakes, or pedal and cylinder."""
        self.parts.setCurrentIndex(index)
        self.choices[index].setChecked(True)

    def label(self, path: str) -> FigureLabel | None:
        """Return the label of a figure, None where it stands on no drawing."""
        for board in self.boards:
            board.refresh()
        self.facts.refresh()
        on_drawings = (board.labels.get(path) for board in self.boards)
        found = (*on_drawings, self.facts.labels.get(path))
        return next((label for label in found if label is not None), None)

    def keep(self) -> Kept:
        """Return which drawings are shown."""
        return {"part": self.parts.currentIndex()}

    def give_back(self, kept: Kept) -> None:
        """Show the drawings that were shown."""
        self.show_part(cast(int, kept["part"]))

    def go_to(self, path: str) -> bool:
        """Bring a figure's drawing and focus it; tell whether it stands on one."""
        if path.startswith("valves"):
            return False
        case = path.partition("]")[0].removeprefix("vehicle.load_cases[")
        if path.startswith("vehicle.load_cases[") and case.isdigit():
            names = self._session.solution.system.case_names
            if int(case) < len(names) and int(case) != self._session.solution.case:
                self._session.set_load_case(names[int(case)])
        label = self.label(path)
        if label is None:
            return self._go_to_choice(path)
        if path in self.facts.labels and self.facts.labels[path] is label:
            self.show_part(2)
        elif label.parentWidget() is not self.side:
            self.show_part(1 if label.parentWidget() is self.pedal else 0)
        label.setFocus(Qt.FocusReason.ShortcutFocusReason)
        return True

    def _go_to_choice(self, path: str) -> bool:
        """Bring what is chosen from a few words, and focus it; tell whether there is one."""
        self.facts.refresh()
        button = self.facts.choice(path)
        if button is None:
            return False
        self.show_part(2)
        button.setFocus(Qt.FocusReason.ShortcutFocusReason)
        return True


def _headed(board: Board, head: KindButton, name: str, color: str) -> QVBoxLayout:
    """Return a drawing under its name and its kind."""
    words = worded(name, "heading")
    words.setStyleSheet(f"color: {color}; font-size: {round(18 * T.scale)}px")
    row = spaced(QHBoxLayout(), 2)
    row.addWidget(words)
    row.addWidget(head)
    row.addStretch()
    column = spaced(QVBoxLayout(), 0)
    column.addLayout(row)
    column.addWidget(board, 1)
    return column
