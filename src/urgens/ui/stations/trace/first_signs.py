"""Before anything is noted: all signs there are, each with how to look."""

from functools import partial

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QGridLayout, QPushButton, QWidget

from urgens.guidance.faults.tables import TraceSign
from urgens.ui.widgets.cleared import clear
from urgens.ui.widgets.elided_button import ElidedButton
from urgens.ui.widgets.worded import worded, wrapped

FIRST = (
    "Choose what you see, feel or hear. What it may come from on this layout is ranked then, and "
    "the cheapest test that tells causes apart is proposed. A pedal that sinks or is gone, or a "
    "leak: do not drive."
)
COLUMNS = 2


class FirstSigns(QWidget):
    """`seen` names the sign that was chosen."""

    seen = Signal(str)

    def __init__(self) -> None:
        super().__init__()
        self.buttons: dict[str, QPushButton] = {}
        self._shown: tuple[TraceSign, ...] = ()
        self._grid = QGridLayout(self)
        self._grid.setContentsMargins(0, 0, 8, 0)
        self._grid.setHorizontalSpacing(16)
        self._grid.setVerticalSpacing(4)

    def show_signs(self, signs: tuple[TraceSign, ...]) -> None:
        """Show the signs that a layout can have."""
        shown = tuple(one for one in signs if not one.when)
        if shown == self._shown:
            return
        self._shown = shown
        clear(self._grid)
        self.buttons = {}
        self._grid.addWidget(worded("What is seen?", "sentence"), 0, 0, 1, COLUMNS)
        self._grid.addWidget(wrapped("muted", FIRST), 1, 0, 1, COLUMNS)
        down = -(-len(shown) // COLUMNS)
        for place, sign in enumerate(shown):
            row, column = 2 + 2 * (place % down), place // down
            button = ElidedButton(sign.words)
            button.setProperty("role", "sign")
            button.clicked.connect(partial(self.seen.emit, sign.id))
            self.buttons[sign.id] = button
            self._grid.addWidget(button, row, column)
            self._grid.addWidget(wrapped("small", sign.look), row + 1, column)
        self._grid.setRowStretch(2 + 2 * down, 1)
