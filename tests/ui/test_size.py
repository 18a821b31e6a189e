"""Size, driven: the map says what the solver says; bore and ratio are dragged, clicked, stepped."""

from collections.abc import Callable

import numpy as np
import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest

from tests.ui.conftest import drag
from urgens.build import Build, demo, demo_names
from urgens.solve.sizing import Verdict
from urgens.ui.stations.size.map_view import WORDS
from urgens.ui.window import SIZE, Window

Opener = Callable[[Build], Window]
LEFT = Qt.MouseButton.LeftButton


@pytest.fixture
def sizing(window: Window) -> Window:
    window.show_station(SIZE)
    QTest.qWait(20)
    return window


def row_of(window: Window, bore: str) -> int:
    return [b.text for b in window.size_station.map.choices.bores].index(bore)


def test_a_click_chooses_bore_and_ratio_as_one_step(sizing: Window) -> None:
    plane, before = sizing.size_station.map, sizing.session.build
    at = plane.point(row_of(sizing, "1 in"), 6.0).toPoint()
    QTest.mouseClick(plane, LEFT, pos=at)
    build = sizing.session.build

    assert build.master.bore.text == "1 in"  # type: ignore[union-attr]
    assert float(sizing.session.solution.system.pedal_ratio) == pytest.approx(6.0, abs=0.06)
    assert build.pedal.pivot_to_pad == before.pedal.pivot_to_pad
    assert sizing.session.undo_stack.count() == 1
    sizing.session.undo_stack.undo()
    assert sizing.session.build == before


def test_the_choice_is_dragged_and_escape_puts_it_back(sizing: Window) -> None:
    plane, before = sizing.size_station.map, sizing.session.build
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


def test_arrow_keys_step_bores_and_ratios(sizing: Window) -> None:
    plane = sizing.size_station.map
    plane.setFocus()
    QTest.keyClick(plane, Qt.Key.Key_Up)
    assert sizing.session.build.master.bore.text == "28 mm"  # type: ignore[union-attr]
    QTest.keyClick(plane, Qt.Key.Key_Right)
    assert float(sizing.session.solution.system.pedal_ratio) == pytest.approx(4.1, abs=0.01)
    for _ in range(40):
        QTest.keyClick(plane, Qt.Key.Key_Up)
    assert sizing.session.build.master.bore.text == "1/2 in"  # type: ignore[union-attr]


@pytest.mark.parametrize("name", demo_names())
def test_words_and_figures_are_those_of_the_solution(open_window: Opener, name: str) -> None:
    window = open_window(demo(name))
    window.show_station(SIZE)
    station = window.size_station
    at = station.map.own_cell
    found = station.map.choices.map
    verdict = Verdict(int(found.verdict[at]))

    assert WORDS[verdict] in station.verdict.text()
    assert WORDS[verdict] in station.map.accessibleName()
    assert (
        f"{100 * float(found.stroke_used[at]):.0f} % of the stroke used" in station.figures.text()
    )
    # The comfortable foot's pressure is what the press shows at that effort.
    window.session.set_effort(window.session.build.targets.comfortable_effort.value)
    assert found.pressure[at] == pytest.approx(
        float(window.session.presses.master_front), rel=2e-2
    )  # the column is the nearest 0.05


def test_windows_are_typed_and_the_map_follows(sizing: Window) -> None:
    station = sizing.size_station
    before = station.map.choices.map.verdict.copy()
    label = station.labels["targets.pressure_window[1]"]
    label.setFocus()
    QTest.keyClick(label, Qt.Key.Key_Return)
    assert label.editor is not None
    label.editor.clear()
    QTest.keyClicks(label.editor, "1500 psi")
    QTest.keyClick(label.editor, Qt.Key.Key_Return)

    assert label.error == ""
    after = station.map.choices.map.verdict
    assert (after == Verdict.PRESSURE).sum() < (before == Verdict.PRESSURE).sum()


def test_what_fits_best_is_taken_with_one_press(sizing: Window) -> None:
    station = sizing.size_station
    row, column = station.map.choices.map.ranked()[0]
    wanted = station.map.choices.bores[row].text
    QTest.mouseClick(station.best[0], LEFT)
    at = station.map.own_cell

    assert sizing.session.build.master.bore.text == wanted  # type: ignore[union-attr]
    assert station.map.choices.map.verdict[at] == Verdict.FITS
    assert at[1] == pytest.approx(column, abs=1)


def test_twin_cylinders_move_as_a_pair(open_window: Opener) -> None:
    window = open_window(demo("roadster"))
    window.show_station(SIZE)
    apart = 19.05 - 15.9
    plane = window.size_station.map
    QTest.mouseClick(plane, LEFT, pos=plane.point(row_of(window, "22 mm"), 5.0).toPoint())
    master = window.session.build.master

    assert master.front_bore.text == "22 mm"  # type: ignore[union-attr]
    rear = master.rear_bore.value  # type: ignore[union-attr]
    assert rear * 1000 == pytest.approx(22 - apart, abs=0.01)


def test_a_bore_that_is_not_sold_has_a_row_of_its_own(
    open_window: Opener, built: Callable[..., Build]
) -> None:
    window = open_window(built({"master.bore": "21.3 mm"}))
    window.show_station(SIZE)
    choices = window.size_station.map.choices

    assert choices.bores[choices.own].text == "21.3 mm"
    assert np.all(np.diff([bore.value for bore in choices.bores]) > 0)


@pytest.mark.parametrize("name", demo_names())
def test_the_feel_is_effort_over_travel_whole_and_with_parts_lost(
    open_window: Opener, name: str
) -> None:
    window = open_window(demo(name))
    window.show_station(SIZE)
    station = window.size_station
    QTest.mouseClick(station.choose[1], LEFT)
    assert station.feel.isVisible()
    assert not station.map.isVisible()
    session, feel = window.session, station.feel
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
