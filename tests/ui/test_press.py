"""The press: pulled, stepped and typed, and what it says."""

from collections.abc import Callable
from dataclasses import replace

import numpy as np
import pytest
from PySide6.QtCore import QPointF, Qt
from PySide6.QtTest import QTest
from pytestqt.qtbot import QtBot

from tests.ui.conftest import drag, pull
from tests.waiting import rest
from urgens.document import Build, demo, demo_names
from urgens.quantity import UnitSystem
from urgens.solve import solve
from urgens.ui.frame.window import MainWindow
from urgens.ui.press.pedal import NEWTON_PER_PIXEL, PULL
from urgens.ui.press.verdict import PressState, verdict
from urgens.ui.widgets import motion
from urgens.ui.widgets.motion import time_to_move

Opener = Callable[[Build], MainWindow]
LBF = 4.4482216152605  # N


def test_pulling_the_pad_presses_by_a_fixed_scale(window: MainWindow) -> None:
    pedal = window.press.pedal
    window.session.set_effort(100.0)
    by = QPointF(-40, 10)

    pull(pedal, pedal.pad, by)

    expected = 100 + NEWTON_PER_PIXEL * QPointF.dotProduct(by, PULL)
    assert window.session.effort == pytest.approx(expected, abs=4)
    assert window.session.undo_stack.count() == 0  # a press is no change of the build


def test_pulling_beside_the_pad_does_nothing(window: MainWindow) -> None:
    effort = window.session.effort
    pull(window.press.pedal, QPointF(20, 20), QPointF(-30, 10))

    assert window.session.effort == effort


def test_keys_press(window: MainWindow) -> None:
    session = window.session
    session.set_effort(40 * LBF)
    for key, modifier, pounds in (
        (Qt.Key.Key_Up, Qt.KeyboardModifier.NoModifier, 41),
        (Qt.Key.Key_Up, Qt.KeyboardModifier.ShiftModifier, 51),
        (Qt.Key.Key_Down, Qt.KeyboardModifier.NoModifier, 50),
    ):
        QTest.keyClick(window, key, modifier)
        assert session.effort == pytest.approx(pounds * LBF)

    QTest.keyClick(window, Qt.Key.Key_End)
    assert session.effort == session.first_lock_effort()
    QTest.keyClick(window, Qt.Key.Key_Home)
    assert session.effort == 0
    assert window.press.travel.text == "0.0 in"


def test_digits_type_an_effort(window: MainWindow) -> None:
    QTest.keyClick(window, Qt.Key.Key_4)
    editor = window.press.effort.editor
    QTest.keyClicks(editor, "5")
    QTest.keyClick(editor, Qt.Key.Key_Return)

    assert window.session.effort == pytest.approx(45 * LBF)
    assert window.press.effort.text == "45 lbf"


@pytest.mark.parametrize(
    ("typed", "words"),
    [
        ("200 N", ""),
        ("900 N", '"900 N" is more than the 112 lbf this build allows for'),
        ("-5", '"-5" is negative; a foot only presses'),
        ("heavy", '"heavy" is not a figure; write a force with its unit'),
    ],
)
def test_an_effort_is_typed_in_any_unit_or_refused(
    window: MainWindow, typed: str, words: str
) -> None:
    label = window.press.effort
    before = window.session.effort
    label.begin_edit()
    QTest.keyClicks(label.editor, typed)
    QTest.keyClick(label.editor, Qt.Key.Key_Return)

    assert label.error.startswith(words)
    assert bool(label.error) is bool(words)
    assert window.session.effort == (before if words else pytest.approx(200))


def test_roads_and_load_cases_leave_the_effort(window: MainWindow) -> None:
    effort = window.session.effort
    for key, mu in ((Qt.Key.Key_W, 0.5), (Qt.Key.Key_I, 0.15), (Qt.Key.Key_D, 0.9)):
        QTest.keyClick(window, key)
        assert window.session.solution.surface == mu
    window.top.case.setCurrentIndex(2)
    window.top.case.activated.emit(2)

    assert window.session.solution.case_name == "Full load"
    assert window.session.effort == effort


def test_letters_do_nothing_while_something_is_typed(window: MainWindow) -> None:
    label = window.press.effort
    label.begin_edit()
    QTest.keyClicks(label.editor, "wid")

    assert window.session.solution.surface == 0.9
    QTest.keyClick(label.editor, Qt.Key.Key_Escape)


@pytest.mark.parametrize(
    ("surface", "pounds", "outcome", "heading", "brief"),
    [
        (0.9, 60, PressState.REAR_FIRST, "Rear locks first: it spins", "rear first"),
        (0.9, 70, PressState.REAR_LOCKED, "Rear locked: it spins", "rear locked"),
        (0.15, 10, PressState.FRONT_FIRST, "Front locks first", "front first"),
        (0.15, 17.2, PressState.FRONT_LOCKED, "Front locked: no steering", "front locked"),
        (0.15, 112, PressState.FRONT_LOCKED, "Front and rear locked", "both locked"),
    ],
)
def test_the_verdict_has_words_for_each_state(
    window: MainWindow, surface: float, pounds: float, outcome: PressState, heading: str, brief: str
) -> None:
    session = window.session
    session.set_surface(surface)
    session.set_effort(pounds * LBF)
    said = verdict(session.solution, session.presses, session.units)

    assert (said.outcome, said.heading) == (outcome, heading)
    assert " ".join(said.brief) == brief  # what the strip of a narrow window has room for
    assert window.press.verdict.accessibleName() == f"{heading}: {said.detail}"
    solution, keeps = session.solution, session.build.targets.locked_grip
    if "locked" not in brief:
        short = float(solution.lock.effort[0, solution.road]) / LBF - pounds
        assert said.detail.startswith(f"{short:.0f} lbf more foot; ")
        return
    # What slides rolls again where its brakes ask for what it keeps: the lock on such a road
    lower = session.build.targets.model_copy(update={"surface": surface * keeps})
    rolls = solve(session.build.model_copy(update={"targets": lower}))
    first = float(rolls.lock.effort[0, rolls.road]) / LBF
    assert said.detail == f"let off {pounds - first:.0f} lbf to roll"


def test_nothing_locks(open_window: Opener, built: Callable[..., Build]) -> None:
    window = open_window(
        built({"targets.max_effort": "20 N", "targets.comfortable_effort": "15 N"})
    )
    said = verdict(window.session.solution, window.session.presses, UnitSystem.INCH)

    assert (said.heading, said.detail) == ("Nothing locks", "up to 4 lbf of foot")


def test_what_is_read_aloud_has_values_and_units(window: MainWindow) -> None:
    window.session.set_effort(60 * LBF)
    press = window.press

    assert press.effort.accessibleName() == "Foot 60 lbf"
    assert press.line_pressures.accessibleName().startswith("Front line 627 psi, rear line ")
    assert press.deceleration.accessibleName().endswith(" from 60 mph")
    assert press.grip.accessibleName().startswith("Grip used: Front ")
    assert press.travel.accessibleName() == f"Pedal travel {press.travel.text}"


def test_travel_that_ends_is_said(open_window: Opener, built: Callable[..., Build]) -> None:
    window = open_window(built({"pedal.travel_available": "1.5 in"}))

    assert window.press.travel.text == "no more"


def test_units_switch_everything_and_change_nothing(window: MainWindow) -> None:
    before = window.session.build
    QTest.keyClick(window, Qt.Key.Key_U)

    assert window.session.units.system is UnitSystem.METRIC
    assert window.press.effort.text == "267 N"
    assert window.station("Balance").controls.knee.label.text == "25.9 bar"
    assert window.session.build == before
    assert window.session.undo_stack.count() == 0


@pytest.mark.parametrize("short", [0.0, 1e-9, 3.0])
def test_what_locks_is_locked_though_rounding_leaves_the_effort_short(
    bakery: Build, short: float
) -> None:
    """At the lock itself the flag counts, not the last digit of the effort."""
    solution = solve(bakery)
    at = solution.case, solution.road
    effort = float(solution.lock.effort[at]) - short
    pressed = replace(solution.press(effort), rear_locked=np.asarray(True))
    said = verdict(solution, pressed, UnitSystem.INCH)

    assert said.outcome is PressState.REAR_LOCKED
    assert said.detail.startswith("let off ")


def test_the_pedal_moves_to_where_it_goes_and_is_there_under_a_hand(
    window: MainWindow, monkeypatch: pytest.MonkeyPatch, qtbot: QtBot
) -> None:
    """At most 150 ms; where the desktop wants none it is there at once."""
    assert time_to_move(window) == 0
    pedal, session = window.press.pedal, window.session
    session.set_effort(0.0)
    up = pedal.pad
    monkeypatch.setattr(motion, "LONGEST", 120)
    assert 0 < time_to_move(window) <= 150
    session.set_effort(session.most_effort)
    assert (pedal.pad - up).manhattanLength() < 1  # it has only begun
    qtbot.waitUntil(lambda: (pedal.pad - up).manhattanLength() > 5, timeout=2000)
    rest(200)
    down = pedal.pad
    monkeypatch.setattr(motion, "time_to_move", lambda _: 0)
    session.set_effort(0.0)
    assert (pedal.pad - up).manhattanLength() < 0.01
    session.set_effort(session.most_effort)
    assert (pedal.pad - down).manhattanLength() < 0.01
    monkeypatch.setattr(motion, "time_to_move", time_to_move)
    drag(pedal, down.toPoint(), (down - QPointF(-20, 10)).toPoint(), release=False)
    held = pedal.pad
    rest(20)
    assert pedal.pad == held  # the hand leads, nothing comes after it
    QTest.mouseRelease(pedal, Qt.MouseButton.LeftButton)


@pytest.mark.parametrize("name", demo_names())
@pytest.mark.parametrize("system", UnitSystem)
def test_no_word_of_the_travel_is_cut(open_window: Opener, name: str, system: UnitSystem) -> None:
    """The longest it may say, at the usual width of the press: "of 105.0 to the floor" was not."""
    window = open_window(demo(name))
    window.resize(1280, 800)
    window.session.set_units(system)
    view = window.press.travel
    for effort in (0.0, window.session.most_effort):
        window.session.set_effort(effort)
        picture = view.grab().toImage()
        ground = picture.pixelColor(0, picture.height() - 1)
        edge = [picture.pixelColor(0, y) for y in range(picture.height())]
        assert all(color == ground for color in edge), (effort, view.text)
