"""Lines to type into, as forms make them."""

from collections.abc import Callable

from PySide6.QtWidgets import QLineEdit


def hinted_field(words: str, hint: str, entered: Callable[[], object]) -> QLineEdit:
    """Return a line with what it is for, what it takes, and what Enter does."""
    field = QLineEdit()
    field.setPlaceholderText(hint)
    field.setAccessibleName(words)
    field.returnPressed.connect(entered)
    return field
