"""Hands that do not wait: undo while something is worked out, another theme in an exercise."""

import random
from collections.abc import Callable
from pathlib import Path

import pytest

from tests.builds import bed
from tests.fuzzing import fuzzed
from tests.ui.conftest import page_of
from tests.waiting import rest
from urgens.document import Build, demo, dumps
from urgens.ui.frame.window import MainWindow

STATION = "Trace"  # that its windows open at

BUSY = (("Balance", "Choose"), ("Balance", "How sure"), ("Prove", "Stops"), ("Prove", "Logs"),
        ("Trace", "Fault"), ("Sheet", "Build sheet"), ("Plumb", "Ways"))  # fmt: skip
EDITS = (
    ("targets.surface", 0.7), ("front.brake.pad_friction", 0.3), ("proof.logs", []),
    ("proof.stops", []), ("vehicle.wheelbase", "2.5 m"),
)  # fmt: skip


@pytest.mark.fuzz
def test_what_is_taken_back_while_it_is_worked_out_harms_nothing(
    open_window: Callable[[Build], MainWindow], no_dialogs: None
) -> None:
    """Log and stops are taken out and come back while they are read."""
    for seed in fuzzed(3):
        _take_back(open_window(demo("roadster")), random.Random(seed))


def _take_back(window: MainWindow, chance: random.Random) -> None:
    session, text = window.session, dumps(window.session.base)
    stack = session.undo_stack

    def edit() -> None:
        session.edit(*chance.choice(EDITS))

    for _ in range(10):
        page_of(window, *chance.choice(BUSY))
        for _ in range(chance.randrange(1, 4)):
            chance.choice([edit, edit, stack.undo, stack.redo])()
            rest(chance.choice((0, 1, 40, 120)))
    while stack.canUndo():
        stack.undo()

    assert dumps(session.base) == text


@pytest.mark.fuzz
def test_an_exercise_goes_on_whatever_is_done_beside_it(
    open_window: Callable[[Build], MainWindow], no_dialogs: None, tmp_path: Path
) -> None:
    """Minutes never go back: no edit, undo, save, theme, size or visit ends an exercise."""
    for seed in fuzzed(5):
        _exercise(open_window(bed("tender")), random.Random(seed), tmp_path / "a.urgens.json")


def _exercise(window: MainWindow, chance: random.Random, file: Path) -> None:
    session, before = window.session, 0

    def trainer() -> object:
        return page_of(window, "Trace", "Trainer")

    def test() -> None:
        page = page_of(window, "Trace", "Trainer")
        if page.tests:
            page.make_test(chance.choice(list(page.tests)))

    actions = [
        test, test, trainer, window.switch_theme, window.stand_back, session.undo_stack.undo,
        lambda: session.edit("notes", str(chance.random())),
        lambda: session.edit("targets.surface", chance.uniform(0.3, 0.9)),
        lambda: session.save(file), lambda: page_of(window, "Balance", "Set"),
        lambda: page_of(window, "Trace", "Trainer").take_reading(),
    ]  # fmt: skip
    for _ in range(18):
        page = page_of(window, "Trace", "Trainer")
        assert page.now is not None
        assert page.now.minutes >= before
        before = page.now.minutes
        chance.choice(actions)()
    assert before > 0
