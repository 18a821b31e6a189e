"""Which procedure is on the card, and of bleeding by which method."""

from functools import partial

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QButtonGroup, QHBoxLayout, QMenu, QToolButton, QWidget

from urgens.guidance.procedures import WAYS
from urgens.guidance.procedures.records import Group, named, title_of
from urgens.ui.widgets.buttons import menu_button
from urgens.ui.widgets.segment import segment

METHOD_NAMES = {
    "open-stroke": "Open stroke", "pedal": "Hold, crack", "pressure": "Pressure",
    "gravity": "Gravity", "vacuum": "Vacuum", "front": "Front gets little",
    "rear": "Rear gets little",
}  # fmt: skip
# A line stands between groups; mends have a menu of their own.
GROUPS: tuple[Group, ...] = ("assemble", "bleed", "prove", "move", "mend")


class Chooser(QWidget):
    """A menu of procedures, and the ways of it side by side."""

    named = Signal(str)
    asked = Signal(str)

    def __init__(self) -> None:
        super().__init__()
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
        self.mends = QMenu("Mends", menu)
        for place, group in enumerate(GROUPS):
            if place:
                menu.addSeparator()
            into = self.mends if group == "mend" else menu
            if group == "mend":
                menu.addMenu(self.mends)
            for name in named(group):
                into.addAction(title_of(name), partial(self.named.emit, name))
        return menu

    def show_choice(self, name: str, method: str | None, *, going: bool) -> None:
        """Show what is chosen; while a run is under way its method stays."""
        self.button.setText(title_of(name))
        self.button.setAccessibleName(f"Procedure: {title_of(name)}; choose another")
        for one, button in self.methods.items():
            button.setVisible(one in WAYS.get(name, ()))
            button.setChecked(one == method)
            button.setEnabled(not going or one == method)
