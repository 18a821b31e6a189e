"""The layout on the sheet: each line's cut for the bench, and what is bought."""

from collections.abc import Iterator

from urgens.document import Build
from urgens.document.circuits import circuits_of
from urgens.document.layout.line_sheets import MadeLine, routed
from urgens.guidance.words.parts import line_name
from urgens.guidance.words.trade import item_name, item_sold_as
from urgens.plumbing.cut_list import TooLongError
from urgens.plumbing.kit import buying_list
from urgens.plumbing.shopping import SAW, STOCK
from urgens.quantity import LENGTH, ShownFigure, Units, UnitSystem, show, shown, unit_shown
from urgens.sheet.table import Cell, Table


def laid_tables(
    build: Build, units: UnitSystem | Units, before: Build | None = None
) -> tuple[Table, ...]:
    """Return the tables of a build's layout, none where it has none.

    before: what the vehicle is now, where this is what it is to be: what stays is not bought.
    """
    circuits = circuits_of(build)
    if circuits is None or build.plumbing is None:
        return ()
    made = {one.line.id: one for one in routed(build.plumbing)}
    lines = [line for line in build.plumbing.lines if not line.direct]
    rows = tuple(
        (
            line.id.removeprefix("L"),
            line_name(circuits, line),
            "not known" if line.tube is None else Cell(shown(line.tube, LENGTH, units)),
            " – ".join(f"{end.nut} {end.flare}" for end in line.ends) or "not known",
            _cut(made.get(line.id), units),
        )
        for line in lines
    )
    found = [Table("Lines", ("Line", "From and to", "Tube", "Nuts and flares", "Cut"), rows)]
    return (*found, *_to_buy(build, units, before))


def _cut(line: MadeLine | None, units: UnitSystem | Units) -> str:
    if line is None:
        return "no route yet"
    if line.sheet is None:
        return "cannot be bent as drawn"
    return Cell(show(line.length, LENGTH, units))


def _to_buy(build: Build, units: UnitSystem | Units, before: Build | None) -> Iterator[Table]:
    """Yield what is bought, where every line can be cut from a length that is sold."""
    assert build.plumbing is not None
    try:
        found = buying_list(build, STOCK.value, SAW.value, before=before)
    except TooLongError as error:
        yield Table("To buy", ("What", "Why"), ((f"line {error.name}", str(error)),))
        return
    rows = tuple(
        (one.shelf, _named(one.item), Cell(ShownFigure(str(one.count), one.counted_in)),
         ", ".join(filter(None, (one.check, one.why))), "☐")
        for one in found.rows
    )  # fmt: skip
    if rows:
        inches = unit_shown(LENGTH, units) == "in"
        sold = STOCK.text if inches else f"{STOCK.value:.1f} m"
        heads = ("Where", "What", "How many", "To look at, and why", "Came")
        yield Table(f"To buy, tube in lengths of {sold}", heads, rows)


def _named(item: str) -> str:
    """Return what is bought, with what it is sold as."""
    sold = item_sold_as(item)
    return f"{item_name(item)} (sold as {sold})" if sold else item_name(item)
