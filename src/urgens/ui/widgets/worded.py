"""Words in one of the roles the stylesheet knows."""

from PySide6.QtWidgets import QLabel


def worded(words: str, role: str) -> QLabel:
    """Return a label with words in a role: title, summary, heading, muted, small, danger."""
    label = QLabel(words)
    label.setProperty("role", role)
    return label
