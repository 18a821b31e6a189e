"""A small screen: every page has room, the press is a strip that opens over the bench."""

from collections.abc import Callable
from typing import Any

import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QAbstractButton, QScrollArea, QWidget

from tests.builds import bed
from tests.ui.conftest import every_page
from tests.waiting import rest
from urgens.document import Build, BuildChange
from urgens.ui.frame.window import SMALLEST, MainWindow

Opener = Callable[[Build], MainWindow]
LEFT = Qt.MouseButton.LeftButton


def scrolled(widget: QWidget) -> bool:
    """Whether it stands in something that is scrolled, and so may be longer than the window."""
    parent = widget.parentWidget()
    while parent is not None:
        if isinstance(parent, QScrollArea):
            return True
        parent = parent.parentWidget()
    return False


@pytest.mark.parametrize("name", ["tender"])  # the most faults, and long names
def test_every_page_has_room_in_the_smallest_window(
    open_window: Opener, qtbot: Any, name: str
) -> None:
    window = open_window(bed(name))
    window.resize(*SMALLEST)
    shown = window.finding_line.finding
    if shown is not None and (shown.chosen or shown.fixes):
        # What is offered is worked out meanwhile, and makes the line under the bench taller.
        qtbot.waitUntil(window.finding_line.fix.isVisible, timeout=20_000)
    assert (window.width(), window.height()) == SMALLEST == (1024, 700)
    for _, page in every_page(window):
        assert (window.width(), window.height()) == SMALLEST, page
        bench = window.bench.rect()
        for button in window.findChildren(QAbstractButton):
            if button.isVisible() and button.text():
                assert button.sizeHint().width() <= button.width() + 1, (page, button.text())
        for widget in window.bench.findChildren(QWidget):
            if widget.isVisible() and not scrolled(widget):
                corner = widget.mapTo(window.bench, QPoint(0, 0))
                right, foot = corner.x() + widget.width(), corner.y() + widget.height()
                assert right <= bench.right() + 1, (page, widget)
                assert foot <= bench.bottom() + 1, (page, widget)


@pytest.mark.parametrize("width", [SMALLEST[0], 1280])
@pytest.mark.parametrize("name", ["library", "tractor"])
def test_no_button_of_the_frame_is_cut(open_window: Opener, name: str, width: int) -> None:
    window = open_window(bed(name))
    window.resize(width, SMALLEST[1])
    rest(20)
    for button in window.top.findChildren(QAbstractButton):
        if button.isVisible():
            right = button.mapTo(window, QPoint(button.width(), 0)).x()
            assert right <= window.width()
            assert button.sizeHint().width() <= button.width()
    other = window.top.setups[-1]
    assert other.text().startswith("B  ")
    if width == 1280:  # there its whole name has room
        assert other.text() == f"B  {window.session.base.setups[0].name}"
    else:
        assert other.text().endswith("…")
        assert other.toolTip() == window.session.base.setups[0].name


@pytest.mark.parametrize("far", [False, True])
def test_what_to_fit_leaves_the_finding_its_room(
    open_window: Opener, qtbot: Any, far: bool
) -> None:
    window = open_window(bed("library"))
    if far:
        window.stand_back()
    else:
        window.resize(*SMALLEST)
    line = window.finding_line
    qtbot.waitUntil(line.fix.isVisible, timeout=20_000)
    rest(20)
    assert line.message.width() > 400
    assert line.height() < 100
    whole = line.fix.accessibleName()
    assert whole.startswith("Fit: load-sensing valve, ")
    assert "slope" in whole
    assert line.fix.text().endswith("…")
    assert whole in line.fix.toolTip()
    for part in (line.count, line.fix, line.message):
        middle = part.geometry().center().y()
        assert middle == pytest.approx(line.height() / 2, abs=2)


def test_the_press_opens_over_the_bench_and_goes_again(open_window: Opener) -> None:
    window = open_window(bed("library"))
    window.resize(*SMALLEST)
    rest(20)
    assert window.strip.isVisible()
    assert not window.press.isVisible()
    QTest.mouseClick(window.strip.open, LEFT)
    assert window.press.isVisible()
    bench = window.bench.geometry()
    assert window.press.geometry().right() == bench.right()
    assert window.bench.width() > 850  # it keeps its room
    QTest.keyClick(window, Qt.Key.Key_Escape)
    assert not window.press.isVisible()
    window.setFocus()
    QTest.keyClick(window, Qt.Key.Key_4)  # nobody said that the foot is meant
    assert not window.press.isVisible()
    QTest.keyClick(window, Qt.Key.Key_0, Qt.KeyboardModifier.AltModifier)
    assert window.press.isVisible()
    QTest.keyClick(window.press.effort, Qt.Key.Key_4)
    assert window.press.effort.editor is not None
    QTest.keyClick(window.press.effort.editor, Qt.Key.Key_Escape)
    window.resize(1280, 800)
    rest(20)
    assert not window.strip.isVisible()
    assert window.press.geometry().left() > window.bench.geometry().right()


def test_the_strip_says_what_the_press_says(open_window: Opener) -> None:
    window = open_window(bed("library"))
    window.resize(*SMALLEST)
    window.session.set_effort(200.0)
    (readings,) = [
        w for w in window.strip.findChildren(QWidget) if w.accessibleName()[:4] == "Foot"
    ]
    assert "45 lbf" in readings.accessibleName()
    assert "rear locks first" in readings.accessibleName().lower()
    before = readings.grab().toImage()
    window.session.consider(BuildChange("Bore 1 in", {"master.bore": "1 in"}))
    assert readings.accessibleName().startswith("not fitted: Bore 1 in; ")  # as the press says
    assert readings.grab().toImage() != before
    window.session.consider(None)
    assert readings.accessibleName().startswith("Foot 45 lbf")


def test_every_station_is_on_the_rail_of_the_smallest_window(open_window: Opener) -> None:
    window = open_window(bed("bakery"))
    window.resize(*SMALLEST)
    rest(50)
    rail = window.rail
    last = rail.item_box(7)
    assert last.bottom() <= rail.height()
    QTest.mouseClick(rail, LEFT, pos=last.center().toPoint())
    assert window.bench.currentWidget() is window.station("Sheet")
