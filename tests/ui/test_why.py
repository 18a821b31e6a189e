"""Which change did it, in the window: bars that add up, one change tried without, the line."""

from collections.abc import Callable
from datetime import datetime
from typing import Any

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest

from tests.builds import bed
from tests.ui.conftest import page_of
from tests.waiting import rest
from urgens.document import Build, with_changes
from urgens.document.edits.edit import dumped
from urgens.document.edits.past import with_history
from urgens.studies.attribution import CHANCE
from urgens.studies.unlimited import unlimited
from urgens.ui.frame.window import MainWindow

STATION = "Sheet"
STEPS: list[tuple[dict[str, Any], str]] = [
    ({"valves.rear[0].knee": "250 psi"}, "2026-03-02T10:00"),
    ({"rear.tyre.rolling_radius": "12.2 in"}, "2026-04-11T09:30"),
    ({"valves.rear[0].knee": "420 psi"}, "2026-05-02T17:00"),
    ({"pedal.pivot_to_pushrod": "2.5 in"}, "2026-06-14T08:00"),
]
SEEN = [
    {"at": "2026-05-20T12:00", "what": "rear locks on the wet hill", "kind": "symptom"},
    {"at": "2026-06-01T12:00", "what": "fluid changed", "kind": "service"},
]


@pytest.fixture
def changed() -> Build:
    build = bed("bakery")
    for changes, at in STEPS:
        build = with_history(build, with_changes(build, changes), datetime.fromisoformat(at))
    return with_changes(build, {"history": [*dumped(build)["history"], *SEEN]})


@pytest.fixture
def window(open_window: Callable[[Build], MainWindow], changed: Build) -> MainWindow:
    return open_window(changed)


def press(button: Any) -> None:
    QTest.mouseClick(button, Qt.MouseButton.LeftButton)


def test_each_change_has_its_part_and_they_add_up(window: MainWindow, qtbot: Any) -> None:
    page = page_of(window, "Sheet", "Compare")
    page.compare_with(page.others[-1].name)
    press(page.kinds.buttons["why"])
    why = page.why
    qtbot.waitUntil(lambda: why.found is not None and CHANCE in why.found.before, timeout=30_000)

    assert page.table.isHidden()
    assert len(why.rows.rows) == len(STEPS) + 2
    for name, button in why.figures.buttons.items():
        press(button)
        rows = why.rows.rows
        parts = [one.value for one in rows[1:-1]]
        assert sum(parts) == pytest.approx(rows[-1].value - rows[0].value, abs=1e-9)
        assert why.name == name
    press(why.figures.buttons["effort"])
    assert [one.when for one in why.rows.rows[1:-1]] == [
        "2 Mar 2026", "11 Apr 2026", "2 May 2026", "14 Jun 2026"
    ]  # fmt: skip
    effort = float(unlimited(window.session.build).effort[0])
    assert why.rows.rows[-1].value == pytest.approx(effort)
    press(page.kinds.buttons["judged"])
    assert page.why.isHidden()


def test_a_set_up_is_told_apart_too(window: MainWindow, qtbot: Any) -> None:
    page = page_of(window, "Sheet", "Compare")
    page.compare_with("manual")
    press(page.kinds.buttons["why"])
    qtbot.waitUntil(lambda: page.why.found is not None, timeout=30_000)

    assert page.why.rows.rows[0].what == "manual"
    assert page.why.rows.rows[-1].what == "as it is"
    qtbot.waitUntil(lambda: not page.why.busy, timeout=30_000)


def test_the_press_shows_the_build_without_one_change(window: MainWindow) -> None:
    page = page_of(window, "Sheet", "History")
    row = next(i for i, one in enumerate(page.rows) if "Pivot" in one.what)
    page.choose(row)
    session = window.session
    ratio = float(session.pressed_solution.system.pedal_ratio)

    press(page.without)
    assert session.considered.startswith("without: Pivot")
    assert float(session.pressed_solution.system.pedal_ratio) < ratio
    assert float(session.solution.system.pedal_ratio) == ratio
    press(page.without)
    assert session.considered == ""


def test_another_page_or_row_lets_it_go(window: MainWindow) -> None:
    page = page_of(window, "Sheet", "History")
    page.choose(next(i for i, one in enumerate(page.rows) if "Pivot" in one.what))
    press(page.without)
    page.choose(0 if page.chosen else 1)
    assert window.session.considered == ""
    page.choose(next(i for i, one in enumerate(page.rows) if "Pivot" in one.what))
    press(page.without)
    page_of(window, "Sheet", "Compare")
    assert window.session.considered == ""


def test_only_that_one_is_undone_and_an_undo_brings_it_back(window: MainWindow) -> None:
    page = page_of(window, "Sheet", "History")
    page.choose(next(i for i, one in enumerate(page.rows) if "rolling radius" in one.what))
    session = window.session
    assert session.build.rear.tyre.rolling_radius is not None

    press(page.undo)
    old = bed("bakery").rear.tyre
    assert session.build.rear.tyre == old
    assert session.build.pedal.pivot_to_pushrod.text == "2.5 in"
    session.undo_stack.undo()
    assert session.build.rear.tyre.rolling_radius.text == "12.2 in"  # type: ignore[union-attr]


def test_what_has_changed_again_is_not_undone_and_that_is_said(window: MainWindow) -> None:
    page = page_of(window, "Sheet", "History")
    page.choose(next(i for i, one in enumerate(page.rows) if "→ 250 psi" in one.what))

    assert page.undo.isHidden()
    assert page.without.isHidden()
    assert page.stays.text() == (
        "All of it has changed again since: there is nothing to undo alone."
    )


def test_the_line_has_the_margin_after_each_change(
    window: MainWindow, qtbot: Any, changed: Build
) -> None:
    page = page_of(window, "Sheet", "History")
    qtbot.waitUntil(lambda: len(page.line.found) == len(STEPS) + 1, timeout=30_000)

    build = bed("bakery")
    expected = [float(unlimited(build).margin[0])]
    for changes, _ in STEPS:
        build = with_changes(build, changes)
        expected.append(float(unlimited(build).margin[0]))
    assert [one.margin for one in page.line.found] == pytest.approx(expected)
    assert "2026-04-11" in page.line.accessibleName()


def test_without_a_change_on_record_there_is_no_line(
    open_window: Callable[[Build], MainWindow],
) -> None:
    page = page_of(open_window(bed("sprint")), "Sheet", "History")
    rest(50)

    assert page.line.isHidden()
    assert not page.line.busy
