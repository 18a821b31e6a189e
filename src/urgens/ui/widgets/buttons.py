"""Buttons as pages make them: one that does something, and one that opens a menu."""

from collections.abc import Callable

from PySide6.QtWidgets import QPushButton, QToolButton


def push_button(text: str, role: str = "", do: Callable[..., object] | None = None) -> QPushButton:
    """Return a button with its words, how the theme draws it, and what a press does."""
    button = QPushButton(text)
    if role:
        button.setProperty("role", role)
    if do is not None:
        button.clicked.connect(do)
    return button


def menu_button() -> QToolButton:
    """Return a button that opens its menu at once."""
    button = QToolButton()
    button.setProperty("role", "kind")
    button.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
    return button
