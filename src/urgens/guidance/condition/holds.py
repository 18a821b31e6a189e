"""What holds the vehicle where it stands: each with its reason, its place and what ends it."""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime

from urgens.document import Build
from urgens.guidance.condition.deeds import LOOSE, Deed
from urgens.guidance.condition.faults import fault_holds
from urgens.guidance.condition.hold import LIFTED_BY_REASON, Code, Hold
from urgens.guidance.condition.joints import IN_WORDS, joints
from urgens.guidance.condition.standing import Standing, standing
from urgens.guidance.condition.travels import travel_holds
from urgens.guidance.procedures.facts import said
from urgens.guidance.procedures.records import title_of

KEPT = 8  # conditions that are asked for again: now, and before each time it was moved


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
        if not self.standing.fold.begun and not self.holds:
            return None
        return not self.holds


_kept: tuple[tuple[Build, datetime, Condition], ...] = ()


def condition(build: Build, at: datetime | None = None) -> Condition:
    """Return the vehicle as it stands; at: a time, None for now.

    The one place where it is decided what is bled, proved, open or held. The last of a build and a
    minute are kept. Source: common practice.
    """
    global _kept
    when = datetime.now().replace(second=59, microsecond=999_999) if at is None else at
    for known, minute, found in _kept:
        if known is build and minute == when:
            return found
    stands = standing(build, when)
    found = Condition(stands, tuple(_holds(stands)))
    _kept = ((build, when, found), *_kept[: KEPT - 1])
    return found


def _holds(stands: Standing) -> Iterator[Hold]:
    begun = stands.fold.begun
    yield from _open(stands)
    yield from _joints(stands)
    yield from _things(stands)
    if begun:
        yield from _wheels(stands)
    yield from _noes(stands)
    yield from travel_holds(stands)
    if begun:
        yield from _proofs(stands)
    yield from _items(stands)
    yield from fault_holds(stands)


def _by_hand(act: str, deed: Deed, stands: Standing) -> str:
    """Return what ends what a hand has opened or fitted; by a run that goes on its cards do."""
    going = any(f"records[{index}]" == deed.place and run.ended is None
                for index, run in enumerate(stands.build.records))  # fmt: skip
    return f"{act}, or go on with the run" if going else act


def _open(stands: Standing) -> Iterator[Hold]:
    for wheel, one in stands.fold.wheels.items():
        for deed in one.open_.values():
            yield Hold("screw-open", f"{said(wheel)}: its bleed screw is open", deed.at, wheel,
                       _by_hand("shut it, and note it as shut", deed, stands))  # fmt: skip


def _joints(stands: Standing) -> Iterator[Hold]:
    for thing, deed in stands.fold.loose.items():
        yield Hold("joint-open", f"{thing}: loosened and not tight again", deed.at, thing,
                   _by_hand("tighten it, and note it as shut", deed, stands))  # fmt: skip
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
                   _by_hand("take it off, and note it as off", deed, stands))  # fmt: skip
    for (thing, _), deed in fold.missing.items():
        yield Hold("tool-fitted", f"{thing}: taken off and not back", deed.at, thing,
                   _by_hand("put it back, and note it", deed, stands))  # fmt: skip


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
    for deed in stands.fold.noes.values():
        where = f" at {' and '.join(map(said, deed.wheels))}" if deed.wheels else ""
        leak = deed.hold == "leak"
        if deed.owner in proofs and not leak:
            continue  # the proof itself has failed, and says so
        code: Code = "leak" if leak else "check-no"
        says = ": it leaks" if leak else f" to {deed.field}"
        words = f"“{title_of(deed.owner)}”{where} says no{says}"
        yield Hold(code, words, deed.at, deed.place, "the same check again, answered yes")


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
