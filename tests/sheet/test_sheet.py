"""The build sheet: the same figures as the solution, on one page."""

import csv
import errno
import os
import re
from datetime import date
from pathlib import Path
from xml.etree import ElementTree

import pytest
from PySide6.QtWidgets import QApplication

from urgens.document import Build, BuildErrors, edited, with_changes
from urgens.guidance.cautions import CAUTIONS
from urgens.quantity import UnitSystem
from urgens.sheet import content, write
from urgens.sheet.chart import pressure_chart
from urgens.sheet.files import as_text
from urgens.sheet.pdf import SheetDocument
from urgens.solve import solve

DAY = date(2026, 11, 25)


def test_it_says_what_is_fitted_as_it_was_typed(pickup: Build) -> None:
    sheet = content(solve(pickup), UnitSystem.INCH, DAY)
    said = {label: value for _, rows in sheet.fitted for label, value in rows}

    assert said["Wheelbase"] == "9 ft 7 in"
    assert said["Pedal"] == "13-1/2 in to 3-3/8 in (4.00:1)"
    assert said["Reducing"] == "knee 375 psi, slope 0.3 (in combination block)"


DISC = {"kind": "disc", "caliper": "opposed", "piston_diameters": ["1.5 in", "1.75 in"],
        "pad_friction": 0.4}  # fmt: skip


@pytest.mark.parametrize(
    ("typed", "label", "words"),
    [
        ({"effective_radius": "4.5 in"}, "Effective radius", "4.5 in"),
        (
            {
                "pad_inner_radius": "3.875 in",
                "pad_outer_radius": "5.5 in",
                "pad_pressure": "uniform-wear",
            },
            "Pad, from the axle",
            "3.875 in to 5.5 in, uniform wear",
        ),
        (
            {"rotor_outer_diameter": "11 in", "pad_height": "2 in"},
            "Rotor, pad",
            "11 in, 2 in high",
        ),
    ],
)
def test_a_disc_is_said_by_what_was_measured(
    pickup: Build, typed: dict[str, str], label: str, words: str
) -> None:
    build = edited(pickup, "front.brake", DISC | typed)
    rows = dict(content(solve(build), UnitSystem.INCH, DAY).fitted)["Front"]
    said = dict(rows)

    assert said[label] == words
    assert said["Disc brake"] == "opposed caliper, pistons 1.5 in, 1.75 in a side"
    assert (
        len({"Effective radius", "Pad, from the axle", "Rotor, pad"} & {name for name, _ in rows})
        == 1
    )


def test_its_figures_are_the_solutions(roadster: Build) -> None:
    solution = solve(roadster)
    sheet = content(solution, UnitSystem.METRIC, DAY)
    front = float(solution.presses.front_pressure[0]) / 1e5

    assert sheet.presses.rows[0][1] == f"{front:.1f} bar"
    assert sheet.locks.rows[0][3].startswith("front, ")
    assert sheet.locks.heads == ("Load case", "Ice, μ 0.15", "Wet, μ 0.50", "Target, μ 1.10")
    assert sheet.cautions == CAUTIONS


def test_where_nothing_locks_or_travel_ends_it_says_so(roadster: Build) -> None:
    build = edited(edited(roadster, "targets.max_effort", "20 N"), "master.stroke", "2 mm")
    sheet = content(solve(build), UnitSystem.METRIC, DAY)

    assert sheet.locks.rows[0][3] == "none up to 20 N"
    assert sheet.presses.rows[0][4] == "beyond the stroke or floor"


@pytest.mark.parametrize("letter", [False, True])
def test_demo_builds_take_one_page(
    dressed: QApplication, pickup: Build, roadster: Build, *, letter: bool
) -> None:
    for build in (pickup, roadster):
        solution = solve(build)
        units = build.natural_units
        sheet = content(solution, units, DAY)
        assert SheetDocument(sheet, pressure_chart(solution, units), letter=letter).pages == 1


def test_a_long_sheet_takes_more_pages(dressed: QApplication, pickup: Build) -> None:
    build = edited(pickup, "notes", "A long story. " * 900)
    solution = solve(build)
    sheet = content(solution, UnitSystem.INCH, DAY)

    assert SheetDocument(sheet, pressure_chart(solution, UnitSystem.INCH)).pages > 1


def test_html_is_whole_and_escapes_what_is_typed(pickup: Build, tmp_path: Path) -> None:
    path = tmp_path / "sheet.html"
    write(edited(pickup, "name", "<b>Wexcombe & Sons"), path)
    text = path.read_text(encoding="utf-8")

    assert "<h1>&lt;b&gt;Wexcombe &amp; Sons</h1>" in text
    assert all(caution in text for caution in CAUTIONS)
    svg = text[text.index("<svg") : text.index("</svg>") + 6]
    assert ElementTree.fromstring(svg).tag.endswith("svg")
    assert re.search(r"(approved|legal|safe)\b", text, re.IGNORECASE) is None


def test_pdf_is_a_pdf_with_its_text(dressed: QApplication, pickup: Build, tmp_path: Path) -> None:
    path = tmp_path / "sheet.pdf"
    write(pickup, path)
    raw = path.read_bytes()

    assert raw.startswith(b"%PDF-")
    assert raw.rstrip().endswith(b"%%EOF")
    assert raw.count(b"/Type /Page\n") == 1
    assert b"/Subtype /Image" not in raw  # the chart is drawn, not a picture


def test_the_document_holds_all_sections(dressed: QApplication, pickup: Build) -> None:
    solution = solve(pickup)
    sheet = content(solution, UnitSystem.INCH, DAY)
    document = SheetDocument(sheet, pressure_chart(solution, UnitSystem.INCH)).document
    text = document.toPlainText()
    end = document.lastBlock()

    for words in ("Pedal and cylinder", "Which axle locks first", "rear, 68 lbf", *CAUTIONS):
        assert words in text
    assert document.documentLayout().blockBoundingRect(end).height() > 0  # laid out to the end


def test_csv_has_a_row_for_each_figure(pickup: Build, tmp_path: Path) -> None:
    path = tmp_path / "sheet.csv"
    write(pickup, path)
    with path.open(newline="", encoding="utf-8") as file:
        rows = list(csv.reader(file))

    assert rows[0] == ["build", "Wexcombe"]
    assert ["fitted, Rear", "Wheel cylinder", "7/8 in"] in rows
    assert any(row[:2] == ["finding", "danger"] for row in rows)


# --- whatever a file says ---


MARKUP = '<img src="/dev/zero">$x^$_hidden & ◊chart◊ ]]></svg>'


def odd(pickup: Build, cases: int) -> Build:
    case = pickup.model_dump(mode="json", exclude_unset=True)["vehicle"]["load_cases"][0]
    named = [case | {"name": f"{MARKUP} {index}"} for index in range(cases)]
    return with_changes(pickup, {"name": MARKUP, "notes": MARKUP, "vehicle.load_cases": named})


def test_names_that_are_markup_are_drawn_as_they_stand(
    dressed: QApplication, pickup: Build, tmp_path: Path
) -> None:
    solution = solve(odd(pickup, 3))
    chart = pressure_chart(solution, UnitSystem.INCH)
    drawn = ElementTree.fromstring(chart)
    said = [one.text for one in drawn.iter("{http://www.w3.org/2000/svg}text")]
    assert f"{MARKUP} 0"[:29] + "…" in said
    document = SheetDocument(content(solution, UnitSystem.INCH, DAY), chart)
    text = document.document.toPlainText()
    assert text.count(MARKUP) >= 2
    assert text.count("\N{OBJECT REPLACEMENT CHARACTER}") == 1  # the chart, in its place

    path = tmp_path / "sheet.html"
    write(odd(pickup, 3), path)
    assert "<img" not in path.read_text(encoding="utf-8")


def test_a_legend_of_many_load_cases_names_a_few(pickup: Build) -> None:
    solution = solve(odd(pickup, 60), load_case=f"{MARKUP} 47")
    drawn = ElementTree.fromstring(pressure_chart(solution, UnitSystem.INCH))
    box = min(float(one.attrib["y"]) for one in drawn.iter("{http://www.w3.org/2000/svg}rect"))
    said = [str(one.text) for one in drawn.iter("{http://www.w3.org/2000/svg}text")]

    assert "… and 54 more load cases" in said
    assert sum(one.startswith("<img") for one in said) == 6
    assert box > 200  # px: most of the plot stays free
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


def test_a_table_of_a_build_called_like_a_formula(pickup: Build, tmp_path: Path) -> None:
    path = tmp_path / "sheet.csv"
    write(edited(pickup, "name", "=HYPERLINK(1)"), path)
    with path.open(encoding="utf-8", newline="") as file:
        rows = list(csv.reader(file))

    assert rows[0] == ["build", "'=HYPERLINK(1)"]


@pytest.mark.parametrize("form", ["pdf", "html", "csv"])
def test_a_sheet_that_fails_leaves_the_one_before(
    dressed: QApplication, pickup: Build, tmp_path: Path, monkeypatch: pytest.MonkeyPatch, form: str
) -> None:
    path = tmp_path / f"sheet.{form}"
    write(pickup, path)
    before = path.read_bytes()

    def full(handle: int) -> None:
        raise OSError(errno.ENOSPC, "No space left on device")

    monkeypatch.setattr(os, "fsync", full)
    with pytest.raises(BuildErrors, match=r"cannot be written \(No space left on device\)"):
        write(edited(pickup, "name", "Changed"), path)

    assert path.read_bytes() == before
    assert [one.name for one in tmp_path.iterdir()] == [path.name]
