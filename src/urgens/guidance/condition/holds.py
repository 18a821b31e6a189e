"""What holds the vehicle where it stands: each with its reason, its place and what ends it."""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime
from typing import Literal

from urgens.data import trace_table
from urgens.document import Build
from urgens.guidance.condition.deeds import LOOSE, Deed
from urgens.guidance.condition.joints import IN_WORDS, joints
from urgens.guidance.condition.lapses import OPENED
from urgens.guidance.condition.limits import MILLIMETRE, grown
from urgens.guidance.condition.standing import Standing, standing
from urgens.guidance.procedures.facts import Facts, said
from urgens.guidance.procedures.records import records, title_of

Code = Literal[
    "screw-open", "joint-open", "joint-not-dry", "tool-fitted", "wheel-not-bled", "leak",
    "pedal-long", "air-shows-late", "clearance", "check-no", "proof-open", "proof-failed",
    "proof-lapsed", "open-item", "fault-stops", "fault-mended-unproved",
]  # fmt: skip
LIFTED_BY_REASON: tuple[Code, ...] = ("proof-open", "proof-lapsed", "open-item", "clearance")
GRAVE: tuple[Code, ...] = ("screw-open", "joint-open", "leak", "fault-stops", "proof-failed")
LEAKS = ("leak-test", "bleed", "rebleed")  # whose check by hand and eye is one for leaks


@dataclass(frozen=True)
class Hold:
    """One thing that holds the vehicle: in words, since when, where it stands, what ends it."""

    code: Code
    words: str
    since: datetime | None
    place: str
    ends_by: str


@dataclass(frozen=True)
class Condition:
    """The vehicle as it stands."""

    standing: Standing
    holds: tuple[Hold, ...]

    @property
    def open_wheels(self) -> tuple[str, ...]:
        """The wheels whose bleed screws stand open."""
        return tuple(wheel for wheel, one in self.standing.fold.wheels.items() if one.open_)

    @property
    def may_move(self) -> bool | None:
        """Whether nothing holds it; None where nothing is on record."""
        if not self.standing.fold.begun and not any(h.code == "open-item" for h in self.holds):
            return None
        return not self.holds


_last: tuple[Build, datetime, Condition] | None = None


def condition(build: Build, at: datetime | None = None) -> Condition:
    """Return the vehicle as it stands; at: a time, None for now.

    The one place where it is decided what is bled, proved, open or held. That of the build and the
    minute asked last is kept. Source: a fold over dated events; common practice.
    """
    global _last
    when = datetime.now().replace(second=59, microsecond=999_999) if at is None else at
    last = _last
    if last is None or last[0] is not build or last[1] != when:
        stands = standing(build, when)
        last = _last = build, when, Condition(stands, tuple(_holds(stands)))
    return last[2]


def _holds(stands: Standing) -> Iterator[Hold]:
    begun = stands.fold.begun
    yield from _open(stands)
    yield from _joints(stands)
    yield from _things(stands)
    if begun:
        yield from _wheels(stands)
    yield from _noes(stands)
    yield from _travels(stands)
    if begun:
        yield from _proofs(stands)
    yield from _items(stands)
    yield from _faults(stands)


def _open(stands: Standing) -> Iterator[Hold]:
    for wheel, one in stands.fold.wheels.items():
        for deed in one.open_.values():
            yield Hold("screw-open", f"{said(wheel)}: its bleed screw is open", deed.at, wheel,
                       "shut it, and note it as shut, or go on with the run")  # fmt: skip


def _joints(stands: Standing) -> Iterator[Hold]:
    for thing, deed in stands.fold.loose.items():
        yield Hold("joint-open", f"{thing}: loosened and not tight again", deed.at, thing,
                   "tighten it, and note it as shut")  # fmt: skip
    for one in joints(stands.build):
        noted = one.recorded
        if not one.where or noted is None or noted.state in ("dry", "checked"):
            continue
        if noted.at is not None and noted.at > stands.at:
            continue
        code: Code = "joint-open" if noted.state in LOOSE else "joint-not-dry"
        how = "make it tight" if noted.state in LOOSE else "look at it under a pressed pedal"
        yield Hold(code, f"{one.where} is {IN_WORDS[noted.state]}", noted.at, one.name,
                   f"{how}, and note it")  # fmt: skip


def _things(stands: Standing) -> Iterator[Hold]:
    fold = stands.fold
    for (thing, wheels), deed in fold.fitted.items():
        at = f" at {' and '.join(map(said, wheels))}" if wheels else ""
        yield Hold("tool-fitted", f"{thing}{at} is still fitted", deed.at, thing,
                   "take it off, and note it as off")  # fmt: skip
    for (thing, _), deed in fold.missing.items():
        yield Hold("tool-fitted", f"{thing} was taken off and is not back", deed.at, thing,
                   "put it back, and note it")  # fmt: skip


def _wheels(stands: Standing) -> Iterator[Hold]:
    opened = {
        wheel.partition("-")[0] for wheel, one in stands.fold.wheels.items()
        if one.dry is not None or one.worked
    }  # fmt: skip
    for wheel, one in stands.fold.wheels.items():
        state, since = one.state, None if one.dry is None else one.dry.at
        words = {
            "dry": "its line was open and nothing was bled since",
            "not-clear": "it was opened, and no note says that it ran clear",
        }.get(state)
        if state == "unknown" and wheel.partition("-")[0] in opened:
            words = "the other wheel of its axle was open, and nothing says that it is bled"
        if words is not None:
            yield Hold("wheel-not-bled", f"{said(wheel)}: {words}", since, wheel,
                       "bleed it until it runs clear")  # fmt: skip


def _noes(stands: Standing) -> Iterator[Hold]:
    proofs = {one.name for one in stands.proofs}
    for (owner, _, field, wheels), deed in stands.fold.noes.items():
        where = f" at {' and '.join(map(said, wheels))}" if wheels else ""
        leak = owner in LEAKS and field == "ok"
        if owner in proofs and not leak:
            continue  # the proof itself has failed, and says so
        code: Code = "leak" if leak else "check-no"
        words = f"“{title_of(owner)}”{where} says no" + (": it leaks" if leak else f" to {field}")
        yield Hold(code, words, deed.at, deed.place, "the same check again, answered yes")


def _travels(stands: Standing) -> Iterator[Hold]:
    limits, whole = stands.limits, [d for d in stands.fold.travels if d.entry and d.entry.when]
    read: dict[str, Deed] = {str(deed.entry.when): deed for deed in whole if deed.entry}
    latest = next((d for d in reversed(whole) if d.entry and d.entry.when != "stroke-1"), None)
    if latest is not None and latest.entry is not None:
        long_by = limits.long_by(latest.entry)
        if long_by is not None:
            yield Hold("pedal-long", f"the pedal goes {long_by / MILLIMETRE:.0f} mm further than "
                       "computed", latest.at, latest.place,
                       "bleed again until it does not, or trace it")  # fmt: skip
    yield from _late(stands, read)
    first, third = read.get("stroke-1"), read.get("stroke-3")
    if not (first and third and first.entry and third.entry):
        return
    if grown(third.entry, first.entry) and ("clearance", "") not in stands.fold.lifted:
        yield Hold("clearance", "the first stroke goes further than the third", third.at,
                   third.place, "adjust, and read three strokes again")  # fmt: skip


def _late(stands: Standing, read: dict[str, Deed]) -> Iterator[Hold]:
    now = read.get("now")
    for when in ("morning", "hour"):
        later = read.get(when)
        if now is None or later is None or not (now.entry and later.entry):
            continue
        if now.at is not None and later.at is not None and later.at < now.at:
            continue
        if grown(now.entry, later.entry):
            words = "the travel has grown after hours: air was hidden"
            yield Hold("air-shows-late", words, later.at, later.place,
                       "bleed again, and read it the morning after")  # fmt: skip
            return


def _proofs(stands: Standing) -> Iterator[Hold]:
    codes: dict[str, Code] = {
        "open": "proof-open", "begun": "proof-open", "failed": "proof-failed",
        "lapsed": "proof-lapsed",
    }  # fmt: skip
    for one in stands.proofs:
        code = codes.get(one.state)
        if code is None or ((code, one.name) in stands.fold.lifted and code in LIFTED_BY_REASON):
            continue
        told = {"open": "is not proved", "begun": f"is begun: {one.why}",
                "failed": f"has failed: {one.why}", "lapsed": f"has lapsed: {one.why}"}  # fmt: skip
        yield Hold(code, f"“{title_of(one.name)}” {told[one.state]}", one.at, one.name,
                   f"“{title_of(one.name)}”, made whole")  # fmt: skip


def _items(stands: Standing) -> Iterator[Hold]:
    for index, item in enumerate(stands.build.open_items):
        done = item.done is not None and item.done <= stands.at.date()
        place = f"open_items[{index}]"
        if item.holds_vehicle and not done and ("open-item", place) not in stands.fold.lifted:
            at = f", {item.place}" if item.place else ""
            yield Hold("open-item", f"still open: {item.what}{at}", None, place, "tick it off")


def _faults(stands: Standing) -> Iterator[Hold]:
    stops = {one["id"]: one["stops"] for one in trace_table("signs")["signs"] if one.get("stops")}
    for index, run in enumerate(stands.build.traces):
        if run.started > stands.at or run.ended is not None:
            continue
        seen = next((stops[one.sign] for one in run.signs if one.seen and one.sign in stops), None)
        if seen is not None:
            yield Hold("fault-stops", f"Do not drive: {seen}", run.started, f"traces[{index}]",
                       "follow it to its cause, mend it, prove it")  # fmt: skip
    causes = {one["id"]: one for one in trace_table("causes")["causes"]}
    facts, done = Facts(stands.build), {one.name: one for one in stands.proofs}
    for place, deed in stands.fold.mended.items():
        cause = causes.get(str(deed.value))
        record = None if cause is None else records().get(cause["mend"])
        if record is None:
            continue
        wanted = [
            name for name in (record.proves or OPENED)
            if name in done and records()[name].refusal(facts) is None
            and not _proved_after(done[name].state, done[name].at, deed.at)
        ]  # fmt: skip
        if wanted:
            names = ", ".join(f"“{title_of(name)}”" for name in wanted)
            yield Hold("fault-mended-unproved", f"mended, and not proved since: {names}", deed.at,
                       place, f"{names} after the mend")  # fmt: skip


def _proved_after(state: str, at: datetime | None, mended: datetime | None) -> bool:
    return state == "done" and at is not None and mended is not None and at >= mended
