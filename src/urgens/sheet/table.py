"""A table of the sheet."""

from dataclasses import dataclass

from urgens.quantity import ShownFigure, number_of

# After a figure that nobody found out: assumed is what nobody typed, or is marked so; planned is
# what the program chose.
MARKS = {"assumed": " *", "planned": " †"}


class Cell(str):
    """A cell that shows one figure: as read, and its number and unit apart for machines."""

    __slots__ = ("known", "number", "unit")
    number: str
    unit: str
    known: str

    def __new__(cls, figure: ShownFigure, known: str = "") -> "Cell":
        """Return the cell of a figure; known: assumed or planned, which mark it, or nothing."""
        cell = super().__new__(cls, str(figure).strip() + MARKS.get(known, ""))
        value = number_of(figure.number.replace(",", ""))
        cell.number = figure.number if value is None else f"{value:.10g}"
        cell.unit, cell.known = figure.unit, known
        return cell


@dataclass(frozen=True)
class Table:
    """Column heads, the first of which names the rows, and rows of ready text."""

    title: str
    heads: tuple[str, ...]
    rows: tuple[tuple[str, ...], ...]

    @property
    def figures(self) -> tuple[bool, ...]:
        """Which columns hold figures, and are set to the right."""
        return tuple(
            any(isinstance(cell, Cell) for cell in column)
            for column in zip(*self.rows, strict=True)
        )
