"""Figures and plots taken out of the window: copied, as a drawing, a picture, and figures."""

import csv
import io
from collections.abc import Callable
from pathlib import Path
from xml.etree import ElementTree

import numpy as np
import pytest
from PySide6.QtCore import Qt
from PySide6.QtGui import QGuiApplication, QImage
from PySide6.QtTest import QTest

from tests.builds import bed
from tests.ui.conftest import label
from tests.waiting import rest
from urgens.document import Build
from urgens.ui.frame.window import MainWindow
from urgens.ui.widgets.file_chooser import FileChooser
from urgens.ui.widgets.plot_file import ask_and_write, content, plot_menu

Opener = Callable[[Build], MainWindow]


@pytest.fixture
def balance(open_window: Opener) -> MainWindow:
    window = open_window(bed("library"))
    window.show_station("Balance")
    rest(50)
    return window


def test_a_focused_figure_is_copied_with_its_unit(open_window: Opener) -> None:
    window = open_window(bed("library"))
    window.show_station("Measure")
    rest(20)
    wheelbase = label(window, "vehicle.wheelbase")
    wheelbase.setFocus()
    QTest.keyClick(wheelbase, Qt.Key.Key_C, Qt.KeyboardModifier.ControlModifier)
    assert QGuiApplication.clipboard().text() == "136 in"
    assert wheelbase.editor is None


def test_a_plot_is_written_as_a_drawing_that_can_be_read(balance: MainWindow) -> None:
    plane = balance.station("Balance").adhesion
    drawing = ElementTree.fromstring(content(plane, ".svg"))
    assert drawing.tag.endswith("svg")
    assert len(list(drawing.iter())) > 50
    assert not [item for item in drawing.iter() if item.tag.endswith("}image")]  # vectors only
    picture = QImage.fromData(content(plane, ".png"))
    assert (picture.width(), picture.height()) == (plane.width(), plane.height())


def test_the_figures_behind_a_plot_are_the_solutions(balance: MainWindow) -> None:
    plane = balance.station("Balance").adhesion
    rows = list(csv.reader(io.StringIO(content(plane, ".csv").decode())))
    assert rows[0] == [plane.accessibleName()]
    heads = rows[1]
    at = heads.index("front, across")
    z, used = (
        np.array([float(row[column]) for row in rows[2:] if row[column]]) for column in (at, at + 1)
    )
    solution = balance.session.solution
    pressed = solution.press(np.linspace(0.0, balance.session.most_effort, 81))
    assert z == pytest.approx(pressed.demand_z[np.isfinite(pressed.front_used)], rel=1e-6)
    assert used == pytest.approx(pressed.front_used[np.isfinite(pressed.front_used)], rel=1e-6)


def test_a_place_without_ending_gets_one_and_one_that_is_none_is_said(
    balance: MainWindow,
    tmp_path: Path,
    monkeypatch: pytest.MonkeyPatch,
    answer: Callable[..., list[str]],
) -> None:
    plane = balance.station("Balance").adhesion
    monkeypatch.setattr(FileChooser, "ask", lambda *_: [str(tmp_path / "grip")])
    ask_and_write(plane, ".csv")
    assert (tmp_path / "grip.csv").read_text(encoding="utf-8").startswith(plane.accessibleName())
    nowhere = tmp_path / "not there" / "grip.svg"
    monkeypatch.setattr(FileChooser, "ask", lambda *_: [str(nowhere)])
    said = answer("OK")
    ask_and_write(plane, ".svg")
    assert "cannot be written" in said[0]
    assert len(plot_menu(plane).actions()) == 4
