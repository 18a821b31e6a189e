"""Lines looked at: numbers of corners on no other and on no corner; one line on one page."""

import io
import re
from collections.abc import Callable
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from pypdf import PdfReader
from PySide6.QtCore import QPointF, QRectF
from PySide6.QtTest import QTest

from tests.plumbing.layouts import sound, with_layout
from tests.ui.conftest import LEFT
from urgens.document import Build, demo, demo_names
from urgens.ui.frame.window import MainWindow
from urgens.ui.stations.plumb.corner_numbers import HANDLE, numbers
from urgens.ui.widgets.file_chooser import FileChooser

STATION = "Plumb"  # that its windows open at
Opener = Callable[[Build], MainWindow]
BOX = QRectF(0, 0, 500, 260)


def page(window: MainWindow) -> Any:
    window.station("Plumb").show_page_named("Lines")
    return window.station("Plumb").page


def check(corners: list[QPointF], box: QRectF) -> None:
    found = numbers(corners, box)
    told = sorted(int(one) for words, _ in found for one in words.split(", "))
    assert told == list(range(1, len(corners) + 1))
    for index, (_, one) in enumerate(found):
        assert not any(one.intersects(other) for _, other in found[index + 1 :])
        for corner in corners:
            handle = QRectF(corner.x() - HANDLE, corner.y() - HANDLE, 2 * HANDLE, 2 * HANDLE)
            assert not one.intersects(handle)


@pytest.mark.usefixtures("dressed")
def test_corners_behind_one_another_have_their_numbers_together() -> None:
    corners = [QPointF(100, 100), QPointF(100, 100), QPointF(300, 100), QPointF(302, 101)]
    check(corners, BOX)
    assert sorted(words for words, _ in numbers(corners, BOX)) == ["1, 2", "3, 4"]


@pytest.mark.usefixtures("dressed")
@pytest.mark.parametrize("seed", range(12))
def test_numbers_stand_on_no_other(seed: int) -> None:
    random = np.random.default_rng(seed)
    spots = random.uniform((60, 60), (440, 200), (random.integers(2, 9), 2))
    check([QPointF(float(x), float(y)) for x, y in spots], BOX)


@pytest.mark.parametrize("name", demo_names())
def test_every_line_of_every_demo_is_drawn_so(open_window: Opener, name: str) -> None:
    window = open_window(demo(name))
    shown = page(window)
    plumbing = window.session.build.plumbing
    assert plumbing is not None
    for line in plumbing.lines:
        if line.direct or len(line.route) < 2:
            continue
        shown.look_at(line.id)
        shown.board.grab()
        for view in (0, 1):
            corners = [shown.board.at(view, n) for n in range(len(line.route))]
            check(corners, shown.board.sights()[view].box)


def test_a_lines_sheet_is_one_page_with_its_picture(
    open_window: Opener, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    window = open_window(with_layout(sound()))
    shown = page(window)
    shown.look_at("L5")
    place = tmp_path / "line-5.pdf"
    monkeypatch.setattr(FileChooser, "ask", lambda *_: [str(place)])
    QTest.mouseClick(shown.paper, LEFT)
    read = PdfReader(io.BytesIO(place.read_bytes()))
    assert len(read.pages) == 1
    text = read.pages[0].extract_text().replace("\t", " ").replace("\n", " ")
    for words in (
        "valve body to rear axle hose",
        "Set bender to",
        "Flare the second end",
        "3/8-24",
    ):
        assert words in re.sub(r"\s+", " ", text)


def test_figures_of_a_bend_are_read_at_arms_length(open_window: Opener) -> None:
    shown = page(open_window(with_layout(sound())))
    shown.look_at("L3")
    label = shown.rows.labels[0, "angle"]
    assert label.text.startswith("90")
    heads = [w.text() for w in shown.rows.findChildren(type(shown.length))]
    assert {"feed, in", "turn, deg", "bend, deg"} <= set(heads)
