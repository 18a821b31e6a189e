"""Layouts by the room between their parts and around them."""

from itertools import pairwise
from typing import TypeVar

from PySide6.QtCore import QPoint, Qt
from PySide6.QtWidgets import QFrame, QLayout, QWidget

from urgens.ui.theme.paint import T

BAND = 24  # px: what stands no farther apart than that is one row
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


def tab_by_eye(whole: QWidget) -> list[QWidget]:
    """Let Tab go as the eye does, row by row, each from the left; return what it comes to."""
    stops = [
        one
        for one in whole.findChildren(QWidget)
        if one.focusPolicy() & Qt.FocusPolicy.TabFocus and one.isVisibleTo(whole)
    ]
    rows: list[list[tuple[int, QWidget]]] = []
    height = -2 * BAND
    for at, one in sorted(
        ((each.mapTo(whole, QPoint(0, each.height() // 2)), each) for each in stops),
        key=lambda row: (row[0].y(), row[0].x()),
    ):
        if at.y() - height > BAND:
            rows.append([])
            height = at.y()
        rows[-1].append((at.x(), one))
    order = [one for row in rows for _, one in sorted(row, key=lambda pair: pair[0])]
    for first, second in pairwise(order):
        QWidget.setTabOrder(first, second)
    return order
