"""The window's frame: themes, set-ups, roads, commands, recovery, files that others change."""

import json
import signal
import subprocess
import sys
import time
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

import pytest
from PySide6.QtCore import QMimeData, QPoint, QPointF, Qt, QTimer, QUrl
from PySide6.QtGui import QDropEvent
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QDialog

from tests.ui.conftest import pull
from urgens.build import Build, demo, demo_names, edited, load, save
from urgens.ui.actions import ALL_DEEDS, HAND_KEYS
from urgens.ui.dialogs import CommandFinder, KeyList
from urgens.ui.recovery import Recovery, found
from urgens.ui.session import Session
from urgens.ui.settings import Settings
from urgens.ui.theme.paint import T
from urgens.ui.theme.switch import use_theme
from urgens.ui.units_dialog import UnitsDialog
from urgens.ui.window import Window

Answer = Callable[[str], list[str]]
Opener = Callable[[Build], Window]
CTRL = Qt.KeyboardModifier.ControlModifier
NEITHER = Qt.KeyboardModifier.NoModifier
MANUAL = {"name": "manual pedal", "changes": {"booster": {"kind": "none"}}}
LOW = {"name": "low knee", "changes": {"valves.rear[0].knee": "275 psi"}}


@pytest.fixture(autouse=True)
def light(dressed: QApplication) -> Iterator[None]:
    yield
    use_theme(dressed, dark=False)


# --- units of the builder's own ---


def choose_units(window: Window, choices: dict[str, str]) -> None:
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
    window.deeds["own-units"].trigger()


def test_a_unit_of_ones_own_shows_everywhere_and_is_remembered(
    window: Window, tmp_path: Path
) -> None:
    window.settings = Settings(tmp_path / "settings.ini")
    before = window.session.build
    choose_units(window, {"Unit of a pressure": "kPa", "Unit of a force": "N"})

    assert window.balance.controls.knee.label.text == "2,586 kPa"  # 375 psi
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


def test_standing_back_keeps_press_station_and_finding(window: Window) -> None:
    window.session.set_effort(200.0)
    window.finding_line.advance()
    before = (window.session.build, window.finding_line.finding)
    figure = window.press.effort.height()
    QTest.keyClick(window, Qt.Key.Key_Equal)
    QTest.qWait(30)

    assert window.press.effort.height() == pytest.approx(1.5 * figure, abs=1)
    assert window.press.effort.text == "45 lbf"
    assert (window.session.build, window.finding_line.finding) == before
    finding = window.finding_line.finding
    assert finding is not None
    assert window.finding_line.message.text == finding.message  # without its reason
    assert not window.top.isVisible()
    assert not window.balance.locks.isVisible()
    QTest.keyClick(window, Qt.Key.Key_Equal)
    QTest.qWait(30)

    assert window.press.effort.height() == figure
    assert window.finding_line.message.text == f"{finding.message} {finding.why}"
    assert window.top.isVisible()


@pytest.mark.parametrize("name", demo_names())
def test_nothing_is_cut_when_standing_back(open_window: Opener, name: str) -> None:
    window = open_window(demo(name))
    window.stand_back()
    for station in range(window.stations.count()):
        window.show_station(station)
        QTest.qWait(30)
        assert window.size().width() == 1280
        for reading in (window.press.grip, window.press.verdict, window.press.pedal):
            corner = reading.mapTo(window, reading.rect().bottomRight())
            assert window.rect().contains(corner)
            assert corner.y() < window.finding_line.y()
        assert window.press.minimumSizeHint().width() <= window.press.width()
        assert window.stations.minimumSizeHint().width() <= window.stations.width()


def test_the_hand_works_when_standing_back(window: Window) -> None:
    """The pad follows the same pull of the eye: half as far again for the same effort."""
    pedal = window.press.pedal
    pull(pedal, pedal.pad, QPointF(-60.0, 30.0))
    near = window.session.effort
    window.session.set_effort(window.session.build.targets.comfortable_effort.value)
    window.stand_back()
    QTest.qWait(30)
    pedal = window.press.pedal
    pull(pedal, pedal.pad * 1.5, QPointF(-90.0, 45.0))

    assert window.session.effort == pytest.approx(near, rel=0.02)
    label = window.balance.controls.knee.label
    QTest.mouseClick(label, Qt.MouseButton.LeftButton)
    assert label.editor is not None
    QTest.keyClicks(label.editor, "300 psi")
    QTest.keyClick(label.editor, Qt.Key.Key_Return)
    assert label.text == "300 psi"


# --- themes ---


def test_the_theme_is_switched_with_every_station_open(window: Window) -> None:
    before, light_sheet = window.session.build, T.sheet
    window.session.set_effort(200.0)
    for index in range(window.stations.count()):
        window.show_station(index)
        for dark in (True, False):
            QTest.keyClick(window, Qt.Key.Key_T)
            QTest.qWait(20)
            assert T.dark is dark
            assert (T.sheet == light_sheet) is not dark
            assert window.stations.currentIndex() == index
    picture = window.grab().toImage()

    assert picture.pixelColor(200, 70).name() == light_sheet.lower()
    assert window.session.build == before
    assert window.session.effort == 200.0
    assert window.press.effort.text == "45 lbf"


# --- set-ups and roads ---


def test_an_edit_goes_into_the_set_up_that_is_chosen(open_window: Opener, pickup: Build) -> None:
    window = open_window(edited(pickup, "setups", [LOW]))
    session = window.session
    knee = window.balance.controls.knee
    QTest.keyClick(window, Qt.Key.Key_B)
    assert session.setup == "low knee"
    assert knee.label.text == "275 psi"

    QTest.mouseClick(knee.more, Qt.MouseButton.LeftButton)

    assert session.base.setups[0].changes == {"valves.rear[0].knee": "280 psi"}
    QTest.keyClick(window, Qt.Key.Key_A)
    assert knee.label.text == "375 psi"
    QTest.keyClick(window, Qt.Key.Key_Z, CTRL)
    QTest.keyClick(window, Qt.Key.Key_B)
    assert knee.label.text == "275 psi"


def test_what_a_set_up_refuses_is_refused_at_its_place(open_window: Opener, pickup: Build) -> None:
    window = open_window(edited(pickup, "setups", [LOW]))
    window.session.set_setup("low knee")
    label = window.balance.controls.knee.label
    label.begin_edit()
    QTest.keyClicks(label.editor, "-5 psi")
    QTest.keyClick(label.editor, Qt.Key.Key_Return)

    assert label.error.startswith('"-5 psi" is negative')
    assert window.session.base.setups[0].changes == LOW["changes"]
    QTest.keyClick(label.editor, Qt.Key.Key_Escape)


def test_few_set_ups_stand_side_by_side_and_many_in_a_list(
    open_window: Opener, pickup: Build
) -> None:
    window = open_window(edited(pickup, "setups", [LOW]))
    assert [button.text() for button in window.top.setups] == ["A  Base", "B  low knee"]
    assert not window.top.more_setups.isVisible()

    window.session.edit("setups", [LOW, MANUAL])

    assert window.top.setups == []
    assert window.top.more_setups.isVisible()
    window.top.more_setups.activated.emit(2)
    assert window.session.build.booster.kind == "none"
    assert window.session.effort > 0


@pytest.mark.parametrize(("typed", "surface"), [("0.72", 0.72), ("μ 1.3", 1.3)])
def test_a_road_is_typed_as_a_number(window: Window, typed: str, surface: float) -> None:
    mu = window.top.mu
    QTest.mouseClick(mu, Qt.MouseButton.LeftButton)
    mu.editor.setText(typed)  # QTest types Latin letters only
    QTest.keyClick(mu.editor, Qt.Key.Key_Return)

    assert window.session.solution.surface == surface
    assert mu.text == f"μ {surface:.2f}"
    assert not any(button.isChecked() for button in window.top.roads)
    assert len(window.balance.locks._roads()) == 4


def test_a_road_that_is_none_is_refused(window: Window) -> None:
    mu = window.top.mu
    mu.begin_edit()
    QTest.keyClicks(mu.editor, "7")
    QTest.keyClick(mu.editor, Qt.Key.Key_Return)

    assert mu.error.startswith('"7" is no tyre-road coefficient; write a number from 0.05 to 2')
    QTest.keyClick(mu.editor, Qt.Key.Key_Escape)


# --- commands and keys ---


def in_dialog(application: QApplication, act: Callable[[QDialog], None]) -> None:
    """Let `act` use the dialog that is about to open."""

    def use() -> None:
        dialog = application.activeModalWidget()
        assert isinstance(dialog, QDialog)
        try:
            act(dialog)
        finally:
            if dialog.isVisible():
                dialog.reject()  # a test that fails must not wait for ever

    QTimer.singleShot(50, use)


def test_a_command_is_found_by_typing(window: Window, dressed: QApplication) -> None:
    def choose(dialog: QDialog) -> None:
        assert isinstance(dialog, CommandFinder)
        QTest.keyClicks(dialog.line, "ice road")
        assert dialog.list.count() == 1
        QTest.keyClick(dialog.line, Qt.Key.Key_Return)

    in_dialog(dressed, choose)
    QTest.keyClick(window, Qt.Key.Key_K, CTRL)

    assert window.session.solution.surface == 0.15


def test_the_list_of_keys_has_them_all(window: Window, dressed: QApplication) -> None:
    seen: list[tuple[str, str]] = []

    def read(dialog: QDialog) -> None:
        assert isinstance(dialog, KeyList)
        seen.extend(dialog.rows)
        dialog.reject()

    in_dialog(dressed, read)
    QTest.keyClick(window, Qt.Key.Key_F1)

    listed = {words for _, words in seen}
    assert {deed.title for deed in ALL_DEEDS if deed.keys} <= listed
    assert {words for _, words in HAND_KEYS} <= listed


# --- files ---


def test_recent_files_are_remembered_the_latest_first(tmp_path: Path) -> None:
    settings = Settings(tmp_path / "settings.ini")
    files = [tmp_path / f"{n}.urgens.json" for n in range(10)]
    for path in files:
        save(demo("roadster"), path)
        settings.add_recent(path)
    settings.add_recent(files[3])
    files[9].unlink()

    recent = Settings(tmp_path / "settings.ini").recent

    assert recent[:2] == (files[3], files[8])
    assert len(recent) == 7
    settings.set_dark(True)
    assert Settings(tmp_path / "settings.ini").dark


def test_a_file_is_dropped_on_the_window(window: Window, tmp_path: Path) -> None:
    path = tmp_path / "dropped.urgens.json"
    save(demo("saloon"), path)
    data = QMimeData()
    data.setUrls([QUrl.fromLocalFile(str(path))])
    action, left = Qt.DropAction.CopyAction, Qt.MouseButton.LeftButton

    window.dropEvent(QDropEvent(QPointF(400, 300), action, data, left, NEITHER))

    assert window.session.build.name == "Larkhill"


def test_a_read_only_file_is_not_written(window: Window, tmp_path: Path, answer: Answer) -> None:
    path = tmp_path / "locked.urgens.json"
    save(window.session.base, path)
    path.chmod(0o444)
    window.session.open_file(path)
    assert "read-only" in window.windowTitle()
    window.session.edit("name", "Changed")
    said = answer("OK")

    assert not window.files.save()
    assert "the file is marked read-only" in said[1]
    assert load(path).name == "Wexcombe"
    assert window.session.modified


@pytest.mark.parametrize(
    ("button", "name"), [("Read it again", "Other"), ("Keep what is here", "Wexcombe")]
)
def test_a_file_changed_by_another_program_is_asked_about_once(
    window: Window, tmp_path: Path, answer: Answer, button: str, name: str
) -> None:
    path = tmp_path / "shared.urgens.json"
    save(window.session.base, path)
    window.session.open_file(path)
    window.files.look_at_disk()  # nothing to ask
    save(edited(window.session.base, "name", "Other"), path)
    said = answer(button)

    window.files.look_at_disk()

    assert said[0] == "shared.urgens.json was changed by another program."
    assert window.session.build.name == name
    window.files.look_at_disk()  # not a second time


def test_saving_over_another_program_s_change_is_asked_first(
    window: Window, tmp_path: Path, answer: Answer
) -> None:
    path = tmp_path / "shared.urgens.json"
    save(window.session.base, path)
    window.session.open_file(path)
    window.session.edit("name", "Mine")
    save(demo("roadster"), path)
    answer("Do not save")
    assert not window.files.save()
    assert load(path).name == "Tarn"

    answer("Save over it")
    assert window.files.save()
    assert load(path).name == "Mine"


# --- recovery ---


def test_unsaved_work_is_kept_aside_and_forgotten_once_it_is_saved(
    dressed: QApplication, tmp_path: Path, qtbot: Any
) -> None:
    session = Session(demo("pickup"))
    recovery = Recovery(session, tmp_path)
    session.edit("name", "Half done")
    qtbot.waitUntil(recovery.file.exists, timeout=3000)

    assert "Half done" in json.loads(recovery.file.read_text(encoding="utf-8"))["build"]
    assert found(tmp_path) == ()  # this process is still running
    session.save(tmp_path / "saved.urgens.json")
    assert not recovery.file.exists()


def test_work_survives_a_kill(
    open_window: Opener, pickup: Build, tmp_path: Path, answer: Answer
) -> None:
    """A window in another process is killed; the next one offers its work."""
    path = tmp_path / "truck.urgens.json"
    save(pickup, path)
    folder = tmp_path / "recovery"
    code = (
        "import sys; from pathlib import Path; from PySide6.QtWidgets import QApplication; "
        "from urgens.build import load; from urgens.ui.application import dress; "
        "from urgens.ui.session import Session; from urgens.ui.window import Window; "
        "app = QApplication([]); dress(app); p = Path(sys.argv[1]); "
        "w = Window(Session(load(p), p), None, Path(sys.argv[2])); w.show(); "
        "w.session.edit('name', 'Nearly lost'); app.exec()"
    )
    run = subprocess.Popen([sys.executable, "-c", code, str(path), str(folder)])
    until = time.monotonic() + 30
    while not list(folder.glob("*.json")) and time.monotonic() < until:
        time.sleep(0.1)
    run.send_signal(signal.SIGKILL)
    run.wait()
    assert load(path).name == "Wexcombe"

    window = open_window(pickup)
    window._recovery_folder = folder
    said = answer("Take it up again")
    window.offer_recovery()

    assert said[0].startswith("Urgens was ended before Nearly lost of truck.urgens.json was saved.")
    assert window.session.build.name == "Nearly lost"
    assert window.session.path == path
    assert window.session.modified
    window.session.undo_stack.undo()
    assert window.session.build.name == "Wexcombe"


def test_what_is_half_written_is_passed_over(tmp_path: Path) -> None:
    (tmp_path / f"{2**22 - 3}-1.json").write_text('{"path": null, "build": "{', encoding="utf-8")

    assert found(tmp_path) == ()


# --- first run ---


def test_the_caution_is_shown_until_it_has_been_read(window: Window, tmp_path: Path) -> None:
    window.settings = Settings(tmp_path / "settings.ini")
    box = window.show_caution()
    assert box is not None
    assert "Have the work checked by a qualified person" in box.informativeText()
    assert not window.settings.caution_read

    box.buttons()[0].click()

    assert Settings(tmp_path / "settings.ini").caution_read
    assert window.show_caution() is None


# --- size ---


def test_the_rail_folds_to_its_marks_in_a_narrow_window(window: Window) -> None:
    wide = window.rail.width()
    window.resize(1180, 760)
    assert window.rail.width() < wide / 2

    QTest.mouseClick(window.rail, Qt.MouseButton.LeftButton, pos=QPoint(20, 120))
    assert window.stations.currentWidget() is window.sheet
    window.resize(1700, 1000)
    assert window.rail.width() == wide
    assert window.press.width() == 320


def resident() -> int:
    """Bytes of memory this process has in use."""
    return int(Path("/proc/self/statm").read_text(encoding="ascii").split()[1]) * 4096


def test_a_thousand_edits_leave_memory_where_it_was(dressed: QApplication) -> None:
    """Undo steps hold two builds each; beyond them nothing grows."""
    session = Session(demo("pickup"))

    def edit(times: int) -> None:
        for index in range(times):
            session.edit("valves.rear[0].slope", 0.2 + 0.001 * (index % 100))
        session.undo_stack.clear()

    edit(1000)  # what is allocated once, and caches
    grown = []
    for _ in range(3):  # what leaks does so every time; what the allocator keeps, once
        before = resident()
        edit(1000)
        grown.append(resident() - before)

    assert min(grown) < 500_000
