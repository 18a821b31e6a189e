"""Stops by mouse and keys: entered at the car, what they say, what is next."""

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from pytestqt.qtbot import QtBot

from tests.builds import bed
from tests.ui.conftest import LEFT
from tests.ui.proving import PROVED, SLOW, TURNS, Opener, fresh, shown, type_into, worked
from tests.waiting import rest
from urgens.document import demo, with_changes
from urgens.document.edits.edit import dumped

STATION = "Prove"  # that its windows open at


def test_a_stop_is_entered_at_the_car_by_keys(open_window: Opener, qtbot: QtBot) -> None:
    window = open_window(fresh(**PROVED))
    session, page = window.session, shown(window, "Stops")
    found = worked(page, qtbot)
    assert page.advice.headline.text().startswith("Start: ")
    page.setFocus()
    QTest.keyClick(page, Qt.Key.Key_Return)
    form = page.form
    assert form.setting.value is None  # what is proposed is offered, not taken as done
    assert not form.wet.isChecked()
    assert form.proposed.hasFocus()
    QTest.keyClick(form.proposed, Qt.Key.Key_Space)
    assert form.setting.value == found.road.advice.setting
    QTest.keyClick(form.deceleration, Qt.Key.Key_Return)
    QTest.keyClicks(form.deceleration.editor, "0.93")
    QTest.keyClick(form.deceleration.editor, Qt.Key.Key_Return)
    type_into(form.typed["effort"], "255")
    QTest.mouseClick(form.locked["front"], LEFT)
    form.setFocus()
    QTest.keyClick(form, Qt.Key.Key_Return)
    proof = session.build.proof
    assert proof is not None
    stop = proof.stops[0]
    assert (stop.deceleration, stop.locked, stop.load_case) == (
        0.93, "front", "Driver, half tank")  # fmt: skip
    assert stop.effort is not None
    assert stop.effort.text == "255 N"
    assert stop.setting[TURNS] == found.road.advice.setting
    qtbot.waitUntil(lambda: page.found is not found and not page._work.busy, timeout=SLOW)
    assert page.found.known.counted == 1
    assert "In one stop the front did" in page.advice.why.text()
    session.undo_stack.undo()
    assert session.build.proof is None or session.build.proof.stops == ()


def test_nothing_on_the_road_before_the_proofs_or_a_reason(
    open_window: Opener, qtbot: QtBot
) -> None:
    window = open_window(fresh())
    session, page = window.session, shown(window, "Stops")
    worked(page, qtbot)
    assert page.advice.held.text().startswith("Not yet: nothing is on record")
    page.enter_next()
    page.form.take_proposed()
    page.form.deceleration.set_number(0.5)
    page.form.take()
    assert session.build.proof is None
    assert "write a reason" in page.form.refused.text()
    QTest.keyClicks(page.form.reason, "off the ramp")
    page.form.take()
    assert session.build.proof is not None
    assert session.build.proof.stops[0].moved_without_proof == "off the ramp"
    assert any(one.code == "proof-open" for one in session.findings)


def test_a_stop_that_says_nothing_is_refused(open_window: Opener) -> None:
    page = shown(open_window(fresh(**PROVED)), "Stops")
    page.enter_next()
    page.form.take()
    assert "what it was set to" in page.form.refused.text()
    page.form.setting.set_number(2.0)
    page.form.take()
    assert "says nothing" in page.form.refused.text()
    QTest.keyClick(page.form, Qt.Key.Key_Escape)
    assert page.stack.currentIndex() == 0


def test_a_setting_that_is_found_is_not_done_while_a_proof_is_open(
    open_window: Opener, qtbot: QtBot
) -> None:
    """Nobody is done who went on the road without the standing proofs."""
    done = shown(open_window(demo("roadster")), "Stops")
    worked(done, qtbot)
    assert done.advice.headline.text().startswith("Done: ")
    build = demo("roadster")
    assert build.proof is not None
    why = {"moved_without_proof": "off the ramp"}
    stops = [{**one, **why} for one in dumped(build)["proof"]["stops"]]
    page = shown(open_window(with_changes(build, {"records": [], "proof.stops": stops})), "Stops")
    worked(page, qtbot)
    assert page.advice.headline.text().startswith("Found: ")
    assert "Not done: something is open" in page.advice.headline.text()
    assert page.advice.held.text().startswith("Not yet: ")


def test_a_stop_is_mended_left_out_and_taken_out(open_window: Opener, qtbot: QtBot) -> None:
    window = open_window(demo("roadster"))
    session, page = window.session, shown(window, "Stops")
    worked(page, qtbot)
    assert len(page.cards.cards) == 5  # done: nothing is next
    QTest.mouseClick(page.cards.cards[1], LEFT)
    assert page.form.title.text().startswith("Stop 2")
    QTest.mouseClick(page.form.counts, LEFT)
    page.form.take()
    stops = session.build.proof.stops
    assert [stop.counts for stop in stops] == [True, False, True, True, True]
    qtbot.waitUntil(lambda: page.found.known.counted == 4, timeout=SLOW)
    assert "left out by hand" in page.advice.left_out.text()
    page.open_stop(1)
    QTest.mouseClick(page.form.drop, LEFT)
    assert len(session.build.proof.stops) == 4


def test_the_setting_that_is_to_stay_is_set_in_the_build(open_window: Opener, qtbot: QtBot) -> None:
    window = open_window(demo("roadster"))
    page = shown(window, "Stops")
    found = worked(page, qtbot)
    assert found.road.advice.done
    QTest.mouseClick(page.set_it, LEFT)
    assert window.session.build.valves.rear[0].turns == found.road.advice.setting


def test_a_build_with_nothing_to_set_says_so(open_window: Opener, qtbot: QtBot) -> None:
    page = shown(open_window(bed("sprint")), "Stops")
    found = worked(page, qtbot)
    assert found.road is None
    assert page.advice.headline.text() == "Nothing to set."
    assert not page.advice.bars.isVisible()
    page.enter_next()
    assert not page.form.setting.isVisible()


def test_the_seen_from_above_says_how_it_went(open_window: Opener, qtbot: QtBot) -> None:
    page = shown(open_window(demo("roadster")), "Stops")
    worked(page, qtbot)
    said = page.above.accessibleName()
    assert "front first: 3 turns: straight" in said
    assert "rear first: 8 turns" in said


def test_brakes_are_taken_as_measured_once_and_an_undo_takes_it_back(
    open_window: Opener, qtbot: QtBot
) -> None:
    window = open_window(demo("roadster"))
    session, page = window.session, shown(window, "Stops")
    found = worked(page, qtbot)
    before = session.build.front.brake.pad_friction
    QTest.mouseClick(page.measure, LEFT)
    known = session.build.evidence["front.brake.pad_friction"]
    ratio = session.build.front.brake.pad_friction / before
    assert ratio == pytest.approx(found.known.of_front[0], rel=1e-3)  # a disc's torque goes with it
    assert (known.state, known.note) == ("measured", "5 stops on the road")
    assert all(stop.taken for stop in session.build.proof.stops)
    qtbot.waitUntil(lambda: page.found is not found and not page._work.busy, timeout=SLOW)
    assert page.found.known.counted == 0  # not a second time
    assert not page.measure.isVisible()
    session.undo_stack.undo()
    assert session.build.front.brake.pad_friction == before
    assert not any(stop.taken for stop in session.build.proof.stops)


def test_a_low_window_keeps_the_advice_and_says_where_the_lanes_are(
    open_window: Opener, qtbot: QtBot
) -> None:
    window = open_window(demo("roadster"))
    page = shown(window, "Stops")
    worked(page, qtbot)
    window.resize(1024, 700)
    rest(50)
    assert not page.above.isVisible()
    assert "in a taller window" in page.said_above.text()
    assert page.advice.why.height() >= page.advice.why.heightForWidth(page.advice.why.width())
    window.resize(1280, 1000)
    rest(50)
    assert page.above.isVisible()
    assert "every half second" in page.said_above.text()
