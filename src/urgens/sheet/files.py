"""Writing the sheet to a file."""

import csv
import io
from datetime import date
from pathlib import Path

from urgens.document import Build, BuildErrors
from urgens.quantity import Units, UnitSystem
from urgens.sheet.chart import pressure_chart
from urgens.sheet.content import content, csv_rows
from urgens.sheet.markup import html
from urgens.solve import Solution, solve

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
            text = io.StringIO()
            csv.writer(text).writerows(csv_rows(sheet))
            path.write_text(text.getvalue(), encoding="utf-8", newline="")
            return
        chart = pressure_chart(solution, units)
        if form == ".html":
            path.write_text(html(sheet, chart), encoding="utf-8")
        else:
            from urgens.sheet.pdf import SheetDocument, gui

            application = gui()  # kept until the file is written
            SheetDocument(sheet, chart).write(path)
            del application
    except OSError as error:
        raise BuildErrors.one(
            str(path), f"cannot be written ({error.strerror})", "choose another place"
        ) from None
