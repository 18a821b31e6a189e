"""The large buttons under the card, each with its key."""

from collections.abc import Callable, Mapping

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QHBoxLayout, QPushButton, QWidget

from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.plain import point_out

MAIN = ("stroke", "next")  # what the hand wants most


class WorkButtons(QWidget):
    """Shows those that there is something to do with now."""

    def __init__(self, acts: Mapping[str, Callable[[], None]]) -> None:
        super().__init__()
        row = tight(QHBoxLayout(self))
        self.named: dict[str, QPushButton] = {}
        for name, act in acts.items():
            button = QPushButton()
            button.setProperty("role", "work")
            button.setProperty("main", "true" if name in MAIN else "false")
            if name != "leave":  # the others have a key of the card
                button.setFocusPolicy(Qt.FocusPolicy.NoFocus)
            button.clicked.connect(act)
            self.named[name] = button
            row.addWidget(button, 2 if name in MAIN else 1)

    def show_for(self, *, going: bool, last: bool, strokes: bool, open_: str) -> None:
        """Show the buttons of a step: whether a run is under way, at its last card, at strokes.

        `open_` is what stands open and would stay so if the run were given up, in words.
        """
        give_up = "Give up\nleft open" if open_ else "Give up"
        words = {
            "stroke": "+1 stroke\nSpace",
            "next": ("Done\nEnter" if last else "Next\nEnter") if going else "Begin\nEnter",
            "bubbles": "Bubbles\nB", "back": "Back\nBackspace", "leave": give_up,
        }  # fmt: skip
        shown = {"stroke": strokes, "bubbles": strokes, "back": going, "leave": going, "next": True}
        for name, button in self.named.items():
            button.setText(words[name])
            told = f"Give up; shut {open_} first" if name == "leave" and open_ else words[name]
            button.setAccessibleName(told.replace("\n", ", "))
            point_out(button, told if told != words[name] else "")
            button.setVisible(shown[name])
