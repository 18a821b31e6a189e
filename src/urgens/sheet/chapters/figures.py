"""The vehicle and its brakes, what they give, the layout with its lines."""

from collections.abc import Iterator

from urgens.sheet.bends import two_by_two
from urgens.sheet.blocks import Beside, Block, Columns, Drawing, Findings, Paragraphs, Rows
from urgens.sheet.chapters.told import SheetContext
from urgens.sheet.chart import HIGH, WIDE, pressure_chart

LAYOUT = "layout"  # the name of the drawing that is made elsewhere
NOT_DRAWN = "The drawing is written by the window, or by: urgens plumb FILE -o layout.svg"


def vehicle(context: SheetContext) -> Iterator[Block]:
    """Yield what is fitted; context: of a build."""
    yield Paragraphs((context.sheet.known,), "warning")
    yield Columns(context.sheet.columns)


def balance(context: SheetContext) -> Iterator[Block]:
    """Yield what the brakes give; context: of a build."""
    words = "Line pressures and the ideal line of each load"
    chart = Drawing(pressure_chart(context.solution, context.units), WIDE, HIGH, words)
    yield Beside((chart,), (Rows(context.sheet.presses), Rows(context.sheet.locks)), 40)
    yield Findings(context.sheet.findings)
    yield Paragraphs((f"Out of the model: {context.sheet.limits}",), "muted")


def layout(context: SheetContext) -> Iterator[Block]:
    """Yield the drawing of the layout and its lines; context: of a build."""
    if context.build.plumbing is None:
        return
    drawn = context.drawings.get(LAYOUT)
    if drawn is not None:
        yield Drawing(drawn, 6.4, 6.97, "The layout: lines by their numbers in the cut list")
    else:
        yield Paragraphs((NOT_DRAWN,), "muted")


def lines(context: SheetContext) -> Iterator[Block]:
    """Yield cut list, bend sheets and what is bought; context: of a build."""
    found = context.sheet.laid
    yield from (Rows(table) for table in found[:1])
    yield from two_by_two(context.sheet.bent)
    yield from (Rows(table) for table in found[1:])
