"""Tab follows the eye: pressed from the first control of a page to its last, on every page."""

from collections.abc import Callable
from itertools import pairwise

import pytest
from PySide6.QtCore import QPoint, QRect, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QAbstractItemView, QApplication, QWidget

from tests.ui.conftest import every_page
from tests.waiting import rest
from urgens.document import Build, demo, demo_names, own_vehicle
from urgens.ui.frame.window import MainWindow
from urgens.ui.widgets.tab_order import stops

Opener = Callable[[Build], MainWindow]
ROLE = Qt.ItemDataRole
BESIDE = 2  # px
MOST = 200  # stops of a page, and handles on its plots


def where(widget: QWidget) -> QRect:
    return QRect(widget.mapToGlobal(QPoint()), widget.size())


def tabbed(dressed: QApplication, bench: QWidget) -> list[tuple[QWidget, QRect]]:
    """What Tab stops at on the bench, and where that was then: what is hidden scrolls into view."""
    next(stops(bench)).setFocus()
    found: list[tuple[QWidget, QRect]] = []
    for _ in range(MOST):
        focused = dressed.focusWidget()
        if focused is None or not bench.isAncestorOf(focused):
            return found
        if not found or found[-1][0] is not focused:  # a plot goes through its handles first
            assert focused not in [one for one, _ in found]
            found.append((focused, where(focused)))
        QTest.keyClick(focused, Qt.Key.Key_Tab)
    raise AssertionError(f"Tab does not leave {type(focused).__name__}")


def named(widget: QWidget) -> bool:
    """Whether who listens hears what it is, and of a list each row."""
    if isinstance(widget, QAbstractItemView):
        model, roles = widget.model(), (ROLE.AccessibleTextRole, ROLE.DisplayRole)
        rows = [model.index(row, 0, widget.rootIndex())
                for row in range(model.rowCount(widget.rootIndex()))]  # fmt: skip
        if not all(any(str(row.data(role) or "").strip() for role in roles) for row in rows):
            return False
    text = getattr(widget, "text", "")
    said = text() if callable(text) else text
    return bool(widget.accessibleName().strip() or str(said).strip())


@pytest.mark.parametrize("name", [*demo_names(), "own"])
def test_tab_goes_as_the_eye_does_leaves_nothing_out_and_all_has_a_name(
    open_window: Opener, dressed: QApplication, name: str
) -> None:
    """Down, or to the right: back up only into a column that stands beside."""
    window = open_window(own_vehicle() if name == "own" else demo(name))
    window.resize(1280, 800)
    for page in every_page(window):
        found = tabbed(dressed, window.bench)
        assert {one for one, _ in found} == {*stops(window.bench)}, page
        nameless = [one for one, _ in found if not named(one)]
        assert not nameless, (page, [type(one).__name__ for one in nameless])
        for (one, before), (other, now) in pairwise(found):
            up = now.bottom() <= before.top() + BESIDE and now.left() < before.right() - BESIDE
            moved = where(one) != before  # to bring the other into view
            names = one.accessibleName(), other.accessibleName()
            assert moved or not up, (page, type(one).__name__, type(other).__name__, names)


def test_the_pedal_is_measured_from_its_pivot_on(
    open_window: Opener, dressed: QApplication
) -> None:
    window = open_window(own_vehicle())
    window.show_station("Measure")
    window.station("Measure").show_part(1)
    rest(20)
    names = [one.accessibleName() for one, _ in tabbed(dressed, window.bench)]

    def place(begins: str) -> int:
        return next(at for at, name in enumerate(names) if name.startswith(begins))

    assert place("Pivot to pushrod") < place("Pivot to pad") < place("Pad to floor")
