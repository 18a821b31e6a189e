"""Plumb's pages of lines and of ways, driven: routes drawn and typed, layouts laid, prices kept."""

from collections.abc import Callable
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from PySide6.QtCore import QPointF, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QPushButton

from tests.plumbing.layouts import sound, with_layout
from tests.ui.conftest import LEFT, drag, type_into
from tests.waiting import rest
from urgens.document import Build, with_changes
from urgens.physics.bends import bend_sheet
from urgens.plumbing.route_edits import points_of
from urgens.ui.frame.window import MainWindow
from urgens.ui.widgets.file_chooser import FileChooser

STATION = "Plumb"  # that its windows open at

Opener = Callable[[Build], MainWindow]


def page(window: MainWindow, name: str) -> Any:
    window.show_station("Plumb")
    window.station("Plumb").show_page_named(name)
    return window.station("Plumb").page


def route(window: MainWindow, where: str) -> np.ndarray:
    plumbing = window.session.build.plumbing
    assert plumbing is not None
    return points_of(next(line for line in plumbing.lines if line.id == where))


@pytest.fixture
def plumbed(open_window: Opener) -> MainWindow:
    return open_window(with_layout(sound()))


# --- lines ---


def test_a_line_is_looked_at_with_its_sheet_and_its_work(plumbed: MainWindow) -> None:
    shown = page(plumbed, "Lines")
    shown.look_at("L3")
    assert "Valve body to left front hose" in shown.choose.text()
    sheet = bend_sheet(route(plumbed, "L3"), 0.013)
    assert shown.length.text().startswith("Cut ")
    assert len([key for key in shown.rows.labels if key[1] == "angle"]) == len(sheet.angle)
    assert shown.work.text().startswith("1. Measure the route")


def test_a_corner_is_dragged_from_above_and_from_the_side_one_undo_each(
    plumbed: MainWindow,
) -> None:
    shown = page(plumbed, "Lines")
    shown.look_at("L3")
    before = route(plumbed, "L3")
    start = shown.board.at(0, 1)
    drag(shown.board, start.toPoint(), (start + QPointF(-30, 0)).toPoint())
    moved = route(plumbed, "L3")
    assert moved[1][0] > before[1][0]  # to the left is forward
    assert moved[1][2] == before[1][2]
    start = shown.board.at(1, 1)
    drag(shown.board, start.toPoint(), (start + QPointF(0, -25)).toPoint())
    assert route(plumbed, "L3")[1][2] > before[1][2]  # to the top is up
    plumbed.session.undo_stack.undo()
    assert route(plumbed, "L3") == pytest.approx(moved)
    plumbed.session.undo_stack.undo()
    assert route(plumbed, "L3") == pytest.approx(before)


def test_keys_move_put_in_and_take_out_corners(plumbed: MainWindow) -> None:
    shown = page(plumbed, "Lines")
    shown.look_at("L3")
    before = route(plumbed, "L3")
    shown.board.setFocus()
    shown.board.choose(1)
    QTest.keyClick(shown.board, Qt.Key.Key_Up, Qt.KeyboardModifier.ShiftModifier)
    assert route(plumbed, "L3")[1][2] > before[1][2]
    QTest.keyClick(shown.board, Qt.Key.Key_Insert)
    assert len(route(plumbed, "L3")) == len(before) + 1
    QTest.keyClick(shown.board, Qt.Key.Key_Delete)
    assert len(route(plumbed, "L3")) == len(before)
    QTest.keyClick(shown.board, Qt.Key.Key_Tab)
    assert "point 3 of 3" in shown.board.accessibleName()


def test_a_bend_is_typed_and_the_route_follows(plumbed: MainWindow) -> None:
    shown = page(plumbed, "Lines")
    shown.look_at("L3")
    type_into(shown.rows.labels[0, "angle"], "45 deg")
    type_into(shown.rows.labels[0, "feed"], "6 in")
    sheet = bend_sheet(route(plumbed, "L3"), 0.013)
    assert sheet.angle[0] == pytest.approx(np.pi / 4, abs=1e-6)
    assert sheet.feed[0] == pytest.approx(0.1524, abs=1e-5)
    label = shown.rows.labels[0, "angle"]
    type_into(label, "190 deg")
    assert "between 0 and 180" in label.error
    QTest.keyClick(label.editor, Qt.Key.Key_Escape)
    assert bend_sheet(route(plumbed, "L3"), 0.013).angle[0] == pytest.approx(np.pi / 4, abs=1e-6)


def test_a_route_is_begun_turned_round_and_mirrored(open_window: Opener) -> None:
    made = sound()
    for line in made["lines"]:
        if line["id"] == "L4":
            line.pop("route")
    window = open_window(with_layout(made))
    shown = page(window, "Lines")
    shown.look_at("L4")
    assert "No route yet" in shown.nothing.text()
    QTest.mouseClick(shown.begin, LEFT)
    assert len(route(window, "L4")) == 2
    shown.look_at("L3")
    before = route(window, "L3")
    QTest.mouseClick(shown.acts["Turn round"], LEFT)
    plumbing = window.session.build.plumbing
    assert plumbing is not None
    line = next(one for one in plumbing.lines if one.id == "L3")
    assert (line.start, line.to) == ("hfl.a", "cv.front-left")
    assert route(window, "L3") == pytest.approx(before[::-1])
    onto = next(a for a in shown.mirror.menu().actions() if a.text().startswith("4 "))
    onto.trigger()
    assert shown.where == "L4"
    assert route(window, "L4") == pytest.approx(before[::-1] * [1, -1, 1], abs=1e-5)


def test_only_both_ends_left_are_not_taken_out_and_that_is_said(
    plumbed: MainWindow, answer: Callable[..., list[str]]
) -> None:
    shown = page(plumbed, "Lines")
    shown.look_at("L3")
    shown.board.choose(1)
    QTest.mouseClick(shown.acts["Point −"], LEFT)
    told = answer("OK")
    QTest.mouseClick(shown.acts["Point −"], LEFT)
    assert "is an end of the line" in " ".join(told)
    assert len(route(plumbed, "L3")) == 2


def test_without_a_layout_the_page_says_where_to_take_one(
    open_window: Opener, bakery: Build
) -> None:
    shown = page(open_window(bakery), "Lines")
    assert "take one on the page Layout" in shown.nothing.text()
    assert not shown.begin.isVisible()


# --- ways ---


def test_a_way_is_looked_at_and_laid_as_one_step(plumbed: MainWindow) -> None:
    shown = page(plumbed, "Ways")
    names = [card.name.text() for card in shown.cards]
    assert names[-len(shown.found) :] == [one.school.words for one in shown.found]
    assert len(shown.found) > 8
    old = names.index("The old block for the fronts, an adjustable valve for the rear")
    rest(50)  # until it is laid out, and can have the focus
    shown.cards[old].setFocus()
    assert shown.title.text() == names[old]
    assert "combination valve" in shown.needs["Goes"].text()
    assert "lamp" in shown.needs["Lost"].text()
    QTest.keyClick(shown.cards[old], Qt.Key.Key_Return)
    plumbing = plumbed.session.build.plumbing
    assert plumbing is not None
    assert "block" in {part.kind for part in plumbing.parts}
    assert plumbed.session.build.valves.rear[0].kind == "adjustable"
    assert [card.button.text() for card in shown.cards].count("laid") == 1
    plumbed.session.undo_stack.undo()
    assert plumbed.session.build.valves.rear[0].kind == "reducing"


def test_prices_are_typed_once_and_every_way_tells_what_it_costs(plumbed: MainWindow) -> None:
    shown = page(plumbed, "Ways")
    type_into(shown.price_labels["line"], "12.50")
    type_into(shown.price_labels["tee"], "8")
    one = next(one for one in shown.found if one.school.name == "switch")
    known, missing = one.price({"line": 12.5, "tee": 8.0})
    assert known == pytest.approx(12.5 * one.kinds["line"] + 8 * one.kinds["tee"])
    assert "switch" in missing
    card = next(c for c in shown.cards if c.name.text() == one.school.words)
    assert f"{known:g}, without" in card.accessibleName()
    type_into(shown.price_labels["tee"], "a lot")
    plumbing = plumbed.session.build.plumbing
    assert plumbing is not None
    assert plumbing.prices == {"line": 12.5, "tee": 8.0}
    assert shown.prices.machine.known() == {"line": 12.5, "tee": 8.0}


def test_prices_are_known_to_the_next_build_and_a_bad_file_is_said(
    open_window: Opener, bakery: Build
) -> None:
    first = page(open_window(with_layout(sound())), "Ways")
    type_into(first.price_labels["line"], "12.50")
    other = page(open_window(bakery), "Ways")  # it has no layout of its own
    assert other.price_labels["line"].text == "12.5"
    type_into(other.price_labels["hose"], "11")
    path = other.prices.machine.path
    assert other.prices.machine.known() == {"line": 12.5, "hose": 11.0}
    path.write_text('{"prices": {"line": "dear"}}', encoding="utf-8")
    label = other.price_labels["hose"]
    type_into(label, "12")
    assert "this build only" in label.error
    QTest.keyClick(label.editor, Qt.Key.Key_Escape)
    assert path.read_text(encoding="utf-8") == '{"prices": {"line": "dear"}}'
    assert other.prices.known() == {}
    assert "Your own prices" in other.prices.machine.fault


def test_a_conversion_becomes_a_set_up_with_its_list_and_its_jobs(plumbed: MainWindow) -> None:
    shown = page(plumbed, "Ways")
    rest(50)  # until it is laid out, and can have the focus
    card = next(c for c in shown.cards if c.name.text() == "Two circuits become one")
    card.setFocus()
    assert "lamp" in shown.needs["Lost"].text()
    assert "distribution block" in shown.needs["New"].text()
    QTest.keyClick(card, Qt.Key.Key_Return)
    session = plumbed.session
    assert session.setup == "one circuit"
    assert session.base.plumbing != session.build.plumbing
    assert session.build.master.kind == "single"
    card = next(c for c in shown.cards if c.name.text() == "To “one circuit”")
    rest(50)
    card.setFocus()
    QTest.mouseClick(shown.buy, LEFT)
    buy = plumbed.station("Plumb").page
    items = {row.item for row in buy.list.rows}
    assert {"cylinder", "block", "3/16 in tube", "bottle of fluid, 0.5 l"} <= items
    assert not any(item.startswith("hose") for item in items)
    assert "one circuit" in buy.words.text()
    shown = page(plumbed, "Ways")
    shown.cards[1].setFocus()
    rest(50)
    shown.cards[0].setFocus()
    shown.cards[1].setFocus()
    QTest.mouseClick(shown.jobs, LEFT)
    plan = plumbed.station("Sheet").page
    assert plan.aim == "one circuit"
    session.undo_stack.undo()
    assert not any(setup.name == "one circuit" for setup in session.base.setups)


def test_set_ups_are_conversions(open_window: Opener) -> None:
    made = with_layout(sound())
    document = made.model_dump(mode="json", exclude_unset=True)
    document["setups"] = [{"name": "manual", "changes": {"booster": {"kind": "none"}}}]
    window = open_window(Build.model_validate(document))
    shown = page(window, "Ways")
    card = shown.cards[0]
    assert card.name.text() == "To “manual”"
    rest(50)  # until it is laid out, and can have the focus
    card.setFocus()
    assert "booster" in shown.needs["Goes"].text()
    assert "help" in shown.needs["Lost"].text()


# --- buying ---


def test_the_list_is_shown_and_what_came_is_typed_and_audited(plumbed: MainWindow) -> None:
    shown = page(plumbed, "Buy")
    assert "rows to buy" in shown.summary
    type_into(shown.came["hose"], "5")
    plumbing = plumbed.session.build.plumbing
    assert plumbing is not None
    (received,) = plumbing.received
    assert (received.item, received.count) == ("hose", 5)
    assert received.back_by is not None  # a fortnight, to be typed over
    row = next(row for row in shown.rows if row.item == "hose")
    assert row.words.startswith("2 more than needed; may go back until ")
    type_into(shown.back["hose"], "2020-01-31")
    row = next(row for row in shown.rows if row.item == "hose")
    assert row.words.endswith("too late")
    type_into(shown.came["hose"], "3")
    type_into(shown.version["hose"], "A, B")
    row = next(row for row in shown.rows if row.item == "hose")
    assert row.words.startswith("two versions: A, B")
    type_into(shown.version["hose"], "B")
    row = next(row for row in shown.rows if row.item == "hose")
    assert row.words == "all here"
    label = shown.came["tee"]
    type_into(label, "some")
    assert "whole number" in label.error
    QTest.keyClick(label.editor, Qt.Key.Key_Escape)


def test_a_stock_length_that_is_too_short_is_said(plumbed: MainWindow) -> None:
    shown = page(plumbed, "Buy")
    type_into(shown.stock, "10 in")
    assert "longer" in shown.words.text()
    assert "L1" in shown.words.text()
    type_into(shown.stock, "60 in")
    assert shown.words.text() == ""
    assert "3/16 in, length 1" in shown.view.accessibleName()


def test_the_list_is_a_table_that_no_spreadsheet_takes_for_formulas(plumbed: MainWindow) -> None:
    shown = page(plumbed, "Buy")
    rows = shown.table().decode().splitlines()
    assert rows[0] == "where,item,sold as,needed,came,back by,to do,to look at,why"
    assert any(row.startswith("Hoses,Hose,,3,0,,to buy") for row in rows)
    assert any(row.startswith("3/16 in,1,L") for row in rows)


def test_without_a_layout_there_is_nothing_to_buy(open_window: Opener, bakery: Build) -> None:
    shown = page(open_window(bakery), "Buy")
    assert "no layout" in shown.words.text()
    assert not shown.save.isEnabled()


# --- what is this block ---


def test_a_block_is_told_by_its_looks_and_goes_into_the_layout(plumbed: MainWindow) -> None:
    shown = page(plumbed, "What is this block?")
    wanted = {"ins": "One", "outs": "One", "wire": "No", "through": "No", "stem": "No",
              "knob": "Yes", "lever": "No", "inline": "No"}  # fmt: skip
    while shown.question is not None:
        QTest.mouseClick(shown.choices[wanted[shown.question.name]], LEFT)
    assert shown.summary == "it is an adjustable valve, by what you saw"
    assert shown.put.isVisible()
    line = "line 5, valve body to rear axle hose"
    next(a for a in shown.put.menu().actions() if a.text() == line).trigger()
    plumbing = plumbed.session.build.plumbing
    assert plumbing is not None
    assert plumbing.parts[-1].kind == "adjustable"
    assert [valve.kind for valve in plumbed.session.build.valves.rear] == ["reducing", "adjustable"]


def test_what_only_a_gauge_tells_goes_in_as_open_and_is_told_later(plumbed: MainWindow) -> None:
    """Two in, three out, a wire: switch, switch with a reducing part, or all in one."""
    shown = page(plumbed, "What is this block?")
    wanted = {"ins": "Two", "outs": "Three", "wire": "Yes", "stem": "No", "knob": "No",
              "lever": "No", "inline": "No", "through": "No"}  # fmt: skip
    while shown.question is not None:
        QTest.mouseClick(shown.choices[wanted[shown.question.name]], LEFT)
    assert "gauge" in shown.verdict.text()
    assert shown.open.isVisible()
    next(a for a in shown.call.menu().actions() if a.text() == "Combination valve").trigger()
    session = plumbed.session
    assert session.build.plumbing is not None
    body = next(part for part in session.build.plumbing.parts if part.id == "cv")
    assert body.may_be == ("switch", "switch-reducing", "combination")
    assert body.kind == "combination"
    assert "body-open" in {one.code for one in session.findings}
    layout = page(plumbed, "Layout")
    layout.look_at("cv")
    told = next(b for b in layout.thing.findChildren(QPushButton)
                if b.text() == "Gauged: it is a pressure-differential switch")  # fmt: skip
    QTest.mouseClick(told, LEFT)
    body = next(part for part in session.build.plumbing.parts if part.id == "cv")
    assert (body.kind, body.may_be) == ("switch", ())
    assert "body-open" not in {one.code for one in session.findings}


def test_a_body_of_two_sides_goes_behind_the_cylinder(open_window: Opener, bakery: Build) -> None:
    window = open_window(
        with_changes(bakery, {"setups": [], "valves": {}, "warning_switch": "none"})
    )
    page(window, "Layout")._take()
    shown = page(window, "What is this block?")
    for name, seen in (("ins", 2), ("outs", 3), ("wire", True), ("stem", True)):
        shown.answer(name, seen)
    (action,) = shown.put.menu().actions()
    assert action.text() == "behind the cylinder"
    action.trigger()
    plumbing = window.session.build.plumbing
    assert plumbing is not None
    body = next(part for part in plumbing.parts if part.kind == "combination")
    assert {name.partition("-")[0] for name in body.ports} == {"front", "rear"}
    assert "circuits-joined" not in {one.code for one in window.session.findings}


def test_answers_are_skipped_and_taken_back(plumbed: MainWindow) -> None:
    shown = page(plumbed, "What is this block?")
    first = shown.question
    assert first is not None
    QTest.mouseClick(shown.choices["Cannot tell"], LEFT)
    assert shown.question is not None
    assert shown.question.name != first.name
    second = shown.question
    QTest.mouseClick(next(iter(shown.choices.values())), LEFT)
    assert list(shown.told) == [second.name]
    QTest.mouseClick(shown.told[second.name], LEFT)
    assert shown.told == {}
    QTest.mouseClick(shown.again, LEFT)
    assert shown.question == first


# --- the catalogue ---


def test_parts_of_the_builders_own_are_kept_and_offered(plumbed: MainWindow, tmp_path: Any) -> None:
    shown = page(plumbed, "Layout")
    shown.laid.parts.path = tmp_path / "parts.json"
    shown.look_at("rt")
    keep = next(b for b in shown.thing.findChildren(type(shown.take)) if "Keep" in b.text())
    QTest.mouseClick(keep, LEFT)
    assert "“Tee rt” is kept in" in shown.drafted.text()
    names = [part.name for part in shown.laid.parts.ordinary(("tee",))]
    assert names[0] == "Tee rt"
    (tmp_path / "parts.json").write_text("{", encoding="utf-8")
    assert "Tee rt" not in [part.name for part in shown.laid.parts.ordinary(("tee",))]
    assert "parts.json" in shown.laid.parts.fault


# --- old lines, sums ---


def test_an_old_line_is_ranked_and_tried_on_every_route(plumbed: MainWindow) -> None:
    """Its one bend is picked on the tape, where it begins: 187 mm along, by hand."""
    shown = page(plumbed, "Old lines")
    assert shown.rows == []
    arc = 0.013 * np.pi / 2
    type_into(shown.length, f"{(0.187 + arc + 0.287) * 1e3:.3f} mm")
    assert len(shown.rows) == 7
    spot = shown.tape.spot_of(0.187).toPoint()
    QTest.mouseClick(shown.tape, LEFT, pos=spot)
    assert len(shown.tape.bends) == 1
    type_into(shown.bend["at"], "187 mm")
    assert shown.rows[0][1].endswith("fits")
    QTest.mouseClick(shown.folded, LEFT)
    assert not shown.rows[0][1].endswith("fits")  # then it is straight
    QTest.mouseClick(shown.folded, LEFT)
    assert shown.rows[0][1].endswith("fits")
    type_into(shown.bend["angle"], "200 deg")
    assert "between 0 and 180" in shown.bend["angle"].error
    QTest.keyClick(shown.bend["angle"].editor, Qt.Key.Key_Escape)
    shown.count.setText("many")
    shown.count.editingFinished.emit()
    assert "no number of bends" in shown.fault.text()


def test_bends_are_picked_moved_and_taken_out_by_keys(plumbed: MainWindow) -> None:
    shown = page(plumbed, "Old lines")
    type_into(shown.length, "500 mm")
    tape = shown.tape
    tape.setFocus()
    QTest.keyClick(tape, Qt.Key.Key_Insert)
    QTest.keyClick(tape, Qt.Key.Key_Left, Qt.KeyboardModifier.ShiftModifier)
    assert tape.bends[0].at == pytest.approx(0.2)
    QTest.keyClick(tape, Qt.Key.Key_Insert)
    QTest.keyClick(tape, Qt.Key.Key_Right, Qt.KeyboardModifier.ShiftModifier)
    QTest.keyClick(tape, Qt.Key.Key_Up)
    assert shown.chosen == tape.bends[0]
    before = tape.grab().toImage()
    QTest.keyClick(tape, Qt.Key.Key_Delete)
    assert [bend.at for bend in tape.bends] == [pytest.approx(0.3)]
    assert tape.grab().toImage() != before
    start = tape.spot_of(0.3).toPoint()
    drag(tape, start, tape.spot_of(0.1).toPoint())
    assert tape.bends[0].at == pytest.approx(0.1, abs=0.003)
    kept = shown.hand
    QTest.keyClick(tape, Qt.Key.Key_Delete)
    shown.hand = kept
    assert len(tape.bends) == 1


def test_sums_answer_as_they_are_typed(plumbed: MainWindow) -> None:
    shown = page(plumbed, "Room and sums")
    assert "closes at" in shown.answers["switch"].text()
    assert "7/8 in" in shown.answers["bore"].text()
    assert "at the pad" in shown.answers["rod"].text()
    type_into(shown.labels["Free length"], "6 in")
    assert "does not reach" in shown.answers["hose"].text()
    type_into(shown.labels["Free length"], "13 in")
    type_into(shown.labels["Least radius it may bend with"], "9 in")
    assert "sharper than" in shown.answers["hose"].text()
    kept = shown.typed
    shown.typed = {**kept, "Free length": "6 in"}
    assert "does not reach" in shown.answers["hose"].text()


def test_room_and_reach_are_kept_with_the_build_and_drawn(plumbed: MainWindow) -> None:
    shown = page(plumbed, "Room and sums")
    assert shown.answers["reach"].text() == ""
    before = shown.board.grab().toImage()
    for path, typed in (("room.valve_reach", "40 in"), ("master.body_length", "14 in"),
                        ("room.ahead", "13 in")):  # fmt: skip
        type_into(shown.facts.labels[path], typed)
    assert "not reached" in shown.answers["reach"].text()
    assert "too long" in shown.answers["room"].text()
    room = plumbed.session.build.room
    assert room.ahead is not None
    assert room.ahead.text == "13 in"
    assert shown.board.grab().toImage() != before
    type_into(shown.facts.labels["room.valve_reach"], "20 in")
    assert "reached without looking" in shown.answers["reach"].text()


def test_plan_and_list_are_written_and_what_goes_wrong_is_said(
    plumbed: MainWindow, tmp_path: Path, monkeypatch: pytest.MonkeyPatch,
    answer: Callable[..., list[str]],
) -> None:  # fmt: skip
    place = tmp_path / "mine"
    monkeypatch.setattr(FileChooser, "ask", lambda *_: [str(place)])
    shown = page(plumbed, "Buy")
    QTest.mouseClick(shown.save, LEFT)
    assert (tmp_path / "mine.csv").read_bytes() == shown.table()
    layout = page(plumbed, "Layout")
    layout.save.menu().actions()[0].trigger()
    assert (tmp_path / "mine.svg").read_text(encoding="utf-8").startswith("<?xml")
    nowhere = tmp_path / "nowhere" / "plan"
    monkeypatch.setattr(FileChooser, "ask", lambda *_: [str(nowhere)])
    told = answer("OK")
    layout.save.menu().actions()[1].trigger()
    assert "cannot be written" in " ".join(told)
    monkeypatch.setattr(FileChooser, "ask", lambda *_: [])
    layout.save.menu().actions()[1].trigger()
    assert not (tmp_path / "mine.png").exists()
