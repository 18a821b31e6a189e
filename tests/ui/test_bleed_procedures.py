"""Every procedure on the card, what is told before and read on it, who does what, and paper."""

from collections.abc import Callable
from datetime import date, timedelta
from pathlib import Path
from typing import Any

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QToolButton

from tests.builds import bed, on_record, unproved
from tests.ui.conftest import LEFT
from tests.ui.test_bleed import BACK, ENTER, SPACE, card, press
from urgens.document import Build, edited, with_changes
from urgens.guidance.procedures import METHODS, NAMES, procedure
from urgens.guidance.procedures.records import title_of
from urgens.ui.frame.window import MainWindow
from urgens.ui.stations.bleed import awake
from urgens.ui.stations.bleed.card_page import CardPage
from urgens.ui.widgets.file_chooser import FileChooser

STATION = "Bleed"  # that its windows open at

Opener = Callable[[Build], MainWindow]
GROUPS = 4  # of procedures, a window each


def chosen(page: CardPage, name: str) -> None:
    """Choose a procedure from the menu."""
    page.chooser.entries()[name].trigger()


def until(page: CardPage, field: str) -> None:
    """Go on to the next step that reads something."""
    step = page.run.step
    while step is not None and (step.record is None or step.record.field != field):
        press(page, ENTER)
        step = page.run.step


@pytest.mark.parametrize("group", range(GROUPS))
def test_every_procedure_goes_from_its_first_card_to_its_last_by_keys(
    open_window: Opener, group: int
) -> None:
    opened = {"joint": "L6.b", "state": "tight", "at": "2026-05-03T10:00"}
    build = with_changes(bed("library"), {"joints": [opened], **on_record(bed("library"))})
    page = card(open_window(build))
    for name in NAMES[group::GROUPS]:
        moving = name == "prove-moving"
        page.session.open(edited(build, "joints", []) if moving else build, None)
        goes_to_its_last(page, name)


@pytest.mark.parametrize("method", METHODS)
def test_bleeding_goes_from_its_first_card_to_its_last_by_every_method(
    open_window: Opener, method: str
) -> None:
    build = with_changes(bed("library"), on_record(bed("library")))
    page = card(open_window(build))
    chosen(page, "bleed")
    page.chooser.methods[method].click()
    goes_to_its_last(page, "bleed")


@pytest.mark.parametrize("end", ["front", "rear"])
def test_a_reset_asks_which_end_and_goes_to_its_last_card(open_window: Opener, end: str) -> None:
    page = card(open_window(with_changes(bed("library"), on_record(bed("library")))))
    chosen(page, "reset-switch")
    assert "Which end gets little" in page.sentence.text()
    assert not page.buttons["next"].isEnabled()
    page.chooser.methods[end].click()
    goes_to_its_last(page, "reset-switch")
    assert page.session.base.records[-1].method == end


def test_what_is_done_until_clear_is_done_once_more_by_one_key(open_window: Opener) -> None:
    page = card(open_window(with_changes(bed("library"), {"records": [], "joints": []})))
    chosen(page, "bleed")
    press(page, ENTER)
    until(page, "strokes")
    first = page.run.number
    assert "until no air comes" in page.expecting.text()
    wanted = page.expecting.text()
    while page.run.back_to is None:
        press(page, ENTER)
    assert page.buttons["again"].isVisible()
    assert page.buttons["next"].text().startswith("Clear")
    press(page, Qt.Key.Key_O)
    assert page.run.number == first - 2  # press and hold, open, let it go down
    until(page, "strokes")
    assert page.run.number == first
    assert page.why.text().startswith("Round 2. ")
    assert page.counting.count.text() == "1"  # of the first round
    assert page.expecting.text() != wanted
    press(page, ENTER)
    read = [one for one in page.session.base.records[-1].entries if one.field == "strokes"]
    assert [one.value for one in read] == [1.0, 1.0]


def test_the_menu_has_only_what_this_layout_has(open_window: Opener) -> None:
    page = card(open_window(bed("tender")))
    page.chooser.button.menu().aboutToShow.emit()
    shown = {name for name, action in page.chooser.entries().items() if action.isVisible()}
    assert {"bleed", "assemble", "leak-test"} <= shown
    assert not {"load-sensing-test", "metering-test"} & shown


def test_why_here_says_the_rules_and_alone_is_refused_where_a_foot_holds(
    open_window: Opener,
) -> None:
    page = card(open_window(with_changes(bed("library"), on_record(bed("library")))))
    chosen(page, "bleed")
    QTest.mouseClick(page.form.people[1], LEFT)
    assert "it takes two" in page.sentence.text()
    assert not page.buttons["next"].isEnabled()
    QTest.mouseClick(page.form.people[2], LEFT)
    press(page, ENTER)
    until(page, "ok")
    plain = page.why.text()
    press(page, Qt.Key.Key_W)
    assert page.why.text().startswith(plain)
    assert "The block is out" in page.why.text()


def goes_to_its_last(page: CardPage, name: str) -> None:
    chosen(page, name)
    made = page.run.procedure(page.method)
    assert page.chooser.button.text() == title_of(name)
    if not made.allowed:
        assert page.sentence.text().startswith("Not so: ")
        assert not page.buttons["next"].isEnabled()
        return
    press(page, ENTER)
    for step in made.steps:
        assert page.sentence.text() == step.text
        press(page, ENTER)
    record = page.session.base.records[-1]
    assert (record.procedure, record.ended is None) == (name, False)


def test_the_circuit_of_an_opened_joint_is_bled_again_and_no_other(open_window: Opener) -> None:
    page = card(open_window(bed("library")))
    chosen(page, "rebleed")
    assert "no joint is noted as opened" in page.sentence.text()
    assert not page.buttons["next"].isEnabled()
    opened = {"joint": "L6.b", "state": "tight", "at": "2026-05-03T10:00"}
    page = card(open_window(edited(bed("library"), "joints", [opened])))
    chosen(page, "rebleed")
    wheels = {wheel for step in page.run.procedure(None).steps for wheel in step.wheels}
    assert wheels == {"rear-left", "rear-right"}  # of the circuit that was open


def test_moving_waits_for_the_proofs_and_a_reason_is_kept(open_window: Opener) -> None:
    window = open_window(unproved("roadster"))
    page = card(window)
    chosen(page, "prove-moving")
    assert page.sentence.text().startswith(
        "Not so: nothing is on record, neither “No leaks”, “See the ports open”"
    )
    press(page, ENTER)
    assert window.session.build.records == ()
    assert page.form.fields["reason"].hasFocus()
    QTest.keyClicks(page.form.fields["reason"], "off the ramp")
    press(page, ENTER)
    (record,) = window.session.build.records
    assert record.moved_without_proof == "off the ramp"
    assert "proof-open" in {finding.code for finding in window.session.findings}
    whole = card(open_window(with_changes(unproved("roadster"), on_record(unproved("roadster")))))
    chosen(whole, "prove-moving")
    assert whole.form.fields["reason"].isHidden()
    press(whole, ENTER)
    assert whole.run.number == 1


def test_who_is_there_and_which_bottle_are_kept(open_window: Opener) -> None:
    window = open_window(bed("library"))
    page = card(window)
    typed = {"people": "Ann,  Jo", "batch": "K7", "opened": "today"}
    for name, words in typed.items():
        page.form.fields[name].setText(words)
    press(page, ENTER)
    (record,) = window.session.build.records
    assert record.people == ("Ann", "Jo")
    assert record.fluid is not None
    assert (record.fluid.batch, record.fluid.opened) == ("K7", date.today())


@pytest.mark.parametrize(
    ("typed", "said"),
    [
        ("yesterday", "is no date"),
        ((date.today() + timedelta(days=2)).isoformat(), "still to come"),
        ("2019-01-01", "opened over a year ago"),
    ],
)
def test_a_bottle_that_cannot_be_is_refused_in_words(
    open_window: Opener, typed: str, said: str
) -> None:
    page = card(open_window(bed("library")))
    page.form.fields["opened"].setText(typed)
    page.go_on()
    assert said in page.form.refused.text()
    assert page.run.record is None
    page.form.fields["opened"].clear()
    page.go_on()
    assert page.run.record is not None


def test_a_bottle_of_a_fluid_that_is_not_told_is_not_lost_without_a_word(
    open_window: Opener,
) -> None:
    page = card(open_window(edited(bed("library"), "fluid", None)))
    page.form.fields["batch"].setText("K7")
    page.go_on()
    assert "Which class is in it is not told yet" in page.form.refused.text()
    assert page.run.record is None
    page.form.fields["batch"].clear()
    page.go_on()
    assert page.run.record is not None


def test_each_person_has_his_own_line_and_fewer_share_it(open_window: Opener) -> None:
    page = card(open_window(unproved("roadster")))
    assert set(page.beside.who.said) == {"pedal", "front", "rear"}
    QTest.mouseClick(page.form.people[4], LEFT)
    assert set(page.beside.who.said) == {"pedal", "front", "rear", "reservoir"}
    QTest.mouseClick(page.form.people[2], LEFT)
    assert set(page.beside.who.said) == {"pedal", "screws"}
    assert "fewer are coming" in page.beside.people.text()
    press(page, ENTER)
    until(page, "strokes")
    assert page.beside.who.said["pedal"] == "Full slow strokes, down and back, calling each one."
    assert page.beside.who.said["screws"] == (
        "Right front and right rear: hose end under fluid; says what comes."
    )


def test_one_persons_card_stands_in_place_of_everyones(open_window: Opener) -> None:
    page = card(open_window(unproved("roadster")))
    press(page, ENTER)
    until(page, "strokes")
    whole = page.sentence.text()
    press(page, Qt.Key.Key_P)
    assert page.sentence.text() == "Full slow strokes, down and back, calling each one."
    assert page.why.text() == f"All: {whole}"
    assert page.beside.who.names["pedal"].isChecked()
    QTest.mouseClick(page.beside.who.names["rear"], LEFT)
    assert page.sentence.text() == "Right rear: hose end under fluid; says what comes."
    press(page, ENTER)
    assert page.sentence.text() == "Right rear: hand on the spanner, waits for the call."
    press(page, Qt.Key.Key_P)
    assert page.sentence.text() == page.run.step.text  # type: ignore[union-attr]


def test_a_pair_is_read_wheel_by_wheel(open_window: Opener) -> None:
    window = open_window(unproved("roadster"))
    page = card(window)
    press(page, ENTER)
    until(page, "bubbles")
    for key in ("front-right bubbles fine", "rear-right bubbles none", "rear-right colour dark"):
        button: Any = page.reading.fields[key]
        assert isinstance(button, QToolButton)
        QTest.mouseClick(button, LEFT)
    page.reading.fields["front-right amount"].setText("34")  # type: ignore[attr-defined]
    page.reading.fields["rear-right clicks"].setText("four")  # type: ignore[attr-defined]
    page.go_on()
    assert page.reading.refused.text().startswith('Right rear, clicks: "four" is no number')
    page.reading.fields["rear-right clicks"].setText("4")  # type: ignore[attr-defined]
    page.go_on()
    read = {(e.wheel, e.field): e.value for e in window.session.build.records[0].entries}
    assert read == {
        ("front-right", "bubbles"): "fine", ("rear-right", "bubbles"): "none",
        ("rear-right", "colour"): "dark", ("front-right", "amount"): 34.0,
        ("rear-right", "clicks"): 4.0,
    }  # fmt: skip


def test_what_should_be_read_follows_the_press(open_window: Opener) -> None:
    window = open_window(unproved("roadster"))
    page = card(window)
    chosen(page, "three-strokes")
    press(page, ENTER)
    before = page.reading.should.text()
    window.session.set_effort(100.0)
    assert "at 100 N" in page.reading.should.text() != before
    field: Any = page.reading.fields["travel"]
    for number, travel in enumerate(("40", "38", "38"), start=1):
        page.reading.fields["travel"].setText(travel)  # type: ignore[attr-defined]
        page.go_on()
        entry = window.session.build.records[0].entries[-1]
        assert (entry.when, entry.effort) == (f"stroke-{number}", "100 N")
    assert field is not None


def test_a_rods_clearance_is_worked_out_from_three_depths(open_window: Opener) -> None:
    """Depth 12.4 and gasket 0.8 less 11.0 of stand-out leave 2.2 mm; by hand."""
    page = card(open_window(unproved("roadster")))
    chosen(page, "pushrod-clearance")
    press(page, ENTER)
    until(page, "gap")
    for depth in ("12.4", "11", "0.8"):
        page.reading.fields["gap"].setText(depth)  # type: ignore[attr-defined]
        page.go_on()
    assert page.reading.should.text() == "leaves 2.2 mm: lengthen it by 1.2 mm"
    press(page, BACK, BACK)
    page.reading.fields["gap"].setText("14")  # type: ignore[attr-defined]
    page.go_on()
    press(page, ENTER)
    assert page.reading.should.text() == "0.8 mm too long: it holds the ports shut; shorten it"


def test_seconds_are_counted_from_the_key(open_window: Opener, qtbot: Any) -> None:
    page = card(open_window(unproved("roadster")))
    chosen(page, "leak-test")
    press(page, ENTER)
    until(page, "ok")
    assert page.timer.left.text() == "30 s"
    press(page, Qt.Key.Key_T)
    page.timer._since -= 31.0  # type: ignore[operator]
    qtbot.waitUntil(lambda: page.timer.said.text().startswith("done"), timeout=2_000)
    assert page.timer.left.text() == "0 s"
    press(page, ENTER)
    assert page.timer.isHidden() == (not page.run.step or not page.run.step.seconds)


def test_who_checked_is_asked_on_the_last_card(open_window: Opener) -> None:
    window = open_window(bed("library"))
    page = card(window)
    chosen(page, "pedal-height")
    press(page, ENTER)
    while not page.run.last:
        assert page.checked_by.isHidden()
        press(page, ENTER)
    page.checked_by.setText("Jo")
    press(page, ENTER)
    assert window.session.build.records[0].checked_by == "Jo"


def test_a_procedure_that_was_left_is_there_again_beside_another(open_window: Opener) -> None:
    window = open_window(bed("library"))
    page = card(window)
    press(page, ENTER, ENTER, ENTER)
    chosen(page, "ports-test")
    press(page, ENTER)
    assert page.run.number == 1
    chosen(page, "bleed")
    assert page.run.number == 3
    assert [one.ended for one in window.session.build.records] == [None, None]


def test_cards_go_out_as_pdf_one_for_each_person(
    open_window: Opener, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    page = card(open_window(unproved("roadster")))
    sizes = []
    for index, action in enumerate(page.beside.print.menu().actions()):
        path = tmp_path / f"{index}.pdf"
        monkeypatch.setattr(FileChooser, "ask", lambda *_, path=path: [str(path)])
        action.trigger()
        assert path.read_bytes().startswith(b"%PDF")
        sizes.append(path.stat().st_size)
    assert sizes[0] > sizes[1]


def test_the_screen_is_kept_awake_while_a_card_is_shown(
    open_window: Opener, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(awake, "_inhibited", lambda: True)
    window = open_window(bed("library"))
    page = card(window)
    assert not page.awake.held
    press(page, ENTER)
    assert page.awake.held
    window.station("Bleed").show_page_named("Joints")
    assert not page.awake.held
    window.station("Bleed").show_page_named("Card")
    assert page.awake.held
    QTest.mouseClick(page.buttons["leave"], LEFT)
    assert not page.awake.held


def test_a_screen_that_may_sleep_is_said(
    open_window: Opener, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(awake, "_inhibited", lambda: False)
    page = card(open_window(bed("library")))
    press(page, ENTER, ENTER)
    assert awake.MAY_SLEEP in page.beside.cautions.text()


def test_a_run_of_a_procedure_that_is_not_known_is_kept_and_said(open_window: Opener) -> None:
    odd = {"procedure": "polish", "started": "2026-05-02T14:00"}
    window = open_window(edited(bed("library"), "records", [odd]))
    page = card(window)
    assert page.run.name == "bleed"
    press(page, ENTER, SPACE)
    assert [one.procedure for one in window.session.build.records] == ["polish", "bleed"]


@pytest.mark.parametrize("name", NAMES)
def test_every_name_has_a_title(name: str) -> None:
    assert title_of(name)
    assert procedure(bed("library"), name).name == name


def test_a_photograph_from_the_card_is_of_its_run_and_names_its_step(open_window: Opener) -> None:
    window = open_window(bed("library"))
    page = card(window)
    chosen(page, "strip-record")
    press(page, ENTER, ENTER)
    QTest.mouseClick(page.beside.photographs, LEFT)
    shown = window.station("Sheet").page
    assert shown.of == f"records[{len(window.session.base.records) - 1}]"  # type: ignore[attr-defined]
    assert shown.note.text() == "step 2"  # type: ignore[attr-defined]
