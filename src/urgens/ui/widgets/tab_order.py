"""Tab follows the eye: layouts in their order, figures on a drawing row by row."""

from collections.abc import Iterable, Iterator
from functools import partial
from itertools import pairwise
from typing import cast

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QAbstractItemView, QComboBox, QGridLayout, QLayout, QLineEdit, QWidget

WHOLE = (QAbstractItemView, QComboBox, QLineEdit)  # which have nothing inside that Tab stops at


def order_by_eye(window: QWidget) -> None:
    """Let Tab go through what is seen of a window in the order in which it is read."""
    for first, second in pairwise(stops(window)):
        QWidget.setTabOrder(first, second)


def stops(widget: QWidget) -> Iterator[QWidget]:
    """Yield what Tab stops at in a widget, and itself if it does, as they are read."""
    if not widget.isVisible():
        return
    takes = bool(widget.focusPolicy() & Qt.FocusPolicy.TabFocus)
    if takes and widget.isEnabled() and widget.focusProxy() is None:
        yield widget
    if isinstance(widget, WHOLE):
        return
    placed: list[QWidget] = []
    layout = widget.layout()
    if layout is not None:
        placed += _in(layout)
    children = [one for one in widget.children() if isinstance(one, QWidget) and not one.isWindow()]
    loose = [one for one in children if one not in placed]
    for child in (*placed, *_by_rows(loose)):
        yield from stops(child)


def _in(layout: QLayout) -> Iterator[QWidget]:
    """Yield the widgets of a layout: a grid's row by row."""
    places = list(range(layout.count()))
    if isinstance(layout, QGridLayout):
        places.sort(key=partial(_place, layout))
    for at in places:
        item = layout.itemAt(at)
        assert item is not None
        inner, widget = item.layout(), item.widget()
        if widget is not None:
            yield widget
        elif inner is not None:
            yield from _in(inner)


def _place(grid: QGridLayout, at: int) -> tuple[int, int]:
    row, column, *_ = cast(tuple[int, int, int, int], grid.getItemPosition(at))
    return row, column


def _by_rows(widgets: Iterable[QWidget]) -> list[QWidget]:
    """Return what stands freely row by row: what begins above the middle of a row is of it."""
    rows: list[list[QWidget]] = []
    for one in sorted(widgets, key=lambda one: (one.y(), one.x())):
        if rows and one.y() < rows[-1][0].y() + rows[-1][0].height() / 2:
            rows[-1].append(one)
        else:
            rows.append([one])
    return [one for row in rows for one in sorted(row, key=lambda one: one.x())]
