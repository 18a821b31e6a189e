"""How the build is looked at: own units, from further away, in the dark, in a narrow window."""

from collections.abc import Callable, Iterator
from pathlib import Path

import pytest
from PySide6.QtCore import QPoint, QPointF, Qt, QTimer
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication

from tests.builds import bed
from tests.ui.conftest import pull
from tests.waiting import rest
from urgens.document import Build
from urgens.ui.frame.settings import Settings
from urgens.ui.frame.stations import STATIONS
from urgens.ui.frame.units_dialog import UnitsDialog
from urgens.ui.frame.window import MainWindow
from urgens.ui.theme.paint import T, width
from urgens.ui.theme.switch import use_theme

Opener = Callable[[Build], MainWindow]

NAMES = [kind.name for kind in STATIONS]


@pytest.fixture(autouse=True)
def light(dressed: QApplication) -> Iterator[None]:
    yield
    use_theme(dressed, dark=False)


# --- units of the builder's own ---


def choose_units(window: MainWindow, choices: dict[str, str]) -> None:
    """Pick units in the dialog by the names it reads aloud, then close it."""

    def pick() -> None:
        dialog = window.findChild(UnitsDialog)
        assert dialog is not None
        for box in dialog.boxes:
            if box.accessibleName() in choices:
                box.setFocus()
                while box.currentText() != choices[box.accessibleName()]:
                    before = box.currentIndex()
                    QTest.keyClick(box, Qt.Key.Key_Down)
                    assert box.currentIndex() > before
        dialog.reject()

    QTimer.singleShot(50, pick)
    window.commands["own-units"].trigger()


def test_a_unit_of_ones_own_shows_everywhere_and_is_remembered(
    window: MainWindow, tmp_path: Path
) -> None:
    window.settings = Settings(tmp_path / "settings.ini")
    before = window.session.build
    choose_units(window, {"Unit of a pressure": "kPa", "Unit of a force": "N"})

    assert window.station("Balance").controls.knee.label.text == "2,586 kPa"  # 375 psi
    assert window.press.effort.text == "267 N"
    assert [button.text() for button in window.top.units] == ["in · kPa", "mm · kPa"]
    assert "kPa" in window.press.line_pressures.accessibleName()
    assert window.session.build == before
    assert not window.session.modified
    kept = Settings(tmp_path / "settings.ini").unit_overrides
    assert {(kind.noun, unit) for kind, unit in kept} == {("a pressure", "kPa"), ("a force", "N")}


def test_a_setting_that_is_damaged_is_left_out(tmp_path: Path) -> None:
    path = tmp_path / "settings.ini"
    path.write_text("[units]\na%20pressure=furlong\na%20mood=bar\na%20force=kN\n")

    assert [(kind.noun, unit) for kind, unit in Settings(path).unit_overrides] == [
        ("a force", "kN")
    ]


# --- standing back ---


def test_standing_back_keeps_press_station_and_finding(window: MainWindow) -> None:
    window.session.set_effort(200.0)
    window.finding_line.advance()
    before = (window.session.build, window.finding_line.finding)
    figure = window.press.effort.height()
    QTest.keyClick(window, Qt.Key.Key_Equal)
    rest(30)

    assert window.press.effort.height() == pytest.approx(1.5 * figure, abs=1)
    assert window.press.effort.text == "45 lbf"
    assert (window.session.build, window.finding_line.finding) == before
    finding = window.finding_line.finding
    assert finding is not None
    assert window.finding_line.message.text == finding.message  # without its reason
    assert not window.top.isVisible()
    assert not window.station("Balance").locks.isVisible()
    assert not window.press.pedal.isVisible()  # no height for it: the figures come first
    QTest.mouseClick(window.press.nearer, Qt.MouseButton.LeftButton)
    rest(30)

    assert window.press.effort.height() == figure
    assert not window.press.nearer.isVisible()
    assert window.finding_line.message.text == f"{finding.message} {finding.why}"
    assert window.top.isVisible()


def test_a_low_window_keeps_grip_and_verdict_whole_when_standing_back(window: MainWindow) -> None:
    window.resize(1024, 700)
    window.stand_back()
    rest(30)
    press = window.press
    for reading in (press.effort, press.deceleration, press.grip, press.verdict):
        assert reading.isVisible()
        assert reading.height() >= reading.sizeHint().height()
    assert not press.line_pressures.isVisible()


@pytest.mark.parametrize("name", ["library", "tender"])
def test_nothing_is_cut_when_standing_back(open_window: Opener, name: str) -> None:
    window = open_window(bed(name))
    window.stand_back()
    for station in NAMES:
        window.show_station(station)
        rest(30)
        assert window.size().width() == 1280
        assert 2 * window.bench.width() > window.width()
        for reading in (window.press.effort, window.press.grip, window.press.nearer):
            corner = reading.mapTo(window, reading.rect().bottomRight())
            assert window.rect().contains(corner)
            assert corner.y() < window.finding_line.y()
        assert window.press.minimumSizeHint().width() <= window.press.width()
        assert window.bench.minimumSizeHint().width() <= window.bench.width()


def test_the_hand_works_when_standing_back(window: MainWindow) -> None:
    """The pad follows the same pull of the eye: half as far again for the same effort."""
    pedal = window.press.pedal
    pull(pedal, pedal.pad, QPointF(-60.0, 30.0))
    near = window.session.effort
    window.session.set_effort(window.session.build.targets.comfortable_effort.value)
    window.resize(1920, 1200)
    window.stand_back()
    rest(30)
    pedal = window.press.pedal
    assert pedal.isVisible()
    pull(pedal, pedal.pad * 1.5, QPointF(-90.0, 45.0))

    assert window.session.effort == pytest.approx(near, rel=0.02)
    label = window.station("Balance").controls.knee.label
    QTest.mouseClick(label, Qt.MouseButton.LeftButton)
    assert label.editor is not None
    QTest.keyClicks(label.editor, "300 psi")
    QTest.keyClick(label.editor, Qt.Key.Key_Return)
    assert label.text == "300 psi"


# --- themes ---


def test_the_theme_is_switched_with_every_station_open(window: MainWindow) -> None:
    before, light_sheet = window.session.build, T.sheet
    window.session.set_effort(200.0)
    for name in NAMES:
        window.show_station(name)
        for dark in (True, False):
            QTest.keyClick(window, Qt.Key.Key_T)
            rest(20)
            assert T.dark is dark
            assert (T.sheet == light_sheet) is not dark
            assert window.bench.name == name
    picture = window.grab().toImage()

    assert picture.pixelColor(200, 70).name() == light_sheet.lower()
    assert window.session.build == before
    assert window.session.effort == 200.0
    assert window.press.effort.text == "45 lbf"


# --- size ---


def test_the_rail_folds_to_names_under_its_marks_in_a_narrow_window(window: MainWindow) -> None:
    usual = window.rail.width()
    window.resize(1180, 760)
    assert window.rail.width() < 0.6 * usual
    for stop in STATIONS:  # each name has its room
        assert width(stop.name, 15, 600) <= window.rail.width() - 4, stop.name
    QTest.mouseClick(window.rail, Qt.MouseButton.LeftButton, pos=QPoint(20, 284))
    assert window.bench.currentWidget() is window.station("Plumb")
    window.resize(1700, 1000)
    assert window.rail.width() == usual
    assert window.press.width() == 320


def test_a_press_made_standing_back_keeps_its_hint_inside(window: MainWindow) -> None:
    """Shown by a step back that comes before the press is made anew, it is no window of its own."""
    window.stand_back()
    try:
        assert T.stands_back
        assert window.press.hint.window() is window
    finally:
        window.stand_back()
