"""Jobs and what is due as a calendar file that every calendar program reads (RFC 5545)."""

import hashlib
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, date, datetime, timedelta
from pathlib import Path
from typing import TYPE_CHECKING

from urgens.document import BuildErrors
from urgens.document.whole_file import write_whole, written_to
from urgens.guidance.planning.due import Due
from urgens.guidance.planning.job import Job
from urgens.guidance.planning.schedule import Schedule

if TYPE_CHECKING:
    from icalendar import Alarm, Event

MADE_BY = "-//Urgens//Urgens//EN"
# After the beginning of a job, and of a day
BEFORE_JOB = timedelta(minutes=-15)
MORNING = timedelta(hours=9)


@dataclass(frozen=True)
class Written:
    """What a calendar holds: its jobs and days, and how much of what is due has no day."""

    jobs: int
    days: int
    left: int

    @property
    def words(self) -> str:
        """It in words, as after a colon."""
        counts = ((self.jobs, "job"), (self.days, "day"))
        said = [f"{count} {what}{'' if count == 1 else 's'}" for count, what in counts if count]
        left = f"; {self.left} due without a day" if self.left else ""
        return f"{' and '.join(said)}, each with an alarm{left}"


def calendar(
    name: str, jobs: Sequence[Job], when: Schedule, due: tuple[Due, ...], now: datetime
) -> bytes:
    """Return jobs and what is due on days as iCalendar; what has no day is left out.

    name: of the build [text]; jobs, when: of a plan, and its times; due: what is; now: when it is
    written.
    A job keeps its identity whenever it is done, what is due as long as it is the same on the same
    day, so that a file taken in twice doubles nothing. Jobs are at a time of the wall's clock.
    Source: RFC 5545, by the library icalendar.
    """
    from icalendar import Calendar

    made = Calendar()
    made.add("prodid", MADE_BY)
    made.add("version", "2.0")
    for number, slot in enumerate(when.slots):
        job = jobs[slot.job]
        part = sum(one.job == slot.job for one in when.slots[:number])
        event = _event(f"{name}\n{job.name}\n{part}", now)
        event.add("dtstart", slot.start)
        event.add("dtend", slot.end)
        event.add("summary", f"{name}: {job.name}{', gone on with' if part else ''}")
        event.add("description", _job_words(job))
        event.add_component(_alarm(BEFORE_JOB, job.name))
        made.add_component(event)
    for one in due:
        if one.when is None:
            continue
        event = _event(f"{name}\n{one.what}\n{one.when}", now)
        event.add("dtstart", one.when)
        if one.when < date.max:  # which has no day after it; without an end it is one day too
            event.add("dtend", one.when + timedelta(days=1))
        event.add("summary", f"{name}: {one.what}")
        event.add("description", one.why)
        event.add("transp", "TRANSPARENT")
        event.add_component(_alarm(MORNING, one.what))
        made.add_component(event)
    return bytes(made.to_ical())


def _job_words(job: Job) -> str:
    """Return why a job is done, by how many, and what it opens or bleeds."""
    people = "1 person" if job.people == 1 else f"{job.people} people"
    said = [f"{job.why[:1].upper()}{job.why[1:]}", f"{job.minutes} min, {people}"]
    said += [f"Opens {', '.join(job.opens)}"] if job.opens else []
    said += [f"Bleeds {', '.join(job.bleeds)}"] if job.bleeds else []
    return ". ".join(said) + "."


def _event(key: str, now: datetime) -> "Event":
    from icalendar import Event

    event = Event()
    event.add("uid", f"{hashlib.sha256(key.encode()).hexdigest()[:32]}@urgens")
    event.add("dtstamp", now.astimezone(UTC))
    return event


def _alarm(after: timedelta, words: str) -> "Alarm":
    """Return an alarm so long after an event begins, of which less than nothing is before it."""
    from icalendar import Alarm

    alarm = Alarm()
    alarm.add("action", "DISPLAY")
    alarm.add("trigger", after)
    alarm.add("description", words)
    return alarm


def write_calendar(
    name: str, jobs: Sequence[Job], when: Schedule, due: tuple[Due, ...], path: Path
) -> Written:
    """Write jobs and what is due to `path`; return how much it holds; as `calendar`.

    Raises BuildErrors where its ending is not .ics, where there is nothing with a day, or it cannot
    be written.
    """
    if path.suffix.lower() != ".ics":
        raise BuildErrors.one(str(path), "has no ending of a calendar", "end it .ics")
    dated = tuple(one for one in due if one.when is not None)
    if not dated and not when.slots:
        raise BuildErrors.one(
            str(path), "nothing that is due has a day to reckon from", "see the list for what lacks"
        )
    with written_to(path):
        write_whole(path, calendar(name, jobs, when, dated, datetime.now().astimezone()))
    return Written(len({slot.job for slot in when.slots}), len(dated), len(due) - len(dated))
