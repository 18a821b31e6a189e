"""Files are asked for in one way: with their ending, and never written over unasked."""

from collections.abc import Callable
from pathlib import Path

import pytest
from PySide6.QtCore import QFileInfo, Qt, QTimer
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QLineEdit, QToolButton, QWidget
from pytestqt.qtbot import QtBot

from urgens.ui import widgets
from urgens.ui.widgets.file_choice import file_to_read, file_to_write, with_ending
from urgens.ui.widgets.file_chooser import FileChooser
from urgens.ui.widgets.message import Message
from urgens.ui.widgets.write_out import write_out

Answer = Callable[[str], list[str]]
SOURCE = Path(widgets.__file__).parents[1]


def test_nobody_else_asks_for_files() -> None:
    asking = [path.name for path in SOURCE.rglob("*.py")
              if "QFileDialog" in path.read_text(encoding="utf-8")]  # fmt: skip
    assert sorted(asking) == ["file_choice.py", "file_chooser.py"]


@pytest.mark.parametrize(
    ("typed", "ending", "name"),
    [
        ("plan", ".svg", "plan.svg"),
        ("plan.svg", ".svg", "plan.svg"),
        ("PLAN.SVG", ".svg", "PLAN.SVG"),
        ("plan.2", ".svg", "plan.2.svg"),
        ("truck", ".urgens.json", "truck.urgens.json"),
        ("truck.urgens", ".urgens.json", "truck.urgens.json"),
        ("truck.json", ".urgens.json", "truck.json"),
    ],
)
def test_a_file_gets_the_ending_of_what_is_in_it(typed: str, ending: str, name: str) -> None:
    assert with_ending(Path("x") / typed, ending) == Path("x") / name


@pytest.mark.parametrize(
    ("button", "content"), [("Write over it", b"new"), ("Do not write", b"old")]
)
def test_what_the_ending_makes_another_file_is_asked_about(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch, answer: Answer, button: str, content: bytes
) -> None:
    """The dialog has asked about "plan", which is not there; "plan.svg" is."""
    (tmp_path / "plan.svg").write_bytes(b"old")
    monkeypatch.setattr(FileChooser, "ask", lambda *_: [str(tmp_path / "plan")])
    said = answer(button)
    write_out(QWidget(), "The layout", "layout", ".svg", lambda: b"new")

    assert said[0] == "plan.svg is there already."
    assert (tmp_path / "plan.svg").read_bytes() == content
    assert not (tmp_path / "plan").exists()


def test_nothing_chosen_is_nothing(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(FileChooser, "ask", lambda *_: [])
    monkeypatch.setattr(FileChooser, "ask", lambda *_: [])

    assert file_to_write(QWidget(), "A log", "log", ".csv", "CSV (*.csv)") is None
    assert file_to_read(QWidget(), "A log", None, "CSV (*.csv)") is None


def test_the_dialog_is_in_our_words_and_icons_and_gives_what_is_chosen(
    qtbot: QtBot, dressed: QApplication, tmp_path: Path
) -> None:
    """By keys: a name typed, Enter; one that is there already is asked about by us alone."""
    window = QWidget()
    window.resize(900, 700)
    qtbot.addWidget(window)
    (tmp_path / "plan.svg").write_bytes(b"old")
    (tmp_path / "folder").mkdir()
    seen: list[str] = []

    def look() -> None:
        dialog = dressed.activeModalWidget()
        assert isinstance(dialog, FileChooser)
        seen.append(dialog.windowTitle())
        shown = {b.accessibleName() for b in dialog.findChildren(QToolButton)}
        assert "The folder this one is in" in shown
        kinds = [dialog.iconProvider().icon(QFileInfo(str(tmp_path / name))).pixmap(20).toImage()
                 for name in ("folder", "plan.svg")]  # fmt: skip
        assert kinds[0] != kinds[1]
        line = dialog.findChild(QLineEdit)
        assert line.text() == "layout.svg"
        line.selectAll()
        QTest.keyClicks(line, str(tmp_path / "plan.svg"))
        QTimer.singleShot(50, over)
        QTest.keyClick(line, Qt.Key.Key_Return)

    def over() -> None:
        box = dressed.activeModalWidget()
        assert isinstance(box, Message)
        assert not box.iconPixmap().isNull()
        seen.append(box.text())
        next(one for one in box.buttons() if one.text() == "Write over it").click()

    QTimer.singleShot(100, look)
    path = file_to_write(window, "The layout", "layout", ".svg", "SVG (*.svg)", tmp_path)
    assert path == tmp_path / "plan.svg"
    assert seen == ["The layout", "plan.svg is there already."]
