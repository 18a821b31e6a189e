"""The window's frame: set-ups, roads, commands, keys, the caution, memory."""

import subprocess
import sys
from collections.abc import Callable
from pathlib import Path

import pytest
from PySide6.QtCore import Qt, QTimer
from PySide6.QtGui import QKeySequence, QPalette
from PySide6.QtPrintSupport import QPrintDialog
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QDialog, QListWidget, QMenu

from tests.builds import bed
from tests.waiting import rest
from urgens.document import Build, edited
from urgens.guidance.rules.registry import AREAS
from urgens.ui.frame.commands import COMMANDS, HAND_KEYS
from urgens.ui.frame.dialogs import CommandFinder, KeyList
from urgens.ui.frame.findable import found, page_words
from urgens.ui.frame.settings import Settings
from urgens.ui.frame.stations import STATIONS
from urgens.ui.frame.window import MainWindow
from urgens.ui.theme.switch import use_theme
from urgens.ui.theme.tokens import DARK, LIGHT
from urgens.ui.widgets.file_chooser import FileChooser

Opener = Callable[[Build], MainWindow]
CTRL = Qt.KeyboardModifier.ControlModifier
MANUAL = {"name": "manual pedal", "changes": {"booster": {"kind": "none"}}}
LOW = {"name": "low knee", "changes": {"valves.rear[0].knee": "275 psi"}}


# --- set-ups and roads ---


def test_an_edit_goes_into_the_set_up_that_is_chosen(open_window: Opener, bakery: Build) -> None:
    window = open_window(edited(bakery, "setups", [LOW]))
    session = window.session
    knee = window.station("Balance").controls.knee
    QTest.keyClick(window, Qt.Key.Key_B)
    assert session.setup == "low knee"
    assert knee.label.text == "275 psi"

    QTest.mouseClick(knee.more, Qt.MouseButton.LeftButton)

    assert session.base.setups[0].changes == {
        "valves.rear[0].knee": "280 psi", 'evidence["valves.rear[0].knee"]': {"state": "planned"},
    }  # fmt: skip
    QTest.keyClick(window, Qt.Key.Key_A)
    assert knee.label.text == "375 psi"
    QTest.keyClick(window, Qt.Key.Key_Z, CTRL)
    QTest.keyClick(window, Qt.Key.Key_B)
    assert knee.label.text == "275 psi"


def test_what_a_set_up_refuses_is_refused_at_its_place(open_window: Opener, bakery: Build) -> None:
    window = open_window(edited(bakery, "setups", [LOW]))
    window.session.set_setup("low knee")
    label = window.station("Balance").controls.knee.label
    label.begin_edit()
    QTest.keyClicks(label.editor, "-5 psi")
    QTest.keyClick(label.editor, Qt.Key.Key_Return)

    assert label.error.startswith('"-5 psi" is negative')
    assert window.session.base.setups[0].changes == LOW["changes"]
    QTest.keyClick(label.editor, Qt.Key.Key_Escape)


def test_few_set_ups_stand_side_by_side_and_many_in_a_list(
    open_window: Opener, bakery: Build
) -> None:
    window = open_window(edited(bakery, "setups", [LOW]))
    assert [button.text() for button in window.top.setups] == ["A  Base", "B  low knee"]
    assert not window.top.more_setups.isVisible()

    window.session.edit("setups", [LOW, MANUAL])

    assert window.top.setups == []
    assert window.top.more_setups.isVisible()
    window.top.more_setups.activated.emit(2)
    assert window.session.build.booster.kind == "none"
    assert window.session.effort > 0


@pytest.mark.parametrize(("typed", "surface"), [("0.72", 0.72), ("μ 1.3", 1.3)])
def test_a_road_is_typed_as_a_number(window: MainWindow, typed: str, surface: float) -> None:
    mu = window.top.mu
    QTest.mouseClick(mu, Qt.MouseButton.LeftButton)
    mu.editor.setText(typed)  # QTest types Latin letters only
    QTest.keyClick(mu.editor, Qt.Key.Key_Return)

    assert window.session.solution.surface == surface
    assert mu.text == f"μ {surface:.2f}"
    assert not any(button.isChecked() for button in window.top.roads)
    assert len(window.station("Balance").locks._roads()) == 4


def test_a_road_that_is_none_is_refused(window: MainWindow) -> None:
    mu = window.top.mu
    mu.begin_edit()
    QTest.keyClicks(mu.editor, "7")
    QTest.keyClick(mu.editor, Qt.Key.Key_Return)

    assert mu.error.startswith('"7" is no tyre-road coefficient; write a number from 0.01 to 5')
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


def test_a_command_is_found_by_typing(window: MainWindow, dressed: QApplication) -> None:
    def choose(dialog: QDialog) -> None:
        assert isinstance(dialog, CommandFinder)
        QTest.keyClicks(dialog.line, "ice road")
        assert dialog.list.topLevelItem(0).text(0) == "Road: ice"
        QTest.keyClick(dialog.line, Qt.Key.Key_Return)

    in_dialog(dressed, choose)
    QTest.keyClick(window, Qt.Key.Key_K, CTRL)

    assert window.session.solution.surface == 0.15


FOUND = {
    "piston": "figure", "half": "page of Size", "heat": "page of Size", "corner": "figure",
    "lines": "page of Plumb", "bend": "page of Plumb", "dual": "page of Size",
    "wider tyre": "page of Balance", "proportioning": "trade name", "spong": "sign of a fault",
    "bench": "procedure", "knee": "term", "master cyl": "part of the layout", "wheelb": "figure",
}  # fmt: skip


@pytest.mark.parametrize("typed", FOUND)
def test_anything_is_found_by_parts_of_its_words_with_where_it_leads(
    typed: str, open_window: Callable[[Build], MainWindow]
) -> None:
    window = open_window(bed("library"))
    finder = CommandFinder(window.findable(), window)
    finder.line.setText(typed)
    rows = [finder.list.topLevelItem(row) for row in range(finder.list.topLevelItemCount())]
    assert rows
    assert any(row.text(1).startswith(FOUND[typed]) for row in rows), [r.text(1) for r in rows]
    finder.deleteLater()


def test_what_is_found_is_gone_to(open_window: Callable[[Build], MainWindow]) -> None:
    window = open_window(bed("library"))
    for typed, station, page in (
        ("half lost", "Size", "Half lost"), ("bench-bleed", "Bleed", "Card"),
        ("pulls to one side", "Trace", "Fault"), ("wheelbase", "Measure", ""),
    ):  # fmt: skip
        best = next(one for one in found(window.findable(), typed, 9) if one.where)
        best.act()
        rest(20)
        assert (window.bench.name, window.station(station).page_name) == (station, page), typed
    assert window.focusWidget() is window.station("Measure").label("vehicle.wheelbase")


def test_every_page_has_words_it_is_looked_for_by_and_no_other() -> None:
    wanted = {kind.name: set(kind.pages or ("",)) for kind in STATIONS}
    assert {name: set(pages) for name, pages in page_words().items()} == wanted
    assert all(words for pages in page_words().values() for words in pages.values())


def test_a_search_for_no_command_says_so_and_arrows_go_round(
    window: MainWindow, dressed: QApplication
) -> None:
    marked: list[int] = []

    def search(dialog: QDialog) -> None:
        assert isinstance(dialog, CommandFinder)
        assert dialog.nothing.isHidden()
        QTest.keyClick(dialog.line, Qt.Key.Key_Up)
        marked.append(dialog.list.indexOfTopLevelItem(dialog.list.currentItem()))
        marked.append(dialog.list.topLevelItemCount() - 1)
        QTest.keyClicks(dialog.line, "carburettor")
        assert dialog.nothing.isVisible()
        QTest.keyClick(dialog.line, Qt.Key.Key_Return)
        assert dialog.isVisible()  # nothing to do, so nothing is done
        dialog.reject()

    in_dialog(dressed, search)
    QTest.keyClick(window, Qt.Key.Key_K, CTRL)

    assert marked[0] == marked[1] > 0


@pytest.mark.parametrize("dark", [False, True])
def test_standard_widgets_have_the_colours_of_the_theme(dressed: QApplication, dark: bool) -> None:
    use_theme(dressed, dark=dark)
    tokens = DARK if dark else LIGHT
    shown = QListWidget()
    assert shown.palette().color(QPalette.ColorRole.Base).name() == tokens.sheet.lower()
    assert shown.palette().color(QPalette.ColorRole.Text).name() == tokens.ink.lower()
    assert dressed.testAttribute(Qt.ApplicationAttribute.AA_DontUseNativeDialogs)
    use_theme(dressed, dark=False)


def test_the_menu_fits_a_low_screen_in_one_column(window: MainWindow) -> None:
    menu = window.top.findChild(QMenu)
    assert menu is not None
    assert menu.sizeHint().height() < 700
    under = [action.text() for action in menu.actions() if action.menu() is not None]
    assert under == [
        "Open recent", "The sheet", "Take from another build", "Demo builds", "Help",
    ]  # fmt: skip


def test_the_list_of_keys_has_them_all(window: MainWindow, dressed: QApplication) -> None:
    seen: list[tuple[str, str]] = []

    def read(dialog: QDialog) -> None:
        assert isinstance(dialog, KeyList)
        seen.extend(dialog.rows)
        dialog.reject()

    in_dialog(dressed, read)
    QTest.keyClick(window, Qt.Key.Key_F1)

    listed = {words for _, words in seen}
    assert {command.title for command in COMMANDS if command.keys} <= listed
    assert {words for _, words in HAND_KEYS} <= listed


@pytest.mark.parametrize(
    ("name", "keys"), [(command.name, keys) for command in COMMANDS for keys in command.keys]
)
def test_every_key_of_the_list_does_what_it_says(
    open_window: Opener, bakery: Build, monkeypatch: pytest.MonkeyPatch, name: str, keys: str
) -> None:
    done: list[str] = []
    monkeypatch.setattr(MainWindow, "_do", lambda _, command: done.append(command.name))
    window = open_window(bakery)
    pressed = QKeySequence(keys)[0]
    QTest.keyClick(window, pressed.key(), pressed.keyboardModifiers())

    assert done == [name]


@pytest.mark.parametrize(("pages", "printed"), [((0, 0), 4), ((2, 2), 1)])
def test_ctrl_p_prints_the_pages_that_are_asked_for(
    window: MainWindow,
    tmp_path: Path,
    monkeypatch: pytest.MonkeyPatch,
    pages: tuple[int, int],
    printed: int,
) -> None:
    out = tmp_path / "printed.pdf"

    def accept(dialog: QPrintDialog) -> QDialog.DialogCode:
        assert (dialog.minPage(), dialog.maxPage()) == (1, 4)
        dialog.printer().setOutputFileName(str(out))
        dialog.printer().setFromTo(*pages)
        return QDialog.DialogCode.Accepted

    monkeypatch.setattr(QPrintDialog, "exec", accept)
    QTest.keyClick(window, Qt.Key.Key_P, CTRL)

    assert out.read_bytes().count(b"/Type /Page\n") == printed


@pytest.mark.qt_log_ignore("QPainter::begin")
def test_a_printer_that_takes_nothing_is_said(
    window: MainWindow, monkeypatch: pytest.MonkeyPatch, answer: Callable[..., list[str]]
) -> None:
    def accept(dialog: QPrintDialog) -> QDialog.DialogCode:
        dialog.printer().setOutputFileName("/nowhere/at/all.pdf")
        return QDialog.DialogCode.Accepted

    monkeypatch.setattr(QPrintDialog, "exec", accept)
    said = answer("OK")
    QTest.keyClick(window, Qt.Key.Key_P, CTRL)

    assert said[0] == "The sheet was not printed"
    assert "Write it as PDF" in said[1]


def test_ctrl_shift_p_writes_the_sheet_and_ctrl_q_closes(
    window: MainWindow, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    out = tmp_path / "sheet.pdf"
    monkeypatch.setattr(FileChooser, "ask", lambda *_: [str(out)])
    QTest.keyClick(window, Qt.Key.Key_P, CTRL | Qt.KeyboardModifier.ShiftModifier)
    assert out.read_bytes().startswith(b"%PDF")
    QTest.keyClick(window, Qt.Key.Key_Q, CTRL)

    assert not window.isVisible()


# --- first run ---


def test_the_caution_is_shown_until_it_has_been_read(window: MainWindow, tmp_path: Path) -> None:
    window.settings = Settings(tmp_path / "settings.ini")
    box = window.show_caution()
    assert box is not None
    assert "Have the work checked by a qualified person" in box.informativeText()
    assert not window.settings.caution_read

    box.buttons()[0].click()

    assert Settings(tmp_path / "settings.ini").caution_read
    assert window.show_caution() is None


MANY_EDITS = """
from pathlib import Path
from PySide6.QtWidgets import QApplication
from urgens.document import demo
from urgens.ui.session import Session
from urgens.ui.widgets.file_chooser import FileChooser
from urgens.ui.widgets.file_chooser import FileChooser

application = QApplication([])
session = Session(demo("library"))

def edit(times):
    for index in range(times):
        session.edit("valves.rear[0].slope", 0.2 + 0.001 * (index % 100))
    session.undo_stack.clear()
    return int(Path("/proc/self/statm").read_text().split()[1]) * 4096

before = edit(120)  # as many steps to be undone as there will be
print(edit(120) - before)
"""


def test_many_edits_leave_memory_where_it_was() -> None:
    """In a process of its own, where nothing else moves: under 2 kB an edit, a tenth of a build."""
    run = subprocess.run(
        [sys.executable, "-c", MANY_EDITS], capture_output=True, text=True, check=True
    )

    assert int(run.stdout) < 240_000


def test_every_finding_has_a_station_that_mends_it() -> None:
    assert {area for kind in STATIONS for area in kind.areas} == set(AREAS)
