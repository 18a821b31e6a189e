"""What holds the vehicle by the pedal's travel: too long, grown after hours, clearance left."""

from collections.abc import Iterator
from datetime import datetime

from urgens.document.ledger.records import RecordEntry
from urgens.guidance.condition.deeds import Deed
from urgens.guidance.condition.hold import Hold
from urgens.guidance.condition.limits import grown, length_words
from urgens.guidance.condition.standing import Standing


def travel_holds(stands: Standing) -> Iterator[Hold]:
    """Yield what the travels of the whole vehicle hold it by; stands: with them, the oldest first.

    Source: common practice.
    """
    read = [(deed, deed.entry) for deed in stands.fold.travels if deed.entry and deed.entry.when]
    yield from _long(stands, read)
    latest = {str(entry.when): (deed, entry) for deed, entry in read}
    yield from _late(latest)
    first, third = latest.get("stroke-1"), latest.get("stroke-3")
    if first is None or third is None or ("clearance", "") in stands.fold.lifted:
        return
    if grown(third[1], first[1], stands.limits.clearance_travel(first[1])):
        yield Hold("clearance", "the first stroke goes further than the third", third[0].at,
                   third[0].place, "adjust, and read three strokes again")  # fmt: skip


def _long(stands: Standing, read: list[tuple[Deed, RecordEntry]]) -> Iterator[Hold]:
    """Yield that the pedal is long by the latest travel that can be judged: none other ends it."""
    for deed, entry in reversed(read):
        if entry.when == "stroke-1" or stands.limits.computed_travel(entry) is None:
            continue
        by = stands.limits.long_by(entry)
        if by is not None:
            words = f"the pedal goes {length_words(by)} further than computed"
            yield Hold("pedal-long", words, deed.at, deed.place,
                       "bleed again until it does not, or trace it")  # fmt: skip
        return


def _late(latest: dict[str, tuple[Deed, RecordEntry]]) -> Iterator[Hold]:
    day = latest.get("now")
    for when in ("morning", "hour"):
        later = latest.get(when)
        if day is None or later is None or _before(later[0].at, day[0].at):
            continue
        if grown(day[1], later[1]):
            words = "the travel has grown after hours: air was hidden"
            yield Hold("air-shows-late", words, later[0].at, later[0].place,
                       "bleed again, and read it the morning after")  # fmt: skip
            return


def _before(one: datetime | None, other: datetime | None) -> bool:
    return one is not None and other is not None and one < other
