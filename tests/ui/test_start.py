"""What a builder meets first: drawings to open, an own vehicle, files, the caution."""

from collections.abc import Callable, Iterator
from pathlib import Path

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication
from pytestqt.qtbot import QtBot

from tests.builds import bed
from urgens.document import Build, demo, demo_names, own_vehicle, save
from urgens.solve import AxleName, solve, system
from urgens.ui.frame.settings import Settings
from urgens.ui.frame.start_page import StartPage
from urgens.ui.frame.window import MainWindow
from urgens.ui.theme.paint import T
from urgens.ui.theme.switch import use_theme
from urgens.ui.widgets.bodies import BODIES
from urgens.ui.widgets.side_view import SideView, body_kind

LEFT = Qt.MouseButton.LeftButton
CTRL = Qt.KeyboardModifier.ControlModifier


@pytest.fixture
def page(window: MainWindow) -> StartPage:
    """The start page over a window that has opened nothing yet."""
    window.show_start(first=True)
    assert window.start is not None
    return window.start


@pytest.fixture(autouse=True)
def light(dressed: QApplication) -> Iterator[None]:
    yield
    use_theme(dressed, dark=False)


def test_every_demo_build_is_a_drawing_that_opens(window: MainWindow, page: StartPage) -> None:
    assert [card.name for card in page.cards] == list(demo_names())
    assert not page.back.isVisible()
    QTest.mouseClick(page.cards[2], LEFT)

    assert window.session.build == demo(page.cards[2].name)
    assert not window.starting
    assert window.session.build.name in window.windowTitle()


def test_a_drawing_is_opened_by_keys_alone(window: MainWindow, page: StartPage) -> None:
    assert window.focusWidget() is page.cards[0]
    QTest.keyClick(page.cards[0], Qt.Key.Key_Tab)
    assert window.focusWidget() is page.cards[1]
    QTest.keyClick(page.cards[1], Qt.Key.Key_Space)

    assert window.session.build == bed(page.cards[1].name)


def test_what_a_drawing_says_aloud(page: StartPage, qtbot: QtBot) -> None:
    """First it is seen, then it is judged; until then it says nothing good or bad."""
    for one in page.cards:
        assert one.judged is not one.accessibleName().endswith("; being looked at")
    qtbot.waitUntil(lambda: all(one.judged for one in page.cards), timeout=10_000)
    said = {card.name: card.accessibleName() for card in page.cards}

    assert said["library"] == (
        "Open Bookmoor, disc and drum, tandem cylinder, vacuum booster; 1 danger"
    )
    assert "single cylinder, no booster" in said["tender"]


def test_an_own_vehicle_starts_with_every_figure_assumed(
    window: MainWindow, page: StartPage
) -> None:
    QTest.mouseClick(page.own, LEFT)
    build = window.session.build

    assert build.name == "My vehicle"
    assert window.bench.currentWidget() is window.station("Measure")
    assert window.session.path is None
    assert not window.session.modified
    assert {known.state for known in build.evidence.values()} == {"assumed"}
    assert "front.brake.pad_friction" in build.evidence


def test_the_own_vehicle_is_one_a_builder_could_have() -> None:
    """Common practice: a front-heavy car whose front locks first and whose pedal does not sink."""
    solution = solve(own_vehicle())

    assert (solution.lock.axle == AxleName.FRONT).all()
    assert 0.6 < float(solution.presses.demand_z[0]) < 1.0
    assert float(solution.presses.pedal_travel[0]) < 0.12


def test_no_key_reaches_a_build_that_is_not_shown(window: MainWindow, page: StartPage) -> None:
    before = (window.session.build, window.session.effort, window.session.solution.surface)
    window.session.edit("pedal.pivot_to_pad", "12 in")
    for key in (Qt.Key.Key_W, Qt.Key.Key_Up, Qt.Key.Key_5, Qt.Key.Key_F, Qt.Key.Key_End):
        QTest.keyClick(window, key)
    QTest.keyClick(window, Qt.Key.Key_Z, CTRL)

    assert window.session.undo_stack.canUndo()
    window.session.undo_stack.undo()
    assert (window.session.build, window.session.effort, window.session.solution.surface) == before
    assert window.starting


def test_new_offers_the_start_and_escape_goes_back(window: MainWindow) -> None:
    window.session.edit("valves.rear[0].slope", 0.25)
    QTest.keyClick(window, Qt.Key.Key_N, CTRL)
    assert window.starting
    assert window.start is not None
    assert window.start.back.isVisible()
    QTest.keyClick(window.start, Qt.Key.Key_Escape)

    assert not window.starting
    assert window.session.build.valves.rear[0].slope == 0.25  # type: ignore[union-attr]
    QTest.keyClick(window, Qt.Key.Key_Z, CTRL)
    assert not window.session.undo_stack.canUndo()


def test_unsaved_work_is_asked_for_before_another_build(
    window: MainWindow, answer: Callable[[str], list[str]]
) -> None:
    window.session.edit("valves.rear[0].slope", 0.25)
    window.show_start()
    assert window.start is not None
    said = answer("Stay here")
    QTest.mouseClick(window.start.own, LEFT)

    assert "not saved" in said[0]
    assert window.starting
    assert window.session.build.name == "Wexcombe"


def test_recent_files_stand_beside_the_drawings(
    window: MainWindow, tmp_path: Path, roadster: Build
) -> None:
    file = tmp_path / "hill.urgens.json"
    save(roadster, file)
    window.settings = Settings(tmp_path / "settings.ini")
    window.settings.add_recent(file)
    window.show_start(first=True)
    assert window.start is not None
    (button,) = window.start.recent
    QTest.mouseClick(button, LEFT)

    assert window.session.path == file.resolve()
    assert not window.starting


def test_the_caution_is_there_until_it_has_been_read(window: MainWindow, tmp_path: Path) -> None:
    window.settings = Settings(tmp_path / "settings.ini")
    window.show_start(first=True)
    assert window.start is not None
    assert window.start.caution.isVisible()
    assert window.show_caution() is None  # once is enough
    QTest.mouseClick(window.start.caution.read, LEFT)
    assert not window.start.caution.isVisible()
    window.leave_start()
    window.show_start(first=True)

    assert not window.start.caution.isVisible()


def test_the_theme_is_switched_while_starting(window: MainWindow, page: StartPage) -> None:
    QTest.keyClick(window, Qt.Key.Key_T)

    assert T.dark
    assert window.starting
    assert window.start is not page
    assert window.start is not None
    assert not window.start.back.isVisible()


@pytest.mark.parametrize("name", demo_names())
def test_a_drawing_keeps_its_proportions(name: str) -> None:
    """Wheelbase and tyres on screen are to one scale."""
    build = bed(name)
    made = system(build)
    view = SideView.of(build, made)
    extent = view.extent

    assert view.kind == body_kind(build) in BODIES
    assert extent.left() < 0 < view.wheelbase < extent.right()
    assert extent.height() >= 2 * float(made.ends.rear.rolling_radius)
    to_px = view.fitted(extent)  # a box of the same shape, in metres
    assert (to_px.m11(), to_px.m22()) == pytest.approx((1.0, -1.0))


def test_enter_presses_the_button_that_has_the_focus_and_nothing_else(
    window: MainWindow, page: StartPage
) -> None:
    page.own.setFocus()
    QTest.keyClick(page.own, Qt.Key.Key_Return)
    assert window.session.build.name == "My vehicle"
    window.show_station("Sheet")
    sheet = window.station("Sheet")
    other = next(one for one in sheet.choose if one.text() == "Plan")
    other.setFocus()
    QTest.keyClick(other, Qt.Key.Key_Enter)
    assert sheet.page_name == "Plan"
    other.setFocus()
    sheet.show_page_named("History")
    QTest.keyClick(window, Qt.Key.Key_Return)  # one that did not go to the button
    assert sheet.page_name == "History"
