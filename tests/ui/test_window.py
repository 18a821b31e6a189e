"""The window's frame: files, findings, stations."""

from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest

from tests.builds import bed_text
from urgens.document import Build, load, save
from urgens.guidance import Severity
from urgens.guidance.advice.ranked_ways import ranked_ways
from urgens.guidance.advice.valve_choice import what
from urgens.ui.frame.commands import COMMANDS
from urgens.ui.frame.window import MainWindow
from urgens.ui.widgets.file_chooser import FileChooser

Answer = Callable[[str], list[str]]
CTRL = Qt.KeyboardModifier.ControlModifier


def choose(monkeypatch: pytest.MonkeyPatch, path: Path) -> None:
    """Let the file dialogs answer with `path`."""
    monkeypatch.setattr(FileChooser, "ask", lambda *_: [str(path)])


def step_knee(window: MainWindow) -> None:
    QTest.mouseClick(window.station("Balance").controls.knee.less, Qt.MouseButton.LeftButton)


def test_save_open_again(
    window: MainWindow, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    path = tmp_path / "mine"
    choose(monkeypatch, path)
    step_knee(window)
    assert window.isWindowModified()
    assert "•" in window.top.name.text()

    QTest.keyClick(window, Qt.Key.Key_S, CTRL)

    saved = tmp_path / "mine.urgens.json"
    assert load(saved) == window.session.build
    assert not window.isWindowModified()
    assert window.windowTitle() == "Wexcombe[*] (mine.urgens.json): Urgens"

    step_knee(window)
    QTest.keyClick(window, Qt.Key.Key_S, CTRL)
    assert (tmp_path / "mine.urgens.json.bak").exists()

    changed = window.session.build
    window.files.open_demo("roadster")
    assert window.session.build.name == "Tarn"
    choose(monkeypatch, saved)
    QTest.keyClick(window, Qt.Key.Key_O, CTRL)
    assert window.session.build == changed
    assert window.session.undo_stack.count() == 0


def test_a_broken_file_is_answered_in_words_and_changes_nothing(
    window: MainWindow, tmp_path: Path, answer: Answer
) -> None:
    before = window.session.build
    path = tmp_path / "broken.urgens.json"
    path.write_text(bed_text("bakery").replace('"1-1/8 in"', "28"), encoding="utf-8")
    said = answer("OK")

    window.files.open_path(path)

    assert said[0] == "broken.urgens.json was not opened"
    assert said[1].startswith("master.bore: is the bare number 28, without a unit; write a length")
    assert window.session.build == before


def test_a_save_that_fails_says_so_and_loses_nothing(
    window: MainWindow, tmp_path: Path, answer: Answer
) -> None:
    step_knee(window)
    window.session.document.path = tmp_path / "gone" / "mine.urgens.json"
    said = answer("Not now")

    assert not window.files.save()
    assert said[0].startswith("mine.urgens.json was not saved: No such file or directory. ")
    assert window.isWindowModified()


@pytest.mark.parametrize(
    ("button", "closed"), [("Leave without saving", True), ("Stay here", False)]
)
def test_closing_asks_about_unsaved_changes(
    window: MainWindow, answer: Answer, button: str, *, closed: bool
) -> None:
    step_knee(window)
    said = answer(button)

    assert window.close() is closed
    assert said[0] == "Wexcombe has changes that are not saved."


def test_leaving_by_saving(
    window: MainWindow, tmp_path: Path, bakery: Build, answer: Answer
) -> None:
    path = tmp_path / "mine.urgens.json"
    save(bakery, path)
    window.session.open_file(path)
    step_knee(window)
    answer("Save")

    window.files.open_demo("roadster")

    assert load(path).valves.rear[0].knee.text == "370 psi"
    assert window.session.build.name == "Tarn"


def test_a_finding_is_shown_and_its_fix_done_and_undone(window: MainWindow, qtbot: Any) -> None:
    line = window.finding_line
    assert line.finding is not None
    assert line.finding.code == "rear-locks-first"
    assert "the rear wheels lock first" in line.message.text

    qtbot.waitUntil(line.fix.isVisible, timeout=20_000)
    ways = ranked_ways(window.session.build)
    assert ways is not None
    first = ways.recommended
    assert first is not None
    assert what(window.session.build, first.to_take[0], window.session.units)[1:] in line.fix.text()
    QTest.keyClick(window, Qt.Key.Key_F, Qt.KeyboardModifier.ShiftModifier)

    assert line.finding is not None
    assert line.finding.severity is not Severity.DANGER
    qtbot.waitUntil(lambda: not line.fix.isVisible(), timeout=1_000)

    QTest.keyClick(window, Qt.Key.Key_Z, CTRL)
    assert line.finding.code == "rear-locks-first"


def test_nothing_found_is_said(open_window: Callable[[Build], MainWindow], roadster: Build) -> None:
    line = open_window(roadster).finding_line

    assert line.finding is None
    assert "Nothing found" in line._word.text()
    assert "have them checked" in line.message.text


def test_findings_are_walked_through(
    open_window: Callable[[Build], MainWindow], built: Any
) -> None:
    window = open_window(built({"valves.front": [], "targets.deceleration": 0.85}))
    line = window.finding_line
    seen = []
    for _ in window.session.findings:
        assert line.finding is not None
        seen.append(line.finding.code)
        QTest.keyClick(window, Qt.Key.Key_F)

    assert seen == [finding.code for finding in window.session.findings]
    assert line.count.text() == f"1 of {len(seen)}"


def test_show_goes_to_the_place(window: MainWindow) -> None:
    window.show_station("Sheet")
    QTest.mouseClick(window.finding_line.show_place, Qt.MouseButton.LeftButton)

    assert window.bench.currentWidget() is window.station("Balance")
    assert window.station("Balance").controls.knee.label.hasFocus()


def test_the_sheet_shows_the_build_as_it_is_now(window: MainWindow, qtbot: Any) -> None:
    QTest.keyClick(window, Qt.Key.Key_8, Qt.KeyboardModifier.AltModifier)
    page = window.station("Sheet").page.view
    assert page.document is not None
    assert "375 psi" in page.document.document.toPlainText()

    window.session.edit("valves.rear[0].knee", "290 psi")
    qtbot.waitUntil(
        lambda: page.document is not None and "290 psi" in page.document.document.toPlainText(),
        timeout=3000,
    )


@pytest.mark.parametrize("form", ["pdf", "html"])
def test_the_sheet_is_written(
    window: MainWindow, tmp_path: Path, monkeypatch: pytest.MonkeyPatch, form: str
) -> None:
    choose(monkeypatch, tmp_path / "sheet")
    window.files.write_sheet(form)

    assert (tmp_path / f"sheet.{form}").stat().st_size > 10_000


def test_the_rail_goes_to_a_station(window: MainWindow) -> None:
    rail = window.rail
    QTest.mouseClick(rail, Qt.MouseButton.LeftButton, pos=rail.item_box(7).center().toPoint())
    assert window.bench.currentWidget() is window.station("Sheet")

    QTest.keyClick(rail, Qt.Key.Key_Up)
    assert window.bench.currentWidget() is window.station("Trace")
    assert window.findChild(type(rail)) is rail


def test_no_two_actions_share_keys() -> None:
    keys = [key for command in COMMANDS for key in command.keys]

    assert len(keys) == len(set(keys))
    assert len({command.name for command in COMMANDS}) == len(COMMANDS)


def test_every_control_has_a_name(window: MainWindow) -> None:
    from PySide6.QtWidgets import QAbstractButton, QComboBox

    controls = window.findChildren(QAbstractButton) + window.findChildren(QComboBox)
    nameless = [c for c in controls if not c.accessibleName() and not getattr(c, "text", str)()]

    assert len(controls) > 10
    assert [c for c in nameless if c.objectName() != "qt_toolbar_ext_button"] == []
