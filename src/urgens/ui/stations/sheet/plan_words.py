"""What a plan comes to in words, and the day and hours that are typed for it."""

from datetime import datetime, time, timedelta

from urgens.guidance.planning.plan import WorkPlan
from urgens.guidance.planning.schedule import Hours
from urgens.quantity import whole_number
from urgens.quantity.day import typed_time
from urgens.ui.stations.sheet.plan_ribbon import clock_words


def sums(plan: WorkPlan, aim: str | None) -> str:
    """Return how long it takes, for how many, and from what to what."""
    if not plan.jobs:
        return ""
    two = f", two people for {clock_words(plan.together)}" if plan.together else ""
    way = "" if aim is None else f", from as it is to {aim}"
    return f"{clock_words(plan.minutes)} of work{two}{way}"


def number_of(plan: WorkPlan, job: str) -> str:
    """Return the number of a job, empty where it is none of the plan."""
    place = plan.place(job)
    return "" if place is None else str(place)


def next_morning(now: datetime) -> datetime:
    """Return the next morning at nine."""
    day = now.date() if now.time() < time(9) else now.date() + timedelta(days=1)
    return datetime.combine(day, time(9))


def read_start(text: str) -> datetime:
    """Return a day and time as typed; raises ValueError in words."""
    try:
        return typed_time(text)
    except ValueError:
        raise ValueError(f'"{text}" is no day; write 2026-05-31 09:00.') from None


def read_hours(text: str) -> Hours:
    """Return the hours of a day as typed, "9–18"; raises ValueError in words."""
    first, _, last = text.replace("-", "–").partition("–")
    begin, end = whole_number(first, 23), whole_number(last, 23)
    if begin is None or end is None or begin >= end:
        raise ValueError(f'"{text}" is no pair of hours; write 9–18, from 0 to 23.')
    return Hours(time(begin), time(end))
