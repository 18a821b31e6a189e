"""What chapters are made of, before they have a form."""

from dataclasses import dataclass
from typing import ClassVar, Literal

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


@dataclass(frozen=True)
class Big:
    """Figures to be read from the other side of the workshop: what, how much, its unit, a mark."""

    rows: tuple[tuple[str, str, str, str], ...]
    kind: ClassVar[str] = "big"


@dataclass(frozen=True)
class Columns:
    """What is fitted, in two columns."""

    parts: tuple[Parts, Parts]
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


Block = Paragraphs | Big | Columns | Rows | Drawing | Pictures | Findings


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
    def tables(self) -> tuple[tuple[str, Table], ...]:
        """Every table with the title of its chapter."""
        return tuple(
            (chapter.title, block.table)
            for chapter in self.chapters
            for block in chapter.blocks
            if isinstance(block, Rows)
        )
