"""What holds across parts: refused edits are said, nothing typed is lost, nothing seen is stale."""

from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest
from PySide6.QtCore import QEvent, QPoint, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QMenu, QPushButton
from pytestqt.qtbot import QtBot

from tests.builds import bed
from tests.ui.conftest import drag
from tests.waiting import rest
from urgens.document import Build, changed, value_at, with_changes
from urgens.document.edits.change import BuildChange
from urgens.ui.frame.caution import READ
from urgens.ui.frame.settings import Settings
from urgens.ui.frame.window import MainWindow
from urgens.ui.session import Session
from urgens.ui.stations.balance import sure_page
from urgens.ui.widgets.figure_label import FigureLabel

STATION = "Bleed"  # that its windows open at

Opener = Callable[[Build], MainWindow]
Answer = Callable[[str], list[str]]
LEFT = Qt.MouseButton.LeftButton
REDUCING = {"kind": "reducing", "knee": "30 bar", "slope": 0.4}
MEASURED = {"state": "measured"}
SLOW = 10_000  # ms, on a loaded machine


def page(window: MainWindow, station: str, name: str) -> Any:
    window.show_station(station)
    window.station(station).show_page_named(name)
    rest(20)
    return window.station(station).page


def with_evidence(build: Build, *paths: str) -> Build:
    return changed(build, BuildChange("known", known=dict.fromkeys(paths, MEASURED)))


# --- refused edits ---


def test_a_valve_goes_with_what_was_known_of_it(open_window: Opener) -> None:
    two = with_changes(bed("roadster"), {"valves.rear": [REDUCING, REDUCING]})
    window = open_window(with_evidence(two, "valves.rear[0].knee", "valves.rear[1].slope"))
    shown, session = page(window, "Balance", "Valves"), window.session
    QTest.mouseClick(shown.out, LEFT)

    assert len(session.build.valves.rear) == 1
    assert set(session.build.evidence) == {"valves.rear[0].slope"}
    session.undo_stack.undo()
    assert set(session.build.evidence) == {"valves.rear[0].knee", "valves.rear[1].slope"}


def test_a_fix_is_done_while_something_is_known_of_the_valve_it_takes_out(
    open_window: Opener,
) -> None:
    two = with_changes(bed("roadster"), {"valves.rear": [REDUCING, REDUCING]})
    window = open_window(with_evidence(two, "valves.rear[1].slope"))
    session = window.session
    (finding,) = [f for f in session.findings if f.code == "two-reducing-in-series"]
    (fix,) = finding.fixes
    session.apply(fix)

    assert len(session.build.valves.rear) == 1
    assert "two-reducing-in-series" not in {f.code for f in session.findings}


def test_an_edit_that_is_refused_is_said_and_changes_nothing(
    window: MainWindow, answer: Answer
) -> None:
    before, said = window.session.base, answer("OK")
    window.session.edit("master.efficiency", 1.2)

    assert said[0] == "Nothing was changed"
    assert said[1].startswith("master.efficiency: ")
    assert window.session.base is before
    assert window.session.undo_stack.count() == 0


def test_a_figure_stepped_past_what_can_be_says_why(open_window: Opener) -> None:
    launch = {
        "stall_torque": "200 lbf.ft",
        "gear_ratio": 2.5,
        "final_drive": 4.1,
        "driven": "rear",
        "efficiency": 1.0,
    }
    window = open_window(with_changes(bed("bakery"), {"vehicle.launch": launch}))
    shown = page(window, "Size", "Launch")
    (efficiency,) = [x for x in shown.findChildren(FigureLabel) if x.path.endswith("efficiency")]
    efficiency.setFocus()
    QTest.keyClick(efficiency, Qt.Key.Key_Up)

    assert efficiency.error == "is the number 1.01; write a number of at most 1"
    assert window.session.undo_stack.count() == 0


# --- work that fails ---


def test_a_draw_that_fails_is_said_where_it_would_stand(
    open_window: Opener, qtbot: Any, monkeypatch: pytest.MonkeyPatch
) -> None:
    def fail(*_: object) -> None:
        raise ArithmeticError("a matrix that cannot be solved")

    monkeypatch.setattr(sure_page, "robustness", fail)
    traced: list[object] = []
    monkeypatch.setattr("sys.excepthook", lambda *what: traced.append(what[0]))
    shown = page(open_window(bed("bakery")), "Balance", "How sure")
    qtbot.waitUntil(lambda: bool(shown.view.failure), timeout=5000)

    assert "a matrix that cannot be solved" in shown.view.failure
    assert shown.summary == "it could not be drawn"
    assert not shown.stop.isEnabled()
    assert traced == [ArithmeticError]


# --- lists, with a set-up chosen ---


def test_a_load_case_moved_with_a_set_up_chosen_takes_along_what_names_it(
    open_window: Opener,
) -> None:
    heavier = {"name": "heavier", "changes": {"vehicle.load_cases[1].cg_height": "31 in"}}
    base = with_changes(bed("bakery"), {"setups": [heavier]})
    base = with_evidence(base, "vehicle.load_cases[1].cg_height")
    window = open_window(base)
    session, cases = window.session, window.station("Measure").cases
    name = session.base.vehicle.load_cases[1].name
    session.set_setup("heavier")
    session.set_load_case(name)
    window.show_station("Measure")
    QTest.mouseClick(cases.earlier, LEFT)

    assert session.base.vehicle.load_cases[0].name == name
    assert session.base.setups[0].changes == {"vehicle.load_cases[0].cg_height": "31 in"}
    assert set(session.base.evidence) == {"vehicle.load_cases[0].cg_height"}
    assert session.setup == "heavier"
    session.undo_stack.undo()
    assert session.base == base
    assert session.base.setups[0].changes == {"vehicle.load_cases[1].cg_height": "31 in"}


def test_what_is_known_is_said_of_the_build_while_a_set_up_is_chosen(
    dressed: QApplication,
) -> None:
    low = {"name": "low knee", "changes": {"valves.rear[0].knee": "275 psi"}}
    session = Session(with_changes(bed("bakery"), {"setups": [low]}))
    session.set_setup("low knee")
    session.settle("pedal.pivot_to_pad", "measured")

    assert session.base.evidence["pedal.pivot_to_pad"].state == "measured"
    assert session.base.setups[0].changes == low["changes"]


# --- a switch of theme, and what is not seen ---


def test_a_switch_of_theme_keeps_the_page_and_what_was_typed(
    window: MainWindow, dressed: QApplication
) -> None:
    shown = page(window, "Balance", "What changed?")
    name = next(iter(shown.amounts))
    shown.amounts[name] *= 1.5
    typed = dict(shown.amounts)
    window.switch_theme()
    rest(20)
    after = window.station("Balance")

    assert after.page is not shown
    assert (window.bench.name, after.page_name) == ("Balance", "What changed?")
    assert after.page.amounts == typed
    window.switch_theme()


def test_switches_of_theme_leave_no_menus_behind(window: MainWindow, dressed: QApplication) -> None:
    def menus() -> int:
        rest(10)
        dressed.sendPostedEvents(None, QEvent.Type.DeferredDelete.value)
        return len([w for w in dressed.allWidgets() if isinstance(w, QMenu)])

    window.switch_theme()
    before = menus()
    for _ in range(4):
        window.switch_theme()

    assert menus() == before
    window.switch_theme()


@pytest.mark.parametrize("name", ["Pedal", "Feel", "Booster", "Half lost"])
def test_a_page_that_was_not_seen_shows_the_build_as_it_is_when_it_is(
    open_window: Opener, qtbot: QtBot, name: str
) -> None:
    """A page that never lived through the change is the second way.

    The figures are as wide as those before, since a label never grows narrower.
    """
    changes = {"pedal.pivot_to_pad": "13-13/16 in", "master.bore": "1-1/16 in"}
    window = open_window(bed("bakery"))
    page(window, "Size", name)
    window.show_station("Balance")
    window.session.make(BuildChange("Two figures", changes))
    seen = page(window, "Size", name)
    fresh = page(open_window(with_changes(bed("bakery"), changes)), "Size", name)
    assert seen.summary == fresh.summary

    def alike() -> None:
        assert seen.grab().toImage() == fresh.grab().toImage()

    qtbot.waitUntil(alike, timeout=SLOW)  # a long page has its scroll bar a moment later


# --- the caution ---


@pytest.mark.parametrize("way", ["escape", "closed", "later", "read"])
def test_the_caution_counts_as_read_by_its_button_alone(
    window: MainWindow, tmp_path: Path, way: str
) -> None:
    window.settings = Settings(tmp_path / "settings.ini")
    box = window.show_caution()
    assert box is not None
    buttons = {b.text().replace("&", ""): b for b in box.findChildren(QPushButton)}
    if way == "escape":
        QTest.keyClick(box, Qt.Key.Key_Escape)
    elif way == "closed":
        box.close()
    else:
        buttons[{"later": "Later", "read": READ}[way]].click()

    assert Settings(tmp_path / "settings.ini").caution_read == (way == "read")
    assert value_at(window.session.base, "name") == "Wexcombe"


# --- the hand ---


def test_a_drag_ends_with_the_page_it_was_on(window: MainWindow) -> None:
    board = page(window, "Size", "Map").windows
    start = board.edge("targets.max_effort").toPoint()
    drag(board, start, start - QPoint(40, 0), release=False)
    assert window.session.dragging
    window.show_station("Balance")

    assert not window.session.dragging
    assert window.session.undo_stack.count() == 1


def test_what_was_put_back_stays_so_until_the_button_is_up(window: MainWindow) -> None:
    board, before = page(window, "Size", "Map").windows, window.session.base
    start = board.edge("targets.max_effort").toPoint()
    drag(board, start, start - QPoint(40, 0), release=False)
    QTest.keyClick(board, Qt.Key.Key_Escape)
    QTest.mouseMove(board, start - QPoint(80, 0))
    QTest.mouseRelease(board, LEFT, pos=start - QPoint(80, 0))

    assert window.session.base == before
    assert window.session.undo_stack.count() == 0


def test_the_last_finding_goes_while_something_is_dragged(open_window: Opener) -> None:
    """The line says that nothing is found, and takes no key for what is gone."""
    window = open_window(bed("roadster"))
    session, line = window.session, window.finding_line
    turns = session.build.valves.rear[0].turns  # type: ignore[union-attr]
    assert line.finding is None
    session.begin_drag()
    session.edit("valves.rear[0].turns", 8.0)
    rest(100)  # words follow a little later
    line.go_to(len(session.findings) - 1)
    assert line.finding is not None
    session.edit("valves.rear[0].turns", turns)
    line.advance()  # before the line has been told
    line.apply_fix()
    rest(100)

    assert line.finding is None
    assert line.message.text.startswith("in what is computed here.")
    assert line.count.text() == ""
    session.end_drag()
    assert session.build == bed("roadster")
