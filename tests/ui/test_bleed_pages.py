"""Records, open items and fluids in the window."""

from collections.abc import Callable
from datetime import date
from typing import Any

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QLabel

from tests.builds import bed
from tests.ui.conftest import LEFT
from tests.waiting import rest
from urgens.document import Build, edited, with_changes
from urgens.ui.frame.window import MainWindow

STATION = "Bleed"  # that its windows open at

Opener = Callable[[Build], MainWindow]
RUN = {"procedure": "bleed", "method": "pedal", "started": "2026-05-02T14:10",
       "ended": "2026-05-02T15:00", "people": ["Ann"], "checked_by": "Jo"}  # fmt: skip


def entry(field: str, value: object, **more: object) -> dict[str, object]:
    return {"at": "2026-05-02T14:22", "step": 8, "field": field, "value": value, **more}


def shown(window: MainWindow, name: str) -> Any:
    window.show_station("Bleed")
    window.station("Bleed").show_page_named(name)
    return window.station("Bleed").page


def words(page: Any) -> str:
    rest(20)
    return "\n".join(one.text() for one in page.findChildren(QLabel) if one.isVisible())


def test_the_pedal_is_read_again_next_morning(open_window: Opener) -> None:
    window = open_window(edited(bed("library"), "records", [RUN]))
    page = shown(window, "Records")
    window.session.set_effort(267.0)
    for when, typed in (("now", "3.3"), ("morning", "3.6")):
        QTest.mouseClick(page.travel.when[when], LEFT)
        QTest.keyClicks(page.travel.field, typed)
        QTest.keyClick(page.travel.field, Qt.Key.Key_Return)
    read = window.session.build.records[0].entries
    assert [(one.when, one.value) for one in read] == [("now", 83.82), ("morning", 91.44)]
    assert "grown by" in words(page)
    assert "whether the booster worked is not noted" in words(page)
    QTest.mouseClick(page.travel.help["out"], LEFT)
    QTest.keyClicks(page.travel.field, "3.3")
    QTest.keyClick(page.travel.field, Qt.Key.Key_Return)
    assert window.session.build.records[0].entries[-1].booster == "out"
    assert "without the booster" in words(page)
    window.session.undo_stack.undo()
    window.session.undo_stack.undo()
    assert len(window.session.build.records[0].entries) == 1


@pytest.mark.parametrize(
    ("typed", "said"), [("", "Type what"), ("-1", "less than nothing"), ("99", "the floor")]
)
def test_a_travel_that_cannot_be_is_refused_in_words(
    open_window: Opener, typed: str, said: str
) -> None:
    window = open_window(edited(bed("library"), "records", [RUN]))
    page = shown(window, "Records")
    page.travel.field.setText(typed)
    QTest.mouseClick(page.travel.keep, LEFT)
    assert said in page.travel.refused.text()
    assert window.session.build.records[0].entries == ()


def test_a_run_of_a_day_to_come_says_that_it_proves_nothing(open_window: Opener) -> None:
    later = {**RUN, "started": "2199-05-02T14:00", "ended": "2199-05-02T15:00"}
    page = shown(open_window(edited(bed("library"), "records", [RUN, later])), "Records")
    assert words(page).count("that proves nothing") == 1


def test_without_a_run_there_is_nothing_to_add_to(open_window: Opener) -> None:
    page = shown(open_window(bed("library")), "Records")
    assert not page.travel.keep.isEnabled()
    assert "Nothing has been done yet" in words(page)


def test_a_run_is_told_with_who_and_what_each_wheel_gave(open_window: Opener) -> None:
    read = [entry("strokes", 10.0, wheel="rear-right"), entry("amount", 20.0, wheel="rear-right"),
            entry("travel", 90.0, effort="60 lbf", when="stroke-1"),
            entry("travel", 80.0, effort="60 lbf", when="stroke-3")]  # fmt: skip
    window = open_window(edited(bed("library"), "records", [{**RUN, "entries": read}]))
    page = shown(window, "Records")
    told = words(page)
    for said in ("By Ann", "Checked by Jo", "Right rear: strokes 10, amount 20 ml", "little comes",
                 "was clearance"):  # fmt: skip
        assert said in told
    QTest.mouseClick(page.views["wheel"], LEFT)
    told = words(page)
    assert "2026-05-02  strokes 10, amount 20 ml" in told
    assert told.count("Nothing was read at this wheel.") == 3


def test_an_item_is_noted_holds_the_vehicle_and_is_done(open_window: Opener) -> None:
    window = open_window(bed("library"))
    stands = shown(window, "As it stands")
    page = stands.items
    QTest.keyClicks(page.fields["what"], "stand-in hose")
    QTest.keyClicks(page.fields["due"], "2027-01-31")
    QTest.keyClicks(page.fields["easy_while"], "axle")
    page.holds.setChecked(True)
    QTest.keyClick(page.fields["due"], Qt.Key.Key_Return)
    (item,) = window.session.build.open_items
    assert (item.what, item.holds_vehicle, item.due) == ("stand-in hose", True, date(2027, 1, 31))
    assert item.easy_while == "axle"
    assert stands.summary == "do not move it: 1 thing holds it; 1 noted as open"
    assert "Still open: stand-in hose." in words(stands.list)
    QTest.mouseClick(page.buttons[0, "done"], LEFT)
    assert window.session.build.open_items[0].done == date.today()
    assert "stand-in hose" not in words(stands.list)
    QTest.mouseClick(page.buttons[0, "done"], LEFT)
    QTest.mouseClick(page.buttons[0, "holds"], LEFT)
    assert not window.session.build.open_items[0].holds_vehicle
    QTest.mouseClick(page.buttons[0, "gone"], LEFT)
    assert window.session.build.open_items == ()
    window.session.undo_stack.undo()
    assert len(window.session.build.open_items) == 1


@pytest.mark.parametrize(("what", "due", "said"), [("", "", "Say what"), ("x", "soon", "no date")])
def test_an_item_without_words_or_with_an_odd_day_is_refused(
    open_window: Opener, what: str, due: str, said: str
) -> None:
    window = open_window(bed("library"))
    page = shown(window, "As it stands").items
    page.fields["what"].setText(what)
    page.fields["due"].setText(due)
    QTest.mouseClick(page.add, LEFT)
    assert said in page.refused.text()
    assert window.session.build.open_items == ()


def test_fluids_that_never_mix_are_said_in_the_units_shown(open_window: Opener) -> None:
    """Silicone and glycol are never mixed: common practice; 230 °C are 446 °F."""
    window = open_window(with_changes(bed("library"), {"fluid": {"class": "DOT 4"}}))
    page = shown(window, "Fluid")
    told = words(page)
    assert "never: silicone and glycol do not mix" in told
    assert "446 °F" in told
    assert "when it was filled is not told" in page.age.text()
    window.session.edit("fluid.filled", "2019-05-01")
    assert "old, count with the wet boiling point" in page.age.text()
