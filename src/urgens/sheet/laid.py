"""The layout on the sheet: each line's cut and bends for the bench, and what is bought."""

from collections.abc import Iterator

from urgens.document import Build
from urgens.document.circuits import circuits_of
from urgens.document.layout.line_sheets import MadeLine, routed
from urgens.guidance.words.parts import KINDS, line_name
from urgens.plumbing.cut_list import TooLongError
from urgens.plumbing.kit import buying_list
from urgens.plumbing.shopping import SAW, STOCK, cut_from
from urgens.quantity import ANGLE, LENGTH, ShownFigure, Units, UnitSystem, show, shown, unit_shown
from urgens.sheet.table import Cell, Table


def laid_tables(build: Build, units: UnitSystem | Units) -> tuple[Table, ...]:
    """Return the tables of a build's layout, none where it has none."""
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
    bends = tuple(
        (line.id.removeprefix("L"), *_bends(made[line.id], units))
        for line in lines
        if line.id in made and made[line.id].sheet is not None
    )
    found = [Table("Lines", ("Line", "From and to", "Tube", "Nuts and flares", "Cut"), rows)]
    if bends:
        heads = ("Line", "On before the first flare", "Feed, turn, bend; last straight")
        found.append(Table("Bend sheet", heads, bends))
    return (*found, *_to_buy(build, units))


def _cut(line: MadeLine | None, units: UnitSystem | Units) -> str:
    if line is None:
        return "no route yet"
    if line.sheet is None:
        return "cannot be bent as drawn"
    return Cell(show(line.length, LENGTH, units))


def _bends(line: MadeLine, units: UnitSystem | Units) -> tuple[str, str]:
    sheet = line.sheet
    assert sheet is not None
    rows = zip(sheet.feed, sheet.rotation, line.settings, strict=True)
    bends = [
        f"{show(feed, LENGTH, units)}, {show(turn, ANGLE, units)}, {show(angle, ANGLE, units)}"
        for feed, turn, angle in rows
    ]
    bends.append(str(show(sheet.last, LENGTH, units)))
    first = [f"nut {end.nut}" for end in line.line.ends[:1]]
    return ", ".join([*first, *line.line.slide_on_first]) or "nothing", "; ".join(bends)


def _to_buy(build: Build, units: UnitSystem | Units) -> Iterator[Table]:
    """Yield what is bought, where every line can be cut from a length that is sold."""
    assert build.plumbing is not None
    try:
        cut = cut_from(routed(build.plumbing), STOCK.value, SAW.value)
    except TooLongError:
        cut = ()
    rows = tuple(
        (KINDS.get(one.item, one.item[:1].upper() + one.item[1:]),
         Cell(ShownFigure(str(one.count),
                          one.unit if one.count > 1 else one.unit.removesuffix("s"))),
         one.why)
        for one in buying_list(build, cut, STOCK.value)
    )  # fmt: skip
    if rows:
        inches = unit_shown(LENGTH, units) == "in"
        sold = STOCK.text if inches else f"{STOCK.text} ({STOCK.value:.1f} m)"
        yield Table(f"To buy, tube in lengths of {sold}", ("What", "How many", "Why"), rows)
