"""Bleed, driven by keys: from the first card to the last, left and resumed, and what is kept."""

from collections.abc import Callable
from datetime import datetime
from typing import Any

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QLabel, QLineEdit, QToolButton

from tests.builds import bed, unproved
from tests.ui.conftest import LEFT, page_of
from tests.waiting import rest
from urgens.document import Build, dumps, edited, loads
from urgens.guidance import Severity
from urgens.guidance.condition.holds import condition
from urgens.ui.frame.window import MainWindow
from urgens.ui.stations.bleed import BLEED
from urgens.ui.stations.bleed.card_page import CardPage
from urgens.ui.stations.bleed.joints_page import JointsPage

STATION = "Bleed"  # that its windows open at

Opener = Callable[[Build], MainWindow]


def card(window: MainWindow) -> CardPage:
    window.show_station("Bleed")
    window.station("Bleed").show_page_named("Card")
    found: CardPage = window.station("Bleed").page
    found.setFocus()
    assert found.plan.hasFocus()
    return found


def press(page: CardPage, *keys: Qt.Key) -> None:
    for key in keys:
        QTest.keyClick(page.plan, key)  # where the focus of the card rests


ENTER, SPACE, BACK = Qt.Key.Key_Return, Qt.Key.Key_Space, Qt.Key.Key_Backspace


@pytest.mark.parametrize("name", ["roadster", "library"])
def test_from_the_first_card_to_the_last_by_keys_alone(open_window: Opener, name: str) -> None:
    window = open_window(unproved(name))
    page = card(window)
    steps = page.run.procedure(page.method).steps
    press(page, ENTER)
    strokes = 0
    for number, step in enumerate(steps, start=1):
        assert page.run.number == number
        assert page.sentence.text() == step.text
        if step.action == "stroke":
            press(page, SPACE, SPACE, Qt.Key.Key_B, SPACE)
            strokes += 3 * len(step.wheels)
            assert page.counting.count.text() == "3"
        press(page, ENTER)
    (record,) = window.session.build.records
    assert record.ended is not None
    assert record.method == page.method
    read = [entry.value for entry in record.entries if entry.field == "strokes"]
    assert sum(float(value) for value in read) == strokes > 0
    assert {"fine"} == {e.value for e in record.entries if e.field == "bubbles"}
    wheels = {entry.wheel for entry in record.entries}
    assert wheels == {"front-left", "front-right", "rear-left", "rear-right"}
    assert page.run.record is None


def test_what_is_open_is_drawn_open_and_shut_again(open_window: Opener) -> None:
    page = card(open_window(unproved("roadster")))
    press(page, ENTER)
    most = 0
    while page.run.record is not None:
        open_ = set(page.plan.open)
        most = max(most, len(open_))
        assert open_ <= page.plan.hosed
        press(page, ENTER)
    assert most == 2  # a pair, with a bar
    assert page.plan.open == {}


def test_a_run_is_left_and_resumed_from_the_file_at_its_step(open_window: Opener) -> None:
    window = open_window(bed("library"))
    page = card(window)
    press(page, ENTER, *[ENTER] * 6)
    number, said = page.run.number, page.sentence.text()
    again = open_window(loads(dumps(window.session.build)))
    resumed = card(again)
    assert (resumed.run.number, resumed.sentence.text()) == (number, said)
    kinds = {stop.name: stop for stop in again.rail._stops}
    assert kinds["Bleed"].fact(again.session) == f"at step {number}"
    press(resumed, BACK)
    assert resumed.run.number == number - 1


def test_a_method_the_layout_rules_out_says_why_and_does_not_begin(open_window: Opener) -> None:
    window = open_window(edited(bed("library"), "valves.rear", [
        {"kind": "load-sensing", "points": [["1760 lb", "250 psi"], ["3620 lb", "640 psi"]],
         "slope": 0.25, "follows": "static"}]))  # fmt: skip
    page = card(window)
    QTest.mouseClick(page.chooser.methods["vacuum"], LEFT)
    assert page.sentence.text().startswith("Not so: a load-sensing valve")
    assert not page.buttons["next"].isEnabled()
    press(page, ENTER)
    assert window.session.build.records == ()
    QTest.mouseClick(page.chooser.methods["pedal"], LEFT)
    press(page, ENTER)
    assert window.session.build.records[0].method == "pedal"


def test_the_reservoir_is_told_to_be_low_before_it_is(open_window: Opener) -> None:
    page = card(open_window(bed("library")))
    press(page, ENTER)
    while page.run.step is not None and page.run.step.action != "stroke":
        press(page, ENTER)
    low = page.beside.needed(page.session.build).until_low
    assert low is not None
    for _ in range(low - 1):
        page.stroke()
    assert "1 left until the reservoir is low" in page.counting.low.text()
    assert page.counting.low.isVisible()
    page.stroke()
    assert "THE RESERVOIR IS LOW" in page.counting.low.text()


def test_a_reservoir_that_is_not_measured_is_said(open_window: Opener) -> None:
    page = card(open_window(unproved("roadster")))
    press(page, ENTER)
    while page.run.step is not None and page.run.step.action != "stroke":
        press(page, ENTER)
    assert "the reservoir is not measured" in page.counting.words.text()


def test_what_is_seen_is_chosen_and_typed_and_goes_into_the_record(open_window: Opener) -> None:
    window = open_window(bed("library"))
    page = card(window)
    press(page, ENTER)
    while page.run.step is not None and (
        page.run.step.record is None or page.run.step.record.field != "bubbles"
    ):
        press(page, ENTER)
    for words in ("bubbles large", "colour dark"):
        button: Any = page.reading.fields[words]
        assert isinstance(button, QToolButton)
        QTest.mouseClick(button, LEFT)
    press(page, ENTER)
    entries = window.session.build.records[0].entries
    assert {(e.field, e.value) for e in entries} >= {("bubbles", "large"), ("colour", "dark")}
    while page.run.step is not None and (
        page.run.step.record is None or page.run.step.record.field != "travel"
    ):
        press(page, ENTER)
    field = page.reading.fields["travel"]
    assert isinstance(field, QLineEdit)
    assert "should be about" in page.reading.should.text()
    field.setText("71")  # inches are shown, and the floor is nearer
    page.go_on()
    assert "beyond the floor" in page.reading.refused.text()
    field.setText("2-3/4")
    assert "not judged until" in page.reading.should.text()
    for help_, said in (("out", "without the booster"), ("working", "in at 60 lbf, booster")):
        QTest.mouseClick(page.reading.fields[f"booster {help_}"], LEFT)
        assert said in page.reading.should.text()
    page.go_on()
    read = window.session.build.records[0].entries[-1]
    told = read.value, read.effort, read.when, read.booster
    assert told == (69.85, "60 lbf", "now", "working")
    window.station("Bleed").show_page_named("Records")
    kept = window.station("Bleed").page
    assert "one run kept" in kept.summary
    assert "computed at 60 lbf" in " ".join(one.text() for one in kept.findChildren(QLabel))


def test_a_clock_that_goes_backwards_ends_no_run_before_it_began(open_window: Opener) -> None:
    window = open_window(bed("library"))
    page = card(window)
    press(page, ENTER)
    page.run._clock = lambda to="minutes": "2001-01-01T00:00"
    for _ in page.run.procedure(None).steps:
        press(page, SPACE, ENTER)
    (record,) = window.session.build.records
    assert record.ended == record.started
    assert all(entry.at >= record.started for entry in record.entries)
    assert record.started > datetime(2020, 1, 1)


def test_a_run_that_did_nothing_is_taken_back_and_one_that_did_is_given_up(
    open_window: Opener,
) -> None:
    window = open_window(bed("library"))
    page = card(window)
    press(page, ENTER)
    QTest.mouseClick(page.buttons["leave"], LEFT)
    assert window.session.build.records == ()
    press(page, ENTER)
    while page.run.step is not None and page.run.step.action != "stroke":
        press(page, ENTER)
    press(page, SPACE, ENTER)
    QTest.mouseClick(page.buttons["leave"], LEFT)
    assert page.buttons["give-up"].accessibleName() == "Give up: shut right rear first  G"
    assert page.why.text() == "Right rear: open; left so it holds the vehicle."
    QTest.mouseClick(page.buttons["give-up"], LEFT)
    (record,) = window.session.build.records
    assert record.outcome == "given-up"
    assert len(record.steps) > record.step
    found = condition(window.session.build)
    assert found.standing.wheels["rear-right"] == "open"  # what was open then stays so
    assert {"screw-open", "tool-fitted"} <= {one.code for one in found.holds}
    assert BLEED.fact(window.session) == "R rear open"
    assert BLEED.judged(window.session)
    assert BLEED.mark(window.session) is Severity.DANGER
    assert page.plan.open == {"rear-right": ""}  # drawn as it stands
    assert page.why.text().startswith("A screw is open: right rear.")
    items = page_of(window, "Bleed", "As it stands").list
    QTest.mouseClick(items.notes["rear-right"], LEFT)
    assert window.session.build.noted[0].place == "rear-right"
    assert "rear-right" not in items.notes
    assert items.notes["caps"].text() == "Now back"
    QTest.mouseClick(items.notes["caps"], LEFT)
    assert BLEED.mark(window.session) is Severity.WARNING  # held, and by no danger
    assert condition(window.session.build).standing.wheels["rear-right"] == "not-clear"
    window.session.undo_stack.undo()
    window.session.undo_stack.undo()
    assert BLEED.fact(window.session) == "R rear open"


def test_leaving_is_reached_by_tab_and_done_by_enter(open_window: Opener) -> None:
    window = open_window(bed("library"))
    page = card(window)
    press(page, ENTER)
    page.buttons["leave"].setFocus(Qt.FocusReason.TabFocusReason)
    QTest.keyClick(page.buttons["leave"], ENTER)
    assert page.run.record is None
    assert window.session.build.records == ()


def test_b_notes_bubbles_where_strokes_are_counted_and_is_a_set_up_elsewhere(
    open_window: Opener,
) -> None:
    window = open_window(bed("library"))
    page = card(window)
    press(page, ENTER)
    while page.run.step is not None and page.run.step.action != "stroke":
        press(page, ENTER)
    press(page, Qt.Key.Key_B)
    assert page.reading.values == {"bubbles": "fine"}
    assert window.session.setup is None
    press(page, ENTER, Qt.Key.Key_B)
    assert window.session.setup == "load-sensing"


def test_a_layout_that_changed_meanwhile_ends_at_its_last_card(open_window: Opener) -> None:
    left = {"procedure": "bleed", "method": "pedal", "started": "2026-05-02T14:10", "step": 999}
    build = edited(bed("library"), "records", [left])
    page = card(open_window(build))
    steps = page.run.procedure(None).steps
    assert page.run.number == len(steps)
    assert page.sentence.text() == steps[-1].text


def test_the_card_has_the_keys_as_soon_as_its_station_is_chosen(open_window: Opener) -> None:
    window = open_window(bed("roadster"))
    window.press.effort.setFocus()
    QTest.keyClick(window, Qt.Key.Key_5, Qt.KeyboardModifier.AltModifier)
    rest(30)
    card = window.station("Bleed").page
    focused = window.focusWidget()
    assert focused is card or card.isAncestorOf(focused)
    QTest.keyClick(focused, Qt.Key.Key_Return)  # begins
    assert window.press.effort.editor is None
    assert len(window.session.build.records) == len(bed("roadster").records) + 1


def test_a_switch_of_theme_goes_on_counting(open_window: Opener) -> None:
    window = open_window(bed("library"))
    page = card(window)
    press(page, ENTER)
    while page.run.step is not None and page.run.step.action != "stroke":
        press(page, ENTER)
    press(page, SPACE, SPACE)
    for _ in ("dark", "light"):
        window.station("Bleed").show_page_named("Records")
        window.switch_theme()
    again = card(window)
    assert again is not page
    QApplication.processEvents()
    assert again.counting.count.text() == "2"


def joints_page(window: MainWindow) -> JointsPage:
    window.show_station("Bleed")
    window.station("Bleed").show_page_named("Joints")
    found: JointsPage = window.station("Bleed").page
    return found


def test_bleeding_waits_for_a_joint_that_is_only_started(open_window: Opener) -> None:
    window = open_window(bed("library"))
    page = joints_page(window)
    QTest.mouseClick(page.buttons["L1.a", "started"], LEFT)
    assert window.session.build.joints[0].state == "started"
    assert "1 not tight yet" in page.summary
    work = card(window)
    assert "cylinder to valve body, front, at the cylinder" in work.sentence.text()
    assert not work.buttons["next"].isEnabled()
    press(work, ENTER)
    assert window.session.build.records == ()
    page = joints_page(window)
    button = page.buttons["L1.a", "tight"]
    button.setFocus(Qt.FocusReason.TabFocusReason)
    QTest.keyClick(button, SPACE)
    work = card(window)
    press(work, ENTER)
    assert window.session.build.records[0].method == "pedal"


def test_all_joints_are_noted_at_once_and_taken_back_in_one_step(open_window: Opener) -> None:
    window = open_window(unproved("roadster"))
    page = joints_page(window)
    QTest.mouseClick(page.all["dry"], LEFT)
    lines = window.session.build.plumbing.lines  # type: ignore[union-attr]
    ends = sum(1 if line.direct else 2 for line in lines)
    assert len(window.session.build.joints) == ends > 10
    assert {joint.state for joint in window.session.build.joints} == {"dry"}
    window.session.undo_stack.undo()
    assert window.session.build.joints == ()
    assert not page.buttons["L1.a", "dry"].isChecked()


def test_a_joint_that_is_gone_is_said_and_kept(open_window: Opener) -> None:
    gone = {"joint": "L99.a", "state": "started", "at": "2026-05-02T13:00"}
    window = open_window(edited(unproved("roadster"), "joints", [gone]))
    page = joints_page(window)
    assert "not in the layout any more" in " ".join(one.text() for one in page.findChildren(QLabel))
    QTest.mouseClick(page.all["tight"], LEFT)
    assert window.session.build.joints[0].joint == "L99.a"
    assert window.session.build.joints[0].state == "started"
    press(card(window), ENTER)  # what is not there holds nothing up
    assert len(window.session.build.records) == 1


def test_without_a_layout_there_is_no_joint(open_window: Opener) -> None:
    page = joints_page(open_window(edited(unproved("roadster"), "plumbing", None)))
    assert page.summary == "no joint"
    assert not page.all["tight"].isEnabled()


def test_show_leads_from_a_joint_that_was_pressed_on_to_the_joints(open_window: Opener) -> None:
    build = edited(unproved("roadster"), "joints", [{"joint": "L1.a", "state": "started"}])
    read = {"at": "2026-05-02T14:22", "step": 3, "field": "strokes", "value": 12.0}
    run = {"procedure": "bleed", "started": "2026-05-02T14:00", "ended": "2026-05-02T15:00"}
    window = open_window(edited(build, "records", [{**run, "entries": [read]}]))
    (finding,) = [one for one in window.session.findings if one.code == "joint-not-tight"]
    assert window.bench.go_to(finding.where)
    assert window.station("Bleed").page_name == "Joints"
    kinds = {stop.name: stop for stop in window.rail._stops}
    assert kinds["Bleed"].fact(window.session) == "1 danger"
