"""Days and times as a builder types them."""

import calendar
import re
from datetime import datetime, timedelta

# Years that are typed for a vehicle
EARLIEST = 1800
LATEST = 2200
DAYS = tuple(name.lower() for name in calendar.day_name)
AGO = {"hour": timedelta(hours=1), "day": timedelta(days=1), "week": timedelta(weeks=1),
       "month": timedelta(days=30), "year": timedelta(days=365)}  # fmt: skip
SINCE = 'write a day, as 2026-05-31, or Sunday, yesterday, "3 days ago"'


def typed_time(text: str) -> datetime:
    """Return a day, or a day and a time, as it is typed; text: of it [text].

    Raises ValueError where it is none, or none of a vehicle's life. Source: ISO 8601.
    """
    made = datetime.fromisoformat(text.strip()).replace(tzinfo=None)
    if not EARLIEST <= made.year <= LATEST:
        raise ValueError("is of another age")
    return made


def time_ago(text: str, now: datetime) -> datetime:
    """Return since when something is so, as it is typed: a day, a weekday, a while ago.

    text: "Sunday", "since Sunday", "yesterday", "3 days ago", or as in `typed_time` [text]; now:
    the time. A day begins at midnight; a weekday is the last one that has begun.
    Raises ValueError, with what to write, where it is none or is yet to come.
    """
    try:
        made = _time_ago(text, now)
    except (ValueError, OverflowError):
        raise ValueError(f'"{text.strip()}" is no day; {SINCE}') from None
    if made > now:
        raise ValueError(f'"{text.strip()}" is yet to come; {SINCE}')
    return made


def _time_ago(text: str, now: datetime) -> datetime:
    said = re.sub(r"^(since|from|last|on)\s+", "", text.strip().lower())
    today = now.replace(hour=0, minute=0, second=0, microsecond=0)
    ago = re.fullmatch(r"(\d{1,4}|an?|one)\s+(hour|day|week|month|year)s?(\s+ago)?", said)
    places = [place for place, name in enumerate(DAYS) if said and name[:3] == said[:3]]
    if said in ("now", "today", "this morning"):
        return now if said == "now" else today
    if said == "yesterday":
        return today - timedelta(days=1)
    if said in ("week", "month", "year"):
        return today - AGO[said]
    if ago is not None:
        many = int(ago[1]) if ago[1].isdigit() else 1
        return (now if ago[2] == "hour" else today) - many * AGO[ago[2]]
    if places and DAYS[places[0]].startswith(said):
        return today - timedelta(days=(today.weekday() - places[0]) % 7)
    return typed_time(said)
