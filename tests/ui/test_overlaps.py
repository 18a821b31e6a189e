"""No painted word over another, over a figure, or beyond its drawing; `make fuzz`: all pages."""

import importlib
import pkgutil
import random
import sys
from collections.abc import Callable, Iterator
from typing import Any, Literal

import pytest
from PySide6.QtCore import QPointF, QRectF
from PySide6.QtGui import QPainter
from PySide6.QtWidgets import QWidget
from shiboken6 import isValid

from tests.builds import bed
from tests.fuzzing import MINUTES
from tests.waiting import rest
from urgens.document import Build, demo_names
from urgens.ui import stations
from urgens.ui.frame.stations import STATIONS
from urgens.ui.frame.window import MainWindow
from urgens.ui.theme.paint import metrics, width
from urgens.ui.widgets import board
from urgens.ui.widgets.dimension_label import DimensionLabel

SIZES = ((1280, 800), (1024, 700), (1920, 1200), (1100, 900))
SHARE = 1.0 if MINUTES else 0.08  # of the pages, of each build at each size
EDGE = 2.0  # px that a word may stand out, or lie over another's
PAGES = [(kind.name, page) for kind in STATIONS for page in kind.pages or ("",)]
Written = dict[QWidget, dict[tuple[str, int, int], QRectF]]


def written(
    painter: QPainter, words: str, at: QPointF, size: int, weight: int, side: str
) -> QRectF:
    """Where words stand, by their capitals, on what they are painted on."""
    across, tall = width(words, size, weight), metrics(size, weight).capHeight()
    share = {"left": 0.0, "middle": 0.5, "right": 1.0}[side]
    box = QRectF(at.x() - share * across, at.y() - tall, across, tall)
    return painter.worldTransform().mapRect(box)


@pytest.fixture
def told(monkeypatch: pytest.MonkeyPatch) -> Written:
    """All words that are painted, by what they are painted on."""
    found: Written = {}
    original = board.write
    for one in pkgutil.walk_packages(stations.__path__, f"{stations.__name__}."):
        importlib.import_module(one.name)  # none is to come later and keep what is put in here

    def write(
        painter: QPainter, words: str, at: QPointF, *, size: int = 15, weight: int = 400,
        color: str | None = None, side: Literal["left", "middle", "right"] = "left",
    ) -> None:  # fmt: skip
        original(painter, words, at, size=size, weight=weight, color=color, side=side)
        device: Any = painter.device()
        if isinstance(device, QWidget) and words.strip():
            box = written(painter, words, at, size, weight, side)
            found.setdefault(device, {})[words, round(box.x()), round(box.y())] = box

    for name, module in list(sys.modules.items()):
        if name.startswith("urgens.ui") and getattr(module, "write", None) is original:
            monkeypatch.setattr(module, "write", write)
    return found


def faults(device: QWidget, rows: dict[tuple[str, int, int], QRectF]) -> Iterator[str]:
    """What is cut, and what lies over something else."""
    inside = QRectF(device.rect()).adjusted(-EDGE, -EDGE, EDGE, EDGE)
    figures = [
        (one.text, QRectF(one.geometry()).adjusted(4, 4, -4, -6))
        for one in device.findChildren(DimensionLabel)
        if one.isVisible() and one.parentWidget() is device
    ]
    boxes = [(words, box) for (words, _, _), box in rows.items()]
    for place, (words, box) in enumerate(boxes):
        if not inside.contains(box):
            yield f"“{words}” is cut"
        for other, second in (*boxes[place + 1 :], *figures):
            over = box.intersected(second)
            if over.width() > EDGE and over.height() > EDGE and words != other:
                yield f"“{words}” over “{other}”"


@pytest.mark.fuzz
@pytest.mark.parametrize("size", SIZES, ids=str)
@pytest.mark.parametrize("name", demo_names())
def test_no_word_is_cut_or_lies_over_another(
    name: str, size: tuple[int, int], told: Written, open_window: Callable[[Build], MainWindow]
) -> None:
    window = open_window(bed(name))
    window.resize(*size)
    chance = random.Random(None if MINUTES else f"{name} {size}")
    for station, page in (one for one in PAGES if chance.random() < SHARE):
        window.show_station(station)
        if page:
            window.station(station).show_page_named(page)
        rest(60)
        told.clear()
        for one in window.findChildren(QWidget):
            if one.isVisible():
                one.update()
        rest(30)
        for device, rows in told.items():
            if isValid(device) and device.isVisible() and type(device) is not QWidget:  # no list's
                assert list(faults(device, rows)) == [], (station, page, type(device).__name__)
