"""Balance, driven: the knee is dragged, stepped and typed, and undone."""

from collections.abc import Callable
from typing import Any

import numpy as np
import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtTest import QTest

from tests.ui.conftest import drag, on_plot
from tests.waiting import rest
from urgens.document import Build, edited, with_changes
from urgens.document.evidence import open_figures
from urgens.printed.solution import printed_solution
from urgens.solve import AxleName
from urgens.studies.valve_choice import candidates
from urgens.ui.frame.window import MainWindow
from urgens.ui.theme.paint import T
from urgens.ui.widgets.dimension_label import Knowledge
from urgens.ui.widgets.label_placer import overlap

Opener = Callable[[Build], MainWindow]
PSI = 6894.757293168362


def knee_of(window: MainWindow) -> float:
    return window.session.build.valves.rear[0].knee.value / PSI


def drag_knee(window: MainWindow, psi: float, **how: Any) -> None:
    """Drag the knee's handle to a pressure, straight down or up."""
    plane = window.station("Balance").pressures
    at = plane.knee.pos()
    start, end = on_plot(plane, at.x(), at.y()), on_plot(plane, at.x(), psi)
    drag(plane.viewport(), start, end, **how)


def test_dragging_the_knee_changes_the_figures_and_one_undo_restores_them(
    window: MainWindow,
) -> None:
    session, before = window.session, window.session.build
    figures, shown = (
        printed_solution(session.solution),
        window.station("Balance").controls.knee.label.text,
    )
    assert session.findings[0].code == "rear-locks-first"

    drag_knee(window, 275)

    assert knee_of(window) == pytest.approx(275, abs=6)
    assert "rear-locks-first" not in {finding.code for finding in session.findings}
    assert window.station("Balance").controls.knee.label.text != shown
    assert session.undo_stack.count() == 1

    QTest.keyClick(window, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)

    assert session.build == before
    assert printed_solution(session.solution) == figures
    assert window.station("Balance").controls.knee.label.text == shown

    QTest.keyClick(
        window,
        Qt.Key.Key_Z,
        Qt.KeyboardModifier.ControlModifier | Qt.KeyboardModifier.ShiftModifier,
    )

    assert knee_of(window) == pytest.approx(275, abs=6)


def test_escape_during_a_drag_puts_back_and_leaves_no_step(window: MainWindow) -> None:
    before = window.session.build
    plane = window.station("Balance").pressures

    drag_knee(window, 250, release=False)
    assert window.session.build != before
    QTest.keyClick(plane, Qt.Key.Key_Escape)
    QTest.mouseMove(plane.viewport(), QPoint(200, 300))
    QTest.mouseRelease(plane.viewport(), Qt.MouseButton.LeftButton, pos=QPoint(200, 300))

    assert window.session.build == before
    assert window.session.undo_stack.count() == 0
    assert not window.session.undo_stack.canRedo()


def test_arrow_keys_move_the_handle_that_was_taken(window: MainWindow) -> None:
    drag_knee(window, 300)
    at = knee_of(window)
    effort = window.session.effort

    QTest.keyClick(window.station("Balance").pressures, Qt.Key.Key_Up)

    assert knee_of(window) == pytest.approx(5 * (round(at / 5) + 1))
    assert window.session.effort == effort

    QTest.keyClick(window.station("Balance").pressures, Qt.Key.Key_Escape)
    QTest.keyClick(window.station("Balance").pressures, Qt.Key.Key_Up)

    assert window.session.effort > effort


def test_tab_goes_to_the_handles_of_the_plot_and_arrows_move_them(window: MainWindow) -> None:
    shown = window.station("Balance")
    plane, effort = shown.pressures, window.session.effort
    knee, slope = knee_of(window), window.session.build.valves.rear[0].slope
    window.station("Balance").controls.knee.less.setFocus(Qt.FocusReason.TabFocusReason)
    while not plane.hasFocus():
        QTest.keyClick(window.focusWidget(), Qt.Key.Key_Tab, Qt.KeyboardModifier.ShiftModifier)
    assert plane.slope.focused  # the last of the two, coming from behind
    assert "slope" in plane.accessibleName()
    QTest.keyClick(plane, Qt.Key.Key_Up)
    assert window.session.build.valves.rear[0].slope == pytest.approx(slope + 0.01)

    QTest.keyClick(plane, Qt.Key.Key_Tab, Qt.KeyboardModifier.ShiftModifier)
    assert plane.knee.focused
    assert not plane.slope.focused
    QTest.keyClick(plane, Qt.Key.Key_Down)
    assert knee_of(window) == pytest.approx(knee - 5)

    QTest.keyClick(plane, Qt.Key.Key_Tab)
    assert plane.slope.focused
    QTest.keyClick(plane, Qt.Key.Key_Tab)
    assert not plane.hasFocus()
    assert not plane.slope.focused
    assert window.session.effort == effort


def test_a_pasted_page_is_refused_in_few_words(window: MainWindow) -> None:
    label, before = window.station("Balance").controls.slope.label, window.session.build
    QTest.mouseClick(label, Qt.MouseButton.LeftButton)
    label.editor.setText("1" + "-" * 10_000 + "1")
    QTest.keyClick(label.editor, Qt.Key.Key_Return)
    assert "is not a number" in label.error or "…" in label.error
    assert "letters" in label.error  # how many are left out
    assert len(label.error) < 500
    assert window.session.build == before


def test_dragging_the_slope(window: MainWindow) -> None:
    plane = window.station("Balance").pressures
    at = plane.slope.pos()
    start, end = on_plot(plane, at.x(), at.y()), on_plot(plane, at.x(), at.y() - 60)

    drag(plane.viewport(), start, end)

    assert window.session.build.valves.rear[0].slope < 0.25
    assert knee_of(window) == pytest.approx(375)


def test_typing_a_knee(window: MainWindow) -> None:
    label = window.station("Balance").controls.knee.label
    QTest.mouseClick(label, Qt.MouseButton.LeftButton)
    QTest.keyClicks(label.editor, "19 bar")
    QTest.keyClick(label.editor, Qt.Key.Key_Return)

    assert window.session.build.valves.rear[0].knee.text == "19 bar"
    assert label.text == "276 psi"
    assert label.editor is None


@pytest.mark.parametrize(
    ("typed", "words"),
    [
        ("garbage", '"garbage" is not a figure; write a pressure with its unit'),
        ("1-1/16 in", '"1-1/16 in" is not a pressure; write a pressure with its unit'),
        ("-20 psi", '"-20 psi" is negative; write a pressure above zero'),
    ],
)
def test_garbage_is_answered_under_the_label_and_changes_nothing(
    window: MainWindow, typed: str, words: str
) -> None:
    before = window.session.build
    label = window.station("Balance").controls.knee.label
    label.setFocus()
    QTest.keyClick(label, Qt.Key.Key_Return)
    QTest.keyClicks(label.editor, typed)
    QTest.keyClick(label.editor, Qt.Key.Key_Return)

    assert label.error.startswith(words)
    assert window.session.build == before

    QTest.keyClick(label.editor, Qt.Key.Key_Escape)

    assert label.error == ""
    assert label.text == "375 psi"


def test_a_mixed_fraction_is_typed_into_the_bar(open_window: Opener, roadster: Build) -> None:
    window = open_window(roadster)
    label = window.station("Balance").controls.bar.label
    QTest.mouseClick(label, Qt.MouseButton.LeftButton)
    QTest.keyClicks(label.editor, "1-1/16 in")
    QTest.keyClick(label.editor, Qt.Key.Key_Return)

    assert window.session.build.master.bar_offset.text == "1-1/16 in"
    assert label.text == "27.0 mm"

    QTest.mouseClick(label, Qt.MouseButton.LeftButton)
    QTest.keyClicks(label.editor, "2 in")
    QTest.keyClick(label.editor, Qt.Key.Key_Return)

    assert "puts the bearing at or beyond a rod" in label.error
    assert window.session.build.master.bar_offset.text == "1-1/16 in"
    QTest.keyClick(label.editor, Qt.Key.Key_Escape)


def test_an_adjustable_valve_goes_by_turns(open_window: Opener, roadster: Build) -> None:
    window = open_window(roadster)
    controls = window.station("Balance").controls
    QTest.mouseClick(controls.knee.more, Qt.MouseButton.LeftButton)
    assert window.session.build.valves.rear[0].turns == 3.75

    controls.knee.label.setFocus()
    QTest.keyClick(controls.knee.label, Qt.Key.Key_Down)
    assert window.session.build.valves.rear[0].turns == 3.5

    QTest.keyClicks(controls.knee.label, "9")
    QTest.keyClick(controls.knee.label.editor, Qt.Key.Key_Return)
    assert controls.knee.label.error == "9 turns is outside the valve's table; write 0 to 8"
    QTest.keyClick(controls.knee.label.editor, Qt.Key.Key_Escape)


def test_the_bar_moves_the_line(open_window: Opener, roadster: Build) -> None:
    window = open_window(roadster)
    before = float(window.session.presses.front_pressure)

    QTest.mouseClick(window.station("Balance").controls.bar.more, Qt.MouseButton.LeftButton)

    assert window.session.build.master.bar_offset.text == "3.7 mm"
    assert float(window.session.presses.front_pressure) > before


def test_taking_the_valve_out_and_fitting_one(window: MainWindow, qtbot: Any) -> None:
    controls = window.station("Balance").controls
    QTest.mouseClick(controls.take_out, Qt.MouseButton.LeftButton)
    assert window.session.build.valves.rear == ()
    assert not controls.knee.isVisible()
    assert not window.station("Balance").pressures.knee.isVisible()

    bare = window.session.build
    QTest.mouseClick(controls.fit, Qt.MouseButton.LeftButton)
    qtbot.waitUntil(lambda: window.session.build is not bare, timeout=30_000)
    assert window.session.build.valves.rear[0].kind == "reducing"
    card = next(one for one in candidates(bare) if one.kind == "reducing")  # of Choose
    assert with_changes(bare, card.to_take[0].changes).valves == window.session.build.valves
    assert controls.fit.isEnabled()
    assert "rear-locks-first" not in {f.code for f in window.session.findings}


def test_a_click_on_a_verdict_looks_at_that_load_on_that_road(window: MainWindow) -> None:
    table = window.station("Balance").locks
    effort = window.session.effort

    QTest.mouseClick(table, Qt.MouseButton.LeftButton, pos=table.cell_box(2, 0).center().toPoint())

    assert window.session.solution.case_name == "Full load"
    assert window.session.solution.surface == 0.15
    assert window.session.effort == effort
    assert window.top.mu.text == "μ 0.15"


def test_the_table_says_what_the_solution_says(window: MainWindow) -> None:
    solution = window.session.solution
    lock, last = solution.lock, solution.surfaces.index(0.9)

    assert lock.axle[0, last] == AxleName.REAR
    assert window.station("Balance").locks.cell(0, last) == f"rear 68 lbf {lock.z[0, last]:.2f} g"


@pytest.mark.parametrize("size", [(1024, 700), (1280, 800), (1920, 1080)])
def test_labels_overlap_neither_each_other_nor_the_edge(
    open_window: Opener, bakery: Build, roadster: Build, size: tuple[int, int]
) -> None:
    for build in (bakery, roadster, edited(bakery, "valves.rear", [])):
        window = open_window(build)
        window.resize(*size)
        for effort in (0.0, 90.0, 267.0, 480.0):
            window.session.set_effort(effort)
            rest(10)
            for plane in (window.station("Balance").pressures, window.station("Balance").adhesion):
                boxes = [box for _, box in plane.notes()]
                assert len(boxes) >= 3
                pairs = [(a, b) for i, a in enumerate(boxes) for b in boxes[i + 1 :]]
                assert not any(overlap(a, b) for a, b in pairs)
                assert all(box[0] >= 0 and box[0] + box[2] <= plane.width() for box in boxes)


def test_the_line_drawn_is_the_line_solved(window: MainWindow) -> None:
    session = window.session
    x, y = window.station("Balance").pressures._line.points
    efforts = np.linspace(0, session.most_effort, 60)
    pressed = session.solution.press(efforts)

    beyond = pressed.front_pressure > 300 * PSI  # where the metering valve is open

    drawn = np.interp(pressed.front_pressure[beyond] / PSI, x, y)

    assert beyond.sum() > 30
    assert drawn == pytest.approx(pressed.rear_pressure[beyond] / PSI, abs=0.1)


def test_many_load_cases_with_long_names_leave_room_for_the_rest(
    open_window: Callable[[Build], MainWindow], built: Callable[..., Build]
) -> None:
    cases = [
        {
            "name": f"Case {index} with a tool box over the axle and two people in the cab",
            "front_axle": f"{2250 + 10 * index} lb",
            "rear_axle": f"{1750 + 90 * index} lb",
            "cg_height": "27 in",
        }
        for index in range(12)
    ]
    window = open_window(built({"vehicle.load_cases": cases}))
    balance = window.station("Balance")
    named = [words for words, _ in balance.pressures.notes() if words.startswith("Case")]

    assert balance.adhesion.height() > 150
    assert balance.locks.height() > 12 * 50  # all are there, to be scrolled to
    assert len(named) == 2  # the chosen one, which is the lowest, and the highest
    assert window.minimumSizeHint().height() <= 800
    QTest.mouseClick(
        balance.locks,
        Qt.MouseButton.LeftButton,
        pos=balance.locks.cell_box(11, 0).center().toPoint(),
    )
    assert window.session.solution.case == 11


def test_an_assumed_figure_looks_so_and_ctrl_tab_goes_to_it(
    open_window: Callable[[Build], MainWindow], built: Callable[..., Build]
) -> None:
    assumed = {"valves.rear[0].slope": {"state": "assumed"}}
    window = open_window(built({"evidence": assumed}))
    knee, slope = (
        window.station("Balance").controls.knee.label,
        window.station("Balance").controls.slope.label,
    )
    QTest.keyClick(window, Qt.Key.Key_Tab, Qt.KeyboardModifier.ControlModifier)

    assert window.focusWidget() is slope
    assert (knee.known, slope.known) == (Knowledge.YES, Knowledge.ASSUMED)
    assert slope.accessibleName() == "Slope after the knee 0.30, assumed"
    foot = slope.grab().toImage()
    shades = {foot.pixelColor(x, foot.height() - 4).name() for x in range(6, foot.width() - 6)}
    assert T.warn.lower() in shades


def test_the_spread_of_open_figures_is_shown_once_the_hand_is_still(
    window: MainWindow, qtbot: Any
) -> None:
    plane = window.station("Balance").adhesion
    front, rear = plane._spreads
    qtbot.waitUntil(lambda: front.isVisible() and rear.isVisible(), timeout=10_000)
    z, used = rear.points
    near = used[(z > 0.75) & (z < 0.85)]
    assert near.max() - near.min() > 0.2  # the shoe factor alone may be 30 % higher or lower
    window.session.edit("valves.rear[0].slope", 0.2)
    assert not rear.isVisible()
    qtbot.waitUntil(rear.isVisible, timeout=10_000)


def test_no_spread_is_shown_where_everything_is_settled(
    open_window: Callable[[Build], MainWindow], bakery: Build
) -> None:
    settled = {figure.path: {"state": "measured"} for figure in open_figures(bakery)}
    window = open_window(edited(bakery, "evidence", settled))
    rest(300)

    assert not any(curve.isVisible() for curve in window.station("Balance").adhesion._spreads)
