"""One line on one page, for the bench: its picture, its bends, the order of the work."""

from datetime import date
from typing import TYPE_CHECKING

from urgens.document import Build
from urgens.document.circuits import circuits_of
from urgens.document.layout.line_sheets import MadeLine
from urgens.guidance.advice.line_steps import line_work
from urgens.guidance.words.parts import MATERIALS, SEATS, line_called
from urgens.quantity import ANGLE, LENGTH, Units, UnitSystem, show, shown
from urgens.sheet.blocks import Bound, Chapter, Drawing, Paragraphs, Rows
from urgens.sheet.table import Cell, Table

if TYPE_CHECKING:
    from urgens.sheet.pdf import SheetDocument

WIDE, HIGH = 6.6, 4.4  # inches of the picture
BLANK = "☐"


def line_bound(build: Build, line: MadeLine, drawing: bytes, units: UnitSystem | Units) -> Bound:
    """Return the page of a line.

    build: with its layout; line: as it is made; drawing: of its route [SVG]; units: to say it in.
    Source: `line_work`; the order of a bend sheet.
    """
    laid = circuits_of(build)
    assert laid is not None
    called = line_called(laid, line.line)
    words = "From above, from the left side, and as it is bent"
    blocks = (
        Rows(_facts(line, units)), Drawing(drawing, WIDE, HIGH, words), Rows(_bends(line, units)),
        Paragraphs(tuple(f"{BLANK} {number}. {step}" for number, step in enumerate(
            line_work(line, laid.plumbing.bench, units), start=1))),
    )  # fmt: skip
    title = f"{called[:1].upper()}{called[1:]}"
    return Bound(build.name, date.today().isoformat(), (Chapter("line", title, blocks),))


def line_pages(
    build: Build, line: MadeLine, drawing: bytes, units: UnitSystem | Units, *, letter: bool
) -> "SheetDocument":
    """Return the page of a line, set; as `line_bound`; a Qt application has to run.

    letter: on that paper instead of A4 [-].
    """
    from urgens.sheet.pdf import SheetDocument

    return SheetDocument(line_bound(build, line, drawing, units), letter=letter)


def _facts(line: MadeLine, units: UnitSystem | Units) -> Table:
    made = line.line
    tube = "not known" if made.tube is None else Cell(shown(made.tube, LENGTH, units))
    ends = [f"{end.nut}, {SEATS[end.flare]}" for end in made.ends] or ["not known"] * 2
    heads = ("Cut", "Tube", "Of", "First end", "Second end", "Marking")
    row = (Cell(show(line.length, LENGTH, units)), tube,
           MATERIALS.get(made.material or "", "not known"), *ends, made.marking or "")  # fmt: skip
    return Table("To cut", heads, (row,))


def _bends(line: MadeLine, units: UnitSystem | Units) -> Table:
    sheet = line.sheet
    assert sheet is not None
    rows = [
        (str(number), Cell(show(feed, LENGTH, units)),
         Cell(show(turn, ANGLE, units)) if number > 1 else "",
         Cell(show(angle, ANGLE, units)), Cell(show(setting, ANGLE, units)))
        for number, (feed, turn, angle, setting) in enumerate(
            zip(sheet.feed.tolist(), sheet.rotation.tolist(), sheet.angle.tolist(),
                line.settings.tolist(), strict=True), start=1)
    ]  # fmt: skip
    last = ("last", Cell(show(sheet.last, LENGTH, units)), "", "", "")
    return Table("Bends", ("Bend", "Feed", "Turn", "Bend by", "Set bender to"), (*rows, last))
