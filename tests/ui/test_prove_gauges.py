"""Gauges by mouse and keys: typed, from a box, with a lever; taken as measured."""

from itertools import cycle
from pathlib import Path
from typing import Any

import pytest
from PySide6.QtCore import Qt, QTimer
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QMenu
from pytestqt.qtbot import QtBot

from tests.builds import bed
from tests.ui.conftest import LEFT, words
from tests.ui.proving import (
    SENSING,
    SLOW,
    Opener,
    fresh,
    logged,
    read_by_key,
    shown,
    type_into,
)
from tests.waiting import rest
from urgens.document import demo, edited
from urgens.quantity import UnitSystem
from urgens.ui.widgets.file_chooser import FileChooser

STATION = "Prove"  # that its windows open at


def test_readings_are_typed_beside_what_was_expected(open_window: Opener) -> None:
    """Common practice: up in even steps; the fit says what the valve does."""
    window = open_window(edited(bed("library"), "proof", None))
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


def test_rows_stay_where_only_figures_change(open_window: Opener) -> None:
    """Whoever types a reading keeps the field, whatever else is edited meanwhile."""
    window = open_window(edited(bed("library"), "proof", None))
    session, page = window.session, shown(window, "Gauges")
    type_into(page.table.labels[0], "100")
    rows, wanted = list(page.table.labels), [one.text() for one in page.table._wanted]
    session.edit("valves.rear[0].slope", 0.31)
    assert page.table.labels == rows
    assert [one.text() for one in page.table._wanted] != wanted
    assert page.table._off[0].text() == "+0"
    session.set_units(UnitSystem.METRIC)
    assert page.table.labels != rows  # other pressures, in bar
    session.undo_stack.undo()
    session.undo_stack.undo()
    assert page.table.out == []


def test_the_focus_stays_in_the_row_that_was_typed_in(open_window: Opener) -> None:
    window = open_window(edited(bed("library"), "proof", None))
    page = shown(window, "Gauges")
    type_into(page.table.labels[2], "300")
    rest(20)
    assert page.table.labels[2].hasFocus()
    assert page.table.labels[2].quantity.text == "300 psi"


def test_off_is_that_of_the_pressure_read_and_what_is_wanted_next_has_a_row(
    open_window: Opener,
) -> None:
    """By hand: 130 psi in and 126 out are 4 psi under a valve that passes all there."""
    points = [["130 psi", "126 psi", "rising"]]
    build = edited(bed("library"), "proof", {"gauges": [
        {"at": "2026-05-03T10:00", "valve": "rear[0]", "kind": "reducing", "points": points,
         "full_scale": "1500 psi", "grade": 1.6}
    ]})  # fmt: skip
    window = open_window(build)
    page = shown(window, "Gauges")
    table = page.table
    row = next(row for row, one in enumerate(table.labels) if one.quantity is not None)
    assert table._off[row].text() == "−4"
    assert page.verdict.text().startswith("On by 4 psi at 130 psi")
    nexts = [one.text() for one in table._off]
    assert nexts.count("next") == 1
    wanted = page.found.next
    assert min(abs(wanted - one) for one in table._at) < 0.25 * table._at[0]


def test_the_stand_in_has_a_fault_for_practice_and_says_that_it_is_one(
    open_window: Opener, qtbot: QtBot
) -> None:
    window = open_window(edited(bed("library"), "proof", None))
    page = shown(window, "Gauges")
    page.choose("rear[0]")
    bar = page.bar
    QTest.mouseClick(bar.simulate, LEFT)
    qtbot.waitUntil(lambda: page.bar.box.now is not None)
    bar._offer()
    assert "What is wrong with it" in [one.text() for one in bar.ports.menu().actions()]
    menu = QMenu()
    bar._offer_faults(menu)
    choices = {one.text(): one for one in menu.actions()}
    assert [*choices][:2] == ["As built", "One of them, untold"]
    choices["Nothing comes through the valve"].trigger()
    qtbot.waitUntil(lambda: page.bar.box.now is not None)
    for count, effort in enumerate((150.0, 220.0, 290.0, 360.0), start=1):
        window.session.set_effort(effort)
        rest(400)
        read_by_key(page, qtbot, count)
    assert page.verdict.text().startswith("Blocked")
    assert page.beneath.text().startswith("Simulated: it proves nothing")
    assert "nothing comes through the valve" in page.state.text()
    run = window.session.build.proof.gauges[-1]
    assert run.source == "simulated"
    bar.choose_untold()  # what was read of another one does not count for it
    assert page.found.run is None or page.found.run.points == ()
    qtbot.waitUntil(lambda: "something is wrong with it" in page.state.text())
    assert bar.fault.words not in page.state.text()
    bar.tell()
    assert bar.fault.words in page.state.text()


def test_what_was_fitted_is_taken_as_measured_and_an_undo_takes_it_back(
    open_window: Opener,
) -> None:
    window = open_window(edited(bed("library"), "proof", None))
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
    window = open_window(edited(bed("library"), "proof", None))
    session, page = window.session, shown(window, "Gauges")
    for row, out in enumerate((100, 200, 300)):
        type_into(page.table.labels[row], str(out))
    QTest.mouseClick(page.table.out[1], LEFT)
    assert session.build.proof is not None
    assert len(session.build.proof.gauges[0].points) == 2
    QTest.mouseClick(page.again, LEFT)
    runs = session.build.proof.gauges
    assert [(run.counts, len(run.points)) for run in runs] == [(False, 2), (True, 0)]


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
    assert session.build.proof.gauges[0].source == "simulated"
    assert page.beneath.text().startswith("Simulated: it proves nothing")
    assert not page.measure.isEnabled()
    assert page.proofs.buttons["gauge-valve"].text() == "Start"
    QTest.mouseClick(page.bar.simulate, LEFT)
    assert not page.bar.box.open
    type_into(page.table.labels[0], "5")  # by hand: another run, of gauges
    assert [one.source for one in session.build.proof.gauges] == ["simulated", None]


def test_a_moving_foot_is_not_read(open_window: Opener, qtbot: QtBot) -> None:
    window = open_window(fresh())
    session, page = window.session, shown(window, "Gauges")
    page.bar.start(True)
    session.set_effort(50.0)
    qtbot.waitUntil(lambda: page.bar.box.now is not None, timeout=SLOW)
    restless, feet = QTimer(), cycle((50.0, 300.0))
    restless.timeout.connect(lambda: session.set_effort(next(feet)))
    restless.start(40)  # however slow the machine is, it moves
    rest(600)
    page.take_reading()
    restless.stop()
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
    assert page.proofs.words == "0 of 6 done"
    QTest.mouseClick(page.proofs.buttons["ports-test"], LEFT)
    assert window.bench.name == "Bleed"
    assert window.station("Bleed").page.run.name == "ports-test"


def test_the_road_dims_only_where_the_vehicle_stands(open_window: Opener) -> None:
    window = open_window(fresh())
    shown(window, "Gauges")
    assert window.bench.standing
    shown(window, "Test road")
    assert not window.bench.standing


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
        rest(600)
        heard.append(box.now.outlet)
    assert heard[1] > heard[0] * 1.2
    page.bar.close_box()


def record(page: Any, qtbot: QtBot, lines: int) -> None:
    """Wait until so many lines more are recorded, however slow the machine is."""
    wanted = len(page.bar.box.recorded) + lines
    qtbot.waitUntil(lambda: len(page.bar.box.recorded) >= wanted, timeout=6 * SLOW)


def test_what_is_recorded_when_a_port_goes_away_can_be_kept_at_once(
    open_window: Opener, qtbot: QtBot, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    window = open_window(fresh())
    page = shown(window, "Gauges")
    names = iter([[], [str(tmp_path / "kept.csv")]])
    asked: list[str] = []
    monkeypatch.setattr(
        FileChooser, "ask", lambda _, title, *__: (asked.append(title), next(names))[1]
    )
    page.bar.start(True)
    QTest.mouseClick(page.bar.record, LEFT)
    record(page, qtbot, 30)
    page.bar.box._box.close()
    qtbot.waitUntil(lambda: bool(asked), timeout=6 * SLOW)
    assert asked == ["Write what was recorded"]
    assert "is in no file yet" in page.state.text()
    assert not page.bar.record.isChecked()

    page.bar.start(True)  # a box again: what was recorded before is still there to write
    page.bar.write_unwritten()
    assert "Written to kept.csv" in page.state.text()
    first = (tmp_path / "kept.csv").read_text().count("\n")
    QTest.mouseClick(page.bar.record, LEFT)
    assert page.bar.box.recorded == []  # the next recording begins anew
    assert page.bar.unwritten is None
    assert first > 30


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
        record(page, qtbot, 80)
    path = tmp_path / "box.csv"
    monkeypatch.setattr(FileChooser, "ask", lambda *_: [str(path)])
    QTest.mouseClick(page.bar.record, LEFT)
    assert "box.csv" in page.state.text()
    log = logged(shown(window, "Logs"), qtbot)
    assert window.session.build.proof.logs[0].file == "box.csv"
    assert {"front_pressure", "rear_pressure", "foot"} <= set(log.channels)
    assert len(log.presses) == 1
