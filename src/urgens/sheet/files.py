"""Writing the sheet to a file."""

import csv
import io
import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date
from pathlib import Path
from typing import TYPE_CHECKING, Literal

from urgens.document import Build, BuildErrors
from urgens.document.whole_file import write_whole, written_to
from urgens.quantity import Units, UnitSystem
from urgens.sheet.blocks import Bound
from urgens.sheet.chapters import bound
from urgens.sheet.chapters.told import SheetContext
from urgens.sheet.figure_rows import figure_rows
from urgens.sheet.markup import html
from urgens.solve import Solution, solve

if TYPE_CHECKING:
    from urgens.sheet.pdf import SheetDocument

_NUMBER = re.compile(r"[+-]?[\d.,]+( [\w°%/²³·]+)?")  # with its unit or not
FORMS = (".pdf", ".html", ".csv")


@dataclass(frozen=True)
class SheetRequest:
    """How a sheet is wanted.

    `chapters` by name, None for all that say something; `paper`, None for that of the units;
    `folder` of the photographs; `drawings` by name; `base`, the build without a set-up.
    """

    chapters: tuple[str, ...] | None = None
    paper: Literal["a4", "letter"] | None = None
    folder: Path | None = None
    drawings: Mapping[str, bytes] = field(default_factory=dict)
    base: Build | None = None


ALL_OF_IT = SheetRequest()


def write(build: Build, path: Path, units: UnitSystem | Units | None = None) -> None:
    """Write the sheet of `build` to `path`, whose ending chooses the form.

    Raises BuildErrors where the ending is none of them or the file cannot be written.
    """
    write_solution(solve(build), path, units or build.natural_units)


def write_solution(
    solution: Solution, path: Path, units: UnitSystem | Units, request: SheetRequest = ALL_OF_IT
) -> None:
    """Write the sheet of `solution` to `path` as it is asked for; as `write`."""
    form = path.suffix.lower()
    if form not in FORMS:
        raise BuildErrors.one(str(path), "has no ending of a sheet", "end it .pdf, .html or .csv")
    base = solution.build if request.base is None else request.base
    application = None
    if form == ".pdf" or base.photographs:  # which Qt sets, and reads
        from urgens.sheet.pdf import gui

        application = gui()  # kept until all is made
    with written_to(path):
        written = _content(solution, units, request, form)
        del application
        write_whole(path, written)


def chapters_of(solution: Solution, units: UnitSystem | Units, request: SheetRequest) -> Bound:
    """Return the chapters of a sheet as they are asked for.

    units: shown; request: which.
    """
    base = solution.build if request.base is None else request.base
    told = SheetContext(solution, units, date.today(), base, request.folder, request.drawings)
    return bound(told, request.chapters)


def _content(
    solution: Solution, units: UnitSystem | Units, request: SheetRequest, form: str
) -> bytes:
    """Return the sheet in one of its forms."""
    if form == ".pdf":
        return set_sheet(solution, units, request).pdf()
    chapters = chapters_of(solution, units, request)
    return html(chapters).encode() if form == ".html" else _table(figure_rows(chapters))


def set_sheet(
    solution: Solution, units: UnitSystem | Units, request: SheetRequest = ALL_OF_IT
) -> "SheetDocument":
    """Return the sheet of `solution`, set on Letter or A4; a Qt application has to run."""
    from urgens.sheet.pdf import SheetDocument

    inches = (units if isinstance(units, UnitSystem) else units.system) is UnitSystem.INCH
    letter = inches if request.paper is None else request.paper == "letter"
    return SheetDocument(chapters_of(solution, units, request), letter=letter)


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
