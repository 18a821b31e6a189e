"""As it stands: one line, one picture, a row for each hold; noted, gone to, lifted by a reason."""

from collections.abc import Callable

from PySide6.QtCore import Qt
from PySide6.QtTest import QTest

from tests.builds import bed, on_record, with_changes
from tests.guidance.test_holding_jobs import LATER, OPEN_SCREW, a_no, after
from tests.ui.conftest import LEFT, page_of
from tests.waiting import rest
from urgens.document import Build
from urgens.guidance.condition.holds import condition
from urgens.ui.frame.window import MainWindow
from urgens.ui.stations.bleed.stands_page import StandsPage

STATION = "Bleed"  # that its windows open at
Opener = Callable[[Build], MainWindow]
ENTER = Qt.Key.Key_Return


def stands(window: MainWindow) -> StandsPage:
    page = page_of(window, "Bleed", "As it stands")
    assert isinstance(page, StandsPage)
    return page


def test_where_nothing_is_on_record_it_is_said_and_never_as_a_yes(open_window: Opener) -> None:
    page = stands(open_window(bed("library")))
    assert page.verdict.text() == "Nothing is on record yet."
    assert "neither bled nor proved" in page.first.text()
    assert "qualified person come first" in page.first.text()
    assert set(page.plan.states.values()) == {"unknown"}
    assert page.rows.isHidden()


def test_where_nothing_holds_it_the_qualified_check_still_comes_first(open_window: Opener) -> None:
    page = stands(open_window(after()))
    assert page.verdict.text() == "Nothing on record holds it."
    assert "qualified person come first" in page.first.text()
    assert set(page.plan.states.values()) == {"bled"}


def test_every_hold_has_its_number_in_the_picture_and_its_row(open_window: Opener) -> None:
    window = open_window(after(records=[OPEN_SCREW, a_no("pedal-height", 2)]))
    page, holds = stands(window), condition(window.session.base).holds
    assert page.verdict.text() == f"Do not move it: {len(holds)} things hold it."
    numbers = [number for found in page.plan.numbers.values() for number in found]
    placed = [n for n, one in enumerate(holds, 1) if not one.code.startswith("proof")]
    assert sorted(numbers) == placed
    screw = next(n for n, one in enumerate(holds, 1) if one.code == "screw-open")
    assert screw in page.plan.numbers["rear-right"]
    assert page.plan.hosed == {"rear-right"}
    assert "right rear OPEN" in page.plan.accessibleName()


def test_what_a_hand_shut_is_noted_and_holds_no_more(open_window: Opener) -> None:
    window = open_window(after(records=[OPEN_SCREW]))
    page = stands(window)
    QTest.mouseClick(page.list.notes["rear-right"], LEFT)
    assert "rear-right" not in page.list.notes
    QTest.mouseClick(page.list.notes["hose and bottle"], LEFT)
    codes = {one.code for one in condition(window.session.base).holds}
    assert not codes & {"screw-open", "tool-fitted"}
    assert "wheel-not-bled" in codes  # shut is not bled
    window.session.undo_stack.undo()
    assert "hose and bottle" in page.list.notes


def test_a_hold_leads_to_where_it_ends(open_window: Opener) -> None:
    window = open_window(after(records=[a_no("leak-test", 1)]))
    page, holds = stands(window), condition(window.session.base).holds
    leak = next(n for n, one in enumerate(holds) if one.code == "leak")
    QTest.mouseClick(page.list.ways[leak], LEFT)
    assert window.station("Bleed").page.name == "leak-test"


def test_only_a_reason_lifts_a_hold_and_only_some_holds(open_window: Opener) -> None:
    build = bed("library")
    whole = on_record(build, 2, "booster-test")
    window = open_window(with_changes(build, {**whole, "records": [
        *whole["records"], a_no("leak-test", 1),
    ]}))  # fmt: skip
    page = stands(window)
    assert list(page.list.lifts) == ["proof-open booster-test"]  # a leak is lifted by nobody
    QTest.mouseClick(page.list.lifts["proof-open booster-test"], LEFT)
    assert page.list.reason is not None
    rest(20)
    assert page.list.reason.hasFocus()  # who lifts goes on typing
    QTest.keyClick(page.list.reason, ENTER)
    assert window.session.base.noted == ()
    QTest.keyClicks(page.list.reason, "towed, its engine is out")
    QTest.keyClick(page.list.reason, ENTER)
    (noted,) = window.session.base.noted
    assert (noted.what, noted.hold, noted.place) == ("lifted", "proof-open", "booster-test")
    assert "Lifted by you, booster-test: towed, its engine is out." in page.first.text()
    codes = [one.code for one in condition(window.session.base).holds]
    assert "proof-open" not in codes
    assert "leak" in codes


def test_a_joint_that_is_open_stands_in_the_picture(open_window: Opener) -> None:
    joint = {"joint": "L1.b", "state": "started", "at": f"{LATER}T10:00"}
    window = open_window(after(joints=[joint]))
    page = stands(window)
    assert page.plan.numbers["L1.b"] == [1]
    QTest.mouseClick(page.list.ways[0], LEFT)
    assert window.station("Bleed").page.summary.endswith("1 not tight yet")
