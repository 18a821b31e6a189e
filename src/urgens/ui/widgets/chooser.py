"""A button that shows what is chosen, and whose menu chooses another."""

from collections.abc import Callable, Mapping
from functools import partial

from PySide6.QtWidgets import QMenu, QToolButton

from urgens.ui.widgets.plain import button_words


def chooser(
    words: str, name: str, choices: Mapping[str, str], take: Callable[[str], None]
) -> QToolButton:
    """Return a button that shows what is chosen, and whose menu chooses another."""
    button = QToolButton()
    button.setText(button_words(words))
    button.setAccessibleName(f"{name}: {words}")
    button.setProperty("role", "kind")
    button.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
    menu = QMenu(button)
    for value, said in choices.items():
        menu.addAction(button_words(said), partial(take, value))
    button.setMenu(menu)
    return button
