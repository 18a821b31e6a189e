"""What is known about a figure, said beside it with one key or one click."""

from PySide6.QtCore import QPoint, Qt, Signal
from PySide6.QtWidgets import QFrame, QHBoxLayout, QPushButton, QWidget

from urgens.ui.widgets.layouts import spaced

# state in the build, words, key
STATES = (
    ("measured", "Measured", "M"),
    ("stamped", "Stamped on the part", "S"),
    ("published", "Published by its maker", "P"),
    ("assumed", "Still a guess", "G"),
)
_SHORT = {"stamped": "Stamped", "published": "Published", "assumed": "A guess"}


def state_of_key(text: str) -> str | None:
    """Return the state that a key says, None for another key."""
    return next((state for state, _, key in STATES if key == text.upper()), None)


class EvidenceKeys(QFrame):
    """A row of four keys under a figure; it takes no focus from it."""

    said = Signal(str)

    def __init__(self, window: QWidget) -> None:
        super().__init__(window)
        self._window = window
        self.setObjectName("evidence")
        row = spaced(QHBoxLayout(self), 4, (6, 4, 6, 4))
        self.buttons: dict[str, QPushButton] = {}
        for state, words, key in STATES:
            button = QPushButton(f"{_SHORT.get(state, words)}  {key}")
            button.setAccessibleName(f"{words}, key {key}")
            button.setFocusPolicy(Qt.FocusPolicy.NoFocus)
            button.setProperty("role", "small")
            button.setCheckable(True)
            button.clicked.connect(lambda _=False, said=state: self.said.emit(said))
            row.addWidget(button)
            self.buttons[state] = button

    def show_under(self, label: QWidget, state: str) -> None:
        """Show it under a label, or over it where there is no room; `state` is what is known."""
        for name, button in self.buttons.items():
            button.setChecked(name == state)
        window = self._window
        self.adjustSize()
        at = label.mapTo(window, QPoint(0, label.height() + 4))
        if at.y() + self.height() > window.height() - 8:
            at = label.mapTo(window, QPoint(0, -self.height() - 4))
        left = max(8, min(at.x(), window.width() - self.width() - 8))
        self.move(left, max(at.y(), 0))
        self.show()
        self.raise_()
