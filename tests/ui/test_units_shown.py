"""One unit system at a time: every page in the units that are not the build's own."""

import re
from collections.abc import Callable, Iterator

import pytest
from PySide6.QtWidgets import QAbstractButton, QLabel, QWidget

from tests.ui.conftest import every_page
from urgens.document import Build, demo
from urgens.document.catalogue import figures
from urgens.document.kinds.bores import sold_bores
from urgens.document.layout.threads import thread_table
from urgens.quantity import Quantity, UnitSystem
from urgens.ui.frame.window import MainWindow

OF_INCHES = re.compile(r"[\d½¼¾⅛⅜⅝⅞][\d,./\- ]*\s?(psi|lbf|lb|in|ft|mph|°F|in³)\b")
OF_METRES = re.compile(r"\d[\d,.]*\s?(bar|N|kg|mm|m|km/h|°C|cm³|N·m)(?![\w/²])")
AS_PUBLISHED = ("UN Regulation", "Hoses fitted", "m/s²")  # what is said in the units of its source


# Pages with sizes as they are sold: bores, and tubes.
SIZES = (
    "Map",
    "Choose",
    "Booster",
    "Set-ups",
    "Why?",
    "Layout",
    "Lines",
    "Buy",
    "Room and sums",
    "Plan",
)


def said(window: MainWindow) -> Iterator[str]:
    for widget in window.findChildren(QWidget):
        if widget.isVisible():
            yield widget.accessibleName()
            if isinstance(widget, QLabel | QAbstractButton):
                yield widget.text()


def sizes(build: Build) -> set[str]:
    """What is sold by a size of its own, whatever units the rest is in."""
    lengths = {one.value.text for one in figures(build) if isinstance(one.value, Quantity)}
    tubes = {tube.name for tube in thread_table().tubes}
    return lengths | tubes | {bore.text for bore in sold_bores()}


@pytest.mark.parametrize("name", ["library", "tractor"])
def test_no_page_mixes_units(open_window: Callable[[Build], MainWindow], name: str) -> None:
    build = demo(name)
    window = open_window(build)
    window.resize(1500, 950)
    own = build.natural_units
    other, wrong = {
        UnitSystem.INCH: (UnitSystem.METRIC, OF_INCHES),
        UnitSystem.METRIC: (UnitSystem.INCH, OF_METRES),
    }[own]
    window.session.set_units(other)
    known = sorted(sizes(build), key=len, reverse=True)
    mixed = set()
    for station, page in every_page(window, rest=10):
        bores = page in SIZES
        for words in said(window):
            if any(source in words for source in AS_PUBLISHED):
                continue
            left = words
            for size in known if bores else ():
                left = left.replace(size, "")
            if wrong.search(left):
                mixed.add((station, page, words))

    assert mixed == set()
