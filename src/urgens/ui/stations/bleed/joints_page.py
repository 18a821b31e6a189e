"""Every joint with its state: capped, started, tight, dry, looked at again."""

from functools import partial

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QGridLayout, QPushButton, QToolButton, QWidget

from urgens.document.ledger.records import State
from urgens.guidance.condition.holds import condition
from urgens.guidance.condition.joints import IN_WORDS, LOOSE, STATES, MadeJoint, joints, with_state
from urgens.ui.session import Session
from urgens.ui.stations.bleed.plan import BleedPlan
from urgens.ui.stations.bleed.run import now
from urgens.ui.theme.paint import T
from urgens.ui.widgets.buttons import push_button
from urgens.ui.widgets.cleared import clear
from urgens.ui.widgets.page import Page
from urgens.ui.widgets.plain import point_out
from urgens.ui.widgets.scrolled import scrolled
from urgens.ui.widgets.segment import segment
from urgens.ui.widgets.worded import worded, wrapped

NONE = "No layout is drawn, so there is no joint to keep: Plumb drafts one."
WORDS = (
    "Bleeding does not begin while a joint is capped or only started by hand. Start every line by "
    "hand before any is tightened; dry is seen under a held pedal; looked at again is after the "
    "first drive."
)
LEGEND = "ring: nobody has said; cross: capped or started; half: tight; full: dry"
PLAN = 230  # px
GONE = "not in the layout any more"
SHORT: dict[State, str] = {
    "capped": "capped",
    "started": "started",
    "tight": "tight",
    "dry": "dry",
    "checked": "again",
}


class JointsPage(Page):
    """A row for each joint; a state is chosen for one, or for all."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.buttons: dict[tuple[str, State], QToolButton] = {}
        self._shown: tuple[tuple[str, str], ...] = ()
        inner = QWidget()
        self._grid = QGridLayout(inner)
        self._grid.setVerticalSpacing(2)
        self.plan = BleedPlan(plain=True)
        self.plan.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.plan.setFixedHeight(round(PLAN * T.scale))
        self.head("On the way to each wheel")
        self.column.addWidget(self.plan)
        self.column.addWidget(wrapped("muted", LEGEND))
        self.head("All at once")
        self.all: dict[State, QPushButton] = {}
        for state in STATES:
            button = push_button(IN_WORDS[state], "quiet")
            button.setAccessibleName(f"All joints {IN_WORDS[state]}")
            button.clicked.connect(partial(self.put_all, state))
            self.all[state] = button
            self.column.addWidget(button)
        self.head("Mind")
        self.column.addWidget(wrapped("muted", WORDS))
        self.column.addStretch()
        self.lay_out(scrolled(inner, "The joints"))
        self.said.hide()

    @property
    def summary(self) -> str:
        """How far they are."""
        found = [one for one in joints(self.session.base) if one.where]
        if not found:
            return "no joint"
        loose = sum(one.state in LOOSE for one in found)
        told = sum(one.state is not None for one in found)
        return f"{told} of {len(found)} noted, {loose} not tight yet"

    def show_figures(self) -> None:
        """Show the joints as they are now; rows are made anew only where there are others."""
        found = joints(self.session.base)
        shown = tuple((one.name, one.where) for one in found)
        if shown != self._shown or not self._grid.count():
            self._shown = shown
            self._make(found)
        self.plan.show_build(self.session.base)
        self.plan.show_steps((), None, condition(self.session.base).open_wheels)
        for one in found:
            for state in STATES:
                button = self.buttons[one.name, state]
                button.setChecked(one.state == state)
                point_out(button, _told(one) if one.state == state else "")
        for every in self.all.values():
            every.setEnabled(bool(found))

    def _make(self, joints: tuple[MadeJoint, ...]) -> None:
        clear(self._grid)
        self.buttons = {}
        if not joints:
            self._grid.addWidget(wrapped("muted", NONE), 0, 0)
        for row, one in enumerate(joints):
            self._grid.addWidget(worded(one.where or f"{one.name}: {GONE}", "body"), row, 0)
            for column, state in enumerate(STATES, start=1):
                button = segment(SHORT[state])
                button.setProperty("narrow", "true")
                button.setAccessibleName(f"{one.where or one.name}: {IN_WORDS[state]}")
                button.clicked.connect(partial(self.put, one.name, state))
                self.buttons[one.name, state] = button
                self._grid.addWidget(button, row, column)
        self._grid.setColumnStretch(len(STATES) + 1, 1)
        self._grid.setRowStretch(len(joints), 1)

    def put(self, name: str, state: State) -> None:
        """Note the state of one joint."""
        self.session.make(with_state(self.session.base, (name,), state, now()), in_setup=False)
        self._show()  # the button stays as it is noted, also where nothing changed

    def put_all(self, state: State) -> None:
        """Note the same state for every joint of the layout."""
        names = tuple(one.name for one in joints(self.session.base) if one.where)
        self.session.make(with_state(self.session.base, names, state, now()), in_setup=False)


def _told(joint: MadeJoint) -> str:
    if joint.recorded is None or joint.recorded.at is None:
        return ""
    return f"noted on {joint.recorded.at:%Y-%m-%d at %H:%M}"
