"""Photographs as small copies; one that is gone, or is no picture, is said."""

from collections.abc import Iterator

from urgens.sheet.blocks import Block, Paragraphs, Pictures
from urgens.sheet.chapters.told import SheetContext


def photographs(context: SheetContext) -> Iterator[Block]:
    """Yield small copies of the photographs; context: of a build."""
    if not context.base.photographs:
        return
    from urgens.sheet.small_copies import small_copies  # Qt reads pictures

    found, missing = small_copies(context.base, context.folder)
    if found:
        yield Pictures(found)
    if missing:
        yield Paragraphs(missing, "warning")
