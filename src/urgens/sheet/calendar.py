"""What is due as a calendar file that every calendar program reads (RFC 5545)."""

import hashlib
from datetime import UTC, date, datetime, timedelta
from pathlib import Path

from urgens.document import BuildErrors
from urgens.document.whole_file import write_whole, written_to
from urgens.guidance.planning.due import Due

MADE_BY = "-//Urgens//Urgens//EN"


def calendar(name: str, due: tuple[Due, ...], now: datetime) -> bytes:
    """Return what is due on days as iCalendar; what has no day is left out.

    name: of the build [text]; due: what is; now: when it is written.
    An event keeps its identity as long as it is the same on the same day, so that a file taken in
    twice doubles nothing. Source: RFC 5545, by the library icalendar.
    """
    from icalendar import Calendar, Event

    made = Calendar()
    made.add("prodid", MADE_BY)
    made.add("version", "2.0")
    for one in due:
        if one.when is None:
            continue
        event = Event()
        key = hashlib.sha256(f"{name}\n{one.what}\n{one.when}".encode()).hexdigest()[:32]
        event.add("uid", f"{key}@urgens")
        event.add("dtstamp", now.astimezone(UTC))
        event.add("dtstart", one.when)
        if one.when < date.max:  # which has no day after it; without an end it is one day too
            event.add("dtend", one.when + timedelta(days=1))
        event.add("summary", f"{name}: {one.what}")
        event.add("description", one.why)
        event.add("transp", "TRANSPARENT")
        made.add_component(event)
    return bytes(made.to_ical())


def write_calendar(name: str, due: tuple[Due, ...], path: Path) -> int:
    """Write what is due to `path`; return how many days it holds; as `calendar`.

    Raises BuildErrors where its ending is not .ics, where nothing has a day, or it cannot be
    written.
    """
    if path.suffix.lower() != ".ics":
        raise BuildErrors.one(str(path), "has no ending of a calendar", "end it .ics")
    dated = tuple(one for one in due if one.when is not None)
    if not dated:
        raise BuildErrors.one(
            str(path), "nothing that is due has a day to reckon from", "see the list for what lacks"
        )
    with written_to(path):
        write_whole(path, calendar(name, dated, datetime.now().astimezone()))
    return len(dated)
