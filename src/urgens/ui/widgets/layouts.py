"""Layouts by the room between their parts and around them."""

from typing import TypeVar

from PySide6.QtWidgets import QFrame, QLayout

from urgens.ui.theme.paint import T

L = TypeVar("L", bound=QLayout)


def tight(layout: L, spacing: int | None = None) -> L:
    """Return a layout without margins, with so many px between its parts."""
    layout.setContentsMargins(0, 0, 0, 0)
    if spacing is not None:
        layout.setSpacing(spacing)
    return layout


def spaced(layout: L, spacing: int, margins: tuple[int, int, int, int] | None = None) -> L:
    """Return a layout with so many px between its parts; `margins`: left, top, right, bottom."""
    layout.setSpacing(spacing)
    if margins is not None:
        layout.setContentsMargins(*margins)
    return layout


def upright() -> QFrame:
    """Return the hairline that stands between two columns."""
    hairline = QFrame()
    hairline.setFixedWidth(1)
    hairline.setStyleSheet(f"background: {T.hair}")
    return hairline
