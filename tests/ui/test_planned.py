"""A figure that the window chose says that it is planned, until somebody has seen it fitted."""

from collections.abc import Callable

from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication

from tests.builds import bed
from tests.waiting import rest
from urgens.document import Build
from urgens.document.edits.edit import edited
from urgens.ui.frame.window import MainWindow
from urgens.ui.stations.measure import MEASURE
from urgens.ui.stations.measure.settle_list import SettleList
from urgens.ui.widgets.dimension_label import Knowledge

STATION = "Measure"  # that its windows open at
Opener = Callable[[Build], MainWindow]
BORE = "master.bore"


def test_a_bore_that_is_chosen_is_stamped_no_longer_and_undo_gives_it_back(
    open_window: Opener, dressed: QApplication
) -> None:
    known = {BORE: {"state": "stamped"}}
    window = open_window(edited(bed("bakery"), "evidence", known))
    session = window.session
    window.show_station("Size")
    window.station("Size").show_page_named("Map")
    plane = window.station("Size").page.map
    plane.setFocus()
    for key in (Qt.Key.Key_Up, Qt.Key.Key_Return):
        QTest.keyClick(plane, key)
    assert session.said_of(BORE) == "planned"
    window.show_station("Measure")
    window.station("Measure").show_part(1)
    rest(20)
    assert window.station("Measure").pedal.labels[BORE].known is Knowledge.PLANNED
    session.undo_stack.undo()
    assert session.said_of(BORE) == "stamped"


def test_what_is_planned_is_still_to_settle_once_it_is_fitted(open_window: Opener) -> None:
    window = open_window(edited(bed("bakery"), "evidence", {BORE: {"state": "planned"}}))
    window.show_station("Measure")
    settle = window.findChild(SettleList)
    assert settle is not None
    settle.rank()
    lines = settle.model().lines
    line = next(one for one in lines if ", planned" in one)
    assert "when it is fitted: " in line
    assert MEASURE.fact(window.session) == "1 planned"
