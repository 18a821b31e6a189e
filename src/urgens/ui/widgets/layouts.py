"""Layouts without room around them."""

from typing import TypeVar

from PySide6.QtWidgets import QLayout

L = TypeVar("L", bound=QLayout)


def tight(layout: L, spacing: int | None = None) -> L:
    """Return a layout without margins, with so many px between its parts."""
    layout.setContentsMargins(0, 0, 0, 0)
    if spacing is not None:
        layout.setSpacing(spacing)
    return layout
