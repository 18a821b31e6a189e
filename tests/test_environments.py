"""The window in other countries' settings, and in source what would break it there."""

import ast
import os
import shutil
import subprocess
import sys
from pathlib import Path

import pytest

SOURCE = Path(__file__).parents[1] / "src" / "urgens" / "ui"
LOOK = """
import sys
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication
from urgens.cli.main import main
from urgens.ui.frame.window import MainWindow
from urgens.ui.frame.stations import STATIONS

def look(*_):
    window = next(one for one in QApplication.topLevelWidgets() if isinstance(one, MainWindow))
    for kind in STATIONS:
        window.show_station(kind.name)
        for page in kind.pages or ("",):
            window.station(kind.name).show_page_named(page)
            QTest.qWait(1)
    window.session.edit("master.bore", "7/8 in")
    print(window.session.build.master.bore.value)
    window.session.undo_stack.setClean()
    return 0

QApplication.exec = look
sys.exit(main(["demo", "library"]))
"""


def made(locale: str, folder: Path) -> None:
    """Make the locale where the system has its source; else its name alone is set."""
    if locale != "C" and shutil.which("localedef") and Path("/usr/share/i18n/locales").is_dir():
        subprocess.run(
            ["localedef", "-i", locale, "-f", "UTF-8", str(folder / f"{locale}.UTF-8")],
            check=True, capture_output=True,
        )  # fmt: skip


@pytest.mark.parametrize("locale", ["fa_IR"])  # digits of its own; a decimal comma is like it
def test_the_window_starts_and_shows_every_page_in_another_locale(
    locale: str, tmp_path: Path
) -> None:
    made(locale, tmp_path)
    name = locale if locale == "C" else f"{locale}.UTF-8"
    environment = os.environ | {
        "LANG": name, "LC_ALL": name, "LOCPATH": str(tmp_path), "HOME": str(tmp_path),
        "XDG_DATA_HOME": str(tmp_path / "data"), "QT_QPA_PLATFORM": "offscreen",
    }  # fmt: skip
    run = subprocess.run(
        [sys.executable, "-c", LOOK],
        env=environment,
        capture_output=True,
        text=True,
        check=False,
    )  # fmt: skip

    assert "Traceback" not in run.stderr, run.stderr
    assert run.returncode == 0
    assert float(run.stdout) == pytest.approx(0.022225)


def test_no_property_of_qt_is_set_by_keyword() -> None:
    """PySide finds it by the setter's name, whose first letter it makes a capital of the locale."""
    seen = 0
    for path in SOURCE.rglob("*.py"):
        tree = ast.parse(path.read_text(encoding="utf-8"))
        ours = {
            alias.asname or alias.name
            for node in ast.walk(tree)
            if isinstance(node, ast.ImportFrom) and (node.module or "").startswith("PySide6")
            for alias in node.names
        }
        for node in ast.walk(tree):
            if not isinstance(node, ast.Call) or not isinstance(node.func, ast.Name):
                continue
            if node.func.id in ours:
                seen += 1
                by_name = {one.arg for one in node.keywords} - {"parent"}
                assert not by_name, f"{path.name}:{node.lineno} {by_name}"
    assert seen > 500
