"""Days on a ribbon: hours that are worked to scale, nights squeezed."""

from dataclasses import dataclass
from datetime import date, datetime, timedelta

from urgens.guidance.planning.schedule import Hours, Schedule

NIGHT = 34.0  # px
LEAST = timedelta(hours=1)


@dataclass(frozen=True)
class Stretch:
    """The part of a day that is shown, and where it lies [px]."""

    start: datetime
    end: datetime
    left: float
    right: float


@dataclass(frozen=True)
class Axis:
    """Where times lie between two ends [px]; outside what is shown they lie at its edge."""

    stretches: tuple[Stretch, ...]

    def x(self, at: datetime) -> float:
        """Return where a time lies; in a night, in the gap."""
        before = self.stretches[0]
        for one in self.stretches:
            if at <= one.start:
                gap = one.start - before.end
                if at <= before.end or not gap:
                    return before.right if one is not before else one.left
                return before.right + (one.left - before.right) * ((at - before.end) / gap)
            if at <= one.end:
                share = (at - one.start) / (one.end - one.start)
                return one.left + share * (one.right - one.left)
            before = one
        return before.right

    @property
    def nights(self) -> tuple[tuple[float, float], ...]:
        """The gaps between days."""
        pairs = zip(self.stretches, self.stretches[1:], strict=False)
        return tuple((one.right, two.left) for one, two in pairs)


def axis(when: Schedule, hours: Hours, left: float, right: float) -> Axis:
    """Return the ribbon of a schedule between two ends [px]; its days are those worked on."""
    days: dict[date, tuple[datetime, datetime]] = {}
    for slot in when.slots:
        begin, end = days.get(slot.start.date(), (slot.start, slot.end))
        days[slot.start.date()] = min(begin, slot.start), max(end, slot.end)
    whole = [_to_hours(*days[day], hours) for day in sorted(days)]
    spent = sum((end - begin for begin, end in whole), timedelta())
    room = max(right - left - NIGHT * (len(whole) - 1), 1.0)
    made, x = [], left
    for begin, end in whole:
        wide = room * ((end - begin) / spent)
        made.append(Stretch(begin, end, x, x + wide))
        x += wide + NIGHT
    return Axis(tuple(made))


def _to_hours(begin: datetime, end: datetime, hours: Hours) -> tuple[datetime, datetime]:
    """Return what is shown of a day: whole hours, at least one, inside what is worked."""
    first = begin.replace(minute=0)
    last = (end + timedelta(minutes=59)).replace(minute=0)
    last = min(max(last, first + LEAST), max(hours.closing(begin.date()), end))
    return first, last
