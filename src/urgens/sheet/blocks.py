"""What chapters are made of, before they have a form."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import ClassVar, Literal, NamedTuple

from urgens.guidance import Finding
from urgens.sheet.fitted import Parts
from urgens.sheet.table import Table

Role = Literal["", "muted", "danger", "warning", "good", "lead"]


@dataclass(frozen=True)
class Paragraphs:
    """Paragraphs in one role."""

    texts: tuple[str, ...]
    role: Role = ""
    kind: ClassVar[str] = "words"


class BigFigure(NamedTuple):
    """One figure of the wall: what, how much, its unit, its mark, and how it is counted or read."""

    name: str
    number: str
    unit: str
    mark: str
    how: str


@dataclass(frozen=True)
class Big:
    """Figures to be read from the other side of the workshop, under a title."""

    title: str
    figures: tuple[BigFigure, ...]
    kind: ClassVar[str] = "big"


@dataclass(frozen=True)
class Columns:
    """What is fitted, in columns."""

    parts: tuple[Parts, ...]
    kind: ClassVar[str] = "columns"


@dataclass(frozen=True)
class Rows:
    """A table."""

    table: Table
    kind: ClassVar[str] = "rows"


@dataclass(frozen=True)
class Drawing:
    """A drawing as SVG, so many inches wide and high; `words` say what it shows."""

    svg: bytes
    wide: float
    high: float
    words: str
    kind: ClassVar[str] = "drawing"


@dataclass(frozen=True)
class Pictured:
    """A table whose cells are words with a drawing beside, None where there is none."""

    title: str
    heads: tuple[str, ...]
    rows: tuple[tuple[str, tuple[tuple[str, Drawing | None], ...]], ...]
    kind: ClassVar[str] = "pictured"


@dataclass(frozen=True)
class Beside:
    """Blocks beside others; `share` of the width is the left ones' [%]."""

    left: tuple["Block", ...]
    right: tuple["Block", ...]
    share: int
    kind: ClassVar[str] = "beside"


@dataclass(frozen=True)
class Picture:
    """A small copy of a photograph as PNG, so many px wide and high, with what it shows."""

    png: bytes
    wide: int
    high: int
    words: str


@dataclass(frozen=True)
class Pictures:
    """Photographs, side by side."""

    pictures: tuple[Picture, ...]
    kind: ClassVar[str] = "pictures"


@dataclass(frozen=True)
class Findings:
    """What there is to say."""

    findings: tuple[Finding, ...]
    kind: ClassVar[str] = "findings"


Block = Paragraphs | Big | Columns | Rows | Drawing | Pictured | Beside | Pictures | Findings


def one_by_one(blocks: Sequence[Block]) -> Iterator[Block]:
    """Yield blocks in the order in which they are read, those that stand beside others too."""
    for block in blocks:
        if isinstance(block, Beside):
            yield from one_by_one(block.left)
            yield from one_by_one(block.right)
        else:
            yield block


def drawings_in(blocks: Sequence[Block]) -> Iterator[Drawing]:
    """Yield every drawing in the order in which they are read, one that comes again again."""
    for block in one_by_one(blocks):
        if isinstance(block, Drawing):
            yield block
        elif isinstance(block, Pictured):
            yield from (one for _, cells in block.rows for _, one in cells if one is not None)


@dataclass(frozen=True)
class Chapter:
    """One chapter: its name in lists, its title, and what stands in it."""

    name: str
    title: str
    blocks: tuple[Block, ...]


@dataclass(frozen=True)
class Bound:
    """Chapters bound together, ready to be set."""

    title: str
    printed: str
    chapters: tuple[Chapter, ...]

    @property
    def blocks(self) -> tuple[Block, ...]:
        """Every block, in the order in which they are read."""
        return tuple(one for chapter in self.chapters for one in one_by_one(chapter.blocks))

    @property
    def tables(self) -> tuple[tuple[str, Table], ...]:
        """Every table with the title of its chapter."""
        return tuple(
            (chapter.title, block.table)
            for chapter in self.chapters
            for block in one_by_one(chapter.blocks)
            if isinstance(block, Rows)
        )
