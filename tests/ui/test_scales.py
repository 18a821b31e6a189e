"""From scales: corners, a raised axle, people and cargo; typed, refused, taken over, undone."""

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QDialog

from tests.waiting import rest
from urgens.document import BuildChange
from urgens.document.readings import HeightEstimate
from urgens.physics.raised_axle import tangent
from urgens.ui.frame.window import MainWindow
from urgens.ui.stations.measure.loading import AddLoad, CornerWeights
from urgens.ui.stations.measure.raised_axle import RaisedAxle
from urgens.ui.widgets.typed_label import TypedLabel

STATION = "Measure"  # that its windows open at

LEFT = Qt.MouseButton.LeftButton
POUND, INCH = 0.45359237 * 9.80665, 0.0254


def type_into(label: TypedLabel, text: str) -> None:
    QTest.mouseClick(label, LEFT)
    assert label.editor is not None
    label.editor.clear()
    QTest.keyClicks(label.editor, text)
    QTest.keyClick(label.editor, Qt.Key.Key_Return)


def shown(dialog: QDialog) -> None:
    dialog.show()
    rest(20)


# --- four corners ---


@pytest.fixture
def corners(window: MainWindow) -> CornerWeights:
    dialog = CornerWeights(window.session, window)
    shown(dialog)
    return dialog


def test_four_corners_make_two_axles_measured_in_one_step(
    window: MainWindow, corners: CornerWeights
) -> None:
    assert not corners.take.isEnabled()
    for label, text in zip(corners.corners, ("1130 lb", "1110", "880", "400 kg"), strict=True):
        type_into(label, text)
    assert "2,240 lb" in corners.said.text()
    QTest.mouseClick(corners.take, LEFT)
    case = window.session.build.vehicle.load_cases[0]

    assert case.front_axle.text == "2240 lb"
    assert case.rear_axle.value == pytest.approx(880 * POUND + 400 * 9.80665, rel=1e-3)
    assert window.session.build.evidence["vehicle.load_cases[0].rear_axle"].state == "measured"
    window.session.undo_stack.undo()
    assert window.session.build.evidence == {}


def test_corners_that_do_not_add_up_are_said(corners: CornerWeights) -> None:
    for label, text in zip(corners.corners, ("1130", "1110", "880", "870"), strict=True):
        type_into(label, text)
    type_into(corners.whole, "4050 lb")
    assert corners.take.isEnabled()  # 1.5 % off
    type_into(corners.whole, "4100 lb")

    assert "2.7 % off the whole" in corners.said.text()
    assert not corners.take.isEnabled()


def test_rubbish_on_a_scale_is_said_under_it(corners: CornerWeights) -> None:
    type_into(corners.corners[0], "heavy")
    assert "is not a figure" in corners.corners[0].error
    QTest.keyClick(corners.corners[0].editor, Qt.Key.Key_Escape)
    type_into(corners.corners[1], "-4 kg")
    assert "is negative" in corners.corners[1].error
    QTest.keyClick(corners.corners[1].editor, Qt.Key.Key_Escape)

    assert corners.corners[0].value is None


# --- a raised axle ---


@pytest.fixture
def raising(window: MainWindow) -> RaisedAxle:
    dialog = RaisedAxle(window.session, window)
    shown(dialog)
    return dialog


def reading(high: float, lift: float) -> float:
    """What the rear scale reads [lb] for a centre of gravity [in] high, from moments.

    The bakery: 4,000 lb, 1,750 of them behind; wheelbase 115 in, tyres 14.1 in all round.
    """
    return 1750 + 4000 * (high - 14.1) * float(tangent(lift, 115.0)) / 115.0


def test_two_liftings_give_the_height_that_is_taken_over(
    window: MainWindow, raising: RaisedAxle
) -> None:
    QTest.mouseClick(raising.more, LEFT)
    for (lift, scale), inches in zip(raising.liftings, (24, 30), strict=True):
        type_into(lift, f"{inches} in")
        type_into(scale, f"{reading(27.0, inches):.2f} lb")
    found = raising.found()
    assert isinstance(found, HeightEstimate)
    assert found.height == pytest.approx(27.0 * INCH, rel=1e-3)
    assert 0 < found.error < 0.02
    QTest.mouseClick(raising.take, LEFT)
    build = window.session.build
    known = build.evidence["vehicle.load_cases[0].cg_height"]

    assert build.vehicle.load_cases[0].cg_height.text == "27.00 in"
    assert known.state == "measured"
    assert known.note == "front axle raised, 2 liftings"
    assert known.spread is not None


@pytest.mark.parametrize(
    ("lift", "scale", "words"),
    [
        ("24 in", "1700 lb", "has to gain"),
        ("9 ft", "1900 lb", "most of the wheelbase"),
        ("6 in", "3000 lb", "higher than the wheelbase is long"),
    ],
)
def test_readings_that_cannot_be_are_said(
    raising: RaisedAxle, lift: str, scale: str, words: str
) -> None:
    type_into(raising.liftings[0][0], lift)
    type_into(raising.liftings[0][1], scale)

    assert words in raising.said.text()
    assert not raising.take.isEnabled()


def test_how_high_to_lift_follows_scales_and_tape(raising: RaisedAxle) -> None:
    before = raising.advice.text()
    type_into(raising.scale_error, "8 lb")
    assert raising.advice.text() != before
    assert "or more" in raising.advice.text()
    type_into(raising.scale_error, "900 lb")

    assert "no lift is enough" in raising.advice.text()


def test_the_rear_can_be_raised_as_well(raising: RaisedAxle) -> None:
    QTest.mouseClick(raising.raised["rear"], LEFT)
    type_into(raising.liftings[0][0], "24 in")
    type_into(raising.liftings[0][1], f"{reading(27.0, 24) + 500:.2f} lb")  # front: 2,250 at rest
    found = raising.found()

    assert isinstance(found, HeightEstimate)
    assert found.height == pytest.approx(27.0 * INCH, rel=1e-3)


# --- people and cargo ---


def test_a_loaded_case_is_added_and_looked_at(window: MainWindow) -> None:
    """By hand: 400 lb at 95 in of 115 puts 330.4 lb on the rear; heights weighted."""
    dialog = AddLoad(window.session, window)
    shown(dialog)
    for label, text in zip(dialog.items[0], ("400 lb", "95 in", "32 in"), strict=True):
        type_into(label, text)
    dialog.name.setText("Two logs")
    QTest.mouseClick(dialog.take, LEFT)
    session = window.session
    case = session.build.vehicle.load_cases[session.solution.case]

    assert case.name == "Two logs"
    assert case.rear_axle.value / POUND == pytest.approx(1750 + 400 * 95 / 115, abs=0.6)
    assert case.front_axle.value / POUND == pytest.approx(2250 + 400 * 20 / 115, abs=0.6)
    high = (4000 * 27 + 400 * 32) / 4400
    assert case.cg_height.value / INCH == pytest.approx(high, abs=0.01)
    session.undo_stack.undo()
    assert len(session.build.vehicle.load_cases) == 3


def test_a_load_that_lifts_an_axle_or_has_a_name_twice_is_said(window: MainWindow) -> None:
    dialog = AddLoad(window.session, window)
    shown(dialog)
    for label, text in zip(dialog.items[0], ("3000 lb", "250 in", "40 in"), strict=True):
        type_into(label, text)
    assert "outside the wheelbase" in dialog.said.text()
    type_into(dialog.items[0][1], "60 in")
    assert dialog.take.isEnabled()
    dialog.name.setText("Half load")

    assert "a name of its own" in dialog.said.text()
    assert not dialog.take.isEnabled()


def test_readings_are_there_again_and_the_height_follows_the_tyre(
    window: MainWindow, raising: RaisedAxle
) -> None:
    """By moments: tyres taller by an inch all round raise the same readings' height by one."""
    type_into(raising.liftings[0][0], "24 in")
    type_into(raising.liftings[0][1], f"{reading(27.0, 24):.2f} lb")
    QTest.mouseClick(raising.take, LEFT)
    session = window.session
    taller = {f"{axle}.tyre": {"rolling_radius": "15.1 in"} for axle in ("front", "rear")}
    session.make(BuildChange("Taller tyres", taller))

    assert session.build.vehicle.load_cases[0].cg_height.text == "28.00 in"
    assert (
        session.undo_stack.undoText()
        == "Taller tyres; worked out again: Centre of gravity, Empty, driver"
    )
    again = RaisedAxle(session, window)
    assert [label.text for label in again.liftings[0]] == ["24 in", "1,845.75 lb"]
    corners = CornerWeights(session, window)
    assert all(label.value is None for label in corners.corners)
