"""Measure, driven: figures on drawings typed and stepped, what is known, what is open."""

from collections.abc import Callable
from datetime import date

import pytest
from PySide6.QtCore import QPoint, QRect, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QDialog, QLabel, QWidget
from pytestqt.qtbot import QtBot

from tests.builds import bed
from tests.ui.conftest import label, type_into
from tests.waiting import rest
from urgens.document import Build, demo_names, own_vehicle, value_at
from urgens.document.catalogue import named
from urgens.document.evidence import open_figures
from urgens.quantity import Quantity
from urgens.ui.frame.window import MainWindow
from urgens.ui.stations.measure import MEASURE
from urgens.ui.stations.measure.loading import AddLoad, CornerWeights
from urgens.ui.stations.measure.mark_dialog import MarkDialog
from urgens.ui.stations.measure.raised_axle import RaisedAxle
from urgens.ui.widgets.board import Board
from urgens.ui.widgets.dimension_label import DimensionLabel, Knowledge
from urgens.ui.widgets.evidence_keys import STATES, EvidenceKeys
from urgens.ui.widgets.figure_label import FigureLabel
from urgens.ui.widgets.layouts import BAND

STATION = "Measure"  # that its windows open at

Opener = Callable[[Build], MainWindow]
LEFT = Qt.MouseButton.LeftButton
LB = 4.4482216152605  # N, the weight of a pound


@pytest.mark.parametrize("name", demo_names())
def test_every_figure_is_reached_and_typed_by_keyboard_alone(
    open_window: Opener, dressed: QApplication, name: str
) -> None:
    """Tab goes round; Enter opens; the figure typed in other units is the same vehicle."""
    window = open_window(bed(name))
    window.show_station("Measure")
    for part in (0, 1):
        window.station("Measure").show_part(part)
        rest(20)
        wanted = {
            found
            for board in window.station("Measure").boards
            if board.isVisible()
            for found in board.labels.values()
        }
        reached = set()
        window.station("Measure").setFocus()
        for _ in range(80):
            QTest.keyClick(window.focusWidget(), Qt.Key.Key_Tab)
            focused = window.focusWidget()
            if isinstance(focused, FigureLabel) and focused in wanted:
                reached.add(focused)
        assert reached == wanted
        for target in list(wanted):
            path = target.path
            before = value_at(window.session.build, path)
            fact = "4 kg" if path.endswith("mass") else "50 mm"
            typed = fact if before is None else before
            if isinstance(before, Quantity):
                typed = f"{before.value:.12g} {before.kind.si}"
            type_into(target, f"{typed}")
            assert target.error == "", path
            after = value_at(window.session.build, path)
            if isinstance(before, Quantity):
                assert after.value == pytest.approx(before.value, rel=1e-9)
            elif before is not None:
                assert after == before
            assert target.known is not Knowledge.MISSING


def test_the_drawing_follows_what_is_typed(measuring: MainWindow) -> None:
    wheelbase = label(measuring, "vehicle.wheelbase")
    assert wheelbase.text == "115 in"
    before = measuring.station("Measure").side.grab().toImage()
    type_into(wheelbase, "3.5 m")

    assert measuring.session.build.vehicle.wheelbase.text == "3.5 m"
    assert wheelbase.text == "137.8 in"
    assert measuring.station("Measure").side.grab().toImage() != before
    QTest.keyClick(measuring, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)
    assert measuring.session.build.vehicle.wheelbase.text == "9 ft 7 in"


def test_fractions_are_shown_as_typed_and_in_millimetres_in_the_other_units(
    measuring: MainWindow,
) -> None:
    piston = label(measuring, "front.brake.piston_diameters[0]")
    assert piston.text == "2-15/16 in"
    QTest.keyClick(measuring, Qt.Key.Key_U)

    assert piston.text == "74.6 mm"
    assert measuring.session.build.front.brake.piston_diameters[0].text == "2-15/16 in"  # type: ignore[union-attr]


def test_arrows_and_wheel_step_by_what_a_rule_shows(measuring: MainWindow) -> None:
    height = label(measuring, "vehicle.load_cases[0].cg_height")
    height.setFocus()
    QTest.keyClick(height, Qt.Key.Key_Up)
    assert measuring.session.build.vehicle.load_cases[0].cg_height.text == "27-1/16 in"
    load = label(measuring, "vehicle.load_cases[0].rear_axle")
    load.setFocus()
    QTest.keyClick(load, Qt.Key.Key_Down, Qt.KeyboardModifier.ShiftModifier)
    assert load.text == "1,650 lb"
    friction = label(measuring, "front.brake.pad_friction")
    friction.setFocus()
    QTest.keyClick(friction, Qt.Key.Key_Up)
    assert friction.text == "0.39"


@pytest.mark.parametrize(
    ("path", "typed", "word"),
    [
        ("vehicle.wheelbase", "115 furlongs", "is not a unit known here"),
        ("vehicle.wheelbase", "-3 m", "negative"),
        ("vehicle.wheelbase", "12 kg", "is not a length"),
        ("front.brake.pad_friction", "lots", "is no friction code"),
        ("front.tyre.rolling_radius", "", "nothing is typed"),
        ("rear.brake.shoe_factor", "-1", "at least"),
    ],
)
def test_what_cannot_be_is_said_at_the_label_and_nothing_is_lost(
    measuring: MainWindow, path: str, typed: str, word: str
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


def test_the_loads_move_with_the_press(measuring: MainWindow) -> None:
    before = measuring.station("Measure").side.grab().toImage()
    measuring.session.set_effort(0.0)

    assert measuring.station("Measure").side.grab().toImage() != before


def test_what_is_still_open_is_ranked_and_goes_to_its_figure(measuring: MainWindow) -> None:
    settle = measuring.station("Measure").settle
    assert settle.rows[0].figure.path == "rear.brake.shoe_factor"
    QTest.mouseClick(settle.viewport(), LEFT, pos=QPoint(60, 20))

    assert measuring.focusWidget() is label(measuring, "rear.brake.shoe_factor")
    fourth = settle.rows[3].figure.path
    assert fourth == "vehicle.load_cases[1].cg_height"
    settle.setFocus()
    for _ in range(3):
        QTest.keyClick(settle, Qt.Key.Key_Down)
    QTest.keyClick(settle, Qt.Key.Key_Return)
    assert measuring.session.solution.case == 1
    assert measuring.focusWidget() is label(measuring, fourth)


def test_a_figure_is_settled_by_saying_how_it_is_known(measuring: MainWindow, qtbot: QtBot) -> None:
    settle = measuring.station("Measure").settle
    count = len(settle.rows)
    actions = settle.menu(0).actions()
    assert [action.text() for action in actions] == [words for _, words, _ in STATES]
    actions[0].trigger()

    assert measuring.session.build.evidence["rear.brake.shoe_factor"].state == "measured"
    assert len(settle.rows) == count  # the edit is seen first
    qtbot.waitUntil(lambda: len(settle.rows) == count - 1)
    QTest.keyClick(measuring, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)
    qtbot.waitUntil(lambda: len(settle.rows) == count)


def test_a_row_of_a_figure_that_is_gone_takes_nothing(measuring: MainWindow) -> None:
    """Between an edit and the new ranking the old rows stand; the hand meets the new ones."""
    settle = measuring.station("Measure").settle
    paths = [row.figure.path for row in settle.rows]
    place = next(i for i, path in enumerate(paths) if path.startswith("valves.rear[0]."))
    measuring.session.edit("valves.rear", [])
    settle.scrollTo(settle.model().index(place, 0))
    QTest.mouseClick(settle.viewport(), LEFT, pos=settle.spot(place).center())

    assert not any(row.figure.path.startswith("valves.rear") for row in settle.rows)
    assert measuring.session.build.valves.rear == ()


def test_assumed_figures_look_so_and_the_rail_counts_them(open_window: Opener) -> None:
    window = open_window(own_vehicle())
    window.show_station("Measure")

    figures = [one for one in open_figures(window.session.build) if one.state == "assumed"]
    assert len(figures) > 40
    assert label(window, "vehicle.wheelbase").known is Knowledge.ASSUMED
    assert MEASURE.fact(window.session) == f"{len(figures)} assumed"
    QTest.keyClick(window, Qt.Key.Key_Tab, Qt.KeyboardModifier.ControlModifier)
    assert isinstance(window.focusWidget(), FigureLabel)
    window.session.settle("vehicle.wheelbase", "measured")
    assert MEASURE.fact(window.session) == f"{len(figures) - 1} assumed"


def test_a_finding_is_shown_on_the_drawing_it_speaks_of(open_window: Opener) -> None:
    window = open_window(own_vehicle())
    assert window.finding_line.finding is not None
    assert window.finding_line.finding.where == "front.brake.pad_friction"
    QTest.mouseClick(window.finding_line.show_place, LEFT)

    assert window.bench.currentWidget() is window.station("Measure")
    assert window.focusWidget() is label(window, "front.brake.pad_friction")


def test_a_figure_that_is_typed_is_no_longer_only_assumed(open_window: Opener) -> None:
    """Also where it stays what it was; one key then says where from it is known."""
    window = open_window(own_vehicle())
    window.show_station("Measure")
    rest(20)
    wheelbase, bore = "vehicle.wheelbase", "front.brake.piston_diameters[0]"
    type_into(label(window, wheelbase), "99 in")
    assert wheelbase not in window.session.build.evidence
    assert label(window, wheelbase).known is Knowledge.YES
    (keys,) = shown_keys(window)
    QTest.mouseClick(keys.buttons["stamped"], LEFT)
    assert window.session.build.evidence[wheelbase].state == "stamped"
    assert shown_keys(window) == []  # there is no more to ask
    QTest.keyClick(label(window, wheelbase), Qt.Key.Key_M)
    assert window.session.build.evidence[wheelbase].state == "measured"

    type_into(label(window, bore), "54 mm")
    assert bore not in window.session.build.evidence
    for _ in range(4):
        window.session.undo_stack.undo()
    assert window.session.build == own_vehicle()


def shown_keys(window: MainWindow) -> list[EvidenceKeys]:
    return [found for found in window.findChildren(EvidenceKeys) if found.isVisible()]


def test_the_strip_stands_beside_its_figure_and_escape_closes_it(open_window: Opener) -> None:
    """What is under it can be clicked, and what is typed next is that figure's."""
    window = open_window(own_vehicle())
    window.show_station("Measure")
    rest(20)
    figures = [one for one in window.findChildren(DimensionLabel) if one.isVisible()]
    for one in (each for each in figures if isinstance(each, FigureLabel)):
        one.setFocus()
        for keys in shown_keys(window):
            strip = keys.geometry()
            covered = [each.name for each in figures if each is not one and strip.intersects(
                QRect(each.mapTo(window, QPoint()), each.size()))]  # fmt: skip
            assert covered == [], one.name
    wheelbase = label(window, "vehicle.wheelbase")
    type_into(wheelbase, "99 in")
    assert len(shown_keys(window)) == 1
    QTest.keyClick(wheelbase, Qt.Key.Key_Escape)
    assert shown_keys(window) == []


def test_digits_are_the_foot_s_only_while_the_press_has_the_focus(open_window: Opener) -> None:
    window = open_window(own_vehicle())
    effort = window.session.effort
    window.show_station("Measure")
    window.setFocus()  # as after a click on nothing
    for key in (Qt.Key.Key_2, Qt.Key.Key_4, Qt.Key.Key_7):
        QTest.keyClick(window, key)
    assert window.press.effort.editor is None
    assert window.session.effort == effort
    QTest.keyClick(window, Qt.Key.Key_0, Qt.KeyboardModifier.AltModifier)
    assert window.press.effort.hasFocus()
    QTest.keyClicks(window.press.effort, "2")
    assert window.press.effort.editor is not None
    QTest.keyClicks(window.press.effort.editor, "47 N")
    QTest.keyClick(window.press.effort.editor, Qt.Key.Key_Return)
    assert window.session.effort == pytest.approx(247.0)


def test_words_of_a_refused_entry_go_with_their_page_and_what_is_typed_stays(
    open_window: Opener,
) -> None:
    window = open_window(own_vehicle())
    window.show_station("Measure")
    wheelbase = label(window, "vehicle.wheelbase")
    type_into(wheelbase, "a rope")
    assert wheelbase.error
    (words,) = [one for one in window.findChildren(QLabel) if one.text() == wheelbase.error]
    window.show_station("Size")
    rest(20)
    assert not words.isVisible()
    window.show_station("Measure")
    rest(20)
    assert words.isVisible()
    assert wheelbase.editor.text() == "a rope"
    wheelbase.leave_out()


def test_of_a_brake_what_is_ticked_is_marked_at_once(open_window: Opener) -> None:
    window = open_window(own_vehicle())
    window.show_station("Measure")
    QTest.mouseClick(window.station("Measure").mark, LEFT)
    dialog = window.findChild(MarkDialog)
    assert dialog is not None
    assert dialog.paths == ()  # nobody typed any of them: they are a starter's
    assert not dialog.mark.isEnabled()
    row = dialog.list.findItems("Pad friction", Qt.MatchFlag.MatchContains)[0]
    assert row.text().endswith(", assumed")
    dialog.list.setCurrentItem(row)
    QTest.keyClick(dialog.list, Qt.Key.Key_Space)
    assert dialog.paths == ("front.brake.pad_friction",)
    dialog.note.setText("caliper gauge")
    QTest.mouseClick(dialog.mark, LEFT)
    known = window.session.build.evidence
    marked = [path for path, said in known.items() if said.state == "measured"]
    assert sorted(marked) == sorted(dialog.paths)
    assert known["front.brake.pad_friction"].note == f"{date.today()}, caliper gauge"
    assert window.session.undo_stack.count() == 1


@pytest.mark.parametrize("name", demo_names())
@pytest.mark.parametrize("size", [(1024, 700), (1280, 800)])
def test_no_label_covers_another_or_is_cut(
    open_window: Opener, name: str, size: tuple[int, int]
) -> None:
    window = open_window(bed(name))
    window.resize(*size)
    window.show_station("Measure")
    for part in (0, 1):
        window.station("Measure").show_part(part)
        rest(20)
        for board in window.station("Measure").boards:
            if board.isVisible():
                assert_apart(board)


def assert_apart(board: Board) -> None:
    labels = list(board.labels.values())
    assert len(labels) > 1
    for index, one in enumerate(labels):
        assert board.rect().contains(one.geometry()), one.path
        for other in labels[index + 1 :]:
            assert not one.geometry().intersects(other.geometry()), (
                one.path,
                other.path,
            )


@pytest.mark.parametrize("name", demo_names())
def test_every_open_figure_has_a_name_and_a_way_to_settle_it(name: str) -> None:
    build = bed(name)
    assert open_figures(build)
    for figure in open_figures(build):
        assert named(build, figure.path) != figure.path
        assert figure.figure.entry.settled


def test_how_a_figure_is_known_is_shown_by_line_and_word(measuring: MainWindow) -> None:
    target = label(measuring, "vehicle.wheelbase")
    seen = {}
    for state, known in (
        ("measured", Knowledge.SETTLED),
        ("stamped", Knowledge.SETTLED),
        ("published", Knowledge.SETTLED),
        ("assumed", Knowledge.ASSUMED),
    ):
        measuring.session.settle("vehicle.wheelbase", state)
        assert target.known is known
        assert target.toolTip().splitlines()[1:] == ([state] if state else [])
        assert target.toolTip().startswith(target.accessibleDescription())
        assert target.accessibleName() == f"Wheelbase 115 in, {state}"
        row = target.grab().toImage()
        shades = [row.pixelColor(x, row.height() - 3).name() for x in range(8, row.width() - 8)]
        seen[known] = len({shade == shades[0] for shade in shades})
    assert seen[Knowledge.SETTLED] == 1  # one unbroken line
    assert seen[Knowledge.ASSUMED] == 2  # dashes


def test_a_pedal_ratio_is_typed_where_the_pedal_is_measured(measuring: MainWindow) -> None:
    """The pin goes to pad over ratio: 13-1/2 in over 5.4 is 2-1/2 in; the pad stays."""
    board = measuring.station("Measure").pedal
    measuring.station("Measure").show_part(1)
    rest(20)
    assert board.ratio.text == "4.00 : 1"
    before = measuring.session.build.pedal.pivot_to_pad
    QTest.keyClick(board.ratio, Qt.Key.Key_Return)
    assert board.ratio.editor is not None
    board.ratio.editor.setText("5.4")
    QTest.keyClick(board.ratio.editor, Qt.Key.Key_Return)
    assert measuring.session.build.pedal.pivot_to_pushrod.value == pytest.approx(
        2.5 * 0.0254, rel=2e-3
    )
    assert measuring.session.build.pedal.pivot_to_pad == before
    QTest.keyClick(board.ratio, Qt.Key.Key_Return)
    board.ratio.editor.setText("77")
    QTest.keyClick(board.ratio.editor, Qt.Key.Key_Return)
    assert "is no pedal ratio" in board.ratio.error


# --- dialogs by keys ------------------------------------------------------------------------------


def tabbed(dialog: QDialog, start: QWidget, count: int) -> list[QPoint]:
    """Where Tab comes to, from a first stop on, as places in the dialog."""
    places, here = [], start
    for _ in range(count):
        places.append(here.mapTo(dialog, QPoint(0, here.height() // 2)))
        here.focusNextPrevChild(True)
        here = dialog.focusWidget()
    return places


@pytest.mark.parametrize("kind", [CornerWeights, AddLoad, RaisedAxle])
def test_tab_follows_the_eye_in_every_dialog(
    open_window: Opener, kind: type[QDialog], qtbot: QtBot
) -> None:
    window = open_window(own_vehicle())
    dialog = kind(window.session, window)  # type: ignore[call-arg]
    dialog.show()
    dialog.activateWindow()
    qtbot.waitUntil(dialog.isActiveWindow)
    first = dialog.focusWidget()
    if isinstance(dialog, RaisedAxle):
        assert first is dialog.liftings[0][0]
        count = 2
    elif isinstance(dialog, AddLoad):
        assert first is dialog.name
        count = 4  # its name, then its figures
    else:
        count = 5  # the corners, then the whole
    places = tabbed(dialog, first, count)
    rows = [(at.y() // BAND, at.x()) for at in places]
    assert rows == sorted(rows), rows
    dialog.reject()
    dialog.deleteLater()


def test_corners_ask_who_sat_in_it_and_the_case_is_called_so(open_window: Opener) -> None:
    window = open_window(own_vehicle())
    assert window.session.solution.case_name == "As weighed"  # until somebody says how
    dialog = CornerWeights(window.session, window)
    for scale, typed in zip(dialog.corners, ("700 lb", "690 lb", "610 lb", "600 lb"), strict=True):
        scale.set_text(typed)
    dialog.who.setText("driver, half tank")
    QTest.mouseClick(dialog.take, LEFT)
    build = window.session.build
    assert build.vehicle.load_cases[0].name == "driver, half tank"
    assert build.vehicle.load_cases[0].front_axle.value == pytest.approx(1390 * LB, rel=1e-3)
    assert build.evidence["vehicle.load_cases[0].front_axle"].note == (
        "four corners, driver, half tank")  # fmt: skip
    window.session.undo_stack.undo()
    assert window.session.build == own_vehicle()
