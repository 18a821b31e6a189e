"""Logs as text, whatever their separators, with every line that was skipped named."""

import codecs
import csv
import re
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from itertools import islice
from pathlib import Path

import numpy as np

from urgens.bench.logs.table import SIMULATED, LogFile, titled
from urgens.document import BuildErrors
from urgens.physics.arrays import Array

HEAD = 200  # lines in which names and the first figures stand
COMMENT = ("#", "//", "%")
MOST_COLUMNS = 4_000  # a logger writes a few dozen
NAMED = 20  # lines that are skipped and named one by one
ONE_COMMA = (
    "one comma stands in every line and no name above: it is read as two columns; where it is a "
    "decimal comma, write a name above, or points"
)
_NUMBER = re.compile(r"\s*[+-]?(\d+([.,]\d*)?|[.,]\d+)([eE][+-]?\d+)?\s*$")
_NOTHING = {"", "nan", "na", "n/a", "-", "null", "none"}
_UNIT = re.compile(r"^[^\d\s]{1,8}(\s*/\s*[^\d\s]{1,3}\d?)?$")


@dataclass(frozen=True)
class _Layout:
    """How a text file is laid out: what separates, decimal comma, names, units, first line.

    `simulated` where a comment above says so.
    """

    separator: str | None
    comma: bool
    names: tuple[str, ...]
    units: tuple[str, ...]
    first: int
    encoding: str
    simulated: bool
    said: tuple[str, ...] = ()


def read_text(path: Path) -> LogFile:
    """Return the log in a file of text.

    path: of it [text]. Raises BuildErrors, OSError.
    Source: numpy.loadtxt; line by line where it gives up.
    """
    layout = _layout(path)
    rows: Array | None = None
    try:
        rows = _fast(path, layout)
    except (ValueError, UnicodeDecodeError):
        rows = None  # something in it is no number: told line by line below
    if rows is not None and rows.shape[1] == len(layout.names):
        return LogFile(
            layout.names, layout.units, rows, simulated=layout.simulated, said=layout.said
        )
    return _slow(path, layout)


def _layout(path: Path) -> _Layout:
    encoding = _encoding(path)
    with path.open(encoding=encoding, errors="replace", newline=None) as file:
        head = [line.rstrip("\n") for line in islice(file, HEAD)]
    data = [n for n, line in enumerate(head) if line.strip() and not _is_comment(line)]
    if not data:
        raise BuildErrors.one(path.name, "holds no figures", "export the log anew, as CSV")
    separator = _separator([head[n] for n in data])
    said: tuple[str, ...] = ()
    if separator == ",":
        separator, said = _decimal([head[n] for n in data])
    cells = {n: _cells(head[n], separator) for n in data}
    if max(map(len, cells.values())) > MOST_COLUMNS:
        problem = f"has more than {MOST_COLUMNS:,} columns"
        raise BuildErrors.one(path.name, problem, "export the channels of the brakes alone")
    first = next((n for n in data if _is_figures(cells[n])), None)
    if first is None:
        problem = f"holds no line of figures in its first {len(head)} lines"
        raise BuildErrors.one(path.name, problem, "export the log anew, as CSV")
    comma = separator != "," and any("," in cell for n in data if n >= first for cell in cells[n])
    above = [cells[n] for n in data if n < first and len(cells[n]) == len(cells[first])]
    names, units = _headings(above, len(cells[first]))
    told = (line.lstrip("#/% ") for line in head if _is_comment(line))
    simulated = any(line.startswith(SIMULATED) for line in told)
    return _Layout(separator, comma, names, units, first, encoding, simulated, said)


def _decimal(lines: list[str]) -> tuple[str | None, tuple[str, ...]]:
    """Return what separates where commas do or are decimal ones, and what is to be said of it.

    Names above figures tell: as many as there are cells. With one comma in every line and no name
    above, nobody can.
    """
    figures = [line for line in lines if _is_figures(_cells(line, ","))]
    above = next((line for line in lines if not _is_figures(_cells(line, ","))), None)
    spaced = all(_is_figures(_cells(line, None)) for line in lines if line not in (above, ""))
    if above is not None and "," not in above and spaced:
        return None, ()
    if above is None and figures and all(line.count(",") == 1 for line in figures):
        return ",", (ONE_COMMA,)
    return ",", ()


def _encoding(path: Path) -> str:
    with path.open("rb") as file:
        start = file.read(4096)
    if start.startswith((codecs.BOM_UTF16_LE, codecs.BOM_UTF16_BE)):
        return "utf-16"
    try:
        start.decode("utf-8")
    except UnicodeDecodeError as error:
        if error.start < len(start) - 4:  # not only cut off in the middle of a letter
            return "latin-1"
    return "utf-8-sig"


def _is_comment(line: str) -> bool:
    return line.lstrip().startswith(COMMENT)


def _separator(lines: list[str]) -> str | None:
    """Return what separates cells, None for spaces: what stands in most lines alike."""
    for mark in (";", "\t"):
        if sum(mark in line for line in lines) > len(lines) / 2:
            return mark
    return "," if sum("," in line for line in lines) > len(lines) / 2 else None


def _cells(line: str, separator: str | None) -> list[str]:
    """Return the cells of a line; what separates them may stand inside quotes."""
    if separator is None:
        found = line.split()
    elif '"' in line:
        found = next(csv.reader([line.replace("\0", " ")], delimiter=separator), [])
    else:
        found = line.split(separator)
    return [cell.strip().strip('"') for cell in found]


def _is_figures(cells: list[str]) -> bool:
    filled = [cell for cell in cells if cell.lower() not in _NOTHING]
    return bool(filled) and all(_NUMBER.match(cell) for cell in filled)


def _headings(above: list[list[str]], count: int) -> tuple[tuple[str, ...], tuple[str, ...]]:
    """Return names and units from the lines above the figures: units in brackets, or in a row."""
    if not above:
        return tuple(f"column {n + 1}" for n in range(count)), ("",) * count
    titles, below = above[-1], [""] * count
    if len(above) > 1 and all(not cell or _UNIT.match(cell.strip("[]()")) for cell in above[-1]):
        titles, below = above[-2], [cell.strip("[]()") for cell in above[-1]]
    names, units = titled(titles)
    return names, tuple(own or unit for own, unit in zip(below, units, strict=True))


def _fast(path: Path, layout: _Layout) -> Array:
    """Return all rows at once; raises ValueError where a line is no row of figures."""
    if not layout.comma and layout.encoding == "utf-8-sig":
        return np.loadtxt(
            path, delimiter=layout.separator, skiprows=layout.first, comments=COMMENT[0],
            ndmin=2, encoding="utf-8-sig", quotechar='"',
        )  # fmt: skip
    with path.open(encoding=layout.encoding) as file:
        lines: Iterable[str] = islice(file, layout.first, None)
        if layout.comma:
            lines = (line.replace(",", ".") for line in lines)
        return np.loadtxt(lines, delimiter=layout.separator, comments=COMMENT[0], ndmin=2)


def _slow(path: Path, layout: _Layout) -> LogFile:
    """Return the rows that are rows of figures, and which lines are not."""
    count, in_all = len(layout.names), 0
    skipped: list[tuple[int, str]] = []

    def rows() -> Iterator[list[float]]:
        nonlocal in_all
        with path.open(encoding=layout.encoding, errors="replace") as file:
            for number, line in enumerate(file, start=1):
                if number <= layout.first or not line.strip() or _is_comment(line):
                    continue
                try:
                    yield _row(_cells(line, layout.separator), count, layout.comma)
                except ValueError as error:
                    in_all += 1
                    if len(skipped) < NAMED:
                        skipped.append((number, str(error)))

    flat = np.fromiter((value for row in rows() for value in row), dtype=float)
    if not flat.size:
        raise BuildErrors.one(path.name, "holds no line of figures", "export the log anew, as CSV")
    return LogFile(
        layout.names, layout.units, flat.reshape(-1, count), tuple(skipped), in_all,
        layout.simulated, layout.said,
    )  # fmt: skip


def _row(cells: list[str], count: int, comma: bool) -> list[float]:
    """Return a line's figures; raises ValueError with what is wrong."""
    while len(cells) > count and not cells[-1]:
        cells = cells[:-1]
    if len(cells) != count:
        raise ValueError(f"{len(cells)} cells, not {count}")
    found = []
    for cell in cells:
        if cell.lower() in _NOTHING:
            found.append(np.nan)
        elif _NUMBER.match(cell):
            found.append(float(cell.replace(",", ".") if comma else cell))
        else:
            raise ValueError(f"“{cell[:20]}” is no figure")
    return found
