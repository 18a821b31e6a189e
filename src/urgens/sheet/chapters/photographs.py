"""Photographs as small copies; one that is gone, or is no picture, is said."""

from collections.abc import Iterator

from urgens.sheet.blocks import Block, Pictures, Words
from urgens.sheet.chapters.told import Told


def photographs(told: Told) -> Iterator[Block]:
    """Yield small copies of the photographs; told: of a build. Source: the files beside it."""
    if not told.base.photographs:
        return
    from urgens.sheet.small_copies import small_copies  # Qt reads pictures

    found, missing = small_copies(told.base, told.folder)
    if found:
        yield Pictures(found)
    if missing:
        yield Words(missing, "warning")
