"""Every kind of valve in the window: set by hand, drawn, described, paired; bar and speed."""

from collections.abc import Callable
from typing import Any

import numpy as np
import pytest
from PySide6.QtCore import QPointF, Qt
from PySide6.QtTest import QTest

from tests.builds import bed
from tests.ui.conftest import drag, on_plot, pull, type_into
from urgens.document import Build, with_changes
from urgens.document.kinds.valves.adjustable import Adjustable
from urgens.document.kinds.valves.inertia_sensing import InertiaSensing
from urgens.document.kinds.valves.load_sensing import LoadSensing
from urgens.quantity import PRESSURE, SPEED, in_units, parse
from urgens.solve import solve
from urgens.studies.balance_curves import lock_over_speed
from urgens.studies.knee_here import knee_here
from urgens.ui.frame.window import MainWindow
from urgens.ui.stations.balance.valve_setting import valve_setting
from urgens.ui.widgets.dimension_label import Knowledge

Opener = Callable[[Build], MainWindow]
LEFT = Qt.MouseButton.LeftButton
BALL = {"kind": "inertia-sensing", "ball_angle": "17 deg", "slope": 0.4}
POINTS = {
    "kind": "load-sensing",
    "points": [["1500 lb", "200 psi"], ["3000 lb", "600 psi"]],
    "slope": 0.3,
    "follows": "dynamic",
}
LIMITING = {"kind": "limiting", "knee": "300 psi"}


def bakery(*rear: dict[str, object]) -> Build:
    return with_changes(bed("bakery"), {"valves.rear": list(rear)})


def at(window: MainWindow, index: str) -> Any:
    window.show_station("Balance")
    window.station("Balance").show_page_named(index)
    return window.station("Balance").page


def add(page: Any, circuit: str, name: str) -> None:
    actions = {action.text(): action for action in page.add[circuit].menu().actions()}
    actions[name].trigger()


# --- set ---


@pytest.mark.parametrize("valve", [LIMITING, POINTS, BALL], ids=lambda v: str(v["kind"]))
def test_every_knee_is_dragged_where_it_is_wanted(
    open_window: Opener, valve: dict[str, object]
) -> None:
    window = open_window(bakery(valve))
    window.show_station("Balance")
    session, plane = window.session, window.station("Balance").pressures
    scale = in_units(PRESSURE, session.units)
    start = plane.knee.pos()
    end = on_plot(plane, start.x(), 0.8 * start.y())
    drag(plane.viewport(), on_plot(plane, start.x(), start.y()), end)

    assert knee_here(session.solution, 0) / scale == pytest.approx(0.8 * start.y(), rel=0.03)
    assert session.undo_stack.count() == 1
    plane.setFocus()
    before = knee_here(session.solution, 0)
    QTest.keyClick(plane, Qt.Key.Key_Up)
    assert knee_here(session.solution, 0) > before


@pytest.mark.parametrize(
    ("valve", "words"),
    [(LIMITING, "gets no more"), (POINTS, "both its points"), (BALL, "tilts the ramp")],
    ids=lambda v: str(v["kind"]) if isinstance(v, dict) else "",
)
def test_what_is_dragged_is_said_and_typed(
    open_window: Opener, valve: dict[str, object], words: str
) -> None:
    window = open_window(bakery(valve))
    controls = window.station("Balance").controls
    window.show_station("Balance")

    assert words in controls._words.text()
    assert controls.slope.isVisible() is (valve is not LIMITING)
    type_into(controls.knee.label, "250 psi")
    assert knee_here(window.session.solution, 0) / 6894.757 == pytest.approx(250, rel=0.02)


def test_a_knee_no_press_reaches_has_no_handle_and_says_so(open_window: Opener) -> None:
    window = open_window(bakery({**BALL, "ball_angle": "55 deg"}))
    window.show_station("Balance")
    plane, controls = window.station("Balance").pressures, window.station("Balance").controls

    assert not plane.knee.isVisible()
    assert not plane.slope.isVisible()
    assert controls.knee.label.text == "never"
    assert "passes everything" in controls._words.text()
    QTest.mouseClick(controls.knee.less, LEFT)
    assert window.session.undo_stack.count() == 0


def test_a_notch_is_stepped_to_the_next_and_no_further(open_window: Opener) -> None:
    window = open_window(bed("roadster"))
    page = at(window, "Valves")
    page.choose("rear", 0)
    QTest.mouseClick(page.out, LEFT)
    add(page, "rear", "Adjustable valve, by notches")
    valve = window.session.build.valves.rear[0]
    assert isinstance(valve, Adjustable)
    assert (valve.turns, valve.counted) == (4, "notches")
    window.station("Balance").show_page_named("Set")
    more = window.station("Balance").controls.knee.more
    for _ in range(5):
        QTest.mouseClick(more, LEFT)
    valve = window.session.build.valves.rear[0]
    assert isinstance(valve, Adjustable)
    assert valve.turns == 7
    assert window.station("Balance").controls.knee.label.text == "7 of 7"


def test_the_shaded_band_is_the_valve_as_made(open_window: Opener) -> None:
    window = open_window(bakery({"kind": "reducing", "knee": "300 psi", "slope": 0.4}))
    window.show_station("Balance")
    curves = window.station("Balance").pressures._curves
    assert curves is not None

    assert (curves.low <= curves.rear + 1e-9).all()
    assert (curves.high >= curves.rear - 1e-9).all()
    # common practice: 5 % of a knee of 300 psi and 0.03 of slope, at the end of the line
    inlet = curves.arriving[-1]
    assert curves.high[-1] == pytest.approx(315 + 0.43 * (inlet - 315), rel=1e-6)
    assert curves.low[-1] == pytest.approx(285 + 0.37 * (inlet - 285), rel=1e-6)


# --- bar ---


def test_the_bearing_is_dragged_along_the_bar(open_window: Opener) -> None:
    window = open_window(bed("roadster"))
    window.show_station("Balance")
    board, session = window.station("Balance").controls.board, window.session
    share = session.solution.system.cylinders.front.share
    pull(board, board.bearing, QPointF(-25, 0))

    master: Any = session.build.master
    assert master.bar_offset.value > 0.008
    assert float(session.solution.system.cylinders.front.share) > float(share)
    assert session.undo_stack.count() == 1
    assert "front" in board.accessibleName()


def test_escape_puts_the_bearing_back_and_keys_step_it(open_window: Opener) -> None:
    window = open_window(bed("roadster"))
    window.show_station("Balance")
    board, session = window.station("Balance").controls.board, window.session
    before = session.build
    start = board.bearing.toPoint()
    drag(board, start, start + QPointF(40, 0).toPoint(), release=False)
    assert session.build != before
    QTest.keyClick(board, Qt.Key.Key_Escape)
    assert session.build == before
    QTest.mouseRelease(board, LEFT, pos=start)
    QTest.keyClick(board, Qt.Key.Key_Left)
    master: Any = session.build.master
    assert master.bar_offset.value == pytest.approx(0.0037)


def test_one_cylinder_has_no_bar(open_window: Opener) -> None:
    window = open_window(bed("bakery"))
    window.show_station("Balance")
    assert not window.station("Balance").controls.board.isVisible()


# --- valves ---


def test_a_new_valve_is_planned_and_what_was_known_stays(open_window: Opener) -> None:
    build = with_changes(
        bed("bakery"),
        {'evidence["valves.rear[0].knee"]': {"state": "measured", "spread": "10 psi"}},
    )
    window = open_window(build)
    page, session = at(window, "Valves"), window.session
    add(page, "rear", "Load-sensing valve")
    assert session.build.evidence["valves.rear[0].knee"].state == "measured"
    assert session.build.evidence["valves.rear[1].points[0][1]"].state == "planned"
    QTest.mouseClick(page.earlier, LEFT)
    assert session.build.evidence["valves.rear[1].knee"].state == "measured"
    assert session.build.evidence["valves.rear[0].points[0][1]"].state == "planned"
    QTest.mouseClick(page.out, LEFT)
    assert session.build.evidence["valves.rear[0].knee"].state == "measured"
    assert not any("points" in path for path in session.build.evidence)


def test_a_load_sensing_valve_shows_its_knees_and_is_described_either_way(
    open_window: Opener,
) -> None:
    window = open_window(bakery(POINTS))
    page, session = at(window, "Valves"), window.session
    page.choose("rear", 0)
    assert page.knee_cell.isVisible()
    assert page.follows.text().startswith("Knees, standing still: Empty, driver")
    before = solve(session.build).system.valves.rear[0]
    QTest.mouseClick(page.other_way, LEFT)

    valve = session.build.valves.rear[0]
    assert isinstance(valve, LoadSensing)
    assert valve.points is None
    assert valve.lever is not None
    after: Any = solve(session.build).system.valves.rear[0]
    loads = np.linspace(6000.0, 14000.0, 9)
    assert after.knee_at(loads) == pytest.approx(before.knee_at(loads), rel=5e-3)  # type: ignore[attr-defined]
    label = page.figures.labels["valves.rear[0].lever.preload"]
    assert label.known is Knowledge.ASSUMED
    assert page.other_way.text() == "Describe it by two points"
    assert page.lever.isVisible()
    session.set_effort(0.0)
    standing = page.lever.state().load
    session.set_effort(150.0)
    assert page.lever.state().load < standing - 100  # the rear rises as it brakes
    loads_shown = page.knees.line.points[0]
    QTest.mouseClick(page.against, LEFT)
    assert page.knee_axes[1].text() == "Rear axle up from as set, in"
    # statics: 300 lbf/in of suspension, so the axis is an inch for every 300 lbf
    travelled = np.diff(page.knees.line.points[0])
    assert travelled == pytest.approx(np.diff(loads_shown) / 300, rel=1e-6)
    QTest.mouseClick(page.other_way, LEFT)
    assert isinstance(session.build.valves.rear[0], LoadSensing)
    assert session.build.valves.rear[0].points is not None


def test_a_balls_knees_are_shown_by_weight(open_window: Opener) -> None:
    window = open_window(bakery(BALL))
    page = at(window, "Valves")
    page.choose("rear", 0)
    assert page.knee_axes[1].text() == "Weight of the vehicle, lb"
    type_into(page.figures.labels["valves.rear[0].ball_angle"], "14 deg")

    valve = window.session.build.valves.rear[0]
    assert isinstance(valve, InertiaSensing)
    assert valve.ball_angle.text == "14 deg"
    page.choose("front", 0)
    assert not page.knee_cell.isVisible()
    assert not page.lever.isVisible()


def test_a_combination_goes_in_at_once_and_loses_its_metering_part(open_window: Opener) -> None:
    """Common practice: for rear discs the metering part is plugged, the reducing half stays."""
    window = open_window(bed("sprint"))
    page, session = at(window, "Valves"), window.session
    add(page, "rear", "Combination valve, in both circuits")
    assert [v.kind for v in session.build.valves.front] == ["metering"]
    assert [v.kind for v in session.build.valves.rear] == ["reducing"]
    assert session.undo_stack.count() == 1
    page.choose("rear", 0)
    alone = solve(with_changes(session.build, {"valves.front": []}))
    QTest.mouseClick(page.plug, LEFT)
    assert session.build.valves.front == ()
    assert [v.kind for v in session.build.valves.rear] == ["reducing"]
    assert not page.plug.isVisible()
    effort = 400.0
    assert float(session.solution.press(effort).front_pressure) == float(
        alone.press(effort).front_pressure
    )


def test_in_a_diagonal_split_every_valve_is_a_pair(open_window: Opener) -> None:
    build = with_changes(bakery(BALL), {"circuits": "diagonal"})
    window = open_window(build)
    page = at(window, "Valves")
    page.choose("rear", 0)
    assert "One of a pair" in page.pair.text()
    assert "apart, side to side" in page.pair.text()
    page.choose("front", 0)
    assert page.pair.text() == "One of a pair, one for each front wheel: they have to be alike."


# --- speed ---


def test_downforce_is_described_and_a_speed_looked_at(open_window: Opener) -> None:
    window = open_window(bed("roadster"))
    page, session = at(window, "Speed"), window.session
    assert "no downforce" in page.summary
    assert not window.top.speed.isVisible()
    QTest.mouseClick(page.describe, LEFT)
    assert page.figures.labels["vehicle.downforce.rear_cl_area"].known is Knowledge.ASSUMED
    assert window.top.speed.isVisible()
    still = float(session.solution.standing.rear_press)
    type_into(window.top.speed, "180 km/h")

    assert session.speed == pytest.approx(50.0)
    # ISO 2533: 1.225 kg/m3 at sea level; half of it times the square of 50 m/s times 0.2 m2
    assert float(session.solution.standing.rear_press) == pytest.approx(0.5 * 1.225 * 2500 * 0.2)
    assert still == 0.0
    QTest.mouseClick(page.speed.more, LEFT)
    assert session.speed == pytest.approx(parse("190 km/h", SPEED).value)
    assert session.undo_stack.count() == 1
    type_into(page.speed.label, "-3 mph")
    assert session.speed == pytest.approx(parse("190 km/h", SPEED).value)
    QTest.mouseClick(page.describe, LEFT)
    assert session.build.vehicle.downforce is None


def test_more_downforce_behind_than_in_front_calms_the_rear() -> None:
    """Force balance: what presses on the rear lets it take more before it locks."""
    wings = {"front_cl_area": "0 m^2", "rear_cl_area": "1.2 m^2"}
    build = with_changes(bed("bakery"), {"vehicle.downforce": wings})
    found = lock_over_speed(solve(build, surface=0.9), np.array([0.0, 60.0]))

    assert found.rear_first[0].tolist() == [True, False]
    assert found.limit[0][1] > found.limit[0][0]


def test_setting_and_speed_keep_to_the_view(open_window: Opener) -> None:
    """Another speed is a view: it changes no build and leaves no step."""
    wings = {"front_cl_area": "0.1 m^2", "rear_cl_area": "0.2 m^2"}
    window = open_window(with_changes(bed("roadster"), {"vehicle.downforce": wings}))
    before = window.session.build
    window.session.set_speed(40.0)

    assert window.session.build is before
    assert window.session.undo_stack.count() == 0
    assert valve_setting(window.session) is not None
