"""Words as they are, whatever stands in them: nothing typed or read from a file is markup here.

Labels, boxes and tool tips of Qt take what looks like HTML for such and would then load pictures
that it names; a `&` in a button would become a key.
"""

from PySide6.QtCore import Qt
from PySide6.QtGui import QAction
from PySide6.QtGui import Qt as Text
from PySide6.QtWidgets import QGraphicsItem, QLabel, QWidget


def plain_label(words: str = "", parent: QWidget | None = None) -> QLabel:
    """Return a label that shows words as they are."""
    made = QLabel(parent)
    made.setTextFormat(Qt.TextFormat.PlainText)
    made.setText(words)
    return made


def tip(words: str) -> str:
    """Return what a tool tip shows as these words."""
    markup = any(Text.mightBeRichText(line) for line in words.splitlines())
    return Text.convertFromPlainText(words) if markup else words


def point_out(what: QWidget | QAction | QGraphicsItem, words: str) -> None:
    """Give something these words as its tool tip."""
    what.setToolTip(tip(words))


def button_words(words: str) -> str:
    """Return what a button, a menu's entry or a step of the undo stack shows as these words."""
    return words.replace("&", "&&")
