"""What came of a buying list: missing, too many, wrong, still to go back."""

from collections import Counter
from dataclasses import dataclass
from datetime import date

from urgens.document.layout.layout import Received
from urgens.plumbing.needed import Needed

SOON = 7  # days


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
        told = one.version.split(",") if one.version.strip() else [""]  # of several, by commas
        versions.setdefault(one.item, set()).update(version.strip() for version in told)
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
