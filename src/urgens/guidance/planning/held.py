"""A job for each thing that holds the vehicle as it stands, and which job ends which hold."""

from collections.abc import Iterator, Sequence
from typing import NamedTuple

from urgens.document import Build
from urgens.guidance.condition.hold import Code, Hold
from urgens.guidance.condition.holds import condition
from urgens.guidance.planning.job import Job, Place
from urgens.guidance.planning.work import STANDING, every_circuit, laid_circuits
from urgens.guidance.procedures.facts import said

BLEEDINGS = ("bleed", "rebleed")
BLED_BY = ("wheel-not-bled", "pedal-long", "air-shows-late")  # holds that bleeding ends
PROVED_BY = ("proof-open", "proof-failed", "proof-lapsed", "fault-mended-unproved")


class _Ending(NamedTuple):
    """The job that ends holds of one kind: its name, minutes, place and procedure."""

    name: str
    minutes: int
    place: Place
    procedure: str = ""


# Minutes: common practice. One job for each place that is named, else for all of a kind.
ENDINGS: dict[Code, _Ending] = {
    "screw-open": _Ending("Shut the screw: {place}", 2, "underneath"),
    "joint-open": _Ending("Tighten: {place}", 5, "underneath"),
    "joint-not-dry": _Ending("Joints looked at under a pressed pedal", 10, "underneath"),
    "tool-fitted": _Ending("Off or back: {place}", 5, "all round"),
    "leak": _Ending("Find what leaks, make it tight", 30, "underneath", "leak-test"),
    "clearance": _Ending("Adjust, then three strokes", 30, "all round", "three-strokes"),
    "check-no": _Ending("Put right what was answered no", 30, "all round"),
    "fault-stops": _Ending("Follow the fault to its cause", 60, "all round"),
}


def going_on(build: Build) -> frozenset[str]:
    """Return the places of bleedings that are under way: their own things end with them.

    Source: by definition.
    """
    return frozenset(
        f"records[{index}]"
        for index, run in enumerate(build.records)
        if run.ended is None and run.procedure in BLEEDINGS
    )


def _in_hand(build: Build) -> frozenset[tuple[str, str]]:
    """Return the holds, by code and place, that end with a bleeding that is under way."""
    fold, places = condition(build).standing.fold, going_on(build)
    found = [("screw-open", wheel) for wheel, one in fold.wheels.items()
             if any(deed.place in places for deed in one.open_.values())]  # fmt: skip
    found += [("joint-open", thing) for thing, deed in fold.loose.items() if deed.place in places]
    for things in (fold.fitted, fold.missing):
        found += [("tool-fitted", key[0]) for key, deed in things.items() if deed.place in places]
    return frozenset(found)


def holding_jobs(build: Build, jobs: Sequence[Job]) -> Iterator[Job]:
    """Yield what ends holds that nothing else does; jobs: that are planned already.

    Source: common practice.
    """
    taken, in_hand = {job.name for job in jobs}, _in_hand(build)
    loose = any(job.name == "Joints tight" for job in jobs)
    for hold in condition(build).holds:
        ending = ENDINGS.get(hold.code)
        if (hold.code, hold.place) in in_hand:
            continue
        if ending is None or (hold.code == "joint-open" and loose and "." in hold.place):
            continue
        name = _name(hold, ending)
        if name not in taken:
            taken.add(name)
            yield Job(name, ending.minutes, hold.ends_by, ending.place, procedure=ending.procedure)


def circuits_to_bleed(build: Build) -> tuple[str, ...]:
    """Return the circuits that a hold says are to be bled. Source: by definition."""
    holds = [hold for hold in condition(build).holds if hold.code in (*BLED_BY, "screw-open")]
    if any(hold.code in BLED_BY[1:] for hold in holds):
        return every_circuit(build)
    laid = laid_circuits(build)
    wheels = {hold.place for hold in holds}
    for place in going_on(build):  # what it has not come to is bled by it as well
        run = build.records[int(place.partition("[")[2].removesuffix("]"))]
        wheels |= {wheel for step in run.steps for wheel in step.wheels}
    fed = (laid.fed_by(part) for wheel, part in laid.wheels.items() if wheel in wheels)
    return tuple(sorted({circuit for circuits in fed for circuit in circuits}))


def ended_by(build: Build, hold: Hold, jobs: Sequence[Job]) -> str:
    """Return the name of the job that ends a hold, empty where none does.

    jobs: of the plan, bleeding among them. Source: by definition.
    """
    names = [job.name for job in jobs]
    if (hold.code, hold.place) in _in_hand(build):
        return next((job.name for job in jobs if job.bleeds), "")
    if hold.code in PROVED_BY:
        return STANDING if STANDING in names else ""
    if hold.code in BLED_BY:
        return next((job.name for job in jobs if job.bleeds), "")
    if hold.code == "open-item":
        return next((name for name in names if f": {name}" in hold.words), "")
    name = _name(hold, ENDINGS[hold.code])
    if hold.code == "joint-open" and name not in names:
        name = "Joints tight"
    return name if name in names else ""


def _name(hold: Hold, ending: _Ending) -> str:
    place = said(hold.place) if hold.code == "screw-open" else hold.place
    return ending.name.format(place=place)
