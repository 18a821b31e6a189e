"""Measure, driven: figures on drawings typed, stepped, settled; parts and load cases changed."""

from collections.abc import Callable

import numpy as np
import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QInputDialog

from urgens.build import Build, demo, demo_names, own_vehicle, value_at
from urgens.guidance.settling import how_to_settle, named
from urgens.quantity import Quantity
from urgens.solve.settle import open_figures
from urgens.ui.stations.measure.kinds import KindButton
from urgens.ui.stations.measure.settle_list import STATES
from urgens.ui.stations.measure.shoes import ShoeDialog
from urgens.ui.widgets.board import Board
from urgens.ui.widgets.dimension_label import Known
from urgens.ui.widgets.figure_label import FigureLabel
from urgens.ui.window import MEASURE, Window

Opener = Callable[[Build], Window]
LEFT, RIGHT = Qt.MouseButton.LeftButton, Qt.MouseButton.RightButton


@pytest.fixture
def measuring(window: Window) -> Window:
    window.show_station(MEASURE)
    QTest.qWait(30)
    return window


def label(window: Window, path: str) -> FigureLabel:
    found = window.measure.label(path)
    assert found is not None, path
    return found


def type_into(target: FigureLabel, text: str) -> None:
    """Open the label by key, type over what is there, Enter."""
    target.setFocus()
    QTest.keyClick(target, Qt.Key.Key_Return)
    assert target.editor is not None
    QTest.keyClicks(target.editor, text)
    QTest.keyClick(target.editor, Qt.Key.Key_Return)


def choose(head: KindButton, words: str) -> None:
    """Choose another kind from the head of a drawing."""
    head.fill()
    (action,) = [a for a in head.menu().actions() if a.text() == words]
    action.trigger()


@pytest.mark.parametrize("name", demo_names())
def test_every_figure_is_reached_and_typed_by_keyboard_alone(
    open_window: Opener, dressed: QApplication, name: str
) -> None:
    """Tab goes round; Enter opens; the figure typed in other units is the same vehicle."""
    window = open_window(demo(name))
    window.show_station(MEASURE)
    for part in (0, 1):
        window.measure.show_part(part)
        QTest.qWait(20)
        wanted = {
            found
            for board in window.measure.boards
            if board.isVisible()
            for found in board.labels.values()
        }
        reached = set()
        window.measure.setFocus()
        for _ in range(80):
            QTest.keyClick(window.focusWidget(), Qt.Key.Key_Tab)
            focused = window.focusWidget()
            if isinstance(focused, FigureLabel) and focused in wanted:
                reached.add(focused)
        assert reached == wanted
        for target in list(wanted):
            path = target.figure.path
            before = value_at(window.session.build, path)
            typed = "50 mm" if before is None else before
            if isinstance(before, Quantity):
                typed = f"{before.value:.12g} {before.kind.si}"
            type_into(target, f"{typed}")
            assert target.error == "", path
            after = value_at(window.session.build, path)
            if isinstance(before, Quantity):
                assert after.value == pytest.approx(before.value, rel=1e-9)
            elif before is not None:
                assert after == before
            assert target.known is not Known.MISSING


def test_the_drawing_follows_what_is_typed(measuring: Window) -> None:
    wheelbase = label(measuring, "vehicle.wheelbase")
    assert wheelbase.text == "115 in"
    before = measuring.measure.side.grab().toImage()
    type_into(wheelbase, "3.5 m")

    assert measuring.session.build.vehicle.wheelbase.text == "3.5 m"
    assert wheelbase.text == "137.8 in"
    assert measuring.measure.side.grab().toImage() != before
    QTest.keyClick(measuring, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)
    assert measuring.session.build.vehicle.wheelbase.text == "9 ft 7 in"


def test_fractions_are_shown_as_typed_and_in_millimetres_in_the_other_units(
    measuring: Window,
) -> None:
    piston = label(measuring, "front.brake.piston_diameters[0]")
    assert piston.text == "2-15/16 in"
    QTest.keyClick(measuring, Qt.Key.Key_U)

    assert piston.text == "74.6 mm"
    assert measuring.session.build.front.brake.piston_diameters[0].text == "2-15/16 in"  # type: ignore[union-attr]


def test_arrows_and_wheel_step_by_what_a_rule_shows(measuring: Window) -> None:
    height = label(measuring, "vehicle.load_cases[0].cg_height")
    height.setFocus()
    QTest.keyClick(height, Qt.Key.Key_Up)
    assert measuring.session.build.vehicle.load_cases[0].cg_height.text == "27-1/16 in"
    load = label(measuring, "vehicle.load_cases[0].rear_axle")
    load.setFocus()
    QTest.keyClick(load, Qt.Key.Key_Down, Qt.KeyboardModifier.ShiftModifier)
    assert load.text == "1650 lb"
    friction = label(measuring, "front.brake.pad_friction")
    friction.setFocus()
    QTest.keyClick(friction, Qt.Key.Key_Up)
    assert friction.text == "0.39"


@pytest.mark.parametrize(
    ("path", "typed", "word"),
    [
        ("vehicle.wheelbase", "115", "has no unit"),
        ("vehicle.wheelbase", "-3 m", "negative"),
        ("vehicle.wheelbase", "12 kg", "is not a length"),
        ("front.brake.pad_friction", "lots", "is no friction code"),
        ("front.tyre.rolling_radius", "", "nothing is typed"),
        ("rear.brake.shoe_factor", "-1", "at least"),
    ],
)
def test_what_cannot_be_is_said_at_the_label_and_nothing_is_lost(
    measuring: Window, path: str, typed: str, word: str
) -> None:
    before = measuring.session.build
    target = label(measuring, path)
    target.setFocus()
    QTest.keyClick(target, Qt.Key.Key_Return)
    assert target.editor is not None
    target.editor.clear()
    QTest.keyClicks(target.editor, typed)
    QTest.keyClick(target.editor, Qt.Key.Key_Return)

    assert word in target.error
    assert measuring.session.build is before
    QTest.keyClick(target.editor, Qt.Key.Key_Escape)
    assert target.error == ""


def test_the_loads_move_with_the_press(measuring: Window) -> None:
    before = measuring.measure.side.grab().toImage()
    measuring.session.set_effort(0.0)

    assert measuring.measure.side.grab().toImage() != before


def test_what_is_still_open_is_ranked_and_goes_to_its_figure(measuring: Window) -> None:
    settle = measuring.measure.settle
    assert settle.rows[0].figure.path == "rear.brake.shoe_factor"
    QTest.mouseClick(settle, LEFT, pos=QPoint(60, 20))

    assert measuring.focusWidget() is label(measuring, "rear.brake.shoe_factor")
    third = settle.rows[2].figure.path
    assert third == "vehicle.load_cases[1].cg_height"
    settle.setFocus()
    QTest.keyClick(settle, Qt.Key.Key_Down)
    QTest.keyClick(settle, Qt.Key.Key_Down)
    QTest.keyClick(settle, Qt.Key.Key_Return)
    assert measuring.session.solution.case == 1
    assert measuring.focusWidget() is label(measuring, third)


def test_a_figure_is_settled_by_saying_how_it_is_known(measuring: Window) -> None:
    settle = measuring.measure.settle
    count = len(settle.rows)
    actions = settle.menu(0).actions()
    assert [action.text() for action in actions] == [words for _, words in STATES]
    actions[0].trigger()

    assert measuring.session.build.evidence["rear.brake.shoe_factor"].state == "measured"
    assert len(settle.rows) == count - 1
    QTest.keyClick(measuring, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)
    assert len(settle.rows) == count


def test_assumed_figures_look_so_and_the_rail_counts_them(open_window: Opener) -> None:
    window = open_window(own_vehicle())
    window.show_station(MEASURE)

    assert label(window, "vehicle.wheelbase").known is Known.ASSUMED
    assert window.stops.measure_fact() == "13 assumed"
    QTest.keyClick(window, Qt.Key.Key_Tab, Qt.KeyboardModifier.ControlModifier)
    assert isinstance(window.focusWidget(), FigureLabel)
    window.session.settle("vehicle.wheelbase", "measured")
    assert window.stops.measure_fact() == "12 assumed"


def test_a_finding_is_shown_on_the_drawing_it_speaks_of(open_window: Opener) -> None:
    window = open_window(own_vehicle())
    assert window.finding_line.finding is not None
    assert window.finding_line.finding.where == "rear.brake.shoe_factor"
    QTest.mouseClick(window.finding_line.show_place, LEFT)

    assert window.stations.currentWidget() is window.measure
    assert window.focusWidget() is label(window, "rear.brake.shoe_factor")


def test_drums_become_discs_as_one_step_with_every_figure_assumed(measuring: Window) -> None:
    before = measuring.session.build
    choose(measuring.measure.heads[1], "Disc brakes instead (figures assumed)")
    build = measuring.session.build

    assert build.rear.brake.kind == "disc"
    assert build.evidence["rear.brake.effective_radius"].state == "assumed"
    assert measuring.measure.heads[1].words == "sliding, 1 piston"
    choose(measuring.measure.heads[1], "Opposed caliper")
    choose(measuring.measure.heads[1], "One more piston")
    assert "rear.brake.piston_diameters[1]" in measuring.measure.rear.labels
    assert measuring.measure.heads[1].words == "opposed, 4 pistons"
    choose(measuring.measure.heads[1], "One piston fewer")
    for _ in range(4):
        measuring.session.undo_stack.undo()
    assert measuring.session.build == before
    assert "rear.brake.shoe_factor" in measuring.measure.rear.labels


def test_every_kind_that_is_offered_gives_a_build(measuring: Window) -> None:
    for head in measuring.measure.heads:
        head.fill()
        for words in [action.text() for action in head.menu().actions()]:
            if words.endswith("…"):
                continue  # a dialog, tried below
            before = measuring.session.build
            choose(head, words)
            assert measuring.session.build != before, words
            QTest.qWait(5)
            measuring.session.undo_stack.undo()
            assert measuring.session.build == before


def test_a_kind_that_cannot_be_is_said_and_changes_nothing(
    measuring: Window, answer: Callable[[str], list[str]]
) -> None:
    knee = {"name": "low", "changes": {"rear.brake.shoe_factor": 4.0}}
    measuring.session.edit("setups", [knee])
    before = measuring.session.build
    said = answer("OK")
    choose(measuring.measure.heads[1], "Disc brakes instead (figures assumed)")

    assert said[0] == "Nothing was changed"
    assert "setups[0]" in said[1]
    assert measuring.session.build == before


def test_load_cases_are_copied_named_moved_and_taken_out(measuring: Window) -> None:
    cases, session = measuring.measure.cases, measuring.session
    session.settle("vehicle.load_cases[2].cg_height", "measured")
    QTest.mouseClick(cases.copy, LEFT)
    assert session.solution.case_name == "Empty, driver, copy"
    type_into(cases.name, "Empty, two up")
    assert session.solution.case_name == "Empty, two up"
    QTest.mouseClick(cases.earlier, LEFT)
    names = [case.name for case in session.build.vehicle.load_cases]
    assert names == ["Empty, driver", "Half load", "Empty, two up", "Full load"]
    assert session.build.evidence["vehicle.load_cases[3].cg_height"].state == "measured"
    QTest.mouseClick(cases.remove, LEFT)
    assert session.build.evidence["vehicle.load_cases[2].cg_height"].state == "measured"
    assert [case.name for case in session.build.vehicle.load_cases] == [
        "Empty, driver",
        "Half load",
        "Full load",
    ]


def test_two_load_cases_of_one_name_are_refused_at_the_label(measuring: Window) -> None:
    name = measuring.measure.cases.name
    type_into(name, "Half load")

    assert "is also the name of load case" in name.error


@pytest.mark.parametrize("name", demo_names())
def test_no_label_covers_another_or_is_cut(open_window: Opener, name: str) -> None:
    window = open_window(demo(name))
    window.show_station(MEASURE)
    for part in (0, 1):
        window.measure.show_part(part)
        QTest.qWait(20)
        for board in window.measure.boards:
            if board.isVisible():
                assert_apart(board)


def assert_apart(board: Board) -> None:
    labels = list(board.labels.values())
    for index, one in enumerate(labels):
        assert board.rect().contains(one.geometry()), one.figure.path
        for other in labels[index + 1 :]:
            assert not one.geometry().intersects(other.geometry()), (
                one.figure.path,
                other.figure.path,
            )


@pytest.mark.parametrize("name", demo_names())
def test_every_open_figure_has_a_name_and_a_way_to_settle_it(name: str) -> None:
    build = demo(name)
    for figure in open_figures(build):
        assert named(build, figure.path) != figure.path
        assert how_to_settle(figure.path) != "measure it"


def test_a_friction_code_is_its_middle_with_its_width_as_spread(measuring: Window) -> None:
    """SAE J866 (from memory): F is 0.35 to 0.45, E 0.25 to 0.35."""
    friction = label(measuring, "front.brake.pad_friction")
    type_into(friction, "fe")
    known = measuring.session.build.evidence["front.brake.pad_friction"]

    assert friction.text == "0.35"
    assert (known.state, known.spread) == ("stamped", "0.1")
    type_into(friction, "HH")
    assert "only that it is above 0.55" in friction.error
    QTest.keyClick(friction.editor, Qt.Key.Key_Escape)
    QTest.keyClick(measuring, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)
    assert friction.text == "0.38"
    assert "front.brake.pad_friction" not in measuring.session.build.evidence


def test_a_tyre_is_a_size_a_radius_or_a_roll_out(open_window: Opener) -> None:
    window = open_window(demo("roadster"))
    window.show_station(MEASURE)
    size = label(window, "front.tyre.size")
    type_into(size, "195/50R15")
    assert window.session.build.front.tyre.size == "195/50R15"
    type_into(label(window, "front.tyre.size"), "2 turns 3.58 m")
    build = window.session.build
    assert build.front.tyre.rolling_radius is not None
    assert build.front.tyre.rolling_radius.value == pytest.approx(3.58 / (4 * 3.14159265), abs=1e-4)
    assert build.evidence["front.tyre.rolling_radius"].note == "rolled out: 2 turns 3.58 m"
    type_into(label(window, "front.tyre.rolling_radius"), "28x10.50-15")
    assert window.session.build.front.tyre.rolling_radius is None
    assert window.session.build.evidence == {}
    type_into(label(window, "front.tyre.size"), "11.4 in")
    assert window.session.build.front.tyre.rolling_radius is not None
    rear = label(window, "rear.tyre.size")
    type_into(rear, "6.50-16")
    assert "how high its section is" in rear.error
    QTest.keyClick(rear.editor, Qt.Key.Key_Escape)
    type_into(rear, "round")
    assert "is not a figure" in rear.error or "not a tyre size" in rear.error


def test_facts_that_lack_are_missing_and_can_be_typed(measuring: Window) -> None:
    measuring.measure.show_part(1)
    socket = label(measuring, "master.socket_depth")
    assert (socket.text, socket.known) == ("—", Known.MISSING)
    type_into(socket, "1-1/8 in")

    assert (socket.text, socket.known) == ("1-1/8 in", Known.YES)
    choose(measuring.measure.heads[2], "Pushrod held by a retainer")
    assert measuring.session.build.master.pushrod_held_by == "retainer"
    choose(measuring.measure.heads[2], "Front outlet on the left")
    choose(measuring.measure.heads[2], "Rear outlet at the end")
    choose(measuring.measure.heads[2], "Front outlet on the right")
    outlets = measuring.session.build.master.outlets
    assert [(o.circuit, o.position) for o in outlets] == [("rear", "end"), ("front", "right")]


def test_a_pad_is_described_by_its_radii_about_where_it_was(measuring: Window) -> None:
    before = float(measuring.session.solution.system.front.torque_per_pressure)
    choose(measuring.measure.heads[0], "Pad by its two radii")
    inner, outer = (label(measuring, f"front.brake.pad_{end}_radius") for end in ("inner", "outer"))
    after = float(measuring.session.solution.system.front.torque_per_pressure)

    assert after == pytest.approx(before, rel=2e-3)
    assert inner.known is outer.known is Known.ASSUMED
    choose(measuring.measure.heads[0], "Pressure even over the pad: new")
    assert float(measuring.session.solution.system.front.torque_per_pressure) > after


def test_vacuum_is_read_as_its_gauge_shows_it(measuring: Window) -> None:
    measuring.measure.show_part(1)
    vacuum = label(measuring, "booster.vacuum")
    assert vacuum.text == "18 inHg"
    QTest.keyClick(measuring, Qt.Key.Key_U)

    assert vacuum.text == "610 mbar"


def test_the_factor_against_friction_and_the_shoes_it_comes_from(open_window: Opener) -> None:
    window = open_window(demo("saloon"))
    session = window.session
    dialog = ShoeDialog(session, "rear", window)
    dialog.show()
    friction, low, high = dialog.plane.lines(session.build.rear.brake)  # type: ignore[arg-type]
    at = np.argmin(abs(friction - 0.38))
    assert low[at] == pytest.approx(2.1, rel=0.03)  # the factor that was typed
    assert (high >= low)[friction > 0.38].all()
    QTest.mouseClick(dialog.change, LEFT)

    assert session.build.rear.brake.shoe_factor is None  # type: ignore[union-attr]
    assert session.build.evidence["rear.brake.shoe.arm"].state == "assumed"
    lining = dialog.labels["rear.brake.shoe.lining_friction"]
    before = [words for words, _ in dialog.plane.notes()]
    type_into(lining, "0.30")
    assert [words for words, _ in dialog.plane.notes()] != before
    type_into(lining, "0.95")
    assert "grab" in lining.error
    QTest.keyClick(lining.editor, Qt.Key.Key_Escape)
    QTest.mouseClick(dialog.change, LEFT)
    assert session.build.rear.brake.shoe_factor is not None  # type: ignore[union-attr]
    assert list(dialog.labels) == ["rear.brake.shoe_factor"]
    dialog.reject()


def test_how_a_figure_is_known_is_shown_by_line_and_word(measuring: Window) -> None:
    target = label(measuring, "vehicle.wheelbase")
    seen = {}
    for state, known in (
        ("measured", Known.SETTLED),
        ("stamped", Known.SETTLED),
        ("published", Known.SETTLED),
        ("assumed", Known.ASSUMED),
    ):
        measuring.session.settle("vehicle.wheelbase", state)
        assert target.known is known
        assert target.toolTip() == state
        assert target.accessibleName() == f"Wheelbase 115 in, {state}"
        row = target.grab().toImage()
        shades = [row.pixelColor(x, row.height() - 3).name() for x in range(8, row.width() - 8)]
        seen[known] = len({shade == shades[0] for shade in shades})
    assert seen[Known.SETTLED] == 1  # one unbroken line
    assert seen[Known.ASSUMED] == 2  # dashes


def test_outline_use_and_name_are_chosen(
    measuring: Window, monkeypatch: pytest.MonkeyPatch
) -> None:
    body = measuring.measure.body
    assert body.text() == "pickup"
    actions = {action.text(): action for action in body.menu().actions()}
    actions["Drawn as a dragster"].trigger()
    actions["Used for drag"].trigger()
    monkeypatch.setattr(QInputDialog, "getText", lambda *_, **__: ("  Long one ", True))
    QTest.keyClick(measuring, Qt.Key.Key_F2)
    build = measuring.session.build

    assert (build.vehicle.body, build.vehicle.use, build.name) == ("dragster", "drag", "Long one")
    assert body.text() == "dragster"
    assert measuring.session.undo_stack.count() == 3
