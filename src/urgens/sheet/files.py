"""Writing the sheet to a file."""

import csv
import io
import re
from collections.abc import Sequence
from datetime import date
from pathlib import Path
from typing import TYPE_CHECKING

from urgens.document import Build, BuildErrors
from urgens.document.whole_file import write_whole
from urgens.quantity import Units, UnitSystem
from urgens.sheet.chart import pressure_chart
from urgens.sheet.content import content, csv_rows
from urgens.sheet.markup import html
from urgens.solve import Solution, solve

if TYPE_CHECKING:
    from urgens.sheet.pdf import SheetDocument

_NUMBER = re.compile(r"[+-]?[\d.,]+( [\w°%/²³·]+)?")  # with its unit or not
FORMS = (".pdf", ".html", ".csv")


def write(build: Build, path: Path, units: UnitSystem | Units | None = None) -> None:
    """Write the sheet of `build` to `path`, whose ending chooses the form.

    Raises BuildErrors where the ending is none of them or the file cannot be written.
    """
    write_solution(solve(build), path, units or build.natural_units)


def write_solution(solution: Solution, path: Path, units: UnitSystem | Units) -> None:
    """Write the sheet of `solution` to `path`; as `write`."""
    form = path.suffix.lower()
    if form not in FORMS:
        raise BuildErrors.one(str(path), "has no ending of a sheet", "end it .pdf, .html or .csv")
    sheet = content(solution, units, date.today())
    try:
        if form == ".csv":
            written = _table(csv_rows(sheet))
        elif form == ".html":
            written = html(sheet, pressure_chart(solution, units)).encode()
        else:
            from urgens.sheet.pdf import gui

            application = gui()  # kept until the pages are set
            written = set_sheet(solution, units).pdf()
            del application
        write_whole(path, written)
    except OSError as error:
        raise BuildErrors.one(
            str(path), f"cannot be written ({error.strerror})", "choose another place"
        ) from None


def set_sheet(solution: Solution, units: UnitSystem | Units) -> "SheetDocument":
    """Return the sheet of `solution`, set on Letter or A4; a Qt application has to run."""
    from urgens.sheet.pdf import SheetDocument

    letter = (units if isinstance(units, UnitSystem) else units.system) is UnitSystem.INCH
    sheet, chart = content(solution, units, date.today()), pressure_chart(solution, units)
    return SheetDocument(sheet, chart, letter=letter)


def _table(rows: Sequence[tuple[str, ...]]) -> bytes:
    text = io.StringIO()
    csv.writer(text).writerows([as_text(cell) for cell in row] for row in rows)
    return text.getvalue().encode()


def as_text(cell: str) -> str:
    """Return a cell that no spreadsheet takes for a formula: an apostrophe stands before it.

    cell: what it says [text]. Source: OWASP, CSV injection (from memory).
    """
    formula = cell.startswith(("=", "+", "-", "@", "\t", "\r")) and not _NUMBER.fullmatch(cell)
    return f"'{cell}" if formula else cell
