"""Wishes in the window: from the start page to a set-up, by mouse and by keys; slid, stopped."""

from collections.abc import Callable
from typing import Any

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication
from pytestqt.qtbot import QtBot

from tests.ui.conftest import page_of
from tests.ui.test_job import ALT, KEY, Hand
from tests.waiting import rest
from urgens.document import Build, BuildChange, own_vehicle, with_setup
from urgens.guidance import Severity, findings
from urgens.quantity import UnitSystem
from urgens.solve import solve
from urgens.ui.frame.window import MainWindow
from urgens.ui.widgets.background import any_running

STATION = "Size"
MOST = 40  # actions
SLOW = 60_000  # ms
# Five wishes as they are typed, in inches and pounds where they are bare.
WANTED = {
    "effort": "72", "deceleration": ".62", "floor": "1.2", "half-lost": ".25",
    "rear-first-chance": ".25",
}  # fmt: skip


@pytest.fixture
def window(open_window: Callable[[Build], MainWindow]) -> MainWindow:
    return open_window(own_vehicle())


@pytest.fixture
def page(window: MainWindow, qtbot: QtBot) -> Any:
    shown = page_of(window, "Size", "Wishes")
    settled(shown, qtbot)
    return shown


def settled(page: Any, qtbot: QtBot) -> None:
    """Until what is wanted now has been worked out."""
    rest(150)
    qtbot.waitUntil(lambda: not page.work.busy and not any_running(), timeout=SLOW)


def tick(page: Any, *names: str) -> None:
    for name in names:
        page.may.boxes[name].setChecked(True)


@pytest.mark.parametrize("mouse", [True, False], ids=["mouse", "keys"])
def test_from_the_start_page_to_a_set_up(
    dressed: QApplication, window: MainWindow, qtbot: QtBot, mouse: bool
) -> None:
    window.show_start()
    hand = Hand(dressed, window, mouse=mouse)
    assert window.start is not None
    hand.take(window.start.wishes)
    qtbot.waitUntil(lambda: not window.starting)
    page = window.station("Size").page
    settled(page, qtbot)

    for name, text in WANTED.items():
        label = page.rows[name].label
        if mouse:
            hand.take(label)
        else:
            hand.tab_to(label)
        hand.write(text)
        hand.press(KEY.Key_Return)
    settled(page, qtbot)
    assert page.found, page.claim.text()
    if mouse:
        hand.take(page.cards[1].take)
    else:
        hand.press(KEY.Key_2, ALT)  # the station has the keys again
        hand.press(KEY.Key_2)
        assert window.session.considered == page.found[1].system.words
        hand.press(KEY.Key_Return)

    session = window.session
    assert hand.actions <= MOST
    assert session.setup == "Wish 1"
    assert session.build.targets.deceleration == 0.62
    solution = session.solution
    assert solution.wanted_effort <= 72 * 4.4482216
    assert not [one for one in findings(solution) if one.severity is Severity.DANGER]
    assert session.build.plumbing is not None
    states = {known.state for known in session.build.evidence.values()}
    assert "planned" in states
    session.undo_stack.undo()
    assert session.base.setups == ()


def test_the_press_shows_the_card_that_is_looked_at(page: Any, window: MainWindow) -> None:
    tick(page, "front-friction")
    rest(200)
    settle = lambda: not page.work.busy  # noqa: E731
    while not settle():
        rest(20)
    one = page.found[1].system
    page.setFocus()

    QTest.keyClicks(page, "2")
    assert window.session.considered == one.words
    effort = window.session.pressed_solution.wanted_effort
    assert effort == pytest.approx(one.figures["effort"], rel=1e-6)
    QTest.keyClicks(page, "2")
    assert window.session.considered == ""


def test_a_set_up_that_is_taken_does_what_its_card_says(
    page: Any, window: MainWindow, qtbot: QtBot
) -> None:
    tick(page, "front-friction", "rear-pistons")
    settled(page, qtbot)
    before = {
        one.code for one in findings(solve(window.session.base))
        if one.severity is not Severity.ADVICE
    }  # fmt: skip
    for rank, card in enumerate(list(page.found)[:3], start=1):
        window.session.set_setup(None)
        settled(page, qtbot)
        page.take(rank)
        made = with_setup(window.session.base, f"Wish {rank}")
        assert solve(made).wanted_effort == pytest.approx(card.system.figures["effort"], rel=1e-6)
        new = {
            one.code for one in findings(solve(made)) if one.severity is not Severity.ADVICE
        }  # fmt: skip
        assert not new - before - {"held", "proof-open", "assumed-figure-decides"}


def test_a_slider_is_a_wish(page: Any, qtbot: QtBot) -> None:
    row = page.rows["effort"]
    row.slider.setFocus()

    for _ in range(4):
        QTest.keyClick(row.slider, Qt.Key.Key_PageDown)
    settled(page, qtbot)
    assert row.value < 100.0
    assert page.typed["effort"] == row.text
    assert page.found == []
    assert page.relax.isVisible()
    QTest.mouseClick(page.relax, Qt.MouseButton.LeftButton)
    settled(page, qtbot)
    assert page.answer.systems or page.answer.relax
    assert row.value > 100.0


def test_what_is_typed_wrong_is_refused_in_words(page: Any, qtbot: QtBot) -> None:
    label = page.rows["half-lost"].label
    label.setFocus()
    QTest.keyClick(label, Qt.Key.Key_Return)
    label.editor.setText("a lot")
    QTest.keyClick(label.editor, Qt.Key.Key_Return)
    assert '"a lot" is no number' in label.error
    QTest.keyClick(label.editor, Qt.Key.Key_Escape)

    page.rows["floor"].put(1.0, page.session.units)
    page.rows["floor"].changed.emit()
    assert "want floor: more than the whole pedal" in page.claim.text()
    page.rows["floor"].put(0.03, page.session.units)
    page.may.sizes["bore"].setText("a bore")
    page.may.changed.emit()
    settled(page, qtbot)
    assert "may bore: " in page.claim.text()
    assert page.found == []


def test_work_is_stopped_and_gone_on_with(page: Any, qtbot: QtBot) -> None:
    tick(page, "front-friction", "rear-friction", "rear-pistons")
    qtbot.waitUntil(lambda: page.work.busy, timeout=SLOW)
    QTest.mouseClick(page.again, Qt.MouseButton.LeftButton)
    assert page.claim.text().startswith("Stopped.")
    assert page.again.text() == "Work it out"
    rest(100)
    assert page.claim.text().startswith("Stopped.")
    page.may.boxes["rear-friction"].setChecked(False)
    settled(page, qtbot)
    assert page.found
    assert page.again.isHidden()


def test_why_not_is_answered(page: Any, qtbot: QtBot) -> None:
    page.asked.setText("bore 5/8 in")
    page.asked.setFocus()
    QTest.keyClick(page.asked, Qt.Key.Key_Return)
    qtbot.waitUntil(lambda: "misses" in page.because.text(), timeout=SLOW)
    assert page.because.text().startswith("Bore 5/8 in misses pressure")
    page.asked.setText("wheels")
    QTest.keyClick(page.asked, Qt.Key.Key_Return)
    assert page.because.text().startswith("Write what and which")
    page.asked.setText("bore wide")
    QTest.keyClick(page.asked, Qt.Key.Key_Return)
    qtbot.waitUntil(lambda: "may bore" in page.because.text(), timeout=SLOW)


def test_another_unit_shows_the_same_wishes(page: Any, window: MainWindow, qtbot: QtBot) -> None:
    value = page.rows["effort"].value
    window.session.set_units(UnitSystem.METRIC)
    settled(page, qtbot)

    assert page.rows["effort"].value == pytest.approx(value)
    assert page.rows["effort"].label.accessibleName() == "Foot for the wanted deceleration 334 N"


def test_on_a_set_up_that_is_looked_at_its_changes_stay(
    page: Any, window: MainWindow, qtbot: QtBot
) -> None:
    session = window.session
    fitted = {"name": "soft pads", "changes": {"front.brake.pad_friction": 0.45}}
    session.make(BuildChange("soft pads", orders={"setups": [fitted]}), in_setup=False)
    session.set_setup("soft pads")
    settled(page, qtbot)
    assert page.found

    same = next(i for i, card in enumerate(page.found, start=1) if not card.system.changes)
    page.take(same)
    assert page.claim.text().startswith("That is what is there")
    page.take(next(i for i, card in enumerate(page.found, start=1) if card.system.changes))
    made = with_setup(session.base, "Wish 1")
    assert made.front.brake.pad_friction == 0.45  # type: ignore[union-attr]
    effort = page.answer.systems and solve(made).wanted_effort
    assert effort <= session.base.targets.comfortable_effort.value


def test_what_is_wanted_outlives_another_theme(page: Any, window: MainWindow, qtbot: QtBot) -> None:
    tick(page, "front-friction")
    page.may.sizes["bore"].setText("3/4 in")
    page.may.changed.emit()
    page.rows["floor"].put(0.03, window.session.units)
    page.rows["floor"].changed.emit()
    settled(page, qtbot)
    told = page.claim.text()

    window.switch_theme()
    again = page_of(window, "Size", "Wishes")
    settled(again, qtbot)
    assert again is not page
    assert again.rows["floor"].value == pytest.approx(0.03)
    assert again.may.boxes["front-friction"].isChecked()
    assert again.may.sizes["bore"].text() == "3/4 in"
    assert again.claim.text() == told


def test_a_window_of_the_build_is_not_let_go_and_other_wishes_are(
    page: Any, window: MainWindow, qtbot: QtBot
) -> None:
    for name, left in (("floor", 0.025), ("travel", None)):
        row = page.rows[name]
        row.put(0.06, window.session.units)
        row.changed.emit()
        settled(page, qtbot)
        row.label.setFocus()
        QTest.keyClick(row.label, Qt.Key.Key_Return)
        row.label.editor.setText("")
        QTest.keyClick(row.label.editor, Qt.Key.Key_Return)
        settled(page, qtbot)
        assert row.value == (None if left is None else pytest.approx(left)), name
