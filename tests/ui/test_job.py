"""The whole job in the window, as hands do it: a coupe from nothing to its printed sheet.

Every click, key and entry is one action; nothing but real events goes in.
"""

from pathlib import Path

import pytest
from pypdf import PdfReader
from PySide6.QtCore import QPoint, Qt, QTimer
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QDialog, QLineEdit, QPushButton, QWidget
from pytestqt.qtbot import QtBot

from tests.waiting import rest
from urgens.document import load, value_at
from urgens.guidance import Severity
from urgens.solve import AxleName
from urgens.ui.frame.dialogs import CommandFinder
from urgens.ui.frame.window import MainWindow
from urgens.ui.widgets.background import any_running
from urgens.ui.widgets.file_chooser import FileChooser
from urgens.ui.widgets.tab_order import stops

MOST = 120  # actions
SLOW = 60_000  # ms
OPENED = 300  # ms after which a dialog has its folder read
KEY, CTRL, ALT = Qt.Key, Qt.KeyboardModifier.ControlModifier, Qt.KeyboardModifier.AltModifier
SHIFT, NONE = Qt.KeyboardModifier.ShiftModifier, Qt.KeyboardModifier.NoModifier
# What is measured with tape, caliper and scales, in inches and pounds where it is bare.
BRAKES = {
    "Centre of gravity": "20.5", "Front tyre size": "185/70R14", "Rear tyre size": "185/70R14",
    "Wheelbase": "94.5", "Front axle load": "1320", "Rear axle load": "1060",
    "Front pad friction": ".38", "Front effective radius": "4.1", "Front piston": "48 mm",
    "Rear wheel cylinder": "7/8", "Rear drum": "8",
}  # fmt: skip
PEDAL = {
    "Pivot to pushrod": "2.4", "Pivot to pad": "12", "Pad to floor": "5.5",
    "Master cylinder bore": "7/8", "Stroke": "1.2",
}  # fmt: skip


class Hand:
    """Does what hands do, by mouse or by keys alone, and counts it."""

    def __init__(self, app: QApplication, window: MainWindow, *, mouse: bool) -> None:
        self.app, self.window, self.mouse = app, window, mouse
        self.actions = 0

    def press(self, key: Qt.Key, held: Qt.KeyboardModifier = NONE) -> None:
        self.actions += 1
        QTest.keyClick(self.app.focusWidget() or self.window, key, held)
        rest(5)

    def write(self, text: str) -> None:
        """One entry, letter by letter: the first opens the field that the others go into."""
        self.actions += 1
        for letter in text:
            QTest.keyClicks(self.app.focusWidget() or self.window, letter)

    def take(self, widget: QWidget) -> None:
        """Click on a thing; by keys go to it by Tab, and press it."""
        if self.mouse:
            self.actions += 1
            place = QPoint(widget.width() // 2, widget.height() // 2)
            QTest.mouseClick(widget, Qt.MouseButton.LeftButton, pos=place)
            rest(5)
            return
        self.tab_to(widget)
        self.press(KEY.Key_Return)

    def tab_to(self, widget: QWidget) -> None:
        for _ in range(60):
            if self.app.focusWidget() is widget:
                return
            self.press(KEY.Key_Tab)
        raise AssertionError(f"Tab does not come to {widget.accessibleName()}")

    def find(self, words: str) -> None:
        """Go to anything by its words."""
        self.in_dialog(CommandFinder, words, KEY.Key_K, CTRL)

    def in_dialog(
        self, kind: type[QDialog], text: str, key: Qt.Key, held: Qt.KeyboardModifier = NONE
    ) -> None:
        """Answer the dialog that a key opens with a line of text, and Enter."""

        def answer() -> None:
            dialog = self.app.activeModalWidget()
            assert isinstance(dialog, kind)
            line = dialog.findChild(QLineEdit)
            self.actions += 2
            line.selectAll()  # as it is when a desktop brings the dialog
            QTest.keyClicks(line, text)
            QTest.keyClick(line, KEY.Key_Return)
            if dialog.isVisible():
                dialog.reject()  # a test that fails must not wait for ever

        QTimer.singleShot(OPENED, answer)
        self.press(key, held)
        self.come_back()

    def come_back(self) -> None:
        """Wait for the window to be the active one again, which a desktop sees to."""
        self.window.activateWindow()
        for _ in range(40):
            if self.window.isActiveWindow():
                return
            rest(10)

    def measure(self, figures: dict[str, str]) -> None:
        """Type each figure: where the mouse clicks, or at the next that is only assumed."""
        left = dict(figures)
        if self.mouse:
            labels = {one.accessibleName(): one for one in stops(self.window.bench)}
            for name, text in figures.items():
                label = next(one for said, one in labels.items() if said.startswith(name))
                self.take(label)
                self.enter(text)
            return
        for _ in range(len(figures) + 12):
            name = self.app.focusWidget().accessibleName()
            found = next((one for one in left if name.startswith(one)), None)
            if found is not None:
                self.enter(left.pop(found))
            if not left:
                return
            self.press(KEY.Key_Tab, CTRL)
        raise AssertionError(f"never came to {', '.join(left)}")

    def enter(self, text: str) -> None:
        self.write(text)
        self.press(KEY.Key_Return)


@pytest.mark.parametrize("by", ["mouse", "keys"])
def test_a_coupe_from_nothing_to_its_sheet(
    window: MainWindow, dressed: QApplication, qtbot: QtBot, tmp_path: Path, by: str
) -> None:
    window.resize(1280, 800)
    window.show_start(first=True)
    session, hand = window.session, Hand(dressed, window, mouse=by == "mouse")
    hand.take(window.start.own)
    hand.in_dialog(QDialog, "Coupe", KEY.Key_F2)
    if by == "keys":
        hand.press(KEY.Key_Tab, CTRL)
    hand.measure(BRAKES)
    hand.find("Pivot to pushrod")
    hand.measure(PEDAL)
    build = session.build
    assert build.name == "Coupe"
    assert [value_at(build, path).text for path in ("vehicle.wheelbase", "master.bore")] == [
        "94.5 in", "7/8 in",
    ]  # fmt: skip
    assert build.front.brake.pad_friction == 0.38

    hand.press(KEY.Key_2, ALT)
    best = window.station("Size").page.best
    assert best.text().startswith("Take ")
    wanted = best.text().removeprefix("Take ").split(" at ")
    hand.take(best)
    assert session.build.master.bore.text == wanted[0]
    assert float(session.solution.system.pedal_ratio) == pytest.approx(float(wanted[1]), abs=0.01)

    hand.find("Choose")
    page = window.station("Balance").page
    qtbot.waitUntil(lambda: page.sure, timeout=SLOW)
    hand.press(KEY.Key_1)
    assert not [one for one in session.findings if one.severity is Severity.DANGER
                and one.code.startswith("rear")]  # fmt: skip
    assert (session.solution.lock.axle != AxleName.REAR).all()

    hand.press(KEY.Key_4, ALT)
    qtbot.waitUntil(lambda: not any_running(), timeout=SLOW)
    take = next(one for one in window.bench.findChildren(QPushButton)
                if one.isVisible() and one.text() == "Take this layout")  # fmt: skip
    hand.take(take)
    assert session.build.plumbing is not None

    sheet, file = tmp_path / "coupe.pdf", tmp_path / "coupe.urgens.json"
    hand.in_dialog(FileChooser, str(sheet), KEY.Key_P, CTRL | SHIFT)
    hand.in_dialog(FileChooser, str(file), KEY.Key_S, CTRL)
    said = "".join("".join(one.extract_text().split()) for one in PdfReader(sheet).pages)
    assert "Coupe" in said
    assert f"Bore{wanted[0].replace(' ', '')}\N{DAGGER}" in said  # planned: chosen on the map
    assert load(file).master.bore.text == wanted[0]
    assert not session.modified
    assert hand.actions <= MOST, hand.actions
