"""A table of the sheet."""

from dataclasses import dataclass


@dataclass(frozen=True)
class Table:
    """Column heads, the first of which names the rows, and rows of ready text."""

    title: str
    heads: tuple[str, ...]
    rows: tuple[tuple[str, ...], ...]
