"""The chapters: their PDF against the solution, outline, room, what is on record, photographs."""

import hashlib
import re
import unicodedata
from datetime import date
from pathlib import Path
from typing import Any
from xml.etree import ElementTree

import numpy as np
import pytest
from pypdf import PdfReader
from PySide6.QtGui import QColor, QImage
from PySide6.QtWidgets import QApplication

from tests.builds import bed, proved, whole_run
from urgens.document import Build, BuildErrors, demo, demo_names, with_changes, with_setup
from urgens.quantity import FORCE, LENGTH, PRESSURE, ShownFigure, UnitSystem, show
from urgens.sheet.blocks import drawings_in
from urgens.sheet.chapters import ALL, CHAPTERS, bound
from urgens.sheet.chapters.told import SheetContext
from urgens.sheet.files import SheetRequest, set_sheet, write_solution
from urgens.sheet.lock_pictures import lock_picture
from urgens.sheet.table import Cell, Table
from urgens.solve import AxleName, press, solve

MARGIN = 14.0 / 25.4 * 72.0  # pt that Pages leaves around
RUN = {
    "procedure": "bleed", "method": "open-stroke", "started": "2026-05-02T14:10",
    "ended": "2026-05-02T15:00", "people": ["A", "B"], "checked_by": "C",
    "fluid": {"class": "DOT 4", "batch": "7", "opened": "2026-04-30"},
    "entries": [
        {"at": "2026-05-02T14:22", "step": 3, "field": "strokes", "wheel": "front-left",
         "value": 12},
        {"at": "2026-05-02T14:23", "step": 3, "field": "colour", "wheel": "front-left",
         "value": "clear"},
        {"at": "2026-05-02T14:55", "step": 9, "field": "travel", "value": "70 mm",
         "effort": "300 N", "when": "now"},
    ],
}  # fmt: skip


def blocks_of(build: Build, name: str, **more: Any) -> str:
    told = SheetContext(solve(build), UnitSystem.METRIC, date(2026, 11, 25), build, **more)
    return repr(bound(told, (name,)).chapters[0].blocks)


def read(build: Build, path: Path, asked: SheetRequest | None = None) -> PdfReader:
    write_solution(solve(build), path, build.natural_units, asked or SheetRequest())
    return PdfReader(path)


def letters(text: str) -> str:
    """What is written, without the gaps that kerning leaves in a PDF's text."""
    return re.sub(r"\s", "", unicodedata.normalize("NFKC", text))


@pytest.mark.parametrize("name", demo_names())
def test_the_pdf_says_what_the_solution_says(
    dressed: QApplication, tmp_path: Path, name: str
) -> None:
    """Read back by pypdf: pressures, travel, deceleration and who locks first of every load."""
    build = demo(name)
    solution, units = solve(build), build.natural_units
    text = " ".join(page.extract_text() for page in read(build, tmp_path / "s.pdf").pages)
    said = re.sub(r"\s+", " ", text)
    effort = build.targets.comfortable_effort.value
    for case, load in enumerate(solution.system.case_names):
        pressed = press(
            solution.system, np.array(effort), solution.system.case(case), build.targets.surface
        )
        front = show(float(pressed.front_pressure), PRESSURE, units)
        rear = show(float(pressed.rear_pressure), PRESSURE, units)
        travel = show(float(pressed.pedal_travel), LENGTH, units)
        row = f"{load} {front} {rear} {float(pressed.achieved_z):.2f} g {travel}"
        assert row in said
        for at in solution.shown:
            axle = AxleName(int(solution.lock.axle[case, at]))
            if axle is not AxleName.NONE:
                foot = show(float(solution.lock.effort[case, at]), FORCE, units)
                assert f"{axle.name.lower()}, {foot}, {solution.lock.z[case, at]:.2f} g" in said


@pytest.mark.parametrize("paper", ["a4", "letter"])
def test_outline_page_numbers_and_paper(dressed: QApplication, tmp_path: Path, paper: Any) -> None:
    reader = read(demo("roadster"), tmp_path / "s.pdf", SheetRequest(paper=paper))
    wide = {"a4": 595, "letter": 612}[paper]
    assert {round(float(page.mediabox.width)) for page in reader.pages} == {wide}
    titles = [str(one["/Title"]) for one in reader.outline]
    assert titles[:3] == ["For the wall", "Vehicle and brakes", "Balance and findings"]
    pages = [letters(page.extract_text()) for page in reader.pages]
    for one in reader.outline:
        number = reader.get_destination_page_number(one)
        assert number is not None
        assert letters(str(one["/Title"])) in pages[number]
    for at, page in enumerate(pages, start=1):
        assert letters(f"Page {at} of {len(pages)}") in page
        assert letters("Tarn") in page  # which vehicle, and which day
        assert letters(f"Brake build sheet, {date.today()}") in page


@pytest.mark.parametrize("name", demo_names())
def test_no_text_leaves_its_page(dressed: QApplication, tmp_path: Path, name: str) -> None:
    """Where each piece of text begins, and each line of the layout ends, against the margins."""
    build = with_changes(demo(name), {"records": [RUN], "open_items": [{"what": "x" * 300}]})
    document = set_sheet(solve(build), build.natural_units)
    wide = document.document.pageSize().width()
    layout, block = document.document.documentLayout(), document.document.begin()
    while block.isValid():
        box, lines = layout.blockBoundingRect(block), block.layout()
        for n in range(lines.lineCount()):
            line = lines.lineAt(n)
            assert box.left() + line.x() + line.naturalTextWidth() <= wide + 1, block.text()
        block = block.next()
    (tmp_path / "s.pdf").write_bytes(document.pdf())
    for page in PdfReader(tmp_path / "s.pdf").pages:
        spots: list[tuple[float, float]] = []
        page.extract_text(
            visitor_text=lambda words, cm, tm, font, size, spots=spots: (
                spots.append((tm[4] * cm[0] + cm[4], tm[5] * cm[3] + cm[5]))
                if words.strip()
                else None
            )
        )
        assert len(spots) >= 3
        for x, y in spots:
            assert 0 < x < float(page.mediabox.width) - MARGIN / 2
            assert 0 < y < float(page.mediabox.height)


def test_chapters_are_chosen_and_a_wrong_name_is_said(tmp_path: Path) -> None:
    build = bed("library")
    told = SheetContext(solve(build), UnitSystem.INCH, date(2026, 11, 25), build)
    assert [one.name for one in bound(told, ("due", "wall")).chapters] == ["wall", "due"]
    assert {one.name for one in bound(told).chapters} < set(CHAPTERS)
    assert [one.name for one in bound(told, ALL).chapters] == [*ALL]
    assert "Nothing is on record." in blocks_of(build, "bleeding")
    with pytest.raises(BuildErrors, match='there is no chapter "wal"'):
        bound(told, ("wal",))


def test_the_wall_has_settings_locks_and_what_holds_the_vehicle() -> None:
    build = with_changes(
        demo("roadster"), {"open_items": [{"what": "Clip", "place": "L6", "holds_vehicle": True}]}
    )
    said = blocks_of(build, "wall")
    assert "name='Rear valve, setting', number='3.5', unit='turns', mark=''" in said
    assert "Turns or notches from the end stop: count from the stop" in said
    assert "name='Rear valve, knee at 3.5 turns', number='22.2', unit='bar'" in said
    assert "Holds the vehicle: still open: Clip, L6" in said
    assert "REAR FIRST" in blocks_of(bed("library"), "wall")
    many = [{"name": f"Load {n}", "front_axle": "372 kg", "rear_axle": "408 kg",
             "cg_height": "0.45 m"} for n in range(40)]  # fmt: skip
    crowded = blocks_of(with_changes(build, {"vehicle.load_cases": many}), "wall")
    assert "… and 32 more loads" in crowded


def test_what_is_fitted_agrees_with_the_layout_and_counts_in_words() -> None:
    said = blocks_of(demo("roadster"), "vehicle")
    assert "('Setting', '3.5 turns')" in said
    assert "('Warning switch', 'in the layout, its kind not given')" in said
    assert "no warning switch is in the lines" not in blocks_of(demo("roadster"), "proofs")
    bare = with_changes(demo("roadster"), {"plumbing": None})
    assert "('Warning switch', 'not given')" in blocks_of(bare, "vehicle")


def test_bleeding_is_told_wheel_by_wheel() -> None:
    said = blocks_of(with_changes(bed("library"), {"records": [RUN]}), "bleeding")
    assert "Bleed, open stroke; DOT 4, batch 7, opened 2026-04-30; by A, B; checked by C; " in said
    assert "('front left', '12', 'not read', 'not read', 'clear', 'not read', 'not read')" in said
    assert "('now', '70 mm', '300 N', '2026-05-02 14:55')" in said


def test_proofs_have_their_plots_and_stops_their_rows() -> None:
    said = blocks_of(demo("roadster"), "proofs")
    assert "Reduces: knee" in said
    assert "expected, usual tolerance" in said
    stops = blocks_of(demo("roadster"), "stops")
    assert stops.count("Driver, half tank") == 5
    assert "the road gives" in stops


def test_open_due_history_and_lines_to_sign() -> None:
    changes = {
        "open_items": [{"what": "Clip", "due": "2026-06-01"}],
        "joints": [{"joint": "L3.a", "state": "started", "at": "2026-05-02T09:00"}],
        "records": [RUN, {"procedure": "overhaul", "started": "2026-05-03T09:00", "step": 4}],
        "history": [{"at": "2026-05-01T09:00", "what": "Softer", "changes": {
            "targets.surface": [0.7, 0.85]}}],
    }  # fmt: skip
    build = with_changes(bed("library"), changes)
    still = blocks_of(build, "open")
    assert "('Clip', 'not told', 'no', '2026-06-01')" in still
    assert "'started by hand'" in still
    assert "('Overhaul the cylinder', '2026-05-03', 'step 4')" in still
    assert "Road, coefficient 0.7 → 0.85" in blocks_of(build, "history")
    assert "2026-06-01" in blocks_of(build, "due")
    assert "'Joints tight', '4 min', '1', 'front', " in blocks_of(build, "plan")
    assert "Nothing is on record." in blocks_of(demo("roadster"), "plan")
    assert "Named on record: A, B, C." in blocks_of(build, "signing")
    assert "Nothing is on record as open." in blocks_of(demo("roadster"), "open")


def test_the_plan_on_paper_leads_to_the_set_up_that_is_looked_at() -> None:
    van = bed("library")
    laid = with_setup(van, "load-sensing")
    told = SheetContext(solve(laid), UnitSystem.INCH, date(2026, 11, 25), van)
    said = repr(bound(told, ("plan",)).chapters[0].blocks)
    assert "Opened once: bled once." in said
    assert "('Load-sensing valve', '1', 'Lines and parts in')" in said
    assert "bled 2 times, not 4. Neither a joint" in blocks_of(van, "plan")


def test_a_layout_is_drawn_where_somebody_draws_it() -> None:
    assert "urgens plumb FILE -o layout.svg" in blocks_of(bed("library"), "layout")
    assert "lines by their numbers" in blocks_of(
        bed("library"), "layout", drawings={"layout": b"<svg/>"}
    )


def test_who_checked_is_on_the_wall_while_what_was_checked_still_holds() -> None:
    """A look at a proof falls with it: the leak test, once the system is bled again."""
    build = demo("roadster")
    made = [one | {"checked_by": "C"} if one["procedure"] == "leak-test" else one
            for one in proved(build)]  # fmt: skip
    held = blocks_of(with_changes(build, {"records": made}), "wall")
    assert "Checked, and still proved: “No leaks” by C. Looked at by a qualified" in held
    again = [*made, whole_run(build, "bleed", 9, 0)]
    lapsed = blocks_of(with_changes(build, {"records": again}), "wall")
    assert "Checked, and still proved" not in lapsed
    assert "Looked at by a qualified person: ___" in lapsed


def test_a_bearing_to_the_rear_is_said_to_the_rear() -> None:
    said = blocks_of(with_changes(demo("roadster"), {"master.bar_offset": "-1.98 mm"}), "wall")
    assert "name='Bar, to the rear', number='1.98', unit='mm'" in said
    assert "towards the rear cylinder" in said


def test_columns_of_figures_are_set_to_the_right() -> None:
    cell = Cell(ShownFigure("12.5", "mm"))
    table = Table("x", ("a", "b", "c"), (("1", cell, "words"), ("2", "not known", "words")))
    assert table.figures == (False, True, False)


@pytest.mark.parametrize("axle", AxleName)
def test_who_locks_first_is_seen_without_colour(axle: AxleName) -> None:
    """One wheel black, the front's to the left; none where nothing locks."""
    drawn = ElementTree.fromstring(lock_picture(axle).svg)
    wheels = list(drawn.iter("{http://www.w3.org/2000/svg}circle"))
    black = [float(one.attrib["cx"]) for one in wheels if one.attrib["fill"] != "#FFFFFF"]
    places = sorted(float(one.attrib["cx"]) for one in wheels)
    assert black == {AxleName.NONE: [], AxleName.FRONT: places[:1], AxleName.REAR: places[1:]}[axle]


@pytest.mark.parametrize("name", demo_names())
def test_no_words_are_smaller_than_eight_and_a_half_points(
    dressed: QApplication, name: str
) -> None:
    """Of the document, and of the plots by the size that they are put in."""
    document = set_sheet(solve(demo(name)), UnitSystem.METRIC)
    block, smallest = document.document.begin(), 99.0
    while block.isValid():
        place = block.begin()
        while not place.atEnd():
            smallest = min(smallest, place.fragment().charFormat().font().pointSizeF())
            place += 1
        block = block.next()
    assert smallest >= 8.5
    for one in drawings_in(document.bound.blocks):
        drawn = ElementTree.fromstring(one.svg)
        sizes = [
            float(node.attrib["font-size"]) for node in drawn.iter() if "font-size" in node.attrib
        ]
        scale = one.wide * 72.0 / float(drawn.attrib["viewBox"].split()[2])
        assert all(size * scale >= 8.5 for size in sizes), one.words


@pytest.mark.parametrize("name", demo_names())
def test_what_stands_side_by_side_is_not_cut_by_the_end_of_a_page(
    dressed: QApplication, name: str
) -> None:
    document = set_sheet(solve(demo(name)), UnitSystem.METRIC).document
    layout, high = document.documentLayout(), document.pageSize().height()
    for frame in document.rootFrame().childFrames():
        if frame.childFrames():
            box = layout.frameBoundingRect(frame)
            assert box.top() // high == (box.bottom() - 5.0) // high or box.height() > high


# --- photographs -------------------------------------------------------------------------------


def test_photographs_are_small_copies_and_what_is_missing_is_said(
    dressed: QApplication, tmp_path: Path
) -> None:
    image = QImage(1600, 1200, QImage.Format.Format_RGB32)
    image.fill(QColor("#A64B00"))
    assert image.save(str(tmp_path / "valve.png"))
    (tmp_path / "story.jpg").write_text("no picture at all")
    (tmp_path / "empty.png").write_bytes(b"")
    (tmp_path / "folder.png").mkdir()
    digest = hashlib.sha256((tmp_path / "valve.png").read_bytes()).hexdigest()
    shots = [
        {"file": "valve.png", "of": "cv", "note": "as found", "sha256": digest},
        {"file": "valve.png", "of": "cv", "sha256": "0" * 64},
        {"file": "story.jpg"}, {"file": "gone.jpg"}, {"file": "empty.png"},
        {"file": "folder.png"},
    ]  # fmt: skip
    build = with_changes(bed("library"), {"photographs": shots})
    said = blocks_of(build, "photographs", folder=tmp_path)
    assert "words='cv, as found'" in said
    assert "wide=300, high=225" in said
    assert "another file than was taken in" in said
    assert "story.jpg: is no picture that can be read" in said
    assert "empty.png: is no picture that can be read" in said
    assert "gone.jpg: is not there any more." in said
    assert "folder.png: is no file." in said
    assert "its build has no file yet" in blocks_of(build, "photographs")
    asked = SheetRequest(("photographs",), folder=tmp_path)
    pages = read(build, tmp_path / "s.pdf", asked).pages
    assert sum(len(page.images) for page in pages) == 2
    write_solution(solve(build), tmp_path / "s.html", UnitSystem.INCH, asked)
    assert (tmp_path / "s.html").read_text().count("data:image/png;base64,") == 2


@pytest.mark.parametrize(
    ("shot", "words"),
    [({"file": "/etc/passwd"}, 'photographs[0].file: "/etc/passwd" lies elsewhere'),
     ({"file": "../x.jpg"}, "lies elsewhere"), ({"file": "a.jpg", "sha256": "12"}, "is no digest"),
     ({"file": "a.jpg", "at": "2026-13-01"}, "photographs[0].at: is")],
)  # fmt: skip
def test_a_photograph_that_cannot_be_is_refused(shot: dict[str, str], words: str) -> None:
    with pytest.raises(BuildErrors) as raised:
        with_changes(bed("library"), {"photographs": [shot]})
    assert words in str(raised.value)
