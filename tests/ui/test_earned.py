"""By keys alone: a proof is made, lapses with its ground, and is made again."""

from collections.abc import Callable
from datetime import datetime, timedelta

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QLineEdit, QToolButton

from tests.builds import on_record, unproved, with_changes
from tests.ui.conftest import LEFT, page_of
from urgens.document import Build
from urgens.guidance.condition.holds import condition
from urgens.ui.frame.window import MainWindow
from urgens.ui.stations.bleed.card_page import CardPage

STATION = "Bleed"  # that its windows open at
Opener = Callable[[Build], MainWindow]
ENTER, SPACE = Qt.Key.Key_Return, Qt.Key.Key_Space


def state(window: MainWindow, proof: str) -> str:
    return next(one.state for one in condition(window.session.base).standing.proofs
                if one.name == proof)  # fmt: skip


def made_whole(page: CardPage, name: str, travel: str = "40") -> None:
    """Go through a procedure with keys: tab to what is asked, answer it, Enter."""
    page.choose(name)
    QTest.keyClick(page.plan, ENTER)
    while page.run.record is not None:
        for key, field in page.reading.fields.items():
            if isinstance(field, QToolButton) and key.endswith(("yes", "none")):
                field.setFocus()
                QTest.keyClick(field, SPACE)
            elif isinstance(field, QLineEdit) and key.endswith("travel"):
                field.setFocus()
                QTest.keyClicks(field, travel)
        QTest.keyClick(page.plan, ENTER)


def ago(minutes: int) -> Callable[..., str]:
    """A clock that is so many minutes behind."""
    return lambda to="minutes": (datetime.now() - timedelta(minutes=minutes)).isoformat(timespec=to)


def test_a_proof_is_made_lapses_and_is_made_again_by_keys(
    open_window: Opener, monkeypatch: pytest.MonkeyPatch
) -> None:
    window = open_window(unproved("roadster"))
    page = page_of(window, "Bleed", "Card")
    monkeypatch.setattr(page.run, "_clock", ago(4))
    monkeypatch.setattr("urgens.ui.stations.bleed.joints_page.now", ago(2))
    made_whole(page, "leak-test")
    assert state(window, "leak-test") == "done"
    joints = page_of(window, "Bleed", "Joints")
    QTest.mouseClick(joints.all["tight"], LEFT)  # every joint was open in between
    assert state(window, "leak-test") == "lapsed"
    stands = page_of(window, "Bleed", "As it stands")
    assert stands.verdict.text().startswith("Do not move it")
    page = page_of(window, "Bleed", "Card")
    monkeypatch.setattr(page.run, "_clock", ago(0))
    made_whole(page, "leak-test")
    assert state(window, "leak-test") == "done"
    window.session.undo_stack.undo()
    assert state(window, "leak-test") != "done"


def test_enter_through_every_card_proves_nothing(open_window: Opener) -> None:
    window = open_window(unproved("roadster"))
    page = page_of(window, "Bleed", "Card")
    page.choose("prove-standing")
    QTest.keyClick(page.plan, ENTER)
    while page.run.record is not None:
        QTest.keyClick(page.plan, ENTER)
    proofs = condition(window.session.base).standing.proofs
    assert not any(one.state == "done" for one in proofs)
    assert condition(window.session.base).may_move is False


def test_a_held_vehicle_may_move_once_everything_has_ended(open_window: Opener) -> None:
    build = unproved("roadster")
    whole = on_record(build, 2, "three-strokes")
    window = open_window(with_changes(build, whole))
    assert condition(window.session.base).may_move is False
    page = page_of(window, "Bleed", "Card")
    made_whole(page, "three-strokes")
    assert condition(window.session.base).may_move is True
