"""Facts that findings hang on, told in the window."""

from collections.abc import Callable

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest

from tests.builds import bed
from tests.ui.conftest import type_into
from tests.waiting import rest
from urgens.document import Build
from urgens.physics.axle import AXLES
from urgens.ui.frame.window import MainWindow
from urgens.ui.stations.measure.facts_board import CHOICES, FIGURES, FactsBoard
from urgens.ui.widgets.choice_button import ChoiceButton

STATION = "Measure"  # that its windows open at

Opener = Callable[[Build], MainWindow]


@pytest.fixture
def facts(open_window: Opener) -> tuple[MainWindow, FactsBoard]:
    window = open_window(bed("bakery"))
    window.show_station("Measure")
    station = window.station("Measure")
    station.show_part(2)
    rest(20)
    return window, station.facts


def chosen(board: FactsBoard, name: str, words: str) -> ChoiceButton:
    (button,) = [one for one in board.choices if one.text().startswith(name)]
    (action,) = [one for one in button.menu().actions() if one.text() == words]
    action.trigger()
    return button


def test_a_switch_that_is_missing_is_a_danger_at_once(facts: tuple[MainWindow, FactsBoard]) -> None:
    window, board = facts
    button = chosen(board, "Brake-light switch", "none")
    assert button.text() == "Brake-light switch: none"
    assert "no-brake-light-switch" in {finding.code for finding in window.session.findings}
    chosen(board, "Brake-light switch", "at the pedal")
    assert "no-brake-light-switch" not in {f.code for f in window.session.findings}


@pytest.mark.parametrize("name", [name for name, _, _ in CHOICES])
def test_every_choice_goes_into_the_build(facts: tuple[MainWindow, FactsBoard], name: str) -> None:
    window, board = facts
    (button,) = [one for one in board.choices if one.text().startswith(f"{name}:")]
    words = [action.text() for action in button.menu().actions()]
    for said in words:
        chosen(board, name, said)
        assert button.text() == f"{name}: {said}"
    assert window.session.undo_stack.count() >= len(words) - 1


def test_what_a_seat_keeps_counts_as_a_residual_valve(facts: tuple[MainWindow, FactsBoard]) -> None:
    window, board = facts
    label = board.residuals["front"]  # type: ignore[index]
    QTest.keyClick(label, Qt.Key.Key_Return)
    QTest.keyClicks(label.editor, "10 psi")
    QTest.keyClick(label.editor, Qt.Key.Key_Return)
    assert window.session.build.master.outlets[0].residual is not None
    said = {finding.code: finding for finding in window.session.findings}
    assert said["residual-in-disc-circuit"].where == "master.outlets[0].residual"
    assert label.text == "10 psi"
    window.session.apply(said["residual-in-disc-circuit"].fixes[0])
    assert label.text == "none"


def test_cup_expanders_are_told_of_drums_alone(facts: tuple[MainWindow, FactsBoard]) -> None:
    window, board = facts
    front, rear = (board.cups[axle] for axle in AXLES)
    assert front.isHidden()
    assert not rear.isHidden()
    for said, found in (("none", True), ("fitted", False)):
        next(one for one in rear.menu().actions() if one.text() == said).trigger()
        assert rear.text() == f"Cup expanders, rear drums: {said}"
        codes = {finding.code for finding in window.session.findings}
        assert ("residual-missing" in codes) is found
    window.station("Measure").show_part(0)
    assert window.station("Measure").go_to("rear.brake.cup_expanders")
    assert rear.isVisible()
    assert rear.hasFocus()


def test_a_date_that_is_none_is_refused_in_words(facts: tuple[MainWindow, FactsBoard]) -> None:
    window, board = facts
    chosen(board, "Fluid", "DOT 4")
    QTest.keyClick(board.filled, Qt.Key.Key_Return)
    QTest.keyClicks(board.filled.editor, "last May")
    QTest.keyClick(board.filled.editor, Qt.Key.Key_Return)
    assert "is no date" in board.filled.error
    board.filled.editor.setText("2019-05-31")
    QTest.keyClick(board.filled.editor, Qt.Key.Key_Return)
    assert "fluid-old" in {finding.code for finding in window.session.findings}


def test_grip_of_the_tyres_is_typed_and_moves_who_locks_first(
    facts: tuple[MainWindow, FactsBoard],
) -> None:
    window, board = facts
    before = window.session.solution.lock.effort[0, -1]
    type_into(board.labels["rear.tyre.grip"], "1.2")
    assert window.session.build.rear.tyre.grip == 1.2
    assert window.session.solution.lock.effort[0, -1] > before
    assert {path for _, path in FIGURES} == set(board.labels)
    assert window.station("Measure").go_to("targets.corner")
    assert window.focusWidget() is board.labels["targets.corner"]
