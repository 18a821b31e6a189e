"""Size, driven: the map says what the solver says; bore and ratio are dragged, clicked, stepped."""

import itertools
from collections.abc import Callable
from typing import Any

import numpy as np
import pytest
from PySide6.QtCore import QPoint, QPointF, QRectF, Qt
from PySide6.QtTest import QTest

from tests.builds import bed
from tests.ui.conftest import drag, type_into
from tests.waiting import rest
from urgens.document import Build, demo_names, value_at, with_changes
from urgens.solve import solve
from urgens.studies.sizing_windows import MissedWindow
from urgens.ui.frame.window import MainWindow
from urgens.ui.stations.size.choices import RATIOS
from urgens.ui.stations.size.map_picture import WORDS
from urgens.ui.widgets.label_placer import overlap

STATION = "Size"  # that its windows open at

Opener = Callable[[Build], MainWindow]
LEFT = Qt.MouseButton.LeftButton


@pytest.fixture
def sizing(window: MainWindow) -> MainWindow:
    window.show_station("Size")
    rest(20)
    return window


def page(window: MainWindow, index: str) -> Any:
    """A page of the station, looked at."""
    window.show_station("Size")
    window.station("Size").show_page_named(index)
    rest(10)
    return window.station("Size").page


def row_of(window: MainWindow, bore: str) -> int:
    return [b.text for b in page(window, "Map").map.choices.bores].index(bore)


def test_a_click_only_looks_and_the_press_shows_it(sizing: MainWindow) -> None:
    """Nothing is fitted; the press says so, and shows what the solver says of that build."""
    session, plane, before = sizing.session, page(sizing, "Map").map, sizing.session.build
    row = row_of(sizing, "1 in")
    QTest.mouseClick(plane, LEFT, pos=plane.point(row, 6.0).toPoint())
    assert session.build == before
    assert session.undo_stack.count() == 0
    assert sizing.press.hint.text() == f"not fitted: Bore 1 in, ratio {plane.candidate[1]:.2f}"
    one = with_changes(before, plane.choices.changes(*plane.candidate))
    alone = solve(one, efforts=np.array([session.effort])).presses
    assert float(session.pressed.front_pressure) == pytest.approx(float(alone.front_pressure[0]))
    assert f"{float(alone.achieved_z[0]):.2f} g" in sizing.press.deceleration.words()
    assert "Take 1 in" in page(sizing, "Map").best.text()
    QTest.keyClick(plane, Qt.Key.Key_Escape)
    assert session.considered == ""
    assert float(session.pressed.achieved_z) == float(session.presses.achieved_z)


def test_all_of_the_page_speaks_of_the_cell_that_is_looked_at(sizing: MainWindow) -> None:
    """Heading, pedal, windows and button say one bore and ratio; another press puts all back."""
    map_page = page(sizing, "Map")
    plane, board, said = map_page.map, map_page.pedal, map_page.said.text()
    pin = board.labels["pedal.pivot_to_pushrod"]
    QTest.mouseClick(plane, LEFT, pos=plane.point(row_of(sizing, "1 in"), 6.0).toPoint())
    ratio = plane.candidate[1]
    assert map_page.said.text().startswith(f"Looked at, not fitted: 1 in at {ratio:.2f} : 1")
    assert f"at {ratio:.2f} to 1, looked at" in board.accessibleName()
    assert not pin.isVisible()  # a figure of the build would stand beside another ratio
    fitted, before = sizing.session.build.pedal.pivot_to_pushrod, board.pin
    drag(board, before.toPoint(), (before + QPointF(0, 20)).toPoint())
    assert sizing.session.build.pedal.pivot_to_pushrod == fitted
    QTest.keyClick(plane, Qt.Key.Key_Escape)
    assert map_page.said.text() == said
    assert "drag or arrow keys" in board.accessibleName()
    assert pin.isVisible()


def test_no_label_of_the_map_covers_another(sizing: MainWindow) -> None:
    plane = page(sizing, "Map").map
    row, column = plane.choices.map.ranked()[0]
    plane.choices.choose(row, float(RATIOS[column]) + 1.5)  # so that the best is named as well
    rest(20)
    for aside, wider in itertools.product((-1, 0, 1), (-0.4, -0.1, 0.1, 0.4)):
        plane.look_at((row + aside, float(RATIOS[column]) + wider))
        placed = plane.placed()
        assert len(placed) == 3
        boxes = [box for _, box in placed if box is not None]
        assert placed[0][1] in boxes  # what is looked at is always named
        assert not any(overlap(*pair) for pair in itertools.combinations(boxes, 2))
        marks = [QRectF(m.at.x() - 8, m.at.y() - 8, 16, 16) for m, _ in placed]
        assert not any(QRectF(*box).intersects(mark) for box in boxes for mark in marks)


@pytest.mark.parametrize("how", ["Enter", "double-click", "button"])
def test_what_is_looked_at_is_taken_as_one_step(sizing: MainWindow, how: str) -> None:
    plane, before = page(sizing, "Map").map, sizing.session.build
    at = plane.point(row_of(sizing, "1 in"), 6.0).toPoint()
    QTest.mouseClick(plane, LEFT, pos=at)
    if how == "Enter":
        QTest.keyClick(plane, Qt.Key.Key_Return)
    elif how == "button":
        QTest.mouseClick(page(sizing, "Map").best, LEFT)
    else:
        QTest.mouseDClick(plane, LEFT, pos=at)
    build = sizing.session.build
    assert sizing.session.considered == ""

    assert build.master.bore.text == "1 in"  # type: ignore[union-attr]
    assert float(sizing.session.solution.system.pedal_ratio) == pytest.approx(6.0, abs=0.06)
    assert build.pedal.pivot_to_pad == before.pedal.pivot_to_pad
    assert sizing.session.undo_stack.count() == 1
    sizing.session.undo_stack.undo()
    assert sizing.session.build == before


def test_the_choice_is_dragged_and_escape_puts_it_back(sizing: MainWindow) -> None:
    plane, before = page(sizing, "Map").map, sizing.session.build
    start = plane.point(plane.choices.own, plane.choices.ratio).toPoint()
    end = plane.point(row_of(sizing, "15/16 in"), 5.0).toPoint()
    drag(plane, start, end, release=False)
    assert sizing.session.build.master.bore.text == "15/16 in"  # type: ignore[union-attr]
    plane.setFocus()
    QTest.keyClick(plane, Qt.Key.Key_Escape)
    assert sizing.session.build == before
    QTest.mouseRelease(plane, LEFT, pos=end)
    assert sizing.session.build == before
    drag(plane, start, end)

    assert sizing.session.undo_stack.count() == 1
    assert sizing.session.build.master.bore.text == "15/16 in"  # type: ignore[union-attr]


def test_arrow_keys_step_bores_and_ratios(sizing: MainWindow) -> None:
    plane = page(sizing, "Map").map
    plane.setFocus()
    QTest.keyClick(plane, Qt.Key.Key_Up)
    QTest.keyClick(plane, Qt.Key.Key_Return)
    assert sizing.session.build.master.bore.text == "28 mm"  # type: ignore[union-attr]
    QTest.keyClick(plane, Qt.Key.Key_Right)
    QTest.keyClick(plane, Qt.Key.Key_Return)
    assert float(sizing.session.solution.system.pedal_ratio) == pytest.approx(4.1, abs=0.01)
    for _ in range(40):
        QTest.keyClick(plane, Qt.Key.Key_Up)
    QTest.keyClick(plane, Qt.Key.Key_Return)
    assert sizing.session.build.master.bore.text == "1/2 in"  # type: ignore[union-attr]


@pytest.mark.parametrize("name", demo_names())
def test_what_the_windows_say_is_what_the_build_does(open_window: Opener, name: str) -> None:
    window = open_window(bed(name))
    shown = page(window, "Map")
    session, own = window.session, shown.map.choices.own_map
    pressed = session.solution.press(session.build.targets.comfortable_effort.value)
    assert own.pressure[0, 0] == pytest.approx(float(pressed.master_front))
    effort = float(own.effort[0, 0])
    assert session.solution.press(effort).demand_z == pytest.approx(
        session.build.targets.deceleration, rel=1e-6
    )
    words = WORDS[MissedWindow(int(own.verdict[0, 0]))]
    assert words in shown.summary
    assert words in shown.said.text()
    rows = {row.name: row for row in shown.windows._rows}
    assert rows["Foot for"].value == effort
    assert rows["Foot for"].met
    assert ("One half lost" in rows) == (session.build.master.kind != "single")
    assert ("Holds the launch" in rows) == (name == "tractor")


def test_windows_are_typed_and_the_map_follows(sizing: MainWindow) -> None:
    shown = page(sizing, "Map")
    before = shown.map.choices.map.verdict.copy()
    label = shown.windows.labels["targets.pressure_window[1]"]
    type_into(label, "1500 psi")

    assert label.error == ""
    after = shown.map.choices.map.verdict
    assert (after == MissedWindow.PRESSURE).sum() < (before == MissedWindow.PRESSURE).sum()


@pytest.mark.parametrize(
    ("path", "by", "more"),
    [
        ("targets.max_effort", -30, False),
        ("targets.pressure_window[0]", -20, False),
        ("targets.pressure_window[1]", 25, True),
        ("targets.pedal_reserve", -20, True),
    ],
)
def test_an_edge_of_a_window_is_dragged_as_one_step(
    sizing: MainWindow, path: str, by: int, *, more: bool
) -> None:
    board, session = page(sizing, "Map").windows, sizing.session
    before = value_at(session.build, path).value
    start = board.edge(path).toPoint()
    drag(board, start, start + QPoint(by, 0))

    assert (value_at(session.build, path).value > before) == more
    assert session.undo_stack.count() == 1
    drag(board, board.edge(path).toPoint(), start, release=False)
    board.setFocus()
    QTest.keyClick(board, Qt.Key.Key_Escape)
    assert session.undo_stack.count() == 1
    QTest.mouseRelease(board, LEFT, pos=start)
    session.undo_stack.undo()
    assert value_at(session.build, path).value == before


def test_a_reserve_of_stroke_is_dragged(sizing: MainWindow) -> None:
    board = page(sizing, "Map").windows
    start = board.edge("targets.stroke_reserve").toPoint()
    drag(board, start, start - QPoint(40, 0))

    assert 0.1 < sizing.session.build.targets.stroke_reserve < 0.5


def test_usual_windows_are_marked_as_common_practice(sizing: MainWindow) -> None:
    shown = page(sizing, "Map")
    shown.usual.menu().aboutToShow.emit()
    actions = shown.usual.menu().actions()
    assert any("usual for truck" in action.text() for action in actions)
    assert "common practice" in actions[-1].text()
    (competition,) = [a for a in actions if a.text().startswith("Manual competition")]
    competition.trigger()

    window = sizing.session.build.targets.pressure_window
    assert [end.text for end in window] == ["700 psi", "1200 psi"]
    assert sizing.session.undo_stack.count() == 1


def test_what_fits_best_is_taken_with_one_press(sizing: MainWindow) -> None:
    shown = page(sizing, "Map")
    row, column = shown.map.choices.map.ranked()[0]
    wanted = shown.map.choices.bores[row].text
    QTest.mouseClick(shown.best, LEFT)
    at = shown.map.own_cell

    assert sizing.session.build.master.bore.text == wanted  # type: ignore[union-attr]
    assert shown.map.choices.map.verdict[at] == MissedWindow.FITS
    assert at[1] == pytest.approx(column, abs=1)


def test_twin_cylinders_move_as_a_pair(open_window: Opener) -> None:
    window = open_window(bed("roadster"))
    window.show_station("Size")
    apart = 19.05 - 15.9
    plane = page(window, "Map").map
    QTest.mouseClick(plane, LEFT, pos=plane.point(row_of(window, "22 mm"), 5.0).toPoint())
    QTest.keyClick(plane, Qt.Key.Key_Return)
    master = window.session.build.master

    assert master.front_bore.text == "22 mm"  # type: ignore[union-attr]
    rear = master.rear_bore.value  # type: ignore[union-attr]
    assert rear * 1000 == pytest.approx(22 - apart, abs=0.01)


def test_a_bore_that_is_not_sold_has_a_row_of_its_own(
    open_window: Opener, built: Callable[..., Build]
) -> None:
    window = open_window(built({"master.bore": "21.3 mm"}))
    window.show_station("Size")
    choices = page(window, "Map").map.choices

    assert choices.bores[choices.own].text == "21.3 mm"
    assert np.all(np.diff([bore.value for bore in choices.bores]) > 0)


@pytest.mark.parametrize("name", demo_names())
def test_the_feel_is_effort_over_travel_whole_and_with_parts_lost(
    open_window: Opener, name: str
) -> None:
    window = open_window(bed(name))
    window.show_station("Size")
    window.station("Size").show_page_named("Feel")
    rest(10)
    feel = window.station("Size").page.plane  # type: ignore[attr-defined]
    assert feel.isVisible()
    session = window.session
    shown = {words for words, _ in feel.notes()}
    assert "all of it" in shown
    assert ("booster lost" in shown) == (session.build.booster.kind != "none")
    travel, effort = feel.whole.points
    pressed = session.solution.press(session.effort)
    scale_x, scale_y = feel.scales
    at = float(np.interp(session.effort / scale_y, effort, travel))
    assert at * scale_x == pytest.approx(float(pressed.pedal_travel), rel=2e-2)
    for dead, curve in enumerate(feel.halves):
        ends = curve.points[0]
        lost = session.solution.half_failed
        if len(lost) < 2 or not ends.size:
            continue
        wanted = float(lost[dead].pedal_travel[session.solution.case])
        reached = ends[-1] * scale_x if np.isfinite(wanted) else np.nan
        assert reached == pytest.approx(wanted, rel=1e-6, nan_ok=True)
