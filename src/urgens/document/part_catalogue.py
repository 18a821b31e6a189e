"""Parts that are bought or kept, with their ports: the shipped table and a builder's own file."""

import json
from collections.abc import Iterator, Mapping
from functools import lru_cache
from pathlib import Path
from typing import Annotated, Literal

from pydantic import Field

from urgens.data import FOLDER
from urgens.document.build import VERSION
from urgens.document.edits.migrate import migrated
from urgens.document.files import read_json
from urgens.document.layout.layout import KEPT, Id, PartKind, Port, nothing
from urgens.document.model import DocumentModel, Name, PartFault, Text
from urgens.document.validation import validated_as
from urgens.document.whole_file import write_whole

THROUGH = 2  # ports that a part in a line has at least
ENDS = ("plug", "gauge", "sensor", "light-switch")  # have one


class CataloguePart(DocumentModel):
    """One part: what it is called, its kind, its ports in the order in which they are passed."""

    name: Name
    kind: PartKind
    ports: Annotated[Mapping[Id, Port], *KEPT] = Field(default_factory=nothing)
    marking: Text = ""
    note: Text = ""

    def rules(self) -> Iterator[PartFault]:
        """Check that it has the ports that its kind has."""
        least = 1 if self.kind in ENDS else THROUGH
        if len(self.ports) < least:
            problem = f'"{self.name}" has {len(self.ports)} of the {least} ports it needs'
            yield PartFault("ports", problem, 'write each as "in": {"thread": "3/8-24", …}')


class PartCatalogue(DocumentModel):
    """A file of parts: open JSON, of its own format."""

    format: Literal["urgens.parts"] = "urgens.parts"
    version: Literal[2] = 2
    source: Text = ""
    parts: tuple[CataloguePart, ...] = ()

    def rules(self) -> Iterator[PartFault]:
        """Check that every name is there once."""
        seen: dict[str, int] = {}
        for index, part in enumerate(self.parts):
            if part.name in seen:
                problem = f'"{part.name}" is also the name of parts[{seen[part.name]}]'
                yield PartFault(f"parts[{index}].name", problem, "give it another name")
            seen.setdefault(part.name, index)

    def with_part(self, part: CataloguePart) -> "PartCatalogue":
        """Return the catalogue with a part, in place of one of that name; part:."""
        kept = tuple(one for one in self.parts if one.name != part.name)
        return self.model_copy(update={"parts": (*kept, part)})


@lru_cache(maxsize=1)
def shipped_parts() -> PartCatalogue:
    """Return the parts that are ordinary in shops, of common practice."""
    return load_catalogue(FOLDER / "parts.json")


def load_catalogue(path: Path) -> PartCatalogue:
    """Return the parts in a file; raises BuildErrors naming part and place, or the line."""
    found = read_json(path)
    if isinstance(found, dict):
        found = migrated(found, VERSION)  # what a figure means changed with that of builds
    return validated_as(PartCatalogue, found)


def save_catalogue(catalogue: PartCatalogue, path: Path) -> None:
    """Write a catalogue to a file so that a whole one is there at every moment; raises OSError."""
    document = {"format": catalogue.format, "version": catalogue.version}
    document |= catalogue.model_dump(mode="json", exclude_unset=True)
    text = json.dumps(document, indent=2, ensure_ascii=False) + "\n"
    path.parent.mkdir(parents=True, exist_ok=True)
    write_whole(path, text.encode(), keep=path.exists())
