"""Whatever a file says is shown as it stands: it is no markup, loads nothing, makes no keys."""

import ast
import json
from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest
from PySide6.QtCore import Qt, QTimer
from PySide6.QtGui import Qt as Text
from PySide6.QtWidgets import QApplication, QLabel, QMessageBox, QToolButton, QWidget

from tests.builds import bed_text
from tests.ui.conftest import every_page
from tests.waiting import rest
from urgens.document import Build, loads
from urgens.ui.frame.window import MainWindow
from urgens.ui.widgets import plain
from urgens.ui.widgets.plain import button_words, plain_label, tip

MARKUP = '<img src="/dev/zero"><b>A & B</b>'
RICH = ("QLabel", "QMessageBox", "setToolTip", "setHtml")
SOURCE = Path(plain.__file__).parents[1]


def marked(name: str) -> Build:
    """A demo build in which every name and note there can be is markup."""
    document = json.loads(bed_text(name))
    document |= {"name": MARKUP, "notes": MARKUP}
    for index, case in enumerate(document["vehicle"]["load_cases"]):
        case["name"] = f"{MARKUP}{index}"
    for index, setup in enumerate(document.get("setups", [])):
        setup["name"] = f"{MARKUP}{index}"
    for known in document.get("evidence", {}).values():
        known["note"] = MARKUP
    return loads(json.dumps(document))


def assert_plain(widget: QWidget) -> None:
    for one in (widget, *widget.findChildren(QWidget)):
        if one.window() is not widget.window():
            continue  # a plot's own menu, which is never opened
        if isinstance(one, QLabel):
            assert one.textFormat() == Qt.TextFormat.PlainText, one.text()
        assert "<img" not in one.toolTip(), one
        if isinstance(one, QToolButton) and MARKUP in one.text():
            raise AssertionError(f"{one.text()} has a key of its own")


@pytest.mark.parametrize("name", ["tender"])
def test_markup_in_a_file_is_shown_as_it_stands_on_every_page(
    name: str, open_window: Callable[[Build], MainWindow]
) -> None:
    window = open_window(marked(name))
    assert len(list(every_page(window, ms=5))) > 10
    window.session.edit("name", f"{MARKUP}!", f"Named {MARKUP}")
    rest(400)

    assert MARKUP in window.windowTitle()
    assert_plain(window)
    shown = [one.text() for one in window.findChildren(QToolButton)]
    assert any(button_words(MARKUP)[:12] in text for text in shown)


def test_a_box_says_markup_as_it_stands(
    open_window: Callable[[Build], MainWindow], tmp_path: Path
) -> None:
    window = open_window(marked("bakery"))
    path = tmp_path / "bad.urgens.json"
    document = json.loads(bed_text("bakery")) | {MARKUP: 1}
    path.write_text(json.dumps(document), encoding="utf-8")
    seen: list[tuple[str, str]] = []

    def look() -> None:
        box = QApplication.activeModalWidget()
        assert isinstance(box, QMessageBox)
        assert_plain(box)
        seen.append((box.text(), box.informativeText()))
        box.reject()

    QTimer.singleShot(50, look)
    window.files.open_path(path)

    assert seen == [("bad.urgens.json was not opened", seen[0][1])]
    assert MARKUP in seen[0][1]


def test_a_label_and_a_tip_show_markup_letter_by_letter(dressed: QApplication) -> None:
    assert plain_label(MARKUP).text() == MARKUP
    assert plain_label(MARKUP).sizeHint().height() < 40  # one line, no picture
    assert not Text.mightBeRichText(tip("6 < 7 & 8"))
    assert "&lt;img" in tip(MARKUP)


def test_nothing_that_takes_markup_is_made_elsewhere() -> None:
    """Labels, boxes and tips come from one module, which shows words as they are."""
    rich: list[str] = []
    for path in SOURCE.rglob("*.py"):
        if path.samefile(plain.__file__):
            continue
        for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
            if isinstance(node, ast.Call) and _name(node.func) in (
                "QLabel",
                "QMessageBox",
                "setToolTip",
                "setHtml",
            ):
                rich.append(f"{path.name}:{node.lineno}")
    assert rich == []


def _name(function: Any) -> str:
    return str(getattr(function, "id", getattr(function, "attr", "")))
