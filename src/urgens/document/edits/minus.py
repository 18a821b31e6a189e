"""From version 1 to 2: a minus behind a space takes off, which it did not before."""

import re
from typing import Any

from urgens.document.edits.migrate import Document, step

# A whole number, with feet before it or not, a fraction and a unit: all there is of a text
_MIXED = re.compile(
    r"\s*((?:\d+\s*(?:ft|foot|feet|['′’‘])\s*)?[-+−]?\s*\d+)"
    r"\s+[-−–]\s*(\d+\s*[/⁄∕÷]\s*\d+)(\s*[^\d\s].*)"
)
WORDS = ("name", "notes", "note", "text", "why", "reason")  # what nobody reads as a figure


@step(1)
def without_spaces(document: Document) -> Document:
    """Return a document of version 1 with "1 - 1/16 in" as "1-1/16 in", which it meant there."""
    found = _joined(document)
    assert isinstance(found, dict)
    return found


def _joined(value: Any) -> Any:
    if isinstance(value, dict):
        return {
            name: inside if name in WORDS and isinstance(inside, str) else _joined(inside)
            for name, inside in value.items()
        }
    if isinstance(value, list):
        return [_joined(inside) for inside in value]
    found = _MIXED.fullmatch(value) if isinstance(value, str) else None
    return value if found is None else f"{found[1]}-{found[2]}{found[3]}"
