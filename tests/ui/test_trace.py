"""The Trace station by mouse and keys: a fault to its end, the trainer, sayings."""

from collections.abc import Callable
from datetime import datetime, timedelta
from typing import Any

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from pytestqt.qtbot import QtBot

from tests.builds import bed
from tests.ui.conftest import LEFT, page_of, words
from tests.waiting import rest
from urgens.bench.trainer.trainer import exercise
from urgens.document import Build, with_changes
from urgens.guidance import findings
from urgens.solve import solve
from urgens.ui.frame.commands import COMMANDS
from urgens.ui.frame.settings import Settings
from urgens.ui.frame.window import MainWindow
from urgens.ui.session.scores import Score

STATION = "Trace"  # that its windows open at

Opener = Callable[[Build], MainWindow]
SLOW = 20_000  # ms


def shown(window: MainWindow, name: str) -> Any:
    return page_of(window, "Trace", name)


def test_a_sinking_pedal_is_led_to_its_cause_and_mended(open_window: Opener) -> None:
    """The trade's way: hold it, paper under the joints, then the cylinder."""
    window = open_window(bed("library"))
    session, page = window.session, shown(window, "Fault")
    assert "What is seen?" in words(page)
    QTest.mouseClick(page.first.buttons["sinks"], LEFT)
    assert page.danger.isVisible()
    assert "Do not drive. It sinks under a steady foot." in page.danger_words.text()
    assert session.build.traces[-1].signs[0].sign == "sinks"
    codes = [one.code for one in findings(solve(session.build))]
    assert "fault-stops" in codes
    assert window.session.undo_stack.undoText() == "It sinks under a steady foot"

    page._answer("level-falls", False)
    chip = page.seen_panel.chips["level-falls"]
    assert chip.accessibleName().endswith("not seen; take it back")
    page._tell("paper", "dry")
    first = page.found.ranked[0]
    assert first.cause.id == "cup-bypass"
    rest(30)
    assert page.causes.rows["cup-bypass"].isVisible()
    assert page.done.buttons.keys() == {"paper"}

    QTest.mouseClick(page.causes.rows["cup-bypass"], LEFT)
    assert page.mend.isVisible()
    assert "Bleed again what was open." in page.mend_words.text()
    assert "Prove again" in page.mend_words.text()
    asked: list[str] = []
    page.place_asked.connect(asked.append)
    QTest.mouseClick(page.mend_card, LEFT)
    assert asked == ["procedure:overhaul"]
    window.show_station("Trace")
    QTest.mouseClick(page.close_run, LEFT)
    run = session.build.traces[-1]
    assert run.ended is not None
    assert (run.cause, run.mended) == ("cup-bypass", True)
    assert page.first.isVisible()
    before = shown(window, "Before")
    assert "A cup in the master cylinder leaks by, mended" in words(before)
    for _ in range(4):
        session.undo_stack.undo()
    assert session.build.traces == ()


def test_a_fault_is_followed_by_keys_alone(open_window: Opener) -> None:
    window = open_window(bed("library"))
    page = shown(window, "Fault")
    page.first.buttons["spongy"].setFocus()
    QTest.keyClick(page.first.buttons["spongy"], Qt.Key.Key_Space)
    assert page.found.evidence.signs == {"spongy": True}
    asked = page.seen_panel.asked
    assert asked is not None
    page.seen_panel.no.setFocus()
    QTest.keyClick(page.seen_panel.no, Qt.Key.Key_Space)
    assert page.found.evidence.signs[asked.id] is False
    outcome = next(iter(page.card.outcomes))
    test = page.card.asked.test.id
    page.card.outcomes[outcome].setFocus()
    QTest.keyClick(page.card.outcomes[outcome], Qt.Key.Key_Space)
    assert page.found.evidence.outcomes == {test: outcome}
    row = next(iter(page.causes.rows.values()))
    row.setFocus()
    QTest.keyClick(row, Qt.Key.Key_Return)
    assert page.mend.isVisible()
    QTest.mouseClick(page.back, LEFT)
    assert page.card.isVisible()


def test_readings_are_typed_refused_and_taken_back(open_window: Opener) -> None:
    window = open_window(bed("library"))
    page = shown(window, "Fault")
    QTest.mouseClick(page.first.buttons["pumps-up"], LEFT)
    form = page.form
    QTest.keyClicks(form.value, "4.2")  # a bare number, inches here
    QTest.keyClicks(form.foot, "60")
    QTest.keyClick(form.foot, Qt.Key.Key_Return)
    read = window.session.build.traces[-1].readings[0]
    assert (read.reading, read.value, read.effort) == ("travel-1", "4.2 in", "60 lbf")
    assert "4.2 in" in words(page)
    QTest.keyClicks(form.value, "90 in")
    QTest.keyClick(form.value, Qt.Key.Key_Return)
    assert "beyond any vehicle" in form.said.text()
    page.run.unread(0)
    assert window.session.build.traces[-1].readings == ()


def test_what_excludes_each_other_is_said_and_taken_back(open_window: Opener) -> None:
    page = shown(open_window(bed("library")), "Fault")
    QTest.mouseClick(page.first.buttons["sinks"], LEFT)
    page._tell("hold", "holds")
    assert "and it holds for 30 s" in page.unlike.text()
    QTest.mouseClick(page.done.buttons["hold"], LEFT)
    assert not page.unlike.isVisible()


def test_it_came_in_one_way(open_window: Opener) -> None:
    page = shown(open_window(bed("library")), "Fault")
    QTest.mouseClick(page.first.buttons["spongy"], LEFT)
    for name in ("slowly", "at-once"):
        QTest.mouseClick(page.seen_panel.when.buttons[name], LEFT)
    assert page.found.evidence.signs == {"spongy": True, "at-once": True}
    assert page.found.contradictions == ()


def test_another_test_and_its_card(open_window: Opener) -> None:
    window = open_window(bed("library"))
    page = shown(window, "Fault")
    QTest.mouseClick(page.first.buttons["front-grabs"], LEFT)
    first = page.card.asked.test
    QTest.mouseClick(page.card.other, LEFT)
    assert page.card.asked.test != first
    while page.card.asked.test.procedure is None:
        QTest.mouseClick(page.card.other, LEFT)
    QTest.mouseClick(page.card.start, LEFT)
    assert window.bench.currentWidget() is window.station("Bleed")


def test_the_place_of_a_cause_is_shown_on_the_layout(open_window: Opener) -> None:
    window = open_window(bed("library"))
    page = shown(window, "Fault")
    QTest.mouseClick(page.first.buttons["sinks"], LEFT)
    rest(30)
    row = next(one for one in page.causes.rows.values() if one.place.isVisible())
    QTest.mouseClick(row.place, LEFT)
    assert window.bench.currentWidget() is window.station("Plumb")


def test_what_is_on_record_counts_until_it_is_left_out(open_window: Opener) -> None:
    build = bed("roadster")
    assert build.proof is not None
    day, first = build.proof.stops[-1].at, build.proof.gauges[-1].at
    run = {"started": day.isoformat(), "since": first.isoformat(),
           "signs": [{"at": day.isoformat(), "sign": "rear-weak"}]}  # fmt: skip
    window = open_window(with_changes(build, {"traces": [run]}))
    page = shown(window, "Fault")
    boxes = page.seen_panel.known
    assert any("gauges at the rear[0] valve" in box.text() for box in boxes.values())
    assert page.found.evidence.outcomes["gauges"] == "as-reckoned"
    name = next(name for name in boxes if name.startswith("gauges"))
    boxes[name].setChecked(False)
    assert "gauges" not in page.found.evidence.outcomes
    assert window.session.build.traces[-1].left_out == (name,)


def test_what_is_older_than_the_fault_counts_where_it_is_taken_in(open_window: Opener) -> None:
    """A record from before the fault began says nothing of it, until somebody says so."""
    window = open_window(bed("roadster"))
    page = shown(window, "Fault")
    assert page.first.isVisible()  # the signs come first, whatever is on record
    QTest.mouseClick(page.first.buttons["pulls"], LEFT)
    panel = page.seen_panel
    assert panel.known == {}
    assert page.found.evidence.outcomes == {}
    older = {one.text(): one for one in panel.older.menu().actions()}
    named = next(text for text in older if "gauges at the rear[0] valve" in text)
    older[named].trigger()
    assert page.found.evidence.outcomes["gauges"] == "as-reckoned"
    (box,) = panel.known.values()
    assert box.isChecked()
    box.setChecked(False)
    assert page.found.evidence.outcomes == {}
    assert panel.known == {}


def test_when_it_began_is_typed_and_what_is_no_day_is_said(open_window: Opener) -> None:
    window = open_window(bed("roadster"))
    page = shown(window, "Fault")
    QTest.mouseClick(page.first.buttons["pulls"], LEFT)
    panel = page.seen_panel
    for typed, why in (("soon", '"soon" is no day'), ("2199-01-01", "is yet to come")):
        panel.since.selectAll()
        QTest.keyClicks(panel.since, typed)
        QTest.keyClick(panel.since, Qt.Key.Key_Return)
        assert why in panel.since_said.text()
        assert panel.since.text() == typed
        assert window.session.build.traces[-1].since is None
    now = datetime.now() - timedelta(seconds=1)
    run = {"started": f"{now - timedelta(days=3):%Y-%m-%dT%H:%M}",
           "signs": [{"at": f"{now:%Y-%m-%dT%H:%M}", "sign": "pulls"}]}  # fmt: skip
    later = shown(open_window(with_changes(bed("roadster"), {"traces": [run]})), "Fault").seen_panel
    QTest.keyClicks(later.since, "yesterday")
    QTest.keyClick(later.since, Qt.Key.Key_Return)
    assert "it began before that" in later.since_said.text()
    panel.since.selectAll()
    QTest.keyClicks(panel.since, "2020-01-01")
    QTest.keyClick(panel.since, Qt.Key.Key_Return)
    assert panel.since_said.text() == ""
    assert f"{window.session.build.traces[-1].since:%Y-%m-%d}" == "2020-01-01"
    assert any("gauges at the rear[0] valve" in box.text() for box in panel.known.values())
    window.session.undo_stack.undo()
    assert window.session.build.traces[-1].since is None


def test_a_pull_has_its_side_and_the_fault_is_across_from_it(open_window: Opener) -> None:
    """Common practice: a vehicle pulls to the side that brakes more."""
    window = open_window(bed("bakery"))
    page = shown(window, "Fault")
    QTest.mouseClick(page.first.buttons["pulls"], LEFT)
    row = page.seen_panel.rows["pulls", "side"]
    QTest.mouseClick(row.buttons["left"], LEFT)
    assert window.session.build.traces[-1].signs[0].how == ("left",)
    places = {one.id: one.share for one in page.where.picture._places.values()}
    assert places["brake:front-right"] > 2 * places["brake:front-left"]
    assert next(iter(page.where.picture._places)).endswith("right")
    QTest.mouseClick(page.seen_panel.rows["pulls", "side"].buttons["left"], LEFT)  # taken back
    assert window.session.build.traces[-1].signs[0].how == ()


def test_many_answers_stand_in_a_menu(open_window: Opener) -> None:
    window = open_window(bed("bakery"))
    page = shown(window, "Fault")
    QTest.mouseClick(page.first.buttons["lamp"], LEFT)
    button = page.seen_panel.menus["lamp", "lamp"]
    assert button.text() == "Which lamp?"
    next(one for one in button.menu().actions() if one.text() == "Level").trigger()
    assert window.session.build.traces[-1].signs[0].how == ("level",)
    assert page.seen_panel.menus["lamp", "lamp"].text() == "Which lamp? Level"
    assert page.found.ranked[0].cause.place == "brake"  # pads that are worn, before anything else


def test_the_picture_follows_every_answer_and_says_what_rules_a_place_out(
    open_window: Opener,
) -> None:
    window = open_window(bed("library"))
    page = shown(window, "Fault")
    QTest.mouseClick(page.first.buttons["sinks"], LEFT)
    picture = page.where.picture
    before = {one.id: one.share for one in picture._places.values()}
    page._tell("paper", "dry")
    rest(20)
    after = {one.id: one for one in picture._places.values()}
    assert next(iter(after)) == "cylinder"
    assert after["cylinder"].share > before["cylinder"]
    assert after["joints"].out == "dry everywhere"
    assert page.where.said[2].text().startswith("Do not drive it.")
    QTest.mouseClick(
        picture, LEFT, pos=(picture.boxes["joints"].center() * picture.scale).toPoint()
    )
    assert "ruled out, dry everywhere" in page.where.place.text()
    QTest.keyClick(picture, Qt.Key.Key_Right)  # round to the likeliest
    assert picture.place is not None
    assert picture.place.id != "joints"


def test_what_is_next_begins_with_its_title(open_window: Opener) -> None:
    window = open_window(bed("library"))
    page = shown(window, "Fault")
    QTest.mouseClick(page.first.buttons["spongy"], LEFT)
    rest(30)
    bar = page.tests_area.verticalScrollBar()
    bar.setValue(bar.maximum())
    QTest.mouseClick([*page.card.outcomes.values()][-1], LEFT)
    assert bar.value() == 0
    assert page.card.title.visibleRegion().boundingRect().height() > 0


def test_a_reading_says_how_the_vehicle_was(open_window: Opener) -> None:
    window = open_window(bed("bakery"))
    page = shown(window, "Fault")
    QTest.mouseClick(page.first.buttons["hard-weak"], LEFT)
    form = page.form
    form.kind.setCurrentIndex(form.kind.findData("rear-pressure"))
    form.how["engine-off"].setChecked(True)
    QTest.keyClicks(form.value, "300 psi")
    QTest.keyClicks(form.foot, "60 lbf")
    QTest.keyClick(form.foot, Qt.Key.Key_Return)
    (read,) = window.session.build.traces[-1].readings
    assert read.how == ("engine-off",)
    assert not page.found.evidence.readings[0].how.engine
    form.kind.setCurrentIndex(form.kind.findData("deceleration"))
    assert form.how["moving"].isHidden()  # it is not read on a vehicle that stands
    bare = shown(open_window(bed("tractor")), "Fault")
    assert bare.form.how["engine-off"].isHidden()


def test_a_run_written_by_hand_with_unknown_ids_is_said(open_window: Opener) -> None:
    run = {"started": "2026-05-03T10:00", "signs": [{"at": "2026-05-03T10:00", "sign": "gremlin"}]}
    page = shown(open_window(with_changes(bed("library"), {"traces": [run]})), "Fault")
    assert 'there is no "gremlin"' in page.unlike.text()
    run["signs"] = [{"at": "2026-05-03T10:00", "sign": "pulls", "how": ["upward"]}]
    page = shown(open_window(with_changes(bed("library"), {"traces": [run]})), "Fault")
    assert 'there is no "upward"' in page.unlike.text()


# --- the trainer ---------------------------------------------------------------------------------


@pytest.mark.parametrize("level", [1, 2, 3, 4])
def test_a_scripted_player_plays_to_the_end(open_window: Opener, level: int) -> None:
    """Follows the best test each time, names wrongly once, then rightly."""
    build = bed("library")
    window = open_window(build)
    page = shown(window, "Trainer")
    QTest.mouseClick(page.levels.buttons[level], LEFT)
    page.seed.setText("12")
    QTest.keyClick(page.seed, Qt.Key.Key_Return)
    hidden = exercise(build, level, 12).fault
    assert page.now.fault.causes == hidden.causes
    for _ in range(2):
        best = page.now.known().tests[0].test.id
        QTest.mouseClick(page.tests[best], LEFT)
    assert page.now.minutes > 0
    wrong = next(one.id for one in page.now.fault.tracing.causes if one not in hidden.causes)
    page.name_cause(wrong)
    assert "Mended in vain" in words(page)
    for cause in hidden.causes:
        assert not page.now.done
        page.name_cause(cause.id)
    assert page.headline.text() == "Found."
    assert "the shortest way took" in words(page)
    assert not page.name.isEnabled()
    assert len(window.session.scores) == 1
    assert window.session.build.traces == ()  # nothing of it goes into the build


def test_readings_and_looks_cost_minutes_in_the_trainer(open_window: Opener) -> None:
    page = shown(open_window(bed("library")), "Trainer")
    assert page.foot.text() == "60 lbf"
    QTest.mouseClick(page.read, LEFT)
    assert page.now.minutes == 3
    assert "Pad travel, stroke 1 at 60 lbf" in words(page)
    page.foot.setText("9 kN")
    QTest.mouseClick(page.read, LEFT)
    assert "No foot presses so hard" in page.refused.text()
    page.foot.setText("60 mm")
    QTest.mouseClick(page.read, LEFT)
    assert page.refused.isVisible()
    sign = next(one for one in page.now.fault.tracing.signs
                if one.id not in page.now.evidence.signs and not one.when)  # fmt: skip
    page.look.menu().actions()[0].trigger()
    assert sign.id in page.now.evidence.signs
    assert page.now.minutes == 4
    page.seed.setText("x")
    QTest.keyClick(page.seed, Qt.Key.Key_Return)
    assert "whole number" in page.refused.text()


def test_scores_stay_with_the_settings(tmp_path: Any) -> None:
    settings = Settings(tmp_path / "own.ini")
    assert settings.scores == ()
    settings.set_scores((Score("2026-05-03", "Bookmoor", 1, 7, 37, 6),))
    assert Settings(tmp_path / "own.ini").scores[0].minutes == 37
    settings._store.setValue("scores", '[["x"], 3]')
    assert settings.scores == ()


# --- sayings -------------------------------------------------------------------------------------


def test_sayings_are_tried_and_looked_at(open_window: Opener, qtbot: QtBot) -> None:
    page = shown(open_window(bed("library")), "Sayings")
    qtbot.waitUntil(lambda: len(page.found) > 20, timeout=SLOW)
    QTest.mouseClick(page.buttons["sixty-forty"], LEFT)
    assert page.title.text() == "“The valve splits 60 to 40.”"
    assert page.verdict.text() == "True within limits."
    assert page.bars.isVisible()
    assert "hardest foot" in page.bars.accessibleName()
    page.session.edit("valves.rear", [])
    qtbot.waitUntil(lambda: page.verdict.text() == "Not computed.", timeout=SLOW)
    assert not page.bars.isVisible()


def test_a_saying_is_found_from_why_and_by_the_command_search(
    open_window: Opener, qtbot: QtBot
) -> None:
    window = open_window(bed("library"))
    window.show_station("Size")
    window.station("Size").show_page_named("Why?")
    QTest.mouseClick(window.station("Size").page.more, LEFT)
    assert window.bench.currentWidget() is window.station("Trace")
    command = next(
        one for one in COMMANDS if one.title == "Said: Lower the car and it brakes better"
    )
    command.run(window)
    page = window.station("Trace").page
    qtbot.waitUntil(lambda: page.title.text().startswith("“Lower the car"), timeout=SLOW)


def test_a_log_since_the_fault_counts_and_one_that_is_gone_is_said(
    open_window: Opener, qtbot: QtBot
) -> None:
    build = bed("roadster")
    assert build.proof is not None
    log = build.proof.logs[0]
    run = {"started": log.at.isoformat(), "signs": [{"at": log.at.isoformat(), "sign": "pulls"}]}
    window = open_window(with_changes(build, {"traces": [run], "proof.logs[1].file": "lost.csv"}))
    page = shown(window, "Fault")
    qtbot.waitUntil(lambda: any(log.file in name for name in page.seen_panel.known), timeout=SLOW)
    kinds = {one.kind for one in page.found.evidence.readings}
    assert {"front-pressure", "rear-pressure"} <= kinds
    assert "lost.csv is gone" in page.unlike.text()


@pytest.mark.parametrize(
    ("value", "foot", "words"),
    [("1/0", "300 N", '"1/0"'), ("60 mph", "300 N", '"60 mph"'), ("x", "300 N", '"x"'),
     ("60 mm", "60 mph", '"60 mph"'), ("60 mm", "1/0", '"1/0"'), ("9999 m", "300 N", "beyond any"),
     ("", "", "nothing is typed here")],
)  # fmt: skip
def test_what_is_typed_wrongly_as_a_reading_is_said_and_stays(
    open_window: Opener, value: str, foot: str, words: str
) -> None:
    page = shown(open_window(bed("library")), "Fault")
    form = page.form
    form.value.setText(value)
    form.foot.setText(foot)
    QTest.keyClick(form.value, Qt.Key.Key_Return)
    assert words in form.said.text()
    assert not form.said.isHidden()
    assert (form.value.text(), form.foot.text()) == (value, foot)
    assert page.session.base.traces == bed("library").traces
