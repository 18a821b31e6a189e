"""Rows taken out of a layout before others are put in."""

from PySide6.QtWidgets import QLayout


def clear(layout: QLayout) -> None:
    """Take everything out of a layout, rows inside it as well, and let it go."""
    while (item := layout.takeAt(0)) is not None:
        widget, inner = item.widget(), item.layout()
        if widget is not None:
            widget.hide()
            widget.deleteLater()
        elif inner is not None:
            clear(inner)
