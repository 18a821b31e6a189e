"""What stops the card, pauses it or makes it begin once more: by keys alone."""

from collections.abc import Callable

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QToolButton

from tests.builds import bed, unproved
from urgens.document import Build, demo, dumps, loads
from urgens.guidance.condition.holds import condition
from urgens.ui.frame.window import MainWindow
from urgens.ui.stations.bleed import BLEED
from urgens.ui.stations.bleed.card_page import CardPage
from urgens.ui.stations.bleed.work_buttons import Mode

STATION = "Bleed"  # that its windows open at
Opener = Callable[[Build], MainWindow]
ENTER, BACK = Qt.Key.Key_Return, Qt.Key.Key_Backspace
LEFT = Qt.MouseButton.LeftButton


def on_card(window: MainWindow, name: str) -> CardPage:
    window.show_station("Bleed")
    window.station("Bleed").show_page_named("Card")
    page = window.station("Bleed").page
    assert isinstance(page, CardPage)
    page.choose(name)
    return page


def press(page: CardPage, *keys: Qt.Key) -> None:
    for key in keys:
        QTest.keyClick(page.plan, key)


def answer(page: CardPage, key: str) -> None:
    field = page.reading.fields[key]
    assert isinstance(field, QToolButton)
    QTest.mouseClick(field, LEFT)


def at_first_answer(window: MainWindow, name: str) -> CardPage:
    """A procedure begun, at the first card that asks."""
    page = on_card(window, name)
    press(page, ENTER)
    while page.run.step is not None and page.run.step.record is None:
        press(page, ENTER)
    return page


def answered_no(window: MainWindow, name: str) -> CardPage:
    """The first card of a procedure that asks, answered no."""
    page = at_first_answer(window, name)
    answer(page, "ok no")
    return page


def codes(window: MainWindow) -> set[str]:
    return {one.code for one in condition(window.session.build).holds}


def test_a_no_stops_the_card_and_once_more_asks_again(open_window: Opener) -> None:
    window = open_window(unproved("roadster"))
    page = answered_no(window, "leak-test")
    at = page.run.number
    press(page, ENTER)
    assert page.state.mode is Mode.HALTED
    assert page.sentence.text() == f"Step {at}: answered no."
    assert "dry everywhere is the cylinder" in page.why.text()
    assert page.reading.isHidden()
    assert "leak" in codes(window)
    press(page, ENTER)
    assert page.state.mode is Mode.GOING
    assert page.run.number == at
    answer(page, "ok yes")
    press(page, ENTER)
    assert page.state.mode is not Mode.HALTED
    assert "leak" not in codes(window)


def test_a_no_is_gone_past_by_hand_and_holds_all_the_same(open_window: Opener) -> None:
    window = open_window(unproved("roadster"))
    page = answered_no(window, "leak-test")
    last = page.run.last
    press(page, ENTER, Qt.Key.Key_G)
    assert (page.run.record is None) is last
    assert "leak" in codes(window)


def test_a_no_after_an_undo_stops_the_card_as_the_first_one_did(open_window: Opener) -> None:
    window = open_window(unproved("roadster"))
    page = answered_no(window, "prove-standing")
    at = page.run.number
    press(page, ENTER, Qt.Key.Key_G)
    assert page.run.number == at + 1
    for _ in range(2):
        window.session.undo_stack.undo()
    assert page.run.number == at
    answer(page, "ok no")
    press(page, ENTER)
    assert page.state.mode is Mode.HALTED


def test_trace_is_one_key_away_with_the_sign_noted(open_window: Opener) -> None:
    window = open_window(unproved("roadster"))
    page = answered_no(window, "leak-test")
    press(page, ENTER, Qt.Key.Key_F)
    assert window.station("Trace").isVisible()
    (followed,) = window.session.build.traces
    assert [(one.sign, one.seen) for one in followed.signs] == [("sinks", True)]
    page = on_card(window, "leak-test")
    assert page.state.mode is Mode.HALTED  # it waits where it was
    press(page, Qt.Key.Key_F)
    assert len(window.session.build.traces[0].signs) == 1


def test_with_a_screw_open_the_card_goes_on_until_it_is_shut(open_window: Opener) -> None:
    window = open_window(unproved("roadster"))
    page = at_first_answer(window, "switch-test")
    answer(page, "lamp yes")
    press(page, ENTER)
    hose = page.run.number
    press(page, ENTER, ENTER)
    assert page.run.step is not None
    assert page.run.step.action == "open"
    at = page.run.number
    answer(page, "lamp no")
    press(page, ENTER)
    assert page.state.mode is Mode.GOING
    said = f"Step {at}: left front: answered no. First shut and let go."
    assert page.why.text().startswith(said)
    press(page, ENTER, ENTER)
    assert page.state.mode is Mode.HALTED
    press(page, ENTER)
    assert page.run.number == hose + 1  # from the press that goes with it


def test_a_run_is_paused_and_goes_on_where_it_was(open_window: Opener) -> None:
    window = open_window(bed("library"))
    page = on_card(window, "bleed")
    press(page, ENTER)
    while page.run.step is not None and page.run.step.action != "stroke":
        press(page, ENTER)
    press(page, Qt.Key.Key_Space, Qt.Key.Key_Space, Qt.Key.Key_L)
    assert page.why.text() == "Right rear: open; left so it holds the vehicle."
    press(page, BACK)
    assert (page.state.mode, page.strokes) == (Mode.GOING, 2)
    press(page, Qt.Key.Key_L, ENTER)
    assert page.state.mode is Mode.PAUSED
    assert page.sentence.text() == f"Paused at step {page.run.number}."
    assert page.why.text().startswith("Right rear: open.")
    assert BLEED.fact(window.session) == "R rear open"  # on every station
    assert page.run.record is not None
    assert page.run.record.ended is None
    again = on_card(open_window(loads(dumps(window.session.base))), "bleed")
    assert (again.state.mode, again.strokes) == (Mode.GOING, 2)
    press(page, ENTER)
    assert (page.state.mode, page.strokes) == (Mode.GOING, 2)


def test_no_stroke_is_counted_while_a_run_is_paused_or_being_left(open_window: Opener) -> None:
    window = open_window(bed("library"))
    page = on_card(window, "bleed")
    press(page, ENTER)
    while page.run.step is not None and page.run.step.action != "stroke":
        press(page, ENTER)
    press(page, Qt.Key.Key_Space, Qt.Key.Key_L, Qt.Key.Key_Space, Qt.Key.Key_B)
    assert page.run.record is not None
    assert page.run.record.strokes == 1
    press(page, ENTER, Qt.Key.Key_Space)
    assert (page.state.mode, page.run.record.strokes) == (Mode.PAUSED, 1)
    assert page.reading.values == {}


def test_what_is_passed_without_an_answer_is_said(open_window: Opener) -> None:
    window = open_window(bed("library"))
    page = on_card(window, "prove-standing")
    press(page, ENTER)
    passed = 0
    while passed < 2:
        assert page.run.step is not None
        passed += page.run.step.record is not None
        press(page, ENTER)
    assert page.summary.startswith(f"step {page.run.number} of ")
    assert page.summary.endswith("; 2 passed without an answer")


@pytest.mark.parametrize("key", [Qt.Key.Key_G, Qt.Key.Key_F])
def test_keys_of_what_is_not_asked_do_nothing(open_window: Opener, key: Qt.Key) -> None:
    window = open_window(bed("library"))
    page = on_card(window, "bleed")
    press(page, ENTER, ENTER)
    before = window.session.base
    press(page, key)
    assert window.session.base is before


def test_a_joint_that_came_loose_is_said_before_the_wheel_is_bled_again(
    open_window: Opener,
) -> None:
    """The van as it ships: air came at the left rear, and its joint was only started."""
    page = on_card(open_window(demo("library")), "bleed")
    assert page.state.mode is Mode.HALTED
    assert page.sentence.text() == "Step 25: left rear: bubbles large."
    assert page.why.text().startswith(
        "tee to left rear, at the brake is started by hand; tighten every joint first"
    )
