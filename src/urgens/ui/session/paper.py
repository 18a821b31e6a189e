"""How the sheet goes on paper: which chapters, on which paper, with which drawings."""

from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path
from typing import Literal

from urgens.document import Build
from urgens.sheet.files import SheetRequest

Size = Literal["a4", "letter"]
Drawer = Callable[[Build], bytes]  # draws something of a build as SVG


@dataclass(frozen=True)
class Paper:
    """Chapters by name, None for all that say something; size, None for that of the units."""

    chapters: tuple[str, ...] | None = None
    size: Size | None = None


def asked_for(
    paper: Paper, build: Build, base: Build, path: Path | None, drawers: dict[str, Drawer]
) -> SheetRequest:
    """Return how a sheet is wanted.

    paper: as chosen; build: as it is looked at; base: without its set-up; path: of its file;
    drawers: by the chapter that they draw for.
    """
    wanted = {
        name: draw(build)
        for name, draw in drawers.items()
        if build.plumbing is not None and (paper.chapters is None or name in paper.chapters)
    }
    folder = None if path is None else path.parent
    return SheetRequest(paper.chapters, paper.size, folder, wanted, base)
