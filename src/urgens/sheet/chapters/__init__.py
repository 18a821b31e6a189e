"""The chapters of the sheet, in their order; a builder chooses among them."""

from collections.abc import Callable, Iterator, Sequence

from urgens.data import chapter_titles
from urgens.document import BuildErrors
from urgens.sheet.blocks import Block, Bound, Chapter, Paragraphs
from urgens.sheet.chapters.closing import coming, history, planned, signing, still_open
from urgens.sheet.chapters.figures import balance, layout, lines, vehicle
from urgens.sheet.chapters.photographs import photographs
from urgens.sheet.chapters.records import bleeding, proved, stopped
from urgens.sheet.chapters.told import SheetContext
from urgens.sheet.chapters.wall import wall

Make = Callable[[SheetContext], Iterator[Block]]
_MADE_BY: dict[str, Make] = {
    "wall": wall, "vehicle": vehicle, "balance": balance, "layout": layout, "lines": lines,
    "bleeding": bleeding, "proofs": proved, "stops": stopped, "open": still_open,
    "plan": planned, "due": coming, "history": history, "photographs": photographs,
    "signing": signing,
}  # fmt: skip
CHAPTERS: dict[str, tuple[str, Make]] = {
    name: (title, _MADE_BY[name]) for name, title in chapter_titles().items()
}
ALL = tuple(CHAPTERS)
NOTHING = "Nothing is on record."


def bound(context: SheetContext, chosen: Sequence[str] | None = None) -> Bound:
    """Return the chapters that are chosen, in the sheet's order; all that say something by default.

    context: of a build; chosen: names of chapters [text].
    Raises BuildErrors where there is none of a name.
    """
    unknown = [name for name in chosen or () if name not in CHAPTERS]
    if unknown:
        raise BuildErrors.one(
            "chapters", f'there is no chapter "{unknown[0]}"', f"choose of: {', '.join(CHAPTERS)}"
        )
    found = []
    for name, (title, make) in CHAPTERS.items():
        if chosen is not None and name not in chosen:
            continue
        blocks = tuple(make(context))
        if not blocks and chosen is not None:
            blocks = (Paragraphs((NOTHING,), "muted"),)
        if blocks:
            found.append(Chapter(name, title, blocks))
    return Bound(context.build.name, context.day.isoformat(), tuple(found))
