"""The Prove station by mouse and keys: gauges, stops, logs, the test road, the real split."""

from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QLabel
from pytestqt.qtbot import QtBot

from tests.builds import bed
from tests.ui.conftest import LEFT
from urgens.bench.drives import drives, trial
from urgens.bench.log_write import sensed, write_csv
from urgens.bench.torque import hold
from urgens.document import Build, demo, edited, save, with_changes
from urgens.solve.system import system
from urgens.ui.frame.window import Window
from urgens.ui.stations.prove.logs_page import LogsPage
from urgens.ui.widgets.background import any_running
from urgens.ui.widgets.typed_label import TypedLabel

Opener = Callable[[Build], Window]
PROVED = {"procedure": "prove-standing", "started": "2026-05-02T09:00", "ended": "2026-05-02T10:00"}
TURNS = "valves.rear[0].turns"
SLOW = 20_000  # ms, on a loaded machine


def fresh(**more: Any) -> Build:
    """The roadster without anything measured."""
    return with_changes(demo("roadster"), {"proof": None, "records": [], **more})


def shown(window: Window, name: str) -> Any:
    window.show_station("Prove")
    window.station("Prove").show_page_named(name)
    QTest.qWait(30)
    return window.station("Prove").page


def words(page: Any) -> str:
    QTest.qWait(20)
    return "\n".join(one.text() for one in page.findChildren(QLabel) if one.isVisible())


def type_into(label: TypedLabel, text: str) -> None:
    label.setFocus()
    QTest.keyClick(label, Qt.Key.Key_Return)
    assert label.editor is not None
    QTest.keyClicks(label.editor, text)
    QTest.keyClick(label.editor, Qt.Key.Key_Return)


# --- gauges --------------------------------------------------------------------------------------


def test_readings_are_typed_beside_what_was_expected(open_window: Opener) -> None:
    """Common practice: up in even steps; the fit says what the valve does."""
    window = open_window(edited(demo("library"), "proof", None))
    page = shown(window, "Gauges")
    assert "Nothing read yet" in words(page)
    for row, out in enumerate((100, 200, 300, 398, 437, 470, 506, 540, 575, 611)):
        type_into(page.table.labels[row], str(out))
    proof = window.session.build.proof
    assert proof is not None
    assert [into.text for into, _, _ in proof.gauges[0].points[:2]] == ["100 psi", "200 psi"]
    assert page.verdict.text().startswith("Reduces: knee 4")
    assert "within its tolerance" in page.beneath.text()
    assert window.session.build.valves.rear[0].kind == proof.gauges[0].kind == "reducing"


def test_what_was_fitted_is_taken_as_measured_and_an_undo_takes_it_back(
    open_window: Opener,
) -> None:
    window = open_window(edited(demo("library"), "proof", None))
    session, page = window.session, shown(window, "Gauges")
    for row, out in enumerate((100, 200, 300, 360, 395, 430, 465, 500, 535, 570)):
        type_into(page.table.labels[row], str(out))
    page.setFocus()
    QTest.keyClick(page, Qt.Key.Key_Return)
    valve = session.build.valves.rear[0]
    known = session.build.evidence["valves.rear[0].knee"]
    assert valve.knee.value / 6894.757 == pytest.approx(338, abs=25)
    assert (known.state, known.note[:10]) == ("measured", "two gauges")
    assert not any(one.path == "valves.rear[0].knee" for one in session.open_figures)
    session.undo_stack.undo()
    assert session.build.valves.rear[0].knee.text == "400 psi"
    assert "valves.rear[0].knee" not in session.build.evidence


def test_a_reading_is_taken_out_and_begun_again(open_window: Opener) -> None:
    window = open_window(edited(demo("library"), "proof", None))
    session, page = window.session, shown(window, "Gauges")
    for row, out in enumerate((100, 200, 300)):
        type_into(page.table.labels[row], str(out))
    QTest.mouseClick(page.table.out[1], LEFT)
    assert session.build.proof is not None
    assert len(session.build.proof.gauges[0].points) == 2
    QTest.mouseClick(page.again, LEFT)
    runs = session.build.proof.gauges
    assert [(run.counts, len(run.points)) for run in runs] == [(False, 2), (True, 0)]


def read_by_key(page: Any, qtbot: QtBot, count: int) -> None:
    """Press Space until the foot has been still for long enough to be read."""

    def read() -> bool:
        QTest.keyClick(page, Qt.Key.Key_Space)
        proof = page.session.build.proof
        return proof is not None and len(proof.gauges[0].points) >= count

    qtbot.waitUntil(read, timeout=SLOW)


def test_the_simulated_box_follows_the_press_and_is_read_by_a_key(
    open_window: Opener, qtbot: QtBot
) -> None:
    window = open_window(fresh())
    session, page = window.session, shown(window, "Gauges")
    QTest.mouseClick(page.bar.simulate, LEFT)
    session.set_effort(200.0)
    qtbot.waitUntil(lambda: page.bar.box.now is not None and page.bar.box.now.values["foot"] > 190,
                    timeout=SLOW)  # fmt: skip
    page.setFocus()
    read_by_key(page, qtbot, 1)
    assert session.build.proof is not None
    (into, out, way) = session.build.proof.gauges[0].points[0]
    assert way == "rising"
    assert into.value == pytest.approx(float(session.presses.master_rear), rel=0.1)
    assert 0.0 < out.value <= into.value * 1.05
    assert "invented" in page.state.text()
    session.set_effort(60.0)
    qtbot.waitUntil(lambda: page.bar.box.now.values["foot"] < 70, timeout=SLOW)
    read_by_key(page, qtbot, 2)
    assert session.build.proof.gauges[0].points[1][2] == "falling"
    QTest.mouseClick(page.bar.simulate, LEFT)
    assert not page.bar.box.open


def test_a_moving_foot_is_not_read(open_window: Opener, qtbot: QtBot) -> None:
    window = open_window(fresh())
    session, page = window.session, shown(window, "Gauges")
    page.bar.start(True)
    session.set_effort(50.0)
    qtbot.waitUntil(lambda: page.bar.box.now is not None, timeout=SLOW)
    QTest.qWait(350)
    session.set_effort(300.0)
    qtbot.waitUntil(lambda: page.bar.box.now.values["foot"] > 250, timeout=SLOW)
    page.take_reading()
    assert "hold it still" in page.beneath.text()
    assert session.build.proof is None


def test_a_box_that_goes_away_is_said(open_window: Opener, qtbot: QtBot) -> None:
    window = open_window(fresh())
    page = shown(window, "Gauges")
    page.bar.start(True)
    qtbot.waitUntil(lambda: page.bar.box.now is not None, timeout=SLOW)
    page.bar.box._box.close()
    qtbot.waitUntil(lambda: not page.bar.box.open or page.bar.box._gauges.ended != "", timeout=SLOW)
    page.bar.box._box = None
    page.bar.box._look()
    qtbot.waitUntil(lambda: "went away" in page.state.text(), timeout=SLOW)


def test_a_port_that_is_not_there_is_said(open_window: Opener) -> None:
    page = shown(open_window(fresh()), "Gauges")
    page.bar.listen("/dev/no-such-port")
    assert "cannot be opened" in page.state.text()


def test_a_build_without_a_valve_says_so(open_window: Opener) -> None:
    page = shown(open_window(demo("tractor")), "Gauges")
    assert "No valve is fitted" in words(page)
    assert not page.dials.isVisible()


def test_the_card_of_a_proof_is_brought(open_window: Opener) -> None:
    window = open_window(fresh())
    page = shown(window, "Gauges")
    assert page.proofs.words == "0 of 5 done"
    QTest.mouseClick(page.proofs.buttons["ports-test"], LEFT)
    assert window.bench.name == "Bleed"
    assert window.station("Bleed").page.run.name == "ports-test"


def test_the_road_dims_only_where_the_vehicle_stands(open_window: Opener) -> None:
    window = open_window(fresh())
    shown(window, "Gauges")
    assert window.bench.standing
    shown(window, "Test road")
    assert not window.bench.standing


# --- stops ---------------------------------------------------------------------------------------


def worked(page: Any, qtbot: QtBot) -> Any:
    qtbot.waitUntil(lambda: page.found is not None and not page._work.busy, timeout=SLOW)
    return page.found


def test_a_stop_is_entered_at_the_car_by_keys(open_window: Opener, qtbot: QtBot) -> None:
    window = open_window(fresh(records=[PROVED]))
    session, page = window.session, shown(window, "Stops")
    found = worked(page, qtbot)
    assert page.advice.headline.text().startswith("Start: ")
    page.setFocus()
    QTest.keyClick(page, Qt.Key.Key_Return)
    form = page.form
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
    assert page.advice.held.text().startswith("Not yet: not on record")
    page.enter_next()
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
    page = shown(open_window(fresh(records=[PROVED])), "Stops")
    page.enter_next()
    page.form.take()
    assert "says nothing" in page.form.refused.text()
    QTest.keyClick(page.form, Qt.Key.Key_Escape)
    assert page.stack.currentIndex() == 0


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
    page = shown(open_window(bed("coupe")), "Stops")
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


# --- logs ----------------------------------------------------------------------------------------


def logged(page: Any, qtbot: QtBot) -> Any:
    def read() -> bool:
        return page.log is not None and not page._work.busy and not page.opening.busy

    qtbot.waitUntil(read, timeout=SLOW)
    return page.log


def test_the_demo_s_logs_are_read_beside_the_model(open_window: Opener, qtbot: QtBot) -> None:
    page = shown(open_window(demo("roadster")), "Logs")
    log = logged(page, qtbot)
    assert len(log.presses) == 2
    assert page.said_model.text() == "As the build computes it, within both spreads."
    page.setting.set_number(6.0)
    page._set()
    qtbot.waitUntil(lambda: "Differs" in page.said_model.text(), timeout=SLOW)
    page.choose_other(1)
    qtbot.waitUntil(lambda: "tarn-3-turns.csv" in page.said_beside.text(), timeout=SLOW)


def a_log(folder: Path, build: Build) -> Path:
    [went] = drives([trial(build, system(build), 0, 1.1, 22.0, hold(180.0, 0.5))])
    path = folder / "run.csv"
    write_csv(path, sensed(went, 1))
    return path


def test_a_log_is_opened_mapped_and_lies_beside_the_build(
    open_window: Opener, qtbot: QtBot, tmp_path: Path
) -> None:
    window = open_window(fresh())
    session, page = window.session, shown(window, "Logs")
    assert "No log yet" in words(page)
    page.open_file(a_log(tmp_path, session.build))
    logged(page, qtbot)
    noted = session.build.proof.logs[0]
    assert noted.file == "run.csv"
    assert noted.channels["front_pressure"].unit == "bar"
    page.map_unit("front_pressure", "psi")
    qtbot.waitUntil(lambda: "psi" in page.map.units["front_pressure"].text(), timeout=SLOW)
    page.map_column("foot", "none")
    assert "foot" not in session.build.proof.logs[0].channels
    assert "Save the build first" in page.files.copy_beside(session.build.proof.logs[0])
    folder = tmp_path / "build"
    folder.mkdir()
    session.save(folder / "own.urgens.json")
    page._copy()
    assert (folder / "run.csv").is_file()
    assert "lies beside" in page.state.text()


def test_a_log_that_is_gone_or_changed_is_said_and_kept(
    open_window: Opener, qtbot: QtBot, tmp_path: Path
) -> None:
    window = open_window(fresh())
    session, page = window.session, shown(window, "Logs")
    path = a_log(tmp_path, session.build)
    page.open_file(path)
    logged(page, qtbot)
    path.write_text(path.read_text() + "9.99,0,0,0,0,0,0,0\n")
    page.choose(0)
    qtbot.waitUntil(lambda: "another one than was noted" in page.state.text(), timeout=SLOW)
    path.unlink()
    page.choose(0)
    qtbot.waitUntil(lambda: "is gone" in page.state.text(), timeout=SLOW)
    assert len(session.build.proof.logs) == 1


def test_what_is_no_log_is_refused_where_it_was_opened(
    open_window: Opener, qtbot: QtBot, tmp_path: Path
) -> None:
    window = open_window(fresh())
    page = shown(window, "Logs")
    bad = tmp_path / "bad.csv"
    bad.write_text("nothing but words\n")
    page.open_file(bad)
    assert page.state.text() == "Reading bad.csv…"
    qtbot.waitUntil(lambda: "no line of figures" in page.state.text(), timeout=SLOW)
    page.open_file(tmp_path / "gone.csv")
    qtbot.waitUntil(lambda: "cannot be read" in page.state.text(), timeout=SLOW)
    assert window.session.build.proof is None


def test_logs_opened_at_once_are_read_one_after_another(
    open_window: Opener, qtbot: QtBot, tmp_path: Path
) -> None:
    window = open_window(fresh())
    page = shown(window, "Logs")
    first = a_log(tmp_path, window.session.build)
    second = first.with_name("again.csv")
    second.write_text(first.read_text() + "# made anew\n")
    page.open_file(first)
    page.open_file(second)
    logged(page, qtbot)
    assert [one.file for one in window.session.build.proof.logs] == ["run.csv", "again.csv"]
    assert [place for place, one in page.which.buttons.items() if one.isChecked()] == [1]


def test_a_log_read_for_another_build_is_dropped(
    open_window: Opener, qtbot: QtBot, tmp_path: Path
) -> None:
    window = open_window(fresh())
    page = shown(window, "Logs")
    page.open_file(a_log(tmp_path, window.session.build))
    window.session.open(fresh(), None)
    qtbot.waitUntil(lambda: not any_running(), timeout=SLOW)
    assert window.session.build.proof is None


def test_a_unit_that_cannot_be_is_asked_on_the_page(
    open_window: Opener, qtbot: QtBot, tmp_path: Path
) -> None:
    page = shown(open_window(fresh()), "Logs")
    rows = "\n".join(f"{0.01 * k:.2f},{min(10 * k, 800)},{min(8 * k, 600)}" for k in range(200))
    path = tmp_path / "psi.csv"
    path.write_text(f"time [s],front pressure [bar],rear pressure [bar]\n{rows}\n")
    page.open_file(path)
    logged(page, qtbot)
    assert "is it in psi?" in page.map.questions["front_pressure"].text()
    page.map_unit("front_pressure", "psi")
    qtbot.waitUntil(lambda: "front_pressure" not in page.map.questions, timeout=SLOW)
    assert page.log.signals.channels["front_pressure"].max() == pytest.approx(800 * 6894.757)


# --- the test road -------------------------------------------------------------------------------


def test_two_set_ups_are_driven_side_by_side(open_window: Opener, qtbot: QtBot) -> None:
    setups = [{"name": "to the rear", "changes": {"valves.rear": [], "master.bar_offset": "-6 mm"}}]
    page = shown(open_window(fresh(setups=setups)), "Test road")
    qtbot.waitUntil(lambda: len(page.drives) == 1, timeout=SLOW)
    assert "front locks first" in page.result.text()
    QTest.mouseClick(page.others.buttons["to the rear"], LEFT)
    qtbot.waitUntil(lambda: len(page.drives) == 2, timeout=SLOW)
    assert page.drives[1].locked[0][0] == "rear"
    assert "spins" in page.above.accessibleName()
    QTest.mouseClick(page.feet.buttons["press"], LEFT)
    qtbot.waitUntil(lambda: not page._work.busy and page.drives[0].foot.max() < 301, timeout=SLOW)


def test_it_plays_and_stops_by_a_key(open_window: Opener, qtbot: QtBot) -> None:
    page = shown(open_window(fresh()), "Test road")
    qtbot.waitUntil(lambda: len(page.drives) == 1, timeout=SLOW)
    QTest.mouseClick(page.player.rates["2"], LEFT)
    page.setFocus()
    QTest.keyClick(page, Qt.Key.Key_P)
    qtbot.waitUntil(lambda: 0 < page.player.slider.value() < 900, timeout=SLOW)
    assert page.above.moment is not None
    QTest.keyClick(page, Qt.Key.Key_P)
    at = page.player.slider.value()
    QTest.qWait(120)
    assert page.player.slider.value() == at


# --- the real split ------------------------------------------------------------------------------


def test_wear_is_typed_and_set_beside_the_computed_split(open_window: Opener) -> None:
    areas = {"front.brake.pad_area": "38 cm^2", "rear.brake.pad_area": "38 cm^2"}
    window = open_window(fresh(**areas))
    session, page = window.session, shown(window, "Real split")
    assert "only computed" in page.verdict.text()
    QTest.keyClicks(page.fields["front"], "1.0, 1.0")
    QTest.keyClicks(page.fields["rear"], "2.5, 2.5")
    QTest.keyClick(page.fields["rear"], Qt.Key.Key_Return)
    assert session.build.proof is not None
    assert [one.text for one in session.build.proof.wear[0].front] == ["1.0 mm", "1.0 mm"]
    assert "rear does more than computed" in page.verdict.text()
    assert any(one.code == "real-split-rearward" for one in session.findings)
    QTest.mouseClick(page.gone[0], LEFT)
    assert session.build.proof.wear == ()


@pytest.mark.parametrize(
    ("typed", "said"),
    [({"front": "", "rear": "1"}, "nothing is typed"), ({"front": "x", "rear": "1"}, "x"),
     ({"front": "1", "rear": "1", "since": "spring"}, "year-month-day")],
)  # fmt: skip
def test_wear_that_cannot_be_is_refused(
    open_window: Opener, typed: dict[str, str], said: str
) -> None:
    window = open_window(fresh())
    page = shown(window, "Real split")
    for name, text in typed.items():
        page.fields[name].setText(text)
    QTest.mouseClick(page.add, LEFT)
    assert said in page.refused.text()
    assert window.session.build.proof is None


def test_all_of_it_is_there_again_from_the_file(
    open_window: Opener, qtbot: QtBot, tmp_path: Path
) -> None:
    path = tmp_path / "tarn.urgens.json"
    save(demo("roadster"), path)
    window = open_window(fresh())
    window.session.open_file(path)
    page = shown(window, "Stops")
    worked(page, qtbot)
    assert len(page.cards.cards) == 5
    for name in ("Gauges", "Logs", "Test road", "Real split"):
        assert shown(window, name).summary


# --- a lever, brakes as measured, a record, another build ----------------------------------------


SENSING = [
    {"kind": "load-sensing", "slope": 0.3, "follows": "static",
     "points": [["300 kg", "6 bar"], ["700 kg", "60 bar"]]},
]  # fmt: skip


def test_a_lever_is_swept_by_hand_and_a_reading_taken_out(open_window: Opener) -> None:
    window = open_window(fresh(**{"valves.rear": SENSING}))
    session, panel = window.session, shown(window, "Gauges").lever
    assert panel.isVisible()
    assert not panel.slider.isVisible()  # there is no stand-in to move
    for place, out in ((0, 25), (33, 45), (67, 65), (100, 98), (50, 56)):
        panel.place.set_number(float(place))
        type_into(panel.into, "100 bar")
        type_into(panel.out, f"{out} bar")
        QTest.mouseClick(panel.add, LEFT)
    assert session.build.proof is not None
    assert len(session.build.proof.gauges[0].lever) == 5
    assert panel.verdict.text().startswith("It follows both ways: from 25 to 98 %")
    QTest.mouseClick(panel.gone[4], LEFT)
    assert len(session.build.proof.gauges[0].lever) == 4
    session.undo_stack.undo()
    assert len(session.build.proof.gauges[0].lever) == 5


def test_the_stand_in_s_lever_moves_what_comes_out(open_window: Opener, qtbot: QtBot) -> None:
    window = open_window(fresh(**{"valves.rear": SENSING}))
    page = shown(window, "Gauges")
    page.bar.start(True)
    window.session.set_effort(500.0)
    box, heard = page.bar.box, []
    for place in (0, 100):
        page.lever.slider.setValue(50)
        page.lever.slider.setValue(place)
        qtbot.waitUntil(lambda: box.now is not None and box.now.values["foot"] > 490, timeout=SLOW)
        QTest.qWait(600)
        heard.append(box.now.outlet)
    assert heard[1] > heard[0] * 1.2
    page.bar.close_box()


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


def test_what_a_box_said_is_written_and_is_among_the_logs(
    open_window: Opener, qtbot: QtBot, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    window = open_window(fresh())
    page = shown(window, "Gauges")
    page.bar.start(True)
    QTest.mouseClick(page.bar.record, LEFT)
    assert "Recording" in page.state.text()
    for foot in (10.0, 300.0, 10.0):
        window.session.set_effort(foot)
        QTest.qWait(900)
    path = tmp_path / "box.csv"
    monkeypatch.setattr(
        "urgens.ui.stations.prove.box_bar.QFileDialog.getSaveFileName", lambda *_: (str(path), "")
    )
    QTest.mouseClick(page.bar.record, LEFT)
    assert "box.csv" in page.state.text()
    log = logged(shown(window, "Logs"), qtbot)
    assert window.session.build.proof.logs[0].file == "box.csv"
    assert {"front_pressure", "rear_pressure", "foot"} <= set(log.channels)
    assert len(log.presses) == 1


def test_a_foot_is_typed_and_another_file_s_build_goes_beside(
    open_window: Opener, qtbot: QtBot, tmp_path: Path
) -> None:
    path = tmp_path / "other.urgens.json"
    save(edited(demo("library"), "name", "the other one"), path)
    page = shown(open_window(fresh()), "Test road")
    qtbot.waitUntil(lambda: len(page.drives) == 1, timeout=SLOW)
    QTest.mouseClick(page.feet.buttons["typed"], LEFT)
    assert page.effort.isVisible()
    type_into(page.effort, "150 N")
    qtbot.waitUntil(
        lambda: page.drives[0].foot.max() == pytest.approx(150.0, abs=0.5), timeout=SLOW
    )
    page.set_beside(path)
    qtbot.waitUntil(lambda: len(page.drives) == 2, timeout=SLOW)
    assert page.other == "the other one"
    assert "The other one:" in page.beneath.text()
    (tmp_path / "broken.urgens.json").write_text("{")
    page.set_beside(tmp_path / "broken.urgens.json")
    assert "broken.urgens.json" in page.beneath.text()


def test_the_road_s_log_opens_like_a_real_one(
    open_window: Opener, qtbot: QtBot, tmp_path: Path
) -> None:
    window = open_window(fresh())
    page = shown(window, "Test road")
    qtbot.waitUntil(lambda: len(page.drives) == 1, timeout=SLOW)
    page.write_log(tmp_path / "no" / "where.csv")
    assert "could not be written" in page.beneath.text()
    page.write_log(tmp_path / "road.csv")
    opened = window.station("Prove").page
    assert isinstance(opened, LogsPage)
    log = logged(opened, qtbot)
    assert len(log.presses) == 1
    assert window.session.build.proof.logs[0].file == "road.csv"


def test_a_unit_is_chosen_from_its_menu(open_window: Opener, qtbot: QtBot, tmp_path: Path) -> None:
    window = open_window(fresh())
    page = shown(window, "Logs")
    page.open_file(a_log(tmp_path, window.session.build))
    logged(page, qtbot)
    [psi] = [one for one in page.map.units["rear_pressure"].menu().actions() if one.text() == "psi"]
    psi.trigger()
    assert window.session.build.proof.logs[0].channels["rear_pressure"].unit == "psi"
    qtbot.waitUntil(lambda: page.map.units["rear_pressure"].text() == "psi", timeout=SLOW)
    [none] = [one for one in page.map.columns["foot"].menu().actions() if one.text() == "none"]
    none.trigger()
    assert "foot" in window.session.build.proof.logs[0].left_out


def test_a_low_window_keeps_the_advice_and_says_where_the_lanes_are(
    open_window: Opener, qtbot: QtBot
) -> None:
    window = open_window(demo("roadster"))
    page = shown(window, "Stops")
    worked(page, qtbot)
    window.resize(1024, 700)
    QTest.qWait(50)
    assert not page.above.isVisible()
    assert "in a taller window" in page.said_above.text()
    assert page.advice.why.height() >= page.advice.why.heightForWidth(page.advice.why.width())
    window.resize(1280, 1000)
    QTest.qWait(50)
    assert page.above.isVisible()
    assert "every half second" in page.said_above.text()
