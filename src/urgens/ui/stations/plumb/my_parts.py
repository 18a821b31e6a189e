"""The parts a builder keeps: his own file beside the ordinary ones of the shops."""

from collections.abc import Container, Iterator
from pathlib import Path

from PySide6.QtCore import QStandardPaths

from urgens.document import BuildErrors
from urgens.document.layout.layout import FittedPart
from urgens.document.part_catalogue import (
    CataloguePart,
    PartCatalogue,
    load_catalogue,
    save_catalogue,
    shipped_parts,
)
from urgens.document.whole_file import written_to
from urgens.guidance.words.parts import KINDS

FILE = "parts.json"


class MyParts:
    """Ordinary parts and the builder's own; `fault` says what of his file cannot be read."""

    def __init__(self, path: Path | None = None) -> None:
        place = QStandardPaths.writableLocation(QStandardPaths.StandardLocation.AppConfigLocation)
        self.path = Path(place) / FILE if path is None else path
        self.fault = ""

    def own(self) -> PartCatalogue:
        """Return the builder's own parts, none where he has no file; raises BuildErrors."""
        return load_catalogue(self.path) if self.path.exists() else PartCatalogue()

    def ordinary(self, kinds: Container[str]) -> Iterator[CataloguePart]:
        """Yield the parts of these kinds, the builder's own first; `fault` tells of his file."""
        self.fault, own = "", PartCatalogue()
        try:
            own = self.own()
        except BuildErrors as errors:
            self.fault = f"Your own parts, {self.path}: {errors}"
        yield from (part for part in own.parts if part.kind in kinds)
        yield from (part for part in shipped_parts().parts if part.kind in kinds)

    def keep(self, part: FittedPart) -> str:
        """Keep a part of the layout, and return what is said then; raises BuildErrors."""
        name = f"{KINDS[part.kind]} {part.marking or part.id}".strip()
        kept = CataloguePart(name=name, kind=part.kind, ports=part.ports, marking=part.marking)
        with written_to(self.path, "check the disk"):
            save_catalogue(self.own().with_part(kept), self.path)
        return f"“{name}” is kept in {self.path}."
