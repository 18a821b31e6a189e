"""The vehicle and its brakes, what they give, the layout with its lines."""

from collections.abc import Iterator

from urgens.sheet.blocks import Block, Columns, Drawing, Findings, Rows, Words
from urgens.sheet.chapters.told import Told
from urgens.sheet.chart import pressure_chart

LAYOUT = "layout"  # the name of the drawing that is made elsewhere
NOT_DRAWN = "The drawing is written by the window, or by: urgens plumb FILE -o layout.svg"


def vehicle(told: Told) -> Iterator[Block]:
    """Yield what is fitted; told: of a build [object]. Source: the build."""
    yield Words((told.sheet.known,), "warning")
    yield Columns(told.sheet.columns)


def balance(told: Told) -> Iterator[Block]:
    """Yield what the brakes give; told: of a build [object]. Source: its solution."""
    words = "Line pressures and the ideal line of each load"
    yield Drawing(pressure_chart(told.solution, told.units), 3.55, 3.6, words)
    yield Rows(told.sheet.presses)
    yield Rows(told.sheet.locks)
    yield Findings(told.sheet.findings)
    yield Words((f"Out of the model: {told.sheet.limits}",), "muted")


def layout(told: Told) -> Iterator[Block]:
    """Yield the drawing of the layout and its lines; told: of a build. Source: the layout."""
    if told.build.plumbing is None:
        return
    drawn = told.drawings.get(LAYOUT)
    if drawn is not None:
        yield Drawing(drawn, 6.4, 6.97, "The layout: lines by their numbers in the cut list")
    else:
        yield Words((NOT_DRAWN,), "muted")


def lines(told: Told) -> Iterator[Block]:
    """Yield cut list, bend sheets and what is bought; told: of a build. Source: the layout."""
    for table in told.sheet.laid:
        yield Rows(table)
