"""Days and times as a builder types them."""

from datetime import datetime

# Years that are typed for a vehicle
EARLIEST = 1800
LATEST = 2200


def typed_time(text: str) -> datetime:
    """Return a day, or a day and a time, as it is typed; text: of it [text].

    Raises ValueError where it is none, or none of a vehicle's life. Source: ISO 8601.
    """
    made = datetime.fromisoformat(text.strip()).replace(tzinfo=None)
    if not EARLIEST <= made.year <= LATEST:
        raise ValueError("is of another age")
    return made
