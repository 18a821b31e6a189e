"""What is known about a figure, said beside it with one key or one click."""

from collections.abc import Sequence

from PySide6.QtCore import QPoint, QRect, Qt, Signal
from PySide6.QtGui import QRegion
from PySide6.QtWidgets import QFrame, QGridLayout, QPushButton, QWidget

from urgens.ui.widgets.layouts import spaced

# state in the build, words, key
STATES = (
    ("measured", "Measured", "M"),
    ("stamped", "Stamped on the part", "S"),
    ("published", "Published by its maker", "P"),
    ("assumed", "Still a guess", "G"),
)
FAR = 8  # half its height, so many times: how far from its figure it may stand
_SHORT = {"stamped": "Stamped", "published": "Published", "assumed": "A guess"}


def state_of_key(text: str) -> str | None:
    """Return the state that a key says, None for another key."""
    return next((state for state, _, key in STATES if key == text.upper()), None)


class EvidenceKeys(QFrame):
    """Four keys beside a figure; it takes no focus from it, and covers no other one."""

    said = Signal(str)

    def __init__(self, window: QWidget) -> None:
        super().__init__(window)
        self._window = window
        self.setObjectName("evidence")
        grid = spaced(QGridLayout(self), 3, (0, 0, 0, 0))
        self.buttons: dict[str, QPushButton] = {}
        for state, words, key in STATES:
            button = QPushButton(f"{_SHORT.get(state, words)}  {key}")
            button.setAccessibleName(f"{words}, key {key}")
            button.setFocusPolicy(Qt.FocusPolicy.NoFocus)
            button.setProperty("role", "small")
            button.setCheckable(True)
            button.clicked.connect(lambda _=False, said=state: self.said.emit(said))
            grid.addWidget(button, *divmod(len(self.buttons), 2))
            self.buttons[state] = button

    def show_beside(self, label: QWidget, state: str, others: Sequence[QWidget]) -> None:
        """Show it beside a label, over none of the `others`; `state` is what is known.

        It lets clicks through beside its keys.
        """
        for name, button in self.buttons.items():
            button.setChecked(name == state)
        self.clearMask()
        self.adjustSize()
        window = self._window
        taken = [QRect(one.mapTo(window, QPoint()), one.size()) for one in others]
        inside = window.rect().adjusted(8, 8, -8, -8)
        places = [QRect(at, self.size()) for at in self._places(label)]
        within = [one for one in places if inside.contains(one)]
        free = [one for one in within if not any(one.intersects(other) for other in taken)]
        at = (free or within or places)[0].topLeft()
        self.move(max(at.x(), 8), max(at.y(), 0))
        self.show()
        self.raise_()
        region = QRegion()  # of its keys, where they lie now that it is shown
        for button in self.buttons.values():
            region += button.geometry()
        self.setMask(region)

    def _places(self, label: QWidget) -> list[QPoint]:
        """Return where it could stand: on the figure's drawing, right or left of it, or near it."""
        here = QRect(label.mapTo(self._window, QPoint()), label.size())
        middle = here.center().y() - self.height() // 2
        across = (here.right() + 6, here.left() - 6 - self.width(), here.left(),
                  here.right() - self.width())  # fmt: skip
        down = (middle, here.top() - 4 - self.height(), here.bottom() + 4)
        farther = [middle + step * (self.height() // 2) for step in range(-FAR, FAR + 1)]
        spots = [QPoint(x, y) for y in (*down, *farther) for x in across]
        own = here.adjusted(-4, -3, 4, 3)
        free = [at for at in spots if not QRect(at, self.size()).intersects(own)]
        centre = QPoint(self.width() // 2, self.height() // 2)
        board = label.parentWidget() or self._window
        inside = QRect(board.mapTo(self._window, QPoint()), board.size())
        return sorted(free, key=lambda at: (
            not inside.contains(QRect(at, self.size())), at != QPoint(across[0], middle),
            at != QPoint(across[1], middle), (at + centre - here.center()).manhattanLength(),
        ))  # fmt: skip
