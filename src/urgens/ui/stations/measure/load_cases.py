"""The load case that is looked at: its name, a copy of it, its place in the row, its end."""

from collections.abc import Callable

from PySide6.QtWidgets import QHBoxLayout, QMenu, QPushButton, QToolButton, QWidget

from urgens.document.edits.change import BuildChange, Order
from urgens.ui.session import Session
from urgens.ui.stations.measure.loading import AddLoad, CornerWeights
from urgens.ui.stations.measure.raised_axle import RaisedAxle
from urgens.ui.widgets.buttons import push_button
from urgens.ui.widgets.figure_label import FigureLabel, Spot
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.plain import plain_label

NAME_WIDTH = 170  # px; longer names elide


CASES = "vehicle.load_cases"


class LoadCaseRow(QWidget):
    """Names, copies, moves and removes the load case that is looked at."""

    def __init__(self, session: Session, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._session = session
        self._label: FigureLabel | None = None
        self.tools = self._tools()
        self.copy = self._button("Copy", self._copy)
        self.earlier = self._button("Up", self._move_up)
        self.remove = self._button("Remove", self._remove)
        caption = plain_label("Load case")
        caption.setProperty("role", "caption")
        self._row = tight(QHBoxLayout(self), 8)
        self._row.addWidget(caption)
        for button in (self.tools, self.copy, self.earlier, self.remove):
            self._row.addWidget(button)
        session.solution_changed.connect(self.refresh)
        self.refresh()

    @staticmethod
    def _button(words: str, act: Callable[[], None]) -> QPushButton:
        button = push_button(words, "quiet", act)
        return button

    @property
    def name(self) -> FigureLabel:
        """The name, which can be typed over."""
        assert self._label is not None
        return self._label

    def refresh(self) -> None:
        """Show the case that is looked at."""
        case = self._session.solution.case
        path = f"vehicle.load_cases[{case}].name"
        if self._label is None or self._label.path != path:
            if self._label is not None:
                self._label.hide()
                self._label.deleteLater()
            self._label = FigureLabel(self._session, Spot(path, 18, widest=NAME_WIDTH), self)
            self._row.insertWidget(1, self._label)
        self._label.refresh()
        self.remove.setEnabled(len(self._session.build.vehicle.load_cases) > 1)
        self.earlier.setEnabled(case > 0)

    def _tools(self) -> QToolButton:
        """Return the menu of what is worked out from scales."""
        button = QToolButton()
        button.setText("From scales")
        button.setProperty("role", "kind")
        button.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
        menu = QMenu(button)
        for words, dialog in (
            ("Axle loads from four corners…", CornerWeights),
            ("Height by raising an axle…", RaisedAxle),
            ("Add people and cargo…", AddLoad),
        ):
            action = menu.addAction(words)
            action.triggered.connect(
                lambda _=False, made=dialog: made(self._session, self.window()).exec()
            )
        button.setMenu(menu)
        return button

    def _copy(self) -> None:
        session = self._session
        cases, index = session.build.vehicle.load_cases, session.solution.case
        names = {case.name for case in cases}
        name, count = f"{cases[index].name}, copy", 2
        while name in names:
            name, count = f"{cases[index].name}, copy {count}", count + 1
        copied = {**cases[index].model_dump(mode="json", exclude_unset=True), "name": name}
        self._put([*range(len(cases)), copied], f"Copy of {cases[index].name}")
        session.set_load_case(name)

    def _move_up(self) -> None:
        session = self._session
        cases, index = session.build.vehicle.load_cases, session.solution.case
        order = list(range(len(cases)))
        order.insert(index - 1, order.pop(index))
        self._put(order, f"{cases[index].name} moved up")
        session.set_load_case(cases[index].name)

    def _remove(self) -> None:
        cases, index = self._session.build.vehicle.load_cases, self._session.solution.case
        kept = [place for place in range(len(cases)) if place != index]
        self._put(kept, f"{cases[index].name} taken out")

    def _put(self, order: Order, label: str) -> None:
        """Put the cases in another order: the build's own, which its set-ups share."""
        session = self._session
        own = any(s.name == session.setup and CASES in s.changes for s in session.base.setups)
        session.make(BuildChange(label, orders={CASES: order}), in_setup=own)
