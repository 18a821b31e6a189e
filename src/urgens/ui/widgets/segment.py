"""One of several buttons of which one is down."""

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QToolButton


def segment(words: str) -> QToolButton:
    """Return a button that stays down, to be put into a row or a group."""
    button = QToolButton()
    button.setText(words)
    button.setCheckable(True)
    button.setProperty("segment", "true")
    button.setFocusPolicy(Qt.FocusPolicy.TabFocus)
    return button
