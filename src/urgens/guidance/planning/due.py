"""What is due: with a date where there is one to reckon from, and the reason."""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import date, timedelta

from urgens.document import Build
from urgens.document.kinds.brakes.disc import Disc
from urgens.document.ledger.proof import Wear
from urgens.guidance.condition.deeds import MOVING
from urgens.guidance.rules.fluids import SILICONE
from urgens.guidance.thresholds import FLUID_YEARS
from urgens.physics.axle import AXLES, Axle
from urgens.quantity import LENGTH, Units, UnitSystem, show

# Days, common practice.
BEDDED = 7
ADJUSTED = 28
YEAR = 365
LEAST_PAD = 2.0e-3  # m of lining at which a pad is renewed; common practice
PLAN_OF = "reckoned from the end of this plan"


@dataclass(frozen=True)
class Due:
    """What is to be done, when, None where there is nothing to reckon a day from, and why."""

    what: str
    when: date | None
    why: str


def due(
    build: Build,
    today: date,
    done: date | None = None,
    *,
    renewed: bool = False,
    units: UnitSystem | Units | None = None,
) -> tuple[Due, ...]:
    """Return what is due on a build, the first first, what has no day last.

    today: the day; done: when a plan ends, None without
    one; renewed: whether all fluid is new then; units: of figures in reasons, None for the
    builder's own. Source: common practice.
    """
    found = [
        *_items(build),
        *_morning(build, done),
        *_after_driving(build, done),
        *_fluid(build, done if renewed else None),
        *_pads(build, units or build.natural_units),
        *_hoses(build),
        *_back(build),
    ]
    return tuple(sorted(found, key=lambda one: (one.when is None, one.when or today)))


def _items(build: Build) -> Iterator[Due]:
    for item in build.open_items:
        if item.done is None and item.due is not None:
            held = ", holds the vehicle" if item.holds_vehicle else ""
            yield Due(item.what, item.due, f"noted by you{held}")


def _morning(build: Build, done: date | None) -> Iterator[Due]:
    """Yield the travel that is read a night after bleeding, where no plan has it as a job."""
    ended = [one for one in build.records if one.procedure in ("bleed", "rebleed") and one.ended]
    last = max(ended, key=lambda one: one.started, default=None)
    if done is not None or last is None or last.ended is None:
        return
    if not any(entry.when == "morning" for entry in last.entries):
        when = _days_after(last.ended.date(), 1)
        yield Due("Pedal travel at the usual foot, cold", when, "air shows after a night")


def _last_drive(build: Build, done: date | None) -> tuple[date | None, str]:
    """Return the day from which what follows a drive is reckoned, and what day that is."""
    if done is not None:
        return done, PLAN_OF
    days = [r.ended.date() for r in build.records if r.procedure == MOVING and r.ended is not None]
    stops = () if build.proof is None else build.proof.stops
    days += [stop.at.date() for stop in stops]
    if not days:
        return None, "once it has been driven"
    return max(days), f"driven on {max(days)}"


def _after_driving(build: Build, done: date | None) -> Iterator[Due]:
    day, words = _last_drive(build, done)
    checked = [j.at.date() for j in build.joints if j.state == "checked" and j.at is not None]
    if day is None or not any(at >= _days_after(day, BEDDED) for at in checked):
        when = None if day is None else _days_after(day, BEDDED)
        yield Due("Every joint again, after bedding", when, f"it has been hot and cold; {words}")
    drums = [axle for axle in AXLES if build.axle(axle).brake.has_shoes]
    if drums:
        when = None if day is None else _days_after(day, ADJUSTED)
        where = " and ".join(drums)
        yield Due(f"Adjusters, {where}", when, f"new linings settle; {words}")


def _fluid(build: Build, renewed: date | None) -> Iterator[Due]:
    fluid = build.fluid
    filled = renewed if renewed is not None else None if fluid is None else fluid.filled
    if fluid is not None and fluid.grade == SILICONE:
        return
    named = "Fluid" if fluid is None else fluid.grade
    if filled is None:
        yield Due(f"{named}, renewed", None, f"every {FLUID_YEARS} years; when it was filled is "
                  "not told")  # fmt: skip
        return
    words = PLAN_OF if renewed is not None else f"filled on {filled}"
    yield Due(f"{named}, renewed", _years_after(filled, FLUID_YEARS),
              f"{FLUID_YEARS} years by age: it draws water; {words}")  # fmt: skip


def _years_after(day: date, years: int) -> date:
    """Return the same day years later, the first of March for a 29th of February."""
    if day.year + years > date.max.year:
        return date.max
    try:
        return day.replace(year=day.year + years)
    except ValueError:
        return date(day.year + years, 3, 1)


def _days_after(day: date, days: int) -> date:
    """Return a day so many later, the last that can be written where there is none."""
    return day + timedelta(days=min(days, (date.max - day).days))


def _pads(build: Build, units: UnitSystem | Units) -> Iterator[Due]:
    """Yield when the pads of an axle come to their least thickness, at the rate they wore."""
    worn = () if build.proof is None else build.proof.wear
    rates = [one for one in worn if one.counts and one.since is not None]
    for axle in AXLES:
        brake = build.axle(axle).brake
        if not isinstance(brake, Disc):
            continue
        if not rates or brake.pad_thickness is None:
            missing = "wear since a day" if brake.pad_thickness is not None else "their thickness"
            yield Due(f"{axle.capitalize()} pads, measured", None, f"whenever the wheels are off: "
                      f"{missing} is not told, so no day follows")  # fmt: skip
            continue
        yield _pad(axle, brake.pad_thickness.value, max(rates, key=lambda one: one.at), units)


def _pad(axle: Axle, thickness: float, wear: Wear, units: UnitSystem | Units) -> Due:
    assert wear.since is not None
    lost = max(figure.value for figure in (wear.front if axle is Axle.FRONT else wear.rear))
    days = max((wear.at.date() - wear.since).days, 1)
    what = f"{axle.capitalize()} pads, renewed"
    if lost <= 0.0:
        return Due(what, None, f"they lost nothing from {wear.since} to {wear.at:%Y-%m-%d}")
    left = max(thickness - LEAST_PAD, 0.0) / (lost / days)
    when = _days_after(wear.at.date(), min(round(left), 100 * YEAR))
    rate = show(lost / days * 30, LENGTH, units)
    return Due(
        what, when,
        f"down to {show(LEAST_PAD, LENGTH, units)} at {rate} a month, the most of one pad; counted "
        f"from {wear.at:%Y-%m-%d}, when it had the thickness that was typed",
    )  # fmt: skip


def _hoses(build: Build) -> Iterator[Due]:
    why = "looked at whenever the vehicle is in the air: age, cracks, swelling, wet"
    yield Due("Hoses and joints", None, why)


def _back(build: Build) -> Iterator[Due]:
    """Yield what may go back to who sold it until a day."""
    for one in () if build.plumbing is None else build.plumbing.received:
        if one.back_by is not None:
            yield Due(f"{one.item}: last day to send it back", one.back_by, "noted when it came")
