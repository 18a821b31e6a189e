"""The large buttons under the card, each with its key."""

from collections.abc import Callable, Mapping
from enum import Enum

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QHBoxLayout, QPushButton, QWidget

from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.plain import point_out

MAIN = ("stroke", "again", "next")  # what the hand wants most
OWN_FOCUS = ("leave", "give-up")  # the others have no use for it: they have a key of the card


class Mode(Enum):
    """What the card is about: nothing begun, a step, a question, or why it does not go on."""

    IDLE = "idle"
    PAUSED = "paused"
    GOING = "going"
    LEAVING = "leaving"
    HALTED = "halted"
    STALE = "stale"


GIVE_UP = "Give up\nG"
LEAVE = "Leave\nL"
WORDS: dict[Mode, dict[str, str]] = {
    Mode.IDLE: {"next": "Begin\nEnter"},
    Mode.PAUSED: {"next": "Go on\nEnter", "give-up": GIVE_UP},
    Mode.GOING: {"next": "Next\nEnter", "back": "Back\nBackspace", "leave": LEAVE},
    Mode.LEAVING: {"next": "Pause\nEnter", "give-up": GIVE_UP, "back": "Stay\nBackspace"},
    Mode.HALTED: {
        "next": "Once more\nEnter", "trace": "Trace it\nF", "all-the-same": "Go on so\nG",
        "leave": LEAVE,
    },
    Mode.STALE: {"give-up": GIVE_UP},
}  # fmt: skip
UNTIL_CLEAR = {"again": "Once more\nO", "next": "Clear\nEnter"}
COUNTING = {"stroke": "+1 stroke\nSpace", "bubbles": "Bubbles\nB"}


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
            if name not in OWN_FOCUS:
                button.setFocusPolicy(Qt.FocusPolicy.NoFocus)
            button.clicked.connect(act)
            self.named[name] = button
            row.addWidget(button, 2 if name in MAIN else 1)

    def show_for(
        self, mode: Mode, *, last: bool, strokes: bool, until_clear: bool, open_: str
    ) -> None:
        """Show the buttons of a mode; whether the run is at its last card, and at strokes.

        `until_clear` where what was done is done once more until it runs clear; `open_` is what
        stands open and would stay so if the run were given up, in words.
        """
        words = dict(WORDS[mode])
        if mode is Mode.GOING and last:
            words["next"] = "Done\nEnter"
        if mode is Mode.GOING and until_clear:
            words |= UNTIL_CLEAR
        if mode is Mode.GOING and strokes:
            words |= COUNTING
        if "give-up" in words and open_:
            words["give-up"] = f"Give up: shut\n{open_} first  G"
        for name, button in self.named.items():
            button.setVisible(name in words)
            if name not in words:
                continue
            button.setText(words[name])
            spoken = words[name].replace("\n", " " if "shut" in words[name] else ", ")
            button.setAccessibleName(spoken)
            point_out(button, spoken if "shut" in spoken else "")
