"""Two cylinders in the window: typed, drawn over each other, kept as a set-up."""

from collections.abc import Callable

from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QToolButton

from tests.ui.conftest import LEFT, type_into
from urgens.document import Build
from urgens.ui.frame.window import MainWindow
from urgens.ui.stations.size.cylinders_page import CylindersPage

STATION = "Size"  # that its windows open at
Opener = Callable[[Build], MainWindow]


def page(window: MainWindow) -> CylindersPage:
    window.station("Size").show_page_named("Two cylinders")
    found: CylindersPage = window.station("Size").page
    return found


def test_a_look_alike_is_caught_and_becomes_a_set_up(open_window: Opener, bakery: Build) -> None:
    window = open_window(bakery)
    shown = page(window)
    assert not shown.add.isVisible()
    window.session.edit("master.socket_depth", "8 mm")
    before = shown.board.grab().toImage()
    type_into(shown.others["socket_depth"], "1-1/4 in")
    assert shown.found[0].tone == "danger"
    assert shown.board.grab().toImage() != before
    assert "look before it is bought" in shown.summary
    QTest.mouseClick(shown.add, LEFT)
    setups = {one.name: dict(one.changes) for one in window.session.base.setups}
    assert setups["other cylinder"]["master.socket_depth"] == "1-1/4 in"
    window.session.set_setup("other cylinder")  # what was known of one's own is not of this one
    assert bakery.master.reservoir_volume is not None
    assert window.session.build.master.reservoir_volume is None
    window.session.set_setup(None)
    QTest.mouseClick(shown.add, LEFT)  # again: it is written anew
    assert [one.name for one in window.session.base.setups].count("other cylinder") == 1


def test_what_is_no_length_is_said_where_it_is_typed(open_window: Opener, roadster: Build) -> None:
    shown = page(open_window(roadster))
    assert "front_bore" in shown.others  # two cylinders with a bar have two bores
    label = shown.others["front_bore"]
    type_into(label, "wide")
    assert label.error
    QTest.keyClick(label.editor, Qt.Key.Key_Escape)
    type_into(label, "7/8 in")
    kept = shown.typed
    type_into(label, "")
    shown.typed = kept
    assert shown.typed == {"front_bore": "7/8 in"}


def test_outlets_of_both_are_chosen_and_compared(open_window: Opener, bakery: Build) -> None:
    window = open_window(bakery)
    shown = page(window)

    def choose(name: str, words: str) -> None:
        button = next(b for b in shown.findChildren(QToolButton)
                      if b.accessibleName().startswith(name))  # fmt: skip
        next(a for a in button.menu().actions() if a.text() == words).trigger()

    for circuit, words in (("Front", "left"), ("Rear", "at the end")):
        choose(f"{circuit} outlet on the vehicle", words)
    outlets = {one.circuit: one.position for one in window.session.build.master.outlets}
    assert outlets == {"front": "left", "rear": "end"}
    choose("Front outlet of the other", "right")
    choose("Rear outlet of the other", "at the end")
    lines = next(one for one in shown.found if one.what == "Lines")
    assert "front, right" in lines.words
    QTest.mouseClick(shown.add, LEFT)
    (setup,) = (one for one in window.session.base.setups if one.name == "other cylinder")
    assert "master.outlets" in setup.changes
