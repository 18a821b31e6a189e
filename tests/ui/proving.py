"""Hands for the pages of Prove, and builds to prove."""

from collections.abc import Callable
from pathlib import Path
from typing import Any

from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from pytestqt.qtbot import QtBot

from tests.builds import on_record
from tests.ui.conftest import page_of
from urgens.bench.logs.write import sensed, write_csv
from urgens.bench.road.drives import drives, trial
from urgens.bench.road.torque import hold
from urgens.document import Build, demo, with_changes
from urgens.solve.system import system
from urgens.ui.frame.window import MainWindow
from urgens.ui.widgets.typed_label import TypedLabel

Opener = Callable[[Build], MainWindow]
TURNS = "valves.rear[0].turns"
SLOW = 20_000  # ms, on a loaded machine
SENSING = [
    {"kind": "load-sensing", "slope": 0.3, "follows": "static",
     "points": [["300 kg", "6 bar"], ["700 kg", "60 bar"]]},
]  # fmt: skip


def fresh(**more: Any) -> Build:
    """The roadster without anything measured."""
    return with_changes(demo("roadster"), {"proof": None, "records": [], **more})


PROVED = on_record(fresh())


def shown(window: MainWindow, name: str) -> Any:
    return page_of(window, "Prove", name)


def type_into(label: TypedLabel, text: str) -> None:
    label.setFocus()
    QTest.keyClick(label, Qt.Key.Key_Return)
    assert label.editor is not None
    QTest.keyClicks(label.editor, text)
    QTest.keyClick(label.editor, Qt.Key.Key_Return)


def read_by_key(page: Any, qtbot: QtBot, count: int) -> None:
    """Press Space until the foot has been still for long enough to be read."""

    def read() -> bool:
        QTest.keyClick(page, Qt.Key.Key_Space)
        proof = page.session.build.proof
        return proof is not None and len(proof.gauges[0].points) >= count

    qtbot.waitUntil(read, timeout=SLOW)


def worked(page: Any, qtbot: QtBot) -> Any:
    qtbot.waitUntil(lambda: page.found is not None and not page._work.busy, timeout=SLOW)
    return page.found


def logged(page: Any, qtbot: QtBot) -> Any:
    def read() -> bool:
        return page.log is not None and not page._work.busy and not page.opening.busy

    qtbot.waitUntil(read, timeout=SLOW)
    return page.log


def a_log(folder: Path, build: Build) -> Path:
    [went] = drives([trial(build, system(build), 0, 1.1, 22.0, hold(180.0, 0.5))])
    path = folder / "run.csv"
    write_csv(path, sensed(went, 1))
    return path
