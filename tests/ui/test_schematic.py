"""Drawings of parts and lines: chosen and moved by mouse and keys, through a build that follows."""

from collections.abc import Iterator
from dataclasses import replace
from typing import Any

import pytest
from PySide6.QtCore import QPoint, QPointF, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication

from tests.ui.conftest import LEFT, drag
from urgens.ui.widgets.schematic import (
    Schematic,
    SchematicLine,
    SchematicPart,
    SchematicPort,
    SchematicView,
)

PORTS = (SchematicPort("in", (-30.0, 0.0)), SchematicPort("out", (30.0, 0.0)))
CYLINDER = SchematicPart(
    "parts.cylinder", "Cylinder", (60.0, 60.0), (60.0, 40.0), PORTS, movable=True
)
BLOCK = SchematicPart("parts.block", "Block", (260.0, 140.0), (60.0, 40.0), PORTS, movable=True)
BRAKE = SchematicPart("parts.brake", "Brake", (420.0, 140.0), (60.0, 40.0), PORTS)
PIPE = SchematicLine("lines.a", "Pipe", ("parts.cylinder", "out"), ("parts.block", "in"))
HOSE = SchematicLine("lines.b", "Hose", ("parts.block", "out"), ("parts.brake", "in"))


class Layout:
    """A build of a few parts: moved by what the view asks, drags as one step each."""

    def __init__(self) -> None:
        self.schematic = Schematic((CYLINDER, BLOCK, BRAKE), (PIPE, HOSE))
        self.before = self.schematic
        self.drags: list[str] = []
        self.view: Any = None

    def begin_drag(self) -> None:
        self.before = self.schematic
        self.drags.append("begun")

    def end_drag(self) -> None:
        self.drags.append("ended")

    def cancel_drag(self) -> None:
        self.drags.append("put back")
        self.schematic = self.before
        self.view.show_schematic(self.schematic)

    def move(self, where: str, to: QPointF) -> None:
        parts = tuple(
            replace(part, at=to.toTuple()) if part.where == where else part
            for part in self.schematic.parts
        )
        self.schematic = replace(self.schematic, parts=parts)
        self.view.show_schematic(self.schematic)


@pytest.fixture
def layout(dressed: QApplication, qtbot: Any) -> Iterator[Layout]:
    made = Layout()
    made.view = SchematicView(made, "A layout")
    qtbot.addWidget(made.view)
    made.view.resize(560, 240)
    made.view.show()
    made.view.show_schematic(made.schematic)
    made.view.moved.connect(made.move)
    qtbot.waitExposed(made.view)
    yield made
    made.view.hide()


def on(layout: Layout, x: float, y: float) -> QPoint:
    found: QPoint = layout.view.mapFromScene(QPointF(x, y))
    return found


def test_a_line_runs_level_and_upright_from_port_to_port(layout: Layout) -> None:
    assert layout.schematic.route(PIPE) == ((90, 60), (160, 60), (160, 140), (230, 140))
    assert layout.schematic.route(HOSE) == ((290, 140), (390, 140))


@pytest.mark.parametrize(
    ("spot", "where"), [(CYLINDER.at, CYLINDER.where), ((160, 100), PIPE.where), ((20, 150), "")]
)
def test_a_click_chooses_a_part_or_a_line(
    layout: Layout, spot: tuple[float, float], where: str
) -> None:
    told: list[str] = []
    layout.view.chosen.connect(told.append)
    QTest.mouseClick(layout.view.viewport(), LEFT, pos=on(layout, *spot))

    assert layout.view.where == where
    assert told == ([where] if where else [])
    assert layout.drags == []


def test_a_part_is_dragged_on_the_grid_as_one_step_and_its_lines_follow(layout: Layout) -> None:
    drag(layout.view.viewport(), on(layout, *BLOCK.at), on(layout, 303, 98))

    assert layout.schematic.part(BLOCK.where).at == (300, 100)
    assert layout.drags == ["begun", "ended"]
    assert layout.schematic.route(PIPE)[-1] == (270, 100)
    line = layout.view.items_by_place[PIPE.where]
    assert line.shape().contains(QPointF(265, 100))


def test_escape_puts_a_part_back(layout: Layout) -> None:
    drag(layout.view.viewport(), on(layout, *BLOCK.at), on(layout, 303, 98), release=False)
    QTest.keyClick(layout.view, Qt.Key.Key_Escape)
    QTest.mouseMove(layout.view.viewport(), on(layout, 350, 60))
    QTest.mouseRelease(layout.view.viewport(), LEFT, pos=on(layout, 350, 60))

    assert layout.schematic.part(BLOCK.where).at == BLOCK.at
    assert layout.drags == ["begun", "put back"]


def test_what_is_not_movable_is_not_moved(layout: Layout) -> None:
    drag(layout.view.viewport(), on(layout, *BRAKE.at), on(layout, 300, 50))

    assert layout.view.where == BRAKE.where
    assert layout.schematic.part(BRAKE.where).at == BRAKE.at
    assert layout.drags == []


def test_keys_go_through_parts_and_lines_move_and_ask(layout: Layout) -> None:
    view, asked = layout.view, []
    view.asked.connect(asked.append)
    view.setFocus()
    QTest.keyClick(view, Qt.Key.Key_Tab)
    assert view.where == CYLINDER.where
    QTest.keyClick(view, Qt.Key.Key_Right)
    assert layout.schematic.part(CYLINDER.where).at == (70, 60)
    QTest.keyClick(view, Qt.Key.Key_Tab)
    QTest.keyClick(view, Qt.Key.Key_Up)
    assert layout.schematic.part(BLOCK.where).at == (260, 130)
    for _ in range(3):
        QTest.keyClick(view, Qt.Key.Key_Tab)
    assert view.where == HOSE.where
    assert view.accessibleName() == "A layout: Hose"
    QTest.keyClick(view, Qt.Key.Key_Return)
    assert asked == [HOSE.where]
    QTest.keyClick(view, Qt.Key.Key_Backtab)
    assert view.where == PIPE.where


def test_an_item_lives_as_long_as_its_place(layout: Layout) -> None:
    view = layout.view
    block = view.items_by_place[BLOCK.where]
    view.choose(BRAKE.where)
    view.show_schematic(Schematic((CYLINDER, BLOCK), (PIPE,)))

    assert view.items_by_place[BLOCK.where] is block
    assert view.where == ""
    assert set(view.items_by_place) == {CYLINDER.where, BLOCK.where, PIPE.where}
