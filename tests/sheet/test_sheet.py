"""The build sheet: the same figures as the solution, on one page."""

import csv
import errno
import os
import re
from datetime import date
from io import BytesIO
from pathlib import Path
from typing import Literal
from unicodedata import normalize
from xml.etree import ElementTree

import pytest
from pypdf import PdfReader
from PySide6.QtWidgets import QApplication

from tests.builds import bed
from tests.plumbing.layouts import sound, with_layout
from urgens.document import (
    Build,
    BuildChange,
    BuildErrors,
    changed,
    demo,
    demo_names,
    edited,
    own_vehicle,
    with_changes,
    with_setup,
)
from urgens.document.catalogue import counting
from urgens.document.edits.edit import dumped
from urgens.document.facts import given
from urgens.document.layout.line_sheets import MadeLine, routed
from urgens.guidance.procedures import procedure
from urgens.guidance.procedures.people import duties, roles
from urgens.guidance.procedures.workshop import at_first
from urgens.guidance.words.cautions import CAUTIONS
from urgens.quantity import LENGTH, Quantity, ShownFigure, Units, UnitSystem, show, shown
from urgens.sheet import content, write
from urgens.sheet.cards import cards, cards_markup, cards_pdf
from urgens.sheet.chart import pressure_chart
from urgens.sheet.files import SheetRequest, as_text, set_sheet
from urgens.sheet.table import Cell
from urgens.solve import solve

DAY = date(2026, 11, 25)


def rows_of(build: Build, units: UnitSystem) -> dict[tuple[str, str], str]:
    sheet = content(solve(build), units, DAY)
    return {
        (place, label): value
        for parts in sheet.columns
        for place, rows in parts
        for label, value in rows
    }


def test_it_says_what_is_fitted_in_one_unit_system(bakery: Build) -> None:
    """As it was typed where that is its unit: nobody reads 15/16 in as 0.9375."""
    said = rows_of(bakery, UnitSystem.INCH)
    assert said["Vehicle", "Wheelbase"] == "115 in"
    assert said["Pedal", "Pivot to pad"] == "13-1/2 in"
    assert said["Rear", "Knee"] == "375 psi"
    assert said["Rear", "Valve 1"] == "reducing valve, in combination block"
    metric = rows_of(bakery, UnitSystem.METRIC)
    foreign = re.compile(r"\d (in|psi|lb|lbf|ft|mph|inHg)\b")
    assert not [value for value in metric.values() if foreign.search(value)]


def test_nothing_that_is_fitted_is_left_out() -> None:
    """Outlets, retention, switches, fluid, hoses, reservoir, wishes, launch, turns."""
    tender, tractor = (
        rows_of(bed("tender"), UnitSystem.METRIC),
        rows_of(bed("tractor"), UnitSystem.METRIC),
    )
    assert tender["Cylinder and circuits", "Outlet 1"] == (
        "front circuit, at the end, residual 0.7 bar"
    )
    assert tender["Lines, fluid, switches", "Brake-light switch"] == "hydraulic"
    assert tractor["Cylinder and circuits", "Pushrod held by"] == "retainer"
    assert tractor["Vehicle", "Driven"] == "rear"
    assert tractor["Rear", "Tyre grip"] == "1.1"
    library = rows_of(bed("library"), UnitSystem.INCH)
    assert library["Lines, fluid, switches", "Fluid"] == "DOT 4"
    assert library["Booster", "Vacuum reservoir"] == "8 l"
    assert library["Wanted", "Hardest foot"] == "112 lbf"
    roadster = rows_of(bed("roadster"), UnitSystem.METRIC)
    assert [label for _, label in roadster if label.startswith("Knee at ")]


@pytest.mark.parametrize("name", demo_names())
def test_every_figure_that_is_typed_stands_on_the_sheet(name: str) -> None:
    build = bed(name)
    tables = content(solve(build), build.natural_units, DAY).laid
    cells = [cell for table in tables for row in table.rows for cell in row]
    said = " ".join((*rows_of(build, build.natural_units).values(), *cells))
    for one in counting(build):
        if one.path.startswith("proof."):  # what was measured is history, not what is fitted
            continue
        if isinstance(one.value, Quantity) and not re.search(r"\.(table|route)\[", one.path):
            shown_ = shown(one.value, one.kind, one.shown_in(Units(build.natural_units)))
            if one.path in _typed(build):
                assert str(shown_) in said, one.path


def _typed(build: Build) -> set[str]:
    return {path.removeprefix(".") for path in given("", dumped(build))}


def test_what_is_only_assumed_is_marked_and_said_on_top() -> None:
    """Of the own vehicle everything; a figure that is typed loses its mark."""
    sheet = content(solve(own_vehicle()), UnitSystem.METRIC, DAY)
    rows = rows_of(own_vehicle(), UnitSystem.METRIC)
    assert re.fullmatch(r"(\d+) of \1 figures are only assumed.*", sheet.known) is None
    assert rows["Vehicle", "Wheelbase"].endswith(" *")
    change = BuildChange("typed", {"vehicle.wheelbase": "2.51 m"})
    typed = rows_of(changed(own_vehicle(), change), UnitSystem.METRIC)
    assert typed["Vehicle", "Wheelbase"] == "2,510 mm"
    assert "marked *" in sheet.known
    assert "cannot" not in sheet.limits
    assert "Engine drag is counted" in sheet.limits


def test_its_figures_are_the_solutions(roadster: Build) -> None:
    solution = solve(roadster)
    sheet = content(solution, UnitSystem.METRIC, DAY)
    front = float(solution.presses.front_pressure[0]) / 1e5

    assert sheet.presses.rows[0][1] == f"{front:.1f} bar"
    assert sheet.locks.rows[0][3].startswith("front, ")
    assert sheet.locks.heads == ("Load case", "Ice, μ 0.15", "Wet, μ 0.50", "Target, μ 1.10")
    assert sheet.cautions == CAUTIONS


def test_grip_kept_for_a_corner_has_rows_of_its_own(roadster: Build) -> None:
    build = with_changes(roadster, {"targets.corner": 0.4})
    sheet = content(solve(build), UnitSystem.METRIC, DAY)
    cases = len(build.vehicle.load_cases)
    straight, corner = sheet.locks.rows[:cases], sheet.locks.rows[cases:]
    assert [row[0] for row in corner] == [f"{row[0]}, 0.4 g to the side" for row in straight]
    assert {row[1] for row in corner} == {"no such corner"}  # on ice
    assert all(row[2] != other[2] for row, other in zip(corner, straight, strict=True))
    assert "friction circle" in sheet.limits
    assert "friction circle" not in content(solve(roadster), UnitSystem.METRIC, DAY).limits


def test_where_nothing_locks_or_travel_ends_it_says_so(roadster: Build) -> None:
    build = edited(edited(roadster, "targets.max_effort", "20 N"), "master.stroke", "2 mm")
    sheet = content(solve(build), UnitSystem.METRIC, DAY)

    assert sheet.locks.rows[0][3] == "none up to 20 N"
    assert sheet.presses.rows[0][4] == "beyond the stroke or floor"


@pytest.mark.parametrize("paper", ["a4", "letter"])
def test_every_demo_build_has_its_wall_on_one_page_and_few_in_all(
    dressed: QApplication, paper: Literal["a4", "letter"]
) -> None:
    for name in demo_names():
        build = demo(name)
        document = set_sheet(solve(build), build.natural_units, SheetRequest(paper=paper))
        starts = dict(document.starts)
        assert (starts["For the wall"], starts["Vehicle and brakes"]) == (0, 1)
        assert document.pages <= 7
        alone = set_sheet(solve(build), build.natural_units, SheetRequest(("wall",), paper))
        assert alone.pages == 1


def test_a_layout_has_its_lines_bends_and_what_is_bought(roadster: Build) -> None:
    sheet = content(solve(with_layout(sound())), UnitSystem.METRIC, DAY)
    lines, buy = sheet.laid
    bent = sheet.bent[2]
    cut = show(routed_of("L3").length, LENGTH, UnitSystem.METRIC)
    assert lines.rows[2][:2] == ("3", "Valve body to left front hose")
    assert lines.rows[2][4] == str(cut)
    assert bent.table.title == "3: Valve body to left front hose"
    assert bent.first == "nut 3/8-24"
    assert bent.table.rows[0] == ("1", "187.0 mm", "", "90.0 deg")
    drawn = ElementTree.fromstring(bent.drawing.svg)
    dots = list(drawn.iter("{http://www.w3.org/2000/svg}circle"))
    assert len(dots) == len(bent.table.rows)  # a bend each, and where it begins
    assert "lengths of 7.6 m" in buy.title  # one system of units
    assert ("Fittings", "Tee", "1", "3 × 3/8-24 inverted", "☐") in buy.rows
    assert content(solve(bed("bakery")), UnitSystem.METRIC, DAY).laid == ()


def test_of_a_set_up_only_what_is_new_is_bought(roadster: Build) -> None:
    """The van's load-sensing valve: one valve, two lines; its hoses and its body stay."""
    base = demo("library")
    then = with_setup(base, "load-sensing")
    *_, buy = content(solve(then), UnitSystem.METRIC, DAY, base).laid
    kinds = [str(row[1]) for row in buy.rows]
    assert any(kind.startswith("Load-sensing valve (sold as") for kind in kinds)
    assert not any(kind.startswith(("Hose", "Combination")) for kind in kinds)
    *_, whole = content(solve(then), UnitSystem.METRIC, DAY).laid
    assert len(whole.rows) > len(buy.rows)


def routed_of(name: str) -> MadeLine:
    plumbing = with_layout(sound()).plumbing
    assert plumbing is not None
    return next(one for one in routed(plumbing) if one.line.id == name)


def test_a_long_record_takes_more_pages(dressed: QApplication, bakery: Build) -> None:
    items = [{"what": f"A long story {n}. " * 9} for n in range(60)]
    document = set_sheet(
        solve(with_changes(bakery, {"open_items": items})), UnitSystem.INCH, SheetRequest(("open",))
    )
    assert document.pages > 2


def test_html_is_whole_and_escapes_what_is_typed(bakery: Build, tmp_path: Path) -> None:
    path = tmp_path / "sheet.html"
    write(edited(bakery, "name", "<b>Wexcombe & Sons"), path)
    text = path.read_text(encoding="utf-8")

    assert "<h1>&lt;b&gt;Wexcombe &amp; Sons</h1>" in text
    assert '<a href="#wall">For the wall</a>' in text
    assert all(caution in text for caution in CAUTIONS)
    svg = text[text.index("<svg") : text.index("</svg>") + 6]
    assert ElementTree.fromstring(svg).tag.endswith("svg")
    assert re.search(r"(approved|legal|safe)\b", text, re.IGNORECASE) is None


def test_pdf_is_a_pdf_with_its_text(dressed: QApplication, bakery: Build, tmp_path: Path) -> None:
    path = tmp_path / "sheet.pdf"
    write(bakery, path)
    raw = path.read_bytes()

    assert raw.startswith(b"%PDF-")
    assert raw.rstrip().endswith(b"%%EOF")
    assert b"/Subtype /Image" not in raw  # the chart is drawn, not a picture


def test_the_document_holds_all_sections(dressed: QApplication, bakery: Build) -> None:
    document = set_sheet(solve(bakery), UnitSystem.INCH).document
    text = document.toPlainText()
    end = document.lastBlock()

    for words in ("Cylinder and circuits", "Which axle locks first", "rear, 68 lbf", *CAUTIONS):
        assert words in text
    assert document.documentLayout().blockBoundingRect(end).height() > 0  # laid out to the end


def test_csv_has_a_row_for_each_figure_with_its_unit(bakery: Build, tmp_path: Path) -> None:
    path = tmp_path / "sheet.csv"
    write(bakery, path)
    with path.open(newline="", encoding="utf-8") as file:
        rows = list(csv.reader(file))

    assert rows[0] == ["chapter", "part", "item", "column", "figure", "unit", "known"]
    assert {len(row) for row in rows} == {7}
    assert ["build", "", "name", "", "Wexcombe", "", ""] in rows
    assert ["Vehicle and brakes", "Rear", "Wheel cylinder", "", "0.875", "in", ""] in rows
    assert ["For the wall", "Set this", "Rear valve, knee", "", "375", "psi", ""] in rows
    assert any(row[1:3] == ["finding", "danger"] for row in rows)
    foot = next(row for row in rows if row[2] == "Foot")
    assert foot[4:6] == ["60", "lbf"]


@pytest.mark.parametrize(
    ("figure", "text", "number", "unit"),
    [
        (ShownFigure("1 1/16", "in"), "1 1/16 in", "1.0625", "in"),
        (ShownFigure("2,510", "mm"), "2,510 mm", "2510", "mm"),
        (ShownFigure("−0.4", "°C"), "−0.4 °C", "-0.4", "°C"),
        (ShownFigure("aluminium", ""), "aluminium", "aluminium", ""),
    ],
)
def test_a_cell_is_read_by_eyes_and_by_machines(
    figure: ShownFigure, text: str, number: str, unit: str
) -> None:
    assert Cell(figure) == text
    assert Cell(figure, "assumed") == f"{text} *"
    assert Cell(figure, "planned") == f"{text} †"
    assert (Cell(figure).number, Cell(figure).unit) == (number, unit)


# --- whatever a file says ---


MARKUP = '<img src="/dev/zero">$x^$_hidden & ◊chart◊ ]]></svg>'


def odd(bakery: Build, cases: int) -> Build:
    case = bakery.model_dump(mode="json", exclude_unset=True)["vehicle"]["load_cases"][0]
    named = [case | {"name": f"{MARKUP} {index}"} for index in range(cases)]
    return with_changes(bakery, {"name": MARKUP, "notes": MARKUP, "vehicle.load_cases": named})


def test_names_that_are_markup_are_drawn_as_they_stand(
    dressed: QApplication, bakery: Build, tmp_path: Path
) -> None:
    solution = solve(odd(bakery, 3))
    chart = pressure_chart(solution, UnitSystem.INCH)
    drawn = ElementTree.fromstring(chart)
    said = [one.text for one in drawn.iter("{http://www.w3.org/2000/svg}text")]
    assert f"{MARKUP} 0"[:29] + "…" in said
    document = set_sheet(solution, UnitSystem.INCH)
    text = document.document.toPlainText()
    assert text.count(MARKUP) >= 2
    # The chart, in its place, and a picture of each load on each road.
    assert text.count("\N{OBJECT REPLACEMENT CHARACTER}") == 1 + 3 * 3

    path = tmp_path / "sheet.html"
    write(odd(bakery, 3), path)
    assert "<img" not in path.read_text(encoding="utf-8")


def test_a_legend_of_many_load_cases_names_a_few(bakery: Build) -> None:
    solution = solve(odd(bakery, 60), load_case=f"{MARKUP} 47")
    drawn = ElementTree.fromstring(pressure_chart(solution, UnitSystem.INCH))
    box = min(float(one.attrib["y"]) for one in drawn.iter("{http://www.w3.org/2000/svg}rect"))
    said = [str(one.text) for one in drawn.iter("{http://www.w3.org/2000/svg}text")]

    assert "… and 57 more load cases" in said
    assert sum(one.startswith("<img") for one in said) == 3
    assert box > float(drawn.attrib["viewBox"].split()[3]) * 0.4  # half of the plot stays free
    assert len(list(drawn.iter("{http://www.w3.org/2000/svg}polyline"))) == 61


@pytest.mark.parametrize(
    ("cell", "written"),
    [
        ("=1+1", "'=1+1"),
        ("+cmd|x", "'+cmd|x"),
        ("-2+3", "'-2+3"),
        ("@SUM(A1)", "'@SUM(A1)"),
        ("\t=1", "'\t=1"),
        ("-3.5", "-3.5"),
        ("-3.5 mm", "-3.5 mm"),
        ("-3.5 m/s²", "-3.5 m/s²"),
        ("-3 =A1", "'-3 =A1"),
        ("+0.03", "+0.03"),
        ("front, 75 lbf", "front, 75 lbf"),
        ("", ""),
    ],
)
def test_no_cell_is_a_formula(cell: str, written: str) -> None:
    assert as_text(cell) == written


def test_a_table_of_a_build_called_like_a_formula(bakery: Build, tmp_path: Path) -> None:
    path = tmp_path / "sheet.csv"
    write(edited(bakery, "name", "=HYPERLINK(1)"), path)
    with path.open(encoding="utf-8", newline="") as file:
        rows = list(csv.reader(file))

    assert rows[1][4] == "'=HYPERLINK(1)"


@pytest.mark.parametrize("form", ["pdf", "html", "csv"])
def test_a_sheet_that_fails_leaves_the_one_before(
    dressed: QApplication, bakery: Build, tmp_path: Path, monkeypatch: pytest.MonkeyPatch, form: str
) -> None:
    path = tmp_path / f"sheet.{form}"
    write(bakery, path)
    before = path.read_bytes()

    def full(handle: int) -> None:
        raise OSError(errno.ENOSPC, "No space left on device")

    monkeypatch.setattr(os, "fsync", full)
    with pytest.raises(BuildErrors, match=r"cannot be written \(No space left on device\)"):
        write(edited(bakery, "name", "Changed"), path)

    assert path.read_bytes() == before
    assert [one.name for one in tmp_path.iterdir()] == [path.name]


def test_a_card_on_paper_says_how_many_come_and_where_a_loop_begins_again() -> None:
    """The same on paper as on screen, with the number of people that was chosen."""
    build = demo("library")
    made = procedure(build, "bleed", "pedal")
    whole = cards_markup(build, made, "Bleed", 3)
    assert "People: 3." in whole
    number = next(n for n, step in enumerate(made.steps, start=1) if step.loop == "end")
    assert f"Until then: from step {made.back_to(number)} again." in whole
    who = roles(made, 3, bar=False)
    assert len(cards(build, made, "Bleed", 3)) == 1 + len(who)
    assert len(cards(build, made, "Bleed", 3, apart=False)) == 1
    now = at_first(made.begins)
    for step in made.steps[:5]:
        now = now.after(step)
    sixth = duties(who, made.steps[5], now)
    for role, card in zip(who, cards(build, made, "Bleed", 3)[1:], strict=True):
        rows = {row.number: row.text for row in card.rows}
        assert rows.get(6, sixth[role]) == sixth[role]


def test_cards_stand_in_parts_by_wheel_and_proof() -> None:
    """Before, each wheel in its order, after; of the proofs each under its name."""
    build = demo("library")
    whole, pedal, _ = cards(build, procedure(build, "bleed", "pedal"), "Bleed", 2)
    titles = ["Before", "Right rear", "Left rear", "Right front", "Left front", "After"]
    assert [part.title for part in whole.parts] == titles
    assert [part.title for part in pedal.parts] == titles
    assert [row.number for row in whole.rows] == list(range(1, len(whole.rows) + 1))
    left, right = pedal.columns
    assert (*left, *right) == pedal.parts
    assert sum(len(part.rows) for part in left) >= sum(len(part.rows) for part in right)
    proofs = cards(build, procedure(build, "prove-standing"), "All standing proofs", 1)[0]
    assert [part.title for part in proofs.parts][-3:] == ["No leaks", "Three strokes", "After"]
    overhaul = cards(build, procedure(build, "overhaul"), "Overhaul", 1)[0]
    assert [part.title for part in overhaul.parts] == [""]  # one part needs no title


@pytest.mark.parametrize(("name", "people"), [("bleed", 3), ("prove-standing", 2), ("overhaul", 1)])
def test_no_step_of_a_card_is_cut_by_the_end_of_a_page(
    dressed: QApplication, name: str, people: int
) -> None:
    build = demo("library")
    made = procedure(build, name, "pedal" if name == "bleed" else None)
    content = cards_pdf(build, made, "Cards", people, letter=True)
    read = PdfReader(BytesIO(content)).pages
    # a letter each of "fi" and "ff", which are one on paper
    pages = [re.sub(r"\s+", "", normalize("NFKC", page.extract_text())) for page in read]
    for row in cards(build, made, "Cards", people)[0].rows:
        step, why = (re.sub(r"\s+", "", words) for words in (f"{row.number}{row.text}", row.why))
        assert any(step in page and why in page for page in pages), row
    assert f"Page{len(pages)}of{len(pages)}" in pages[-1]
