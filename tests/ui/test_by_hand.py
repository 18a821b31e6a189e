"""Parts put in by hand in the window: dragged from the strip, and by keys; taken out again."""

from collections.abc import Callable
from typing import Any

import pytest
from PySide6.QtCore import QPoint, QPointF, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QLineEdit, QToolButton

from tests.plumbing.layouts import line_of, part_of, sound, with_layout
from tests.ui.conftest import LEFT
from urgens.document import Build
from urgens.document.layout.layout import Plumbing
from urgens.guidance.words.parts import KINDS
from urgens.guidance.words.terms import matching
from urgens.ui.frame.dialogs import CommandFinder
from urgens.ui.frame.window import MainWindow
from urgens.ui.stations.plumb.layout_page import LayoutPage

STATION = "Plumb"  # that its windows open at

Opener = Callable[[Build], MainWindow]
METRIC = {"thread": "M10x1.0", "seat": "inverted"}


def metric_line() -> dict[str, Any]:
    """An inch car whose line to the rear axle is metric."""
    made = sound()
    line_of(made, "L5")["ends"] = [{"nut": "M10x1.0", "flare": "inverted"}] * 2
    part_of(made, "cv")["ports"]["rear-out"] = METRIC
    part_of(made, "hr")["ports"]["a"] = METRIC
    return made


@pytest.fixture
def window(open_window: Opener) -> MainWindow:
    return open_window(with_layout(metric_line()))


def page(window: MainWindow) -> LayoutPage:
    window.show_station("Plumb")
    found: LayoutPage = window.station("Plumb").layout_page
    return found


def layout(window: MainWindow) -> Plumbing:
    found = window.session.build.plumbing
    assert found is not None
    return found


def on_line(shown: LayoutPage, where: str) -> QPoint:
    """The middle of a line, in the view's own viewport."""
    line = next(one for one in shown.view.schematic.lines if one.where == where)
    found: QPoint = shown.view.mapFromScene(QPointF(*shown.view._middle(line)))
    return found


def adapters(window: MainWindow) -> list[tuple[str | None, str | None]]:
    return [(part.ports["out"].thread, part.ports["in"].thread)
            for part in layout(window).parts if part.kind == "adapter"]  # fmt: skip


def check_sensor(window: MainWindow) -> None:
    """A tee in the metric line, one adapter to the taper thread, the sensor hanging down."""
    parts = layout(window).parts
    assert {"tee", "adapter", "sensor"} <= {part.kind for part in parts}
    assert adapters(window) == [("M10x1.0", "1/8-27 NPT")]
    sensor = next(part for part in parts if part.kind == "sensor")
    assert sensor.attitude == "hangs"
    codes = {one.code for one in window.session.findings}
    assert not codes & {"taper-in-flare-port", "thread-mismatch", "seat-mismatch", "port-open"}
    assert page(window).where == sensor.id


def test_a_sensor_is_dragged_onto_a_metric_line_of_an_inch_car(window: MainWindow) -> None:
    shown = page(window)
    tile = shown.strip.tiles["sensor"]
    target = shown.view.viewport().mapTo(window, on_line(shown, "L5"))
    start = tile.rect().center()
    QTest.mousePress(tile, LEFT, pos=start)
    assert shown.view.placing.kind == "sensor"
    for share in (0.3, 0.7, 1.0):  # a hand that moves on the way
        way = tile.mapFrom(window, target) - start
        QTest.mouseMove(tile, start + way * share)
    assert shown.view.placing.at == "L5"
    assert "line 5, valve body to rear axle hose" in shown.view.accessibleName()
    QTest.mouseRelease(tile, LEFT, pos=tile.mapFrom(window, target))
    check_sensor(window)
    assert shown.view.placing.kind == ""
    window.session.undo_stack.undo()
    assert adapters(window) == []


def test_the_same_by_keys_alone(window: MainWindow) -> None:
    shown = page(window)
    tile = shown.strip.tiles["sensor"]
    tile.setFocus()
    QTest.keyClick(tile, Qt.Key.Key_Return)
    assert window.focusWidget() is shown.view
    assert "goes where it is lit" in shown.hand.text()
    for _ in range(12):
        if shown.view.placing.at == "L5":
            break
        QTest.keyClick(shown.view, Qt.Key.Key_Tab)
    QTest.keyClick(shown.view, Qt.Key.Key_Return)
    check_sensor(window)


def test_a_click_takes_it_up_a_click_puts_it_and_escape_lets_it_go(window: MainWindow) -> None:
    shown = page(window)
    QTest.mouseClick(shown.strip.tiles["union"], LEFT)
    assert shown.strip.tiles["union"].isChecked()
    QTest.keyClick(shown.view, Qt.Key.Key_Escape)
    assert shown.view.placing.kind == ""
    assert not shown.strip.tiles["union"].isChecked()
    QTest.mouseClick(shown.strip.tiles["union"], LEFT)
    QTest.mouseClick(shown.view.viewport(), LEFT, pos=on_line(shown, "L7"))
    assert layout(window).parts[-1].kind == "union"
    steps = window.session.undo_stack.count()
    QTest.mouseClick(shown.strip.tiles["union"], LEFT)
    QTest.mouseClick(shown.view.viewport(), LEFT, pos=QPoint(3, 3))  # far from every line
    assert window.session.undo_stack.count() == steps


def test_what_may_go_nowhere_says_why(window: MainWindow) -> None:
    shown = page(window)
    QTest.mouseClick(shown.strip.tiles["plug"], LEFT)
    assert shown.hand.text() == "No place for a plug: no port is open."


@pytest.mark.parametrize("kind", ["metering", "gauge", "light-switch", "banjo", "reservoir"])
def test_every_kind_is_put_in_by_keys_and_delete_takes_it_out(
    window: MainWindow, kind: str
) -> None:
    shown = page(window)
    before = {part.id for part in layout(window).parts}
    QTest.keyClick(shown.strip.tiles[kind], Qt.Key.Key_Space)
    QTest.keyClick(shown.view, Qt.Key.Key_Right)
    QTest.keyClick(shown.view, Qt.Key.Key_Return)
    (added,) = [p.id for p in layout(window).parts if p.id not in before and p.kind == kind]
    assert shown.where == added
    assert KINDS[kind].lower() in window.session.undo_stack.undoText().lower()
    if kind != "banjo":  # of a port with one line it joins two, and comes out as well
        shown.view.setFocus()
        QTest.keyClick(shown.view, Qt.Key.Key_Delete)
        assert {part.id for part in layout(window).parts} == before


def test_a_port_with_a_hyphen_takes_a_thread(window: MainWindow) -> None:
    shown = page(window)
    shown.look_at("cv")
    button = next(b for b in shown.thing.findChildren(QToolButton)
                  if b.accessibleName().startswith("Thread of rear-in"))  # fmt: skip
    next(a for a in button.menu().actions() if a.text() == "1/2-20").trigger()
    body = next(part for part in layout(window).parts if part.id == "cv")
    assert body.ports["rear-in"].thread == "1/2-20"


def test_what_stays_its_age_and_how_a_sensor_sits_are_chosen(window: MainWindow) -> None:
    shown = page(window)
    shown.look_at("hr")
    stays = next(b for b in shown.thing.findChildren(QToolButton)
                 if b.accessibleName().startswith("Kept or new"))  # fmt: skip
    next(a for a in stays.menu().actions() if a.text() == "kept, it is there").trigger()
    hose = next(part for part in layout(window).parts if part.id == "hr")
    assert hose.stays is True
    shown.look_at("L5")
    made = next(b for b in shown.thing.findChildren(QToolButton)
                if b.accessibleName().startswith("Made"))  # fmt: skip
    next(a for a in made.menu().actions() if a.text() == "already, bent and flared").trigger()
    assert next(line for line in layout(window).lines if line.id == "L5").made is True


def test_what_is_typed_of_a_part_is_taken_back_by_typing_nothing(window: MainWindow) -> None:
    shown = page(window)
    for name, typed, field in (("Marking", "LF 3", "marking"), ("Easy while out", "engine",
                               "easy_while"), ("There since", "2019-05-01", "since")):  # fmt: skip
        for text in (typed, ""):
            shown.look_at("hr")
            line = next(one for one in shown.thing.findChildren(QLineEdit)
                        if one.accessibleName() == name)  # fmt: skip
            line.setText(text)
            line.editingFinished.emit()
            hose = next(part for part in layout(window).parts if part.id == "hr")
            assert str(getattr(hose, field) or "") == text


@pytest.mark.parametrize(
    ("typed", "kind"),
    [("proportioning", "reducing"), ("hold-off", "metering"), ("safety switch", "switch"),
     ("banjo", "banjo"), ("transducer", "sensor")],
)  # fmt: skip
def test_a_trade_name_finds_the_part_and_takes_it_into_the_hand(
    window: MainWindow, typed: str, kind: str
) -> None:
    finder = CommandFinder(window.findable(), window)
    finder.line.setText(typed)
    rows = (finder.list.topLevelItem(n) for n in range(finder.list.topLevelItemCount()))
    titles = [row.text(0) for row in rows if row is not None and not row.isHidden()]
    assert any(title.startswith(f"Put in: {KINDS[kind].lower()}") for title in titles)
    finder.deleteLater()
    window.commands[f"put-{kind}"].trigger()
    assert page(window).view.placing.kind == kind


@pytest.mark.parametrize(
    ("typed", "here"),
    [("proportioning", "reducing valve"), ("hold-off", "metering valve"),
     ("distribution", "distribution block"), ("compensating", "cup covers first")],
)  # fmt: skip
def test_terms_are_found_by_what_shops_call_them(typed: str, here: str) -> None:
    found = matching(typed)
    assert any(here in one.meaning for one in found)
