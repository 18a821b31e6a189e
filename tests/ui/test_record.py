"""The Sheet station by mouse and keys: plan, history, compare, ladder."""

from collections.abc import Callable
from datetime import datetime
from pathlib import Path
from typing import Any

import pytest
from icalendar import Calendar
from pypdf import PdfReader
from PySide6.QtCore import QPoint, Qt
from PySide6.QtGui import QGuiApplication
from PySide6.QtTest import QTest
from pytestqt.qtbot import QtBot

from tests.builds import bed
from tests.ui.conftest import LEFT, page_of, words
from tests.ui.test_window import choose
from tests.waiting import rest
from urgens.document import Build, demo, dumps, load, save, with_changes
from urgens.document.edits.edit import dumped
from urgens.document.edits.past import with_history
from urgens.sheet.files import set_sheet
from urgens.ui.frame.window import MainWindow
from urgens.ui.stations.sheet import PAGES
from urgens.ui.theme.paint import T

STATION = "Sheet"  # that its windows open at

Opener = Callable[[Build], MainWindow]
SLOW = 10_000  # ms


def shown(window: MainWindow, name: str) -> Any:
    return page_of(window, "Sheet", name)


@pytest.fixture
def with_past() -> Build:
    """A roadster that was changed twice, and pulled once."""
    begun = demo("roadster")
    one = with_history(
        begun, with_changes(begun, {"front.brake.pad_friction": 0.42}), datetime(2026, 5, 2, 14)
    )
    two = with_history(one, with_changes(one, {"valves.rear[0].turns": 4.5}), datetime(2026, 6, 1))
    symptom = {"at": "2026-05-20T18:00", "what": "Pulls to the left", "kind": "symptom"}
    return with_changes(two, {"history": [*dumped(two)["history"], symptom]})


# --- on paper ----------------------------------------------------------------------------------


def test_chapters_and_paper_are_chosen_and_go_into_every_form(
    window: MainWindow, tmp_path: Path, monkeypatch: pytest.MonkeyPatch, qtbot: QtBot
) -> None:
    page = shown(window, "Build sheet")
    assert page.boxes["wall"].isChecked()
    assert not page.boxes["bleeding"].isChecked()
    for name, box in page.boxes.items():
        if box.isChecked() and name not in ("wall", "due"):
            QTest.mouseClick(box, LEFT, pos=QPoint(8, box.height() // 2))
    assert window.session.paper.chapters == ("wall", "due")
    QTest.mouseClick(page.paper.buttons["a4"], LEFT)
    qtbot.waitUntil(
        lambda: [one.name for one in page.view.chapters] == ["wall", "due"], timeout=SLOW
    )
    assert page.view.document.paper.width() == pytest.approx(210 / 25.4 * 300, abs=2)
    for form, command in (("pdf", "sheet-pdf"), ("html", "sheet-html"), ("csv", "sheet-csv")):
        choose(monkeypatch, tmp_path / f"sheet.{form}")
        window.commands[command].trigger()
    outline = [str(one["/Title"]) for one in PdfReader(tmp_path / "sheet.pdf").outline]
    assert outline == ["For the wall", "Due"]
    assert "Vehicle and brakes" not in (tmp_path / "sheet.html").read_text()
    assert (tmp_path / "sheet.csv").read_text().startswith("chapter,part,item,column,figure,unit")


def test_the_sheet_is_looked_at_as_it_is_printed(
    window: MainWindow, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    window.commands["preview"].trigger()
    assert (window.bench.name, window.station("Sheet").page_name) == ("Sheet", "Build sheet")
    rest(20)
    choose(monkeypatch, tmp_path / "sheet.pdf")
    window.commands["sheet-pdf"].trigger()
    document = window.station("Sheet").page.view.document
    assert len(PdfReader(tmp_path / "sheet.pdf").pages) == document.pages == 4


def test_the_layout_is_drawn_on_paper_in_the_colours_of_paper(open_window: Opener) -> None:
    window = open_window(demo("tractor"))
    light = window.session.sheet_asked.drawings["layout"]
    window.switch_theme()
    dark = window.session.sheet_asked.drawings["layout"]
    assert T.dark
    assert light == dark
    assert b"<svg" in light


# --- the plan ----------------------------------------------------------------------------------


def test_the_plan_of_a_set_up_is_asked_for_and_its_card_opened(open_window: Opener) -> None:
    window = open_window(bed("library"))
    page = shown(window, "Plan")
    assert page.headline.text() == "Opened once: bled 2 times, not 4"
    assert "as if all were still to be made" in words(page)
    action = next(a for a in page.aims.menu().actions() if a.text() == "load-sensing")
    action.trigger()
    assert page.headline.text() == "Opened once: bled once"
    names = [job.name for job in page.jobs.jobs]
    page.jobs.setFocus()
    QTest.keyClick(page.jobs, Qt.Key.Key_End)  # no key of the list: the foot has it
    for _ in range(names.index("Fill and bleed rear")):
        QTest.keyClick(page.jobs, Qt.Key.Key_Down)
    assert page.jobs.chosen == page.ribbon.chosen == names.index("Fill and bleed rear")
    assert "Fill and bleed rear" in page.jobs.accessibleName()
    assert "Fill and bleed rear" in page.told.text()
    QTest.keyClick(page.jobs, Qt.Key.Key_C, Qt.KeyboardModifier.ControlModifier)
    assert QGuiApplication.clipboard().text().startswith("Fill and bleed rear, 25 min, 2 people")
    QTest.keyClick(page.jobs, Qt.Key.Key_Return)
    assert window.bench.name == "Bleed"


def test_a_job_is_chosen_on_the_ribbon_and_in_the_list(open_window: Opener) -> None:
    page = shown(open_window(bed("library")), "Plan")
    spot = page.ribbon.boxes[3].center().toPoint()
    QTest.mouseClick(page.ribbon, LEFT, pos=spot)
    assert page.jobs.chosen == 3
    QTest.mouseClick(page.jobs.viewport(), LEFT, pos=page.jobs.spot(1).center())
    assert page.ribbon.chosen == 1
    assert "Cylinder, on the bench" in page.ribbon.accessibleDescription()


def test_day_and_hours_are_typed_and_what_cannot_be_is_said(open_window: Opener) -> None:
    page = shown(open_window(bed("library")), "Plan")
    page.begin.setText("2026-05-01 17:00")
    page.day.setText("8–20")
    QTest.keyClick(page.day, Qt.Key.Key_Return)
    assert page.shown.when.slots[0].start == datetime(2026, 5, 1, 17)
    for field, text, said in (
        (page.begin, "2026-02-30", '"2026-02-30" is no day; write 2026-05-31 09:00.'),
        (page.begin, "9999-12-31", '"9999-12-31" is no day; write 2026-05-31 09:00.'),
        (page.day, "18–9", '"18–9" is no pair of hours; write 9–18, from 0 to 23.'),
    ):
        was = field.text()
        field.setText(text)
        QTest.keyClick(field, Qt.Key.Key_Return)
        assert page.refused.text() == said
        assert page.refused.isVisible()
        field.setText(was)
    QTest.keyClick(page.day, Qt.Key.Key_Return)
    assert not page.refused.isVisible()


def test_a_part_that_came_is_noted_where_it_is_missed(open_window: Opener) -> None:
    window = open_window(bed("library"))
    page = shown(window, "Plan")
    page.aim_at("load-sensing")
    assert page.came[0].accessibleName() == "Load-sensing valve is here now"
    QTest.mouseClick(page.came[0], LEFT)
    plumbing = window.session.base.plumbing
    assert plumbing is not None
    assert [(one.item, one.count) for one in plumbing.received] == [("load-sensing", 1)]
    assert "Load-sensing valve" not in [one.what for one in page.shown.plan.missing]
    window.session.undo_stack.undo()
    rest(30)
    assert "Load-sensing valve" in [one.what for one in page.shown.plan.missing]


def test_jobs_and_what_is_due_go_into_a_calendar(open_window: Opener, tmp_path: Path) -> None:
    page = shown(open_window(bed("library")), "Plan")
    file = tmp_path / "plan.ics"
    page.write_to(file)
    count = len(page.shown.plan.jobs)
    said = f"{count} jobs and 3 days, each with an alarm; 2 due without a day"
    assert count > 1
    assert page.wrote.text() == f"Written to plan.ics: {said}."
    assert not page.refused.isVisible()
    named = [str(one["SUMMARY"]) for one in Calendar.from_ical(file.read_bytes()).walk("VEVENT")]
    assert all(f"Bookmoor: {job.name}" in named for job in page.shown.plan.jobs)
    assert len(named) == len(page.shown.when.slots) + 3
    page.write_to(tmp_path / "due.txt")
    assert "has no ending of a calendar" in page.refused.text()


def test_a_vehicle_with_nothing_open_says_so(open_window: Opener) -> None:
    page = shown(open_window(demo("roadster")), "Plan")
    assert page.headline.text() == "Nothing is open"
    assert not page.ribbon.isVisible()
    assert "Every joint again, after bedding" in words(page)


# --- the history -------------------------------------------------------------------------------


def test_saving_writes_the_history_and_the_page_shows_it(
    open_window: Opener, tmp_path: Path
) -> None:
    window = open_window(bed("library"))
    page = shown(window, "History")
    assert "Saving a build with changes writes them here" in words(page)
    session = window.session
    session.edit("pedal.pivot_to_pad", "14 in")
    session.save(tmp_path / "van.urgens.json")
    rest(30)
    assert [one.what for one in page.rows] == ["Pivot to pad 13 in → 14 in"]
    assert not session.modified
    session.undo_stack.undo()  # the figure, not the entry
    assert len(session.base.history) == 1
    session.edit("targets.surface", 0.8)
    session.save(tmp_path / "van.urgens.json")
    (entry,) = load(tmp_path / "van.urgens.json").history  # one run of edits, one entry
    assert dict(entry.changes) == {"targets.surface": (0.85, 0.8)}


def test_work_of_a_killed_window_is_one_entry_once_it_is_saved(
    open_window: Opener, tmp_path: Path
) -> None:
    """What is recovered differs from its file; that difference is what saving notes."""
    file = tmp_path / "van.urgens.json"
    save(bed("library"), file)
    left = with_changes(bed("library"), {"targets.surface": 0.8, "pedal.pivot_to_pad": "14 in"})
    session = open_window(demo("tractor")).session
    session.recover(left, file)
    session.save(file)
    (entry,) = load(file).history
    assert set(entry.changes) == {"targets.surface", "pedal.pivot_to_pad"}


def test_an_entry_by_hand_is_made_worded_and_taken_out(open_window: Opener) -> None:
    window = open_window(bed("library"))
    page = shown(window, "History")
    form = page.form
    QTest.mouseClick(form.kinds.buttons["service"], LEFT)
    form.fields["what"].setText("New rear shoes")
    form.fields["at"].setText("2026-02-31")
    QTest.mouseClick(form.add, LEFT)
    assert form.refused.text() == '"2026-02-31" is no time; write 2026-05-31 14:10.'
    form.fields["at"].setText("2026-05-01 09:00")
    QTest.keyClick(form.fields["at"], Qt.Key.Key_Return)
    entry = window.session.base.history[-1]
    assert (entry.kind, entry.what, entry.at) == ("service", "New rear shoes",
                                                  datetime(2026, 5, 1, 9))  # fmt: skip
    page.why.setText("worn to the rivets")
    QTest.keyClick(page.why, Qt.Key.Key_Return)
    assert window.session.base.history[-1].why == "worn to the rivets"
    QTest.mouseClick(page.drop, LEFT)
    assert window.session.base.history == ()
    window.session.undo_stack.undo()
    assert window.session.base.history[-1].why == "worn to the rivets"
    form.fields["what"].clear()
    QTest.mouseClick(form.add, LEFT)
    assert form.refused.text() == "Say what it was."


def test_a_change_says_what_it_asks_and_leads_to_what_it_did(
    open_window: Opener, with_past: Build, qtbot: QtBot
) -> None:
    window = open_window(with_past)
    page = shown(window, "History")
    assert [one.kind for one in page.rows if one.entry is not None] == [
        "change", "symptom", "change",
    ]  # fmt: skip
    page.list.setFocus()
    QTest.keyClick(page.list, Qt.Key.Key_Home)
    place = next(n for n, one in enumerate(page.rows) if one.what.startswith("Rear valve's"))
    for _ in range(place):
        QTest.keyClick(page.list, Qt.Key.Key_Down)
    assert page.figures.text() == "Rear valve's setting: 3.5 → 4.5"
    QTest.keyClick(page.list, Qt.Key.Key_C, Qt.KeyboardModifier.ControlModifier)
    assert QGuiApplication.clipboard().text().startswith("2026-06-01, change: Rear valve's")
    assert "Proved again: gauge the valve, moving." in page.asks.text()
    assert "Not proved since: gauge the valve." in page.asks.text()
    QTest.mouseClick(page.before, LEFT)
    compare = window.station("Sheet").page
    qtbot.waitUntil(lambda: bool(compare.rows), timeout=SLOW)
    assert compare.rows[0].path == "valves.rear[0].turns"
    assert compare.table.rows.names == ("as it is", "before 1 Jun 2026")


def test_what_other_sections_tell_is_shown_where_it_stands(
    open_window: Opener, with_past: Build
) -> None:
    window = open_window(with_past)
    page = shown(window, "History")
    place = next(n for n, one in enumerate(page.rows) if one.place.startswith("records"))
    page.list.scrollTo(page.list.model().index(place, 0))
    QTest.mouseClick(page.list.viewport(), LEFT, pos=page.list.spot(place).center())
    assert not page.what.isVisible()
    QTest.mouseClick(page.show_it, LEFT)
    assert window.bench.name == "Bleed"


# --- compare -----------------------------------------------------------------------------------


def test_a_set_up_is_compared_by_kind_of_figure(open_window: Opener, qtbot: QtBot) -> None:
    window = open_window(bed("library"))
    page = shown(window, "Compare")
    qtbot.waitUntil(lambda: bool(page.rows), timeout=SLOW)
    assert "the rear locks first on 11 loads and roads, beside 0" in page.words.text()
    judged = len(page.table.rows.rows)
    QTest.mouseClick(page.kinds.buttons["all"], LEFT)
    assert len(page.table.rows.rows) == len(page.rows) > judged
    rows = page.table.rows
    rows.setFocus()
    QTest.keyClick(rows, Qt.Key.Key_Down)
    assert rows.accessibleName().startswith(f"What differs, 2 of {len(page.rows)}: ")
    QTest.keyClick(rows, Qt.Key.Key_C, Qt.KeyboardModifier.ControlModifier)
    assert QGuiApplication.clipboard().text() == rows.accessibleName().partition(": ")[2]
    QTest.mouseClick(page.kinds.buttons["typed"], LEFT)
    assert all(one.path for one in rows.rows)


def test_another_file_is_compared_and_a_broken_one_said(
    open_window: Opener, tmp_path: Path, qtbot: QtBot
) -> None:
    page = shown(open_window(demo("roadster")), "Compare")
    assert "There is nothing to compare with yet" in page.words.text()
    file = tmp_path / "same.urgens.json"
    file.write_text(dumps(demo("roadster")))
    page.compare_file(file)
    qtbot.waitUntil(lambda: page.words.text() == "No figure differs.", timeout=SLOW)
    broken = tmp_path / "broken.urgens.json"
    broken.write_text("{")
    page.compare_file(broken)
    qtbot.waitUntil(lambda: page.words.text() == "This cannot be compared.", timeout=SLOW)
    assert "the file ends too early" in page.unknown.text()


def test_two_dates_are_compared_with_each_other(
    open_window: Opener, with_past: Build, qtbot: QtBot
) -> None:
    page = shown(open_window(with_past), "Compare")
    first, last = (
        next(one.name for one in page.others if one.short == short)
        for short in ("before 2 May 2026", "before 1 Jun 2026")
    )
    page.compare_with(first)
    page.look_from(last)
    qtbot.waitUntil(
        lambda: [one.path for one in page.rows if one.path] == ["front.brake.pad_friction"],
        timeout=SLOW,
    )
    assert page.table.rows.names == ("before 1 Jun 2026", "before 2 May 2026")
    page.of_what.menu().actions()[0].trigger()
    assert page.of_what.text() == "What is looked at now"
    qtbot.waitUntil(lambda: "valves.rear[0].turns" in [one.path for one in page.rows], timeout=SLOW)


def test_a_path_that_leads_nowhere_is_named(open_window: Opener, qtbot: QtBot) -> None:
    entry = {"at": "2026-05-02T10:00", "what": "By hand",
             "changes": {"targets.surface": [0.7, 0.85], "front.paint": [1, 2]}}  # fmt: skip
    page = shown(open_window(with_changes(bed("library"), {"history": [entry]})), "Compare")
    page.compare_with("before 2026-05-02: By hand")
    qtbot.waitUntil(lambda: page.unknown.isVisible(), timeout=SLOW)
    assert "front.paint" in page.unknown.text()
    assert "targets.surface" in [one.path for one in page.rows]


# --- the ladder --------------------------------------------------------------------------------


def test_what_is_tried_becomes_a_set_up_and_the_build_goes_back(
    open_window: Opener, qtbot: QtBot
) -> None:
    window = open_window(bed("library"))
    session = window.session
    session.edit("valves.rear[0].knee", "300 psi")
    page = shown(window, "Ladder")
    assert "Rear valve's knee 400 psi → 300 psi" in page.tried.text()
    QTest.mouseClick(page.keep_it, LEFT)
    assert page.refused.text() == "Give it a name, such as: front discs."
    page.name.setText("low knee")
    QTest.keyClick(page.name, Qt.Key.Key_Return)
    assert session.setup == "low knee"
    assert session.base.valves.rear[0].knee.text == "400 psi"  # type: ignore[union-attr]
    assert dict(session.base.setups[-1].changes) == {"valves.rear[0].knee": "300 psi"}
    qtbot.waitUntil(lambda: "low knee" in page.cards, timeout=SLOW)
    assert "A copy of “low knee”" in page.tried.text()
    page.name.setText("low knee")
    QTest.keyClick(page.name, Qt.Key.Key_Return)
    assert "is also the name of set-up" in page.refused.text()


def test_rungs_are_priced_ordered_looked_at_planned_and_taken_out(
    open_window: Opener, qtbot: QtBot
) -> None:
    setups = [*dumped(bed("library"))["setups"], {"name": "soft shoes", "changes": {
        "rear.brake.shoe_factor": 3.0}}]  # fmt: skip
    window = open_window(with_changes(bed("library"), {"setups": setups}))
    session, page = window.session, shown(window, "Ladder")
    qtbot.waitUntil(lambda: "soft shoes" in page.cards, timeout=SLOW)
    card = page.cards["soft shoes"]
    card.price.setText("eighty")
    QTest.keyClick(card.price, Qt.Key.Key_Return)
    assert '"eighty" is no price' in page.refused.text()
    card.price.setText("80")
    QTest.keyClick(card.price, Qt.Key.Key_Return)
    assert session.base.setups[1].price == 80
    qtbot.waitUntil(lambda: page.cards.get("soft shoes") is not card, timeout=SLOW)
    card = page.cards["soft shoes"]
    assert "Not proved standing; not proved moving." in words(card)
    QTest.mouseClick(card.buttons["Up"], LEFT)
    assert [one.name for one in session.base.setups] == ["soft shoes", "load-sensing"]
    qtbot.waitUntil(lambda: [*page.cards] == ["soft shoes", "load-sensing"], timeout=SLOW)
    QTest.mouseClick(page.cards["load-sensing"].buttons["Look at it"], LEFT)
    assert session.setup == "load-sensing"
    qtbot.waitUntil(lambda: "looked at now" in words(page), timeout=SLOW)
    QTest.mouseClick(page.cards["load-sensing"].buttons["Plan it"], LEFT)
    plan = window.station("Sheet").page
    assert plan.aim == "load-sensing"
    page = shown(window, "Ladder")
    QTest.mouseClick(page.cards["load-sensing"].buttons["Take it out"], LEFT)
    assert session.setup is None
    assert [one.name for one in session.base.setups] == ["soft shoes"]


def test_every_page_of_the_record_has_room_and_names(open_window: Opener) -> None:
    window = open_window(bed("tender"))
    window.resize(1024, 700)
    for name in PAGES:
        page = shown(window, name)
        assert page.summary
        assert page.width() <= window.width()


ODD = {
    "history": [
        {"at": "2026-05-02T10:00", "what": "x" * 3000, "why": "line\n" * 50, "changes": {
            "Front Brake!": [1, 2], "": [None, None], "targets.surface": ["wet", 0.85],
            "setups": [[], [{"name": "q", "changes": {}}]], "valves.rear": [None, None]}},
        {"at": "1900-01-01T00:00", "what": "old", "kind": "symptom"},
        {"at": "9999-12-31T23:59", "what": "to come", "kind": "service"},
    ],
    "photographs": [{"file": "x.png", "of": "nothing", "note": "n" * 500}, {"file": "a/b.jpg"}],
    "open_items": [
        {"what": "same"}, {"what": "same"}, {"what": "y" * 400, "place": "L1.a"},
        {"what": "Prove standing", "holds_vehicle": True, "due": "1900-01-01"},
    ],
    "records": [
        {"procedure": "nonsense", "started": "2026-01-01T00:00"},
        {"procedure": "bleed", "started": "9999-12-31T00:00", "ended": "9999-12-31T00:00",
         "entries": [{"at": "2026-01-01T00:00", "step": 1, "field": "travel", "value": True},
                     {"at": "2026-01-01T00:00", "step": 1, "field": "strokes",
                      "wheel": "front-left", "value": "many"}]},
    ],
    "fluid": {"class": "DOT 4", "filled": "9998-02-03"},
    "proof": {"wear": [{"at": "2026-03-31T10:00", "since": "2026-05-01", "front": ["5 mm"],
                        "rear": ["0.01 mm"]}]},
    "front.brake.pad_thickness": "11 mm",
}  # fmt: skip


def test_odd_records_are_shown_on_every_page_saved_and_set(
    open_window: Opener, tmp_path: Path, qtbot: QtBot
) -> None:
    window = open_window(with_changes(bed("library"), ODD))
    for name in PAGES:
        shown(window, name)
    history, compare = shown(window, "History"), shown(window, "Compare")
    for row in range(len(history.rows)):
        history.choose(row)
    for other in compare.others:
        compare.compare_with(other.name)
        qtbot.waitUntil(lambda: not compare._work.busy, timeout=SLOW)
    assert compare.words.text() == "This cannot be compared."
    assert 'targets.surface: is the text "wet"' in compare.unknown.text()
    shown(window, "Plan").aim_at("load-sensing")
    window.session.edit("pedal.pivot_to_pad", "14 in")
    window.session.save(tmp_path / "odd.urgens.json")
    assert load(tmp_path / "odd.urgens.json").history[-1].what.startswith("Pivot to pad")
    session = window.session
    assert set_sheet(session.solution, session.units, session.sheet_asked).pages > 5
