"""All figures of the chapters as rows: where each stands, figure, unit, what is known of it."""

from collections.abc import Iterator

from urgens.quantity import ShownFigure
from urgens.sheet.blocks import (
    Big,
    Block,
    Bound,
    Columns,
    Findings,
    Paragraphs,
    Pictured,
    Rows,
    one_by_one,
)
from urgens.sheet.table import MARKS, Cell

HEADS = ("chapter", "part", "item", "column", "figure", "unit", "known")
Row = tuple[str, ...]


def figure_rows(bound: Bound) -> list[Row]:
    """Return every figure with its unit in a column of its own; bound: the chapters."""
    rows: list[Row] = [HEADS, ("build", "", "name", "", bound.title, "", "")]
    rows.append(("build", "", "printed", "", bound.printed, "", ""))
    for chapter in bound.chapters:
        for block in one_by_one(chapter.blocks):
            rows += ((chapter.title, *row) for row in _of(block))
    return rows


def _of(block: Block) -> Iterator[Row]:
    match block:
        case Big():
            for name, number, unit, mark, _ in block.figures:
                figure = ShownFigure(number, unit)
                yield block.title, name, "", *_split(Cell(figure, _of_mark(f" {mark}")))
        case Columns():
            for parts in block.parts:
                for place, rows in parts:
                    for label, value in rows:
                        yield place, label, "", *_split(value)
        case Rows():
            table = block.table
            for row in table.rows:
                for head, cell in zip(table.heads[1:], row[1:], strict=True):
                    yield table.title, row[0], head, *_split(cell)
        case Pictured():
            for name, cells in block.rows:
                for head, (words, _) in zip(block.heads[1:], cells, strict=True):
                    yield block.title, name, head, *_split(words)
        case Findings():
            for one in block.findings:
                yield "finding", one.severity.word, one.code, one.message, "", ""
        case Paragraphs():
            for text in block.texts:
                yield "", block.role or "words", "", text, "", ""
        case _:
            return


def _split(cell: str) -> tuple[str, str, str]:
    """Return a cell as figure, unit and what is known of it; words stay whole."""
    if isinstance(cell, Cell):
        return cell.number, cell.unit, cell.known
    known = _of_mark(cell[-2:])
    return cell.removesuffix(MARKS.get(known, "")), "", known


def _of_mark(mark: str) -> str:
    """Return what a mark says, nothing where it is none."""
    return next((known for known, one in MARKS.items() if one == mark), "")
