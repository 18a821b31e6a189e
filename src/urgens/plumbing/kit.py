"""Everything a layout takes, and what came of it: missing, too many, wrong, still to go back."""

from collections import Counter
from dataclasses import dataclass
from datetime import date
from math import ceil

from urgens.document.build import Build
from urgens.document.laid_fluid import laid_fluid
from urgens.document.layout.layout import Received
from urgens.document.layout.line_sheets import routed
from urgens.document.practice import practice
from urgens.physics.axle import AXLES
from urgens.plumbing.cut_list import to_buy
from urgens.plumbing.shopping import Cut, counted

CLIP_EACH = practice()["clip_spacing"].value  # m of line
SPARE = 0.1  # of nuts and tube; common practice: a line is spoilt now and then
FLUSH = 3.0  # times what lines and hoses hold: filled, bled and flushed; common practice
BOTTLE = 0.5e-3  # m³, as it is usually sold
SPARED = ("nut ", "copper washer")  # of which a spare is bought
SOON = 7  # days


@dataclass(frozen=True)
class Needed:
    """One row of the buying list: what it is, how many, how it is counted, and why so many."""

    item: str
    count: int
    unit: str = ""
    why: str = ""


@dataclass(frozen=True)
class Checked:
    """A row of the audit: needed and received, and in words what is to be done; `wrong` is marked.

    `back_by` is the first of the last days on which something of it may go back.
    """

    item: str
    needed: int
    received: int
    words: str
    wrong: bool
    back_by: date | None = None


def buying_list(build: Build, cut: tuple[Cut, ...], stock: float) -> tuple[Needed, ...]:
    """Return everything that is bought for a layout.

    build: with a layout; cut: its lines from stock lengths; stock: length that
    is sold [m].
    Source: common practice for spares, clips and fluid; the layout for the rest.
    """
    plumbing = build.plumbing
    assert plumbing is not None
    found = [
        Needed(f"{tube.text} tube", to_buy(sticks, stock, SPARE), "lengths", "with 10 % spare")
        for tube, sticks in cut
    ]
    for item, count in counted(plumbing):
        spare = ceil(count * SPARE) if item.startswith(SPARED) else 0
        found.append(Needed(item, count + spare, "", f"{spare} spare" if spare else ""))
    clips = sum(int(one.length // CLIP_EACH) for one in routed(plumbing) if one.sheet is not None)
    if clips:
        found.append(Needed("clip", clips, "", "spaced as is usual"))
    held = [laid_fluid(build).of(axle).fluid for axle in AXLES]
    known = [one for one in held if one is not None]
    if len(known) == len(held):
        bottles = max(ceil(FLUSH * sum(known) / BOTTLE), 1)
        found.append(Needed("bottle of fluid, 0.5 l", bottles, "", "fill, bleed and flush"))
    return tuple(found)


def audit(needed: tuple[Needed, ...], received: tuple[Received, ...], day: date) -> list[Checked]:
    """Return what came beside what is needed, in the order of the list; what is not on it last.

    needed: the buying list; received: what came; day: today [date].

    Counted; what is wrong is told before it cannot go back.
    """
    got: Counter[str] = Counter()
    back: dict[str, date] = {}
    versions: dict[str, set[str]] = {}
    for one in received:
        got[one.item] += one.count
        versions.setdefault(one.item, set()).add(one.version.strip())
        if one.back_by is not None:
            back[one.item] = min(back.get(one.item, one.back_by), one.back_by)
    rows = [
        _checked(one.item, one.count, got[one.item], versions.get(one.item, set()),
                 back.get(one.item), day)
        for one in needed
    ]  # fmt: skip
    listed = {one.item for one in needed}
    for item in got:
        if item not in listed and not _is_beside(item):
            rows.append(_checked(item, 0, got[item], versions[item], back.get(item), day))
    return rows


def _is_beside(item: str) -> bool:
    """Tell whether something that came belongs to brakes, cylinder or booster, not to lines."""
    return item in ("cylinder", "booster") or item.startswith(("front ", "rear "))


def _checked(
    item: str, needed: int, got: int, versions: set[str], back: date | None, day: date
) -> Checked:
    words, wrong = "", False
    if needed and not got:
        words = "to buy"
    elif got < needed:
        words, wrong = f"{needed - got} missing", True
    elif got > needed:
        words, wrong = (
            (f"{got - needed} more than needed", True) if needed else ("not needed", True)
        )
    elif len(versions) > 1:
        words, wrong = f"two versions: {', '.join(sorted(v or 'none' for v in versions))}", True
    else:
        words = "all here"
    if wrong and back is not None and got >= needed:
        left = (back - day).days
        told = f"may go back until {back.isoformat()}"
        if left < 0:
            told = f"could go back until {back.isoformat()}: too late"
        elif left <= SOON:
            told += f", {left} days left" if left != 1 else ", one day left"
        words = f"{words}; {told}"
    return Checked(item, needed, got, words, wrong, back)
