"""When each job is done: one after another, in the hours of a day, with what has to wait."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, datetime, time, timedelta

from urgens.guidance.planning.job import Job


@dataclass(frozen=True)
class Hours:
    """From when to when of a day is worked."""

    begin: time = time(9)
    end: time = time(18)

    @property
    def length(self) -> timedelta:
        """How much of a day that is."""
        return datetime.combine(date.min, self.end) - datetime.combine(date.min, self.begin)

    def opening(self, day: date) -> datetime:
        """Return when a day's work begins; day: which. Source: by definition."""
        return datetime.combine(day, self.begin)

    def closing(self, day: date) -> datetime:
        """Return when a day's work ends; day: which. Source: by definition."""
        return datetime.combine(day, self.end)

    def next(self, at: datetime) -> datetime:
        """Return a time, or the next morning where it is not worked then; at: it.

        Source: by definition.
        """
        if at < self.opening(at.date()):
            return self.opening(at.date())
        if at >= self.closing(at.date()):
            return self.opening(at.date() + timedelta(days=1))
        return at


@dataclass(frozen=True)
class Slot:
    """A stretch of one job without a night in it."""

    job: int
    start: datetime
    end: datetime


@dataclass(frozen=True)
class Wait:
    """Hours in which something rests, cools or hardens before a job."""

    job: int
    words: str
    start: datetime
    end: datetime


@dataclass(frozen=True)
class OpenInterval:
    """How long a circuit stands open, from the first job that opens it until it is bled."""

    circuit: str
    start: datetime
    end: datetime
    bled: int  # the job that does it

    @property
    def nights(self) -> int:
        """How many nights it stands open."""
        return (self.end.date() - self.start.date()).days


@dataclass(frozen=True)
class Schedule:
    """Slots of all jobs in their order, what waits, and how long circuits stand open."""

    slots: tuple[Slot, ...]
    waits: tuple[Wait, ...]
    standing: tuple[OpenInterval, ...]

    @property
    def end(self) -> datetime | None:
        """When the last job is done, None where there is none."""
        return max((slot.end for slot in self.slots), default=None)


def scheduled(
    jobs: Sequence[Job], start: datetime, hours: Hours, begun: Sequence[str] = ()
) -> Schedule:
    """Return when each job is done by one team, one after another.

    jobs: in their order; start: of the first; hours: of a day; begun:
    circuits that are open at the start [text].
    What fits into a day is not torn by a night. Source: by definition.
    """
    done: dict[str, datetime] = {}
    slots: list[Slot] = []
    waits: list[Wait] = []
    now = hours.next(start)
    for at, job in enumerate(jobs):
        before = max((done[name] for name in job.after if name in done), default=now)
        ready = before + timedelta(hours=job.waits)
        begin = hours.next(max(now, ready))
        rows = _worked(begin, timedelta(minutes=job.minutes), hours)
        if job.waits:
            waits.append(Wait(at, job.waits_for, before, rows[0][0]))
        slots += [Slot(at, *row) for row in rows]
        now = done[job.name] = rows[-1][1]
    return Schedule(tuple(slots), tuple(waits), tuple(_standing(jobs, slots, start, begun)))


def _worked(begin: datetime, minutes: timedelta, hours: Hours) -> list[tuple[datetime, datetime]]:
    """Return the stretches that a job takes, from when it can begin."""
    if begin + minutes > hours.closing(begin.date()) and minutes <= hours.length:
        begin = hours.opening(begin.date() + timedelta(days=1))
    found = []
    while True:
        end = min(begin + minutes, hours.closing(begin.date()))
        found.append((begin, end))
        minutes -= end - begin
        if minutes <= timedelta():
            return found
        begin = hours.opening(begin.date() + timedelta(days=1))


def _standing(
    jobs: Sequence[Job], slots: Sequence[Slot], start: datetime, begun: Sequence[str]
) -> list[OpenInterval]:
    since, found = dict.fromkeys(begun, start), []
    for at, job in enumerate(jobs):
        own = [slot for slot in slots if slot.job == at]
        for circuit in job.bleeds:
            if circuit in since:
                found.append(OpenInterval(circuit, since.pop(circuit), own[-1].end, at))
        for circuit in job.opens:
            since.setdefault(circuit, own[0].start)
    return found
