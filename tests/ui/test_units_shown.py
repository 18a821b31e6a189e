"""One unit system at a time: every page in the units that are not the build's own."""

import re
from collections.abc import Callable, Iterator
from pathlib import Path

import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QAbstractButton, QApplication, QLabel, QWidget

from tests.ui.conftest import every_page
from urgens.document import (
    Build,
    BuildChange,
    BuildErrors,
    changed,
    demo,
    dumps,
    load,
    own_vehicle,
    save,
    with_changes,
)
from urgens.document.catalogue import figure, figures
from urgens.document.kinds.bores import sold_bores
from urgens.document.layout.threads import thread_table
from urgens.quantity import LENGTH, Quantity, Units, UnitSystem, unit_shown
from urgens.ui.frame.settings import Settings
from urgens.ui.frame.window import MainWindow
from urgens.ui.session import Session
from urgens.ui.widgets.dimension_label import Knowledge
from urgens.ui.widgets.figure_label import FigureLabel

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
    for station, page in every_page(window, ms=10):
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


def label_of(window: MainWindow, path: str) -> FigureLabel:
    return next(
        one for one in window.findChildren(FigureLabel) if one.path == path and one.isVisible()
    )


def click_on_unit(label: FigureLabel) -> None:
    at = QPoint(round((label.unit_starts + 4) * label.scale), label.height() // 2)
    QTest.mouseClick(label, Qt.MouseButton.LeftButton, pos=at)


def test_a_figure_has_a_unit_of_its_own(
    open_window: Callable[[Build], MainWindow], tmp_path: Path
) -> None:
    """An inch wheelbase beside metric discs: a click on its unit, for this figure in this build."""
    window = open_window(demo("roadster"))
    window.show_station("Measure")
    pad, rod = "vehicle.wheelbase", "front.brake.effective_radius"
    before = window.session.build
    assert label_of(window, pad).text.endswith(" mm")

    click_on_unit(label_of(window, pad))
    assert label_of(window, pad).editor is None
    assert label_of(window, pad).text.endswith(" in")
    assert label_of(window, rod).text.endswith(" mm")
    assert window.session.build.vehicle == before.vehicle
    assert dict(window.session.build.units) == {pad: "in"}

    window.session.set_units(UnitSystem.INCH)
    assert {label_of(window, path).text[-2:] for path in (pad, rod)} == {"in"}
    window.session.set_units(UnitSystem.METRIC)
    assert label_of(window, pad).text.endswith(" in")

    label_of(window, pad)._take("90.5")  # a bare number is in the unit that is shown
    assert window.session.build.vehicle.wheelbase.text == "90.5 in"
    window.session.save(tmp_path / "own.urgens.json")
    assert dict(load(tmp_path / "own.urgens.json").units) == {pad: "in"}

    QTest.keyClick(label_of(window, pad), Qt.Key.Key_U, Qt.KeyboardModifier.ShiftModifier)
    assert label_of(window, pad).text.endswith(" mm")
    assert dict(window.session.build.units) == {}
    window.session.undo_stack.undo()
    assert dict(window.session.build.units) == {pad: "in"}


def test_a_unit_follows_its_valve_and_what_fits_no_figure_shows_nothing() -> None:
    build = with_changes(demo("roadster"), {"units": {"valves.rear[0].turns": "psi"}})
    assert "units" in dumps(build)
    valves = build.model_dump(mode="json", exclude_unset=True)["valves"]["rear"]
    two = with_changes(build, {
        "valves.rear": [{"kind": "reducing", "knee": "20 bar", "slope": 0.3}, *valves],
        "units": {"valves.rear[0].knee": "psi"},
    })  # fmt: skip
    turned = changed(two, BuildChange("round", orders={"valves.rear": [1, 0]}))
    assert dict(turned.units) == {"valves.rear[1].knee": "psi"}
    with pytest.raises(BuildErrors, match="not a unit known here"):
        with_changes(build, {"units": {"pedal.pivot_to_pad": "furlongs"}})
    odd = with_changes(build, {"units": {"pedal.pivot_to_pad": "psi", "front.gone": "mm"}})
    shown_in = figure(odd, "pedal.pivot_to_pad").shown_in(Units(UnitSystem.METRIC))
    assert unit_shown(LENGTH, shown_in) == "mm"


def test_what_is_typed_with_a_unit_is_shown_in_it(
    open_window: Callable[[Build], MainWindow],
) -> None:
    window = open_window(demo("roadster"))
    window.show_station("Measure")
    path = "vehicle.wheelbase"
    label_of(window, path)._take("91 in")
    assert label_of(window, path).text == "91 in"
    assert dict(window.session.build.units) == {path: "in"}
    label_of(window, path)._take("2,31 m")  # of no system: as it is shown now
    assert label_of(window, path).text == "90.94 in"
    label_of(window, path)._take("2310 mm")
    assert label_of(window, path).text == "2,310 mm"
    assert dict(window.session.build.units) == {}


def test_own_builds_open_in_the_units_last_used(dressed: QApplication, tmp_path: Path) -> None:
    settings = Settings(tmp_path / "settings.ini")
    for last in (UnitSystem.METRIC, UnitSystem.INCH):
        window = MainWindow(Session(demo("library")), settings=settings)
        window.session.set_units(UnitSystem.METRIC)  # both, so that one of them is a change
        window.session.set_units(last)
        other = MainWindow(Session(demo("library")), settings=Settings(tmp_path / "settings.ini"))
        assert other.session.units.system is demo("library").natural_units
        other.files.open_own()
        assert other.session.units.system is last
        save(own_vehicle(), tmp_path / "mine.urgens.json")
        other.files.open_path(tmp_path / "mine.urgens.json")
        assert other.session.units.system is last
        other.files.open_demo("roadster")
        assert other.session.units.system is demo("roadster").natural_units


def test_a_default_that_nobody_typed_looks_assumed_until_it_is_typed(
    open_window: Callable[[Build], MainWindow],
) -> None:
    """As the sheet marks it; what stands for nothing (a grip of 1) is no guess."""
    window = open_window(demo("roadster"))
    window.show_station("Measure")
    window.station("Measure").show_part(2)
    kept = label_of(window, "targets.locked_grip")
    assert kept.known is Knowledge.ASSUMED
    assert label_of(window, "front.tyre.grip").known is Knowledge.YES
    kept._take("0.8")
    assert label_of(window, "targets.locked_grip").known is Knowledge.YES
