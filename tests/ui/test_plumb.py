"""Plumb, driven: the layout taken, looked at under pressure, dragged, changed, written out."""

from collections.abc import Callable
from math import hypot
from pathlib import Path
from typing import Any

import pytest
from PySide6.QtCore import QPoint, QPointF, Qt
from PySide6.QtGui import QImage
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QLineEdit, QToolButton

from tests.plumbing.layouts import DAMAGED, sound, with_layout
from tests.plumbing.test_plan import crowd
from tests.ui.conftest import LEFT, drag, type_into
from urgens.document import Build, demo
from urgens.quantity import PRESSURE, show
from urgens.ui.frame.window import MainWindow
from urgens.ui.stations.plumb.layout_page import LayoutPage
from urgens.ui.stations.plumb.plan_file import content
from urgens.ui.stations.plumb.plan_labels import NUMBER
from urgens.ui.stations.plumb.plan_view import PlanView
from urgens.ui.widgets.figure_column import FigureColumn
from urgens.ui.widgets.label_placer import overlap
from urgens.ui.widgets.schematic.items import PartItem

STATION = "Plumb"  # that its windows open at

Opener = Callable[[Build], MainWindow]


@pytest.fixture
def plumbed(open_window: Opener) -> MainWindow:
    window = open_window(with_layout(sound()))
    window.show_station("Plumb")
    return window


def page(window: MainWindow) -> LayoutPage:
    window.show_station("Plumb")
    found: LayoutPage = window.station("Plumb").layout_page
    return found


def on(view: PlanView, where: str) -> QPoint:
    """The middle of a part on the screen."""
    found: QPoint = view.mapFromScene(QPointF(*view.schematic.part(where).at))
    return found


def test_a_build_without_a_layout_shows_the_usual_one_to_be_taken(
    open_window: Opener, bakery: Build
) -> None:
    window = open_window(bakery)
    shown = page(window)
    assert "nobody has looked" in shown.drafted.text()
    assert not any(part.movable for part in shown.view.schematic.parts)
    QTest.mouseClick(shown.take, LEFT)
    plumbing = window.session.build.plumbing
    assert plumbing is not None
    assert len(plumbing.parts) == len(shown.view.schematic.parts)
    assert shown.take.isHidden()
    assert all(part.movable for part in shown.view.schematic.parts)
    window.session.undo_stack.undo()
    assert window.session.build.plumbing is None
    assert shown.take.isVisible()


def test_a_click_chooses_a_part_and_shows_its_ports(plumbed: MainWindow) -> None:
    shown = page(plumbed)
    QTest.mouseClick(shown.view.viewport(), LEFT, pos=on(shown.view, "cv"))
    assert shown.where == "cv"
    words = [label.text() for label in shown.thing.findChildren(type(shown.drafted))]
    assert "Combination valve" in words
    assert {"front in", "front left", "front right", "rear in", "rear out"} <= set(words)


def test_a_row_of_the_cut_list_lights_up_its_line_and_keys_go_on(plumbed: MainWindow) -> None:
    shown = page(plumbed)
    rows = shown.cut.rows
    QTest.mouseClick(rows.viewport(), LEFT, pos=rows.spot(4).center())
    assert (shown.where, shown.cut.where, shown.view.where) == ("L5", "L5", "L5")
    QTest.keyClick(rows, Qt.Key.Key_Down)
    assert shown.view.where == "L6"
    lines = [rows.model().index(row, 0).data() for row in range(rows.model().rowCount())]
    assert any(line.startswith("L7 Tee to right rear, ") for line in lines)


def test_a_part_is_dragged_lines_follow_others_stay_one_undo(plumbed: MainWindow) -> None:
    shown = page(plumbed)
    before = {part.where: part.at for part in shown.view.schematic.parts}
    line = next(one for one in shown.view.schematic.lines if one.where == "L5")
    start = on(shown.view, "cv")
    drag(shown.view.viewport(), start, start + QPoint(round(3 * shown.view.pitch), 0))
    after = {part.where: part.at for part in shown.view.schematic.parts}
    moved = {name for name in before if after[name] != pytest.approx(before[name])}
    assert moved == {"cv"}
    there = round((after["cv"][0] - before["cv"][0]) / shown.view.pitch, 6)
    assert there in (3.0, 4.0)  # whole steps of the grid, the nearest to where it was let go
    other = next(one for one in shown.view.schematic.lines if one.where == "L5")
    assert other.corners != line.corners
    plumbed.session.undo_stack.undo()
    back = {part.where: part.at for part in shown.view.schematic.parts}
    assert {name: pytest.approx(at) for name, at in before.items()} == back
    assert not plumbed.session.undo_stack.canUndo()


def test_an_arrow_moves_what_is_chosen_by_a_step_and_it_is_laid_anew(plumbed: MainWindow) -> None:
    shown = page(plumbed)
    shown.look_at("cv")
    before = shown.view.schematic.part("cv").at
    assert shown.buttons["Lay out anew"].isHidden()
    QTest.keyClick(shown.view, Qt.Key.Key_Right)
    QTest.keyClick(shown.view, Qt.Key.Key_Right)
    assert shown.view.schematic.part("cv").at[0] == pytest.approx(before[0] + 2 * shown.view.pitch)
    QTest.mouseClick(shown.buttons["Lay out anew"], LEFT)
    assert shown.view.schematic.part("cv").at == pytest.approx(before)


def test_lines_and_wheels_show_the_pressure_of_the_press(plumbed: MainWindow) -> None:
    shown, session = page(plumbed), plumbed.session
    session.set_effort(0.0)
    rest = shown.view.grab().toImage()
    session.set_effort(250.0)
    rear = float(session.presses.rear_pressure)
    assert shown.view._at("rl.in") == pytest.approx(rear)
    assert shown.view._at("fl.in") == pytest.approx(float(session.presses.front_pressure))
    assert shown.view.grab().toImage() != rest


def test_a_gauge_on_a_port_reads_it_and_changes_nothing(plumbed: MainWindow) -> None:
    shown, session = page(plumbed), plumbed.session
    build = session.build
    shown.look_at("cv")
    button = shown.thing._pressures["cv.rear-out"]
    QTest.mouseClick(button, LEFT)
    assert shown.gauges == ("cv.rear-out",)
    session.set_effort(200.0)
    said = str(show(float(session.presses.rear_pressure), PRESSURE, session.units))
    assert said in shown.thing._pressures["cv.rear-out"].text()
    assert session.build is build
    QTest.mouseClick(shown.thing._pressures["cv.rear-out"], LEFT)
    assert shown.gauges == ()


def test_a_thread_is_chosen_and_the_mismatch_is_found_marked_and_shown(
    plumbed: MainWindow, qtbot: Any
) -> None:
    shown = page(plumbed)
    shown.look_at("L6")
    nut = next(
        button
        for button in shown.thing.findChildren(QToolButton)
        if button.accessibleName() == "Thread of left rear: 3/8-24"
    )
    next(one for one in nut.menu().actions() if one.text() == "M10x1.0").trigger()
    codes = {finding.code for finding in plumbed.session.findings}
    assert "thread-mismatch" in codes
    qtbot.waitUntil(lambda: "L6" in shown.view.marks, timeout=2_000)
    assert any(words.bad and words.text == "M10x1.0" for words in shown.view.words)
    shown.look_at("cv")
    assert plumbed.station("Plumb").go_to("L6")
    assert shown.where == "L6"


def test_a_part_is_put_into_a_line_and_taken_out_again(plumbed: MainWindow) -> None:
    shown = page(plumbed)
    shown.look_at("L5")
    put = next(
        button
        for button in shown.thing.findChildren(QToolButton)
        if button.text() == "Put a part into it"
    )
    next(one for one in put.menu().actions() if one.text() == "Reducing valve 3/8-24").trigger()
    plumbing = plumbed.session.build.plumbing
    assert plumbing is not None
    assert shown.where == plumbing.parts[-1].id
    out = next(one for one in shown.thing.findChildren(type(shown.take)) if "out" in one.text())
    QTest.mouseClick(out, LEFT)
    plumbing = plumbed.session.build.plumbing
    assert plumbing is not None
    assert "reducing" not in {part.kind for part in plumbing.parts}


def test_a_part_that_cannot_be_taken_out_says_why(
    plumbed: MainWindow, answer: Callable[..., list[str]]
) -> None:
    shown = page(plumbed)
    shown.look_at("rt")
    out = next(one for one in shown.thing.findChildren(type(shown.take)) if "out" in one.text())
    told = answer("OK")
    QTest.mouseClick(out, LEFT)
    assert "joins 3 lines" in " ".join(told)
    assert shown.where == "rt"


def test_it_is_zoomed_by_keys_wheel_and_buttons_and_fits_again(plumbed: MainWindow) -> None:
    shown = page(plumbed)
    pitch = shown.view.pitch
    shown.view.setFocus()
    QTest.keyClicks(shown.view, "+")
    assert shown.view.pitch > pitch
    QTest.mouseClick(shown.buttons["+"], LEFT)
    QTest.keyClicks(shown.view, "-")
    QTest.mouseClick(shown.buttons["Fit"], LEFT)
    assert shown.view.pitch == pytest.approx(pitch)


@pytest.mark.parametrize("code", ["thread-mismatch", "wheel-not-fed", "loop", "circuits-joined"])
def test_words_stand_on_no_part_and_on_no_other_word(open_window: Opener, code: str) -> None:
    window = open_window(with_layout(DAMAGED[code]))
    shown = page(window)
    boxes = [words.box for words in shown.view.words]
    assert boxes
    for index, box in enumerate(boxes):
        assert not any(overlap(box, other) for other in boxes[index + 1 :])
        assert shown.view.words[index].bad or not any(
            overlap(box, shown.view._body(part)) for part in shown.view.schematic.parts
        )


def test_the_road_part_of_the_press_dims_where_the_vehicle_stands(plumbed: MainWindow) -> None:
    assert plumbed.press.verdict.dimmed
    plumbed.show_station("Balance")
    assert not plumbed.press.verdict.dimmed
    assert not plumbed.press.line_pressures.dimmed


def test_the_rail_tells_of_the_layout(open_window: Opener, bakery: Build) -> None:
    kinds = {stop.name: stop for stop in open_window(bakery).rail._stops}
    plumb, balance = kinds["Plumb"], kinds["Balance"]
    assert plumb.fact(open_window(bakery).session) == "not drawn"
    faulty = open_window(with_layout(DAMAGED["thread-mismatch"])).session
    assert plumb.fact(faulty) == "1 danger"
    assert balance.fact(faulty) == balance.fact(open_window(with_layout(sound())).session)


def test_the_drawing_is_written_whole_as_svg_and_png(plumbed: MainWindow, tmp_path: Path) -> None:
    shown = page(plumbed)
    svg = content(shown.view, ".svg").decode()
    assert svg.startswith("<?xml")
    for words in ("Combination valve", "Right rear", "3/8-24"):
        assert words in svg
    image = QImage.fromData(content(shown.view, ".png"))
    assert image.width() == 2 * round(shown.view.extent[0])


def test_a_crowd_of_parts_is_shown_shrunk_and_zooms(open_window: Opener) -> None:
    window = open_window(with_layout(crowd(120)))
    shown = page(window)
    assert len([i for i in shown.view.items_by_place.values() if isinstance(i, PartItem)]) == 120
    shown.view.zoom(1)
    assert shown.view.pitch >= 11


def field(window: MainWindow, name: str) -> QLineEdit:
    shown = page(window)
    found: QLineEdit = next(
        one for one in shown.thing.findChildren(QLineEdit) if one.accessibleName() == name
    )
    return found


def test_figures_and_facts_of_a_part_are_typed_where_it_is_chosen(plumbed: MainWindow) -> None:
    shown = page(plumbed)
    shown.look_at("hfl")
    column = shown.thing.findChildren(FigureColumn)[0]
    index = [part.id for part in shown.laid.plumbing.parts].index("hfl")
    path = f"plumbing.parts[{index}]"
    type_into(column.labels[f"{path}.free_length"], "12 in")
    column = shown.thing.findChildren(FigureColumn)[-1]
    type_into(column.labels[f"{path}.reach"], "11-1/2 in")
    assert "hose-too-short" in {one.code for one in plumbed.session.findings}
    marking = field(plumbed, "Marking")
    marking.setText("LF 3")
    marking.editingFinished.emit()
    assert shown.laid.plumbing.parts[index].marking == "LF 3"
    shown.look_at("rt")
    fixed = next(
        b for b in shown.thing.findChildren(QToolButton) if b.accessibleName().startswith("Fixed")
    )
    next(a for a in fixed.menu().actions() if a.text() == "no").trigger()
    assert "part-unfixed" in {one.code for one in plumbed.session.findings}


def test_what_goes_on_before_the_flare_is_typed_with_commas(plumbed: MainWindow) -> None:
    shown = page(plumbed)
    shown.look_at("L5")
    first = field(plumbed, "On before")
    first.setText("grommet, sleeve")
    first.editingFinished.emit()
    line = next(one for one in shown.laid.plumbing.lines if one.id == "L5")
    assert line.slide_on_first == ("grommet", "sleeve")
    steps = plumbed.session.undo_stack.count()
    field(plumbed, "On before").editingFinished.emit()  # typed again as it is: no step
    assert plumbed.session.undo_stack.count() == steps


@pytest.mark.parametrize("name", ["library", "roadster", "tender", "tractor"])
def test_no_line_is_numbered_on_another_number(open_window: Opener, name: str) -> None:
    window = open_window(demo(name))
    view = page(window).view
    spots = list(view.numbers.values())
    assert len(spots) == len(view._numbered())
    for index, (x, y) in enumerate(spots):
        for other in spots[index + 1 :]:
            assert hypot(x - other[0], y - other[1]) >= 2 * NUMBER - 1e-6
