"""A table of the sheet."""

from dataclasses import dataclass

LEAST, MOST = 7, 44  # letters of a column that count for its width
WHOLE = 100


@dataclass(frozen=True)
class Table:
    """Column heads, the first of which names the rows, and rows of ready text."""

    title: str
    heads: tuple[str, ...]
    rows: tuple[tuple[str, ...], ...]

    @property
    def shares(self) -> tuple[int, ...]:
        """How much of the width each column takes, of a hundred, by its longest cell."""
        longest = [max(len(cell) for cell in column)
                   for column in zip(self.heads, *self.rows, strict=True)]  # fmt: skip
        wanted = [min(max(length, LEAST), MOST) for length in longest]
        return tuple(round(WHOLE * one / sum(wanted)) for one in wanted)
