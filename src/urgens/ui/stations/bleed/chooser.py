"""Which procedure is on the card, and of bleeding by which method."""

from collections.abc import Callable
from functools import partial

from PySide6.QtCore import Signal
from PySide6.QtGui import QAction
from PySide6.QtWidgets import QButtonGroup, QHBoxLayout, QMenu, QToolButton, QWidget

from urgens.document import Build
from urgens.guidance.procedures import WAYS, Facts
from urgens.guidance.procedures.records import Group, named, records, title_of
from urgens.ui.widgets.buttons import menu_button
from urgens.ui.widgets.segment import segment

METHOD_NAMES = {
    "open-stroke": "Open stroke", "pedal": "Hold, crack", "pressure": "Pressure",
    "gravity": "Gravity", "vacuum": "Vacuum", "front": "Front gets little",
    "rear": "Rear gets little",
}  # fmt: skip
# A line stands between groups; what is many has a menu of its own, which a low window has room for.
GROUPS: tuple[Group, ...] = ("assemble", "bleed", "prove", "move", "mend")
APART: dict[Group, str] = {"prove": "Standing proofs", "mend": "Mends"}


class Chooser(QWidget):
    """A menu of the procedures that a build has a use for, and the ways of one side by side."""

    named = Signal(str)
    asked = Signal(str)

    def __init__(self, build: Callable[[], Build]) -> None:
        super().__init__()
        self._build = build
        self.menus: list[QMenu] = []
        self.button = menu_button()
        self.button.setFocusPolicy(self.button.focusPolicy().TabFocus)
        self.button.setMenu(self._menu())
        self.methods: dict[str, QToolButton] = {}
        row, group = QHBoxLayout(self), QButtonGroup(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(2)
        row.addWidget(self.button)
        for method in METHOD_NAMES:
            button = segment(METHOD_NAMES[method])
            button.setProperty("narrow", "true")
            button.clicked.connect(partial(self.asked.emit, method))
            group.addButton(button)
            self.methods[method] = button
            row.addWidget(button)
        row.addStretch()

    def _menu(self) -> QMenu:
        menu = QMenu(self.button)
        for place, group in enumerate(GROUPS):
            if place:
                menu.addSeparator()
            into = menu
            if group in APART:
                into = QMenu(APART[group], menu)
                menu.addMenu(into)
            for name in named(group):
                action = into.addAction(title_of(name), partial(self.named.emit, name))
                action.setData(name)
            self.menus.append(into)
        menu.aboutToShow.connect(self._show_what_there_is)
        return menu

    def _show_what_there_is(self) -> None:
        """Leave out what this layout has no use for."""
        facts = Facts(self._build())
        for name, action in self.entries().items():
            action.setVisible(records()[name].refusal(facts) is None)

    def entries(self) -> dict[str, QAction]:
        """Return what stands in the menus, by the procedures' names."""
        found = (action for menu in self.menus for action in menu.actions())
        return {str(action.data()): action for action in found if action.data()}

    def show_choice(self, name: str, method: str | None, *, going: bool) -> None:
        """Show what is chosen; while a run is under way its method stays."""
        self.button.setText(title_of(name))
        self.button.setAccessibleName(f"Procedure: {title_of(name)}; choose another")
        for one, button in self.methods.items():
            button.setVisible(one in WAYS.get(name, ()))
            button.setChecked(one == method)
            button.setEnabled(not going or one == method)
