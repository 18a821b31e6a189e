"""The cylinder that is there and another one: what the other changes, and look-alikes caught."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from math import nan
from typing import Any, Literal

from urgens.document import Build, with_changes
from urgens.document.kinds.cylinders.kind import CylinderPart, Outlet
from urgens.document.practice import USUAL_THREADS, turns_of
from urgens.quantity import FORCE, LENGTH, PRESSURE, Units, UnitSystem, show
from urgens.solve import Solution, solve

Tone = Literal["", "warning", "danger"]
ALIKE = 0.5e-3  # m; nearer than a rule tells
NOTICED = 0.3e-3  # m of rod that is set
FIELDS = (
    "bore", "stroke", "socket_depth", "pushrod_length", "flange_bolts", "body_length",
    "reservoir_height",
)  # fmt: skip
# What is known of one cylinder and tells nothing of another.
ITS_OWN = (
    "socket_depth", "pushrod_length", "flange_bolts", "body_length", "reservoir_height",
    "reservoir_volume", "made_for",
)  # fmt: skip


@dataclass(frozen=True)
class CylinderChange:
    """One thing that the other cylinder changes: what, in words, and how much it matters."""

    what: str
    words: str
    tone: Tone = ""


def other_build(build: Build, other: Mapping[str, Any]) -> Build:
    """Return a build with the other cylinder in place of its own; other: figures as typed.

    build: as it is. Bore and stroke that are not given are as those of its own; what else was
    measured of its own is not known of the other. Raises BuildErrors.
    """
    bare: dict[str, Any] = {"setups": [], "evidence": {}}
    return with_changes(build, {**bare, **other_changes(build.master, other)})


def other_changes(mine: CylinderPart, other: Mapping[str, Any]) -> dict[str, Any]:
    """Return what a build changes for another cylinder, by path.

    mine: the one that is there; other: figures of the other as typed, by field.
    What is known of the one that is there and not of the other is not known then.
    Source: by definition.
    """
    unknown: dict[str, Any] = {name: None for name in ITS_OWN if getattr(mine, name) is not None}
    if mine.outlets:
        unknown["outlets"] = []
    return {f"master.{name}": value for name, value in {**unknown, **other}.items()}


def changes(now: Solution, other: Build, units: Units | UnitSystem) -> Iterator[CylinderChange]:
    """Yield what another cylinder changes, what hurts first.

    now: of the build as it is; other: the build with it; units: to say it in.
    Source: common practice; pressure and travel are worked out.
    """
    mine, its = now.build.master, other.master
    yield from sorted(
        (*_socket(now.build, mine, its, units), *_feel(now, other, units),
         *_bolts(mine, its, units), *_room(other, its, units), *_lines(mine, its)),
        key=lambda one: ("danger", "warning", "").index(one.tone),
    )  # fmt: skip


def look_alikes(mine: CylinderPart, its: CylinderPart) -> bool:
    """Tell whether two cylinders look alike from outside; mine, its: of the document.

    Bore and flange the same, as far as they are given. Source: common practice.
    """
    if mine.kind != its.kind or abs(mine.main_bore.value - its.main_bore.value) > ALIKE:
        return False
    bolts = mine.flange_bolts, its.flange_bolts
    return any(one is None for one in bolts) or _far(*bolts) < ALIKE


def _far(one: Any, other: Any) -> float:
    return nan if one is None or other is None else abs(other.value - one.value)


def _socket(
    build: Build, mine: CylinderPart, its: CylinderPart, units: Units | UnitSystem
) -> Iterator[CylinderChange]:
    """Yield what another depth of the socket does to the rod."""
    if mine.socket_depth is None or its.socket_depth is None:
        known = "of this one" if mine.socket_depth is None else "of the other"
        yield CylinderChange(
            "Rod", f"Socket depth {known} is not measured: look-alikes differ in nothing else. "
            "Measure both with a depth gauge before either is bought.", "warning",
        )  # fmt: skip
        return
    deeper = its.socket_depth.value - mine.socket_depth.value
    if abs(deeper) < NOTICED:
        yield CylinderChange("Rod", "Sockets are of one depth: the rod stays as it is set.")
        return
    by = show(abs(deeper), LENGTH, units)
    thread = build.pedal.pushrod_thread
    turns = " or ".join(turns_of(abs(deeper), one) for one in ([thread] if thread
                        else list(USUAL_THREADS)))  # fmt: skip
    ratio = build.pedal.pivot_to_pad.value / build.pedal.pivot_to_pushrod.value
    pad = show(abs(deeper) * ratio, LENGTH, units)
    same = "They look alike, and are not: the" if look_alikes(mine, its) else "The"
    if deeper > 0:
        words = (
            f"{same} other socket is {by} deeper. The rod has to be {by} longer ({turns}); with "
            f"the old one the pad falls {pad} before anything is pressed, and the rod may drop out."
        )
    else:
        words = (
            f"{same} other socket is {by} shallower. The rod has to be {by} shorter ({turns}); "
            "with the old one the piston cannot come back: the ports stay covered and the brakes "
            "drag, then lock, as they get warm."
        )
    yield CylinderChange("Rod", words, "danger")


def _feel(now: Solution, other: Build, units: Units | UnitSystem) -> Iterator[CylinderChange]:
    """Yield pressure and pad travel at the comfortable foot."""
    effort = now.build.targets.comfortable_effort.value
    before, after = now.press(effort), solve(other).press(effort)
    foot = show(effort, FORCE, units)
    one, two = float(before.master_front), float(after.master_front)
    low, high = float(before.pedal_travel), float(after.pedal_travel)
    ends = high != high  # a stroke or the floor ends first
    if one > 0 and abs(two / one - 1.0) >= 0.005:
        way = "more" if two > one else "less"
        reached = ", were that foot reached" if ends else ""
        yield CylinderChange(
            "Pressure", f"{show(two, PRESSURE, units)} instead of {show(one, PRESSURE, units)} at "
            f"{foot} of foot: {100.0 * abs(two / one - 1.0):.0f} % {way}{reached}."
        )  # fmt: skip
    else:
        yield CylinderChange("Pressure", f"The same at {foot} of foot.")
    if ends:
        yield CylinderChange(
            "Pad travel", f"Its stroke or the floor ends before {foot} of foot.", "danger"
        )
    elif low == low:
        yield CylinderChange(
            "Pad travel", f"{show(high, LENGTH, units)} instead of {show(low, LENGTH, units)}."
        )


def _bolts(
    mine: CylinderPart, its: CylinderPart, units: Units | UnitSystem
) -> Iterator[CylinderChange]:
    if mine.flange_bolts is None or its.flange_bolts is None:
        return
    by = its.flange_bolts.value - mine.flange_bolts.value
    if abs(by) >= ALIKE:
        way = "further apart" if by > 0 else "nearer together"
        words = f"Its bolts are {show(abs(by), LENGTH, units)} {way}: it does not bolt on."
        yield CylinderChange("Flange", words, "warning")


def _room(other: Build, its: CylinderPart, units: Units | UnitSystem) -> Iterator[CylinderChange]:
    """Yield whether it has room, where both are known."""
    for what, needed, there in (
        ("Ahead", its.body_length, other.room.ahead),
        ("Above", its.reservoir_height, other.room.above),
    ):
        if needed is None or there is None:
            continue
        left = there.value - needed.value
        if left < 0:
            words = f"{show(-left, LENGTH, units)} too long for the room."
            yield CylinderChange(what, words, "warning")
        else:
            yield CylinderChange(what, f"{show(left, LENGTH, units)} left.")


def _lines(mine: CylinderPart, its: CylinderPart) -> Iterator[CylinderChange]:
    """Yield what the outlets do to the lines."""
    if mine.kind != its.kind:
        yield CylinderChange("Lines", "Another kind of cylinder: both lines from it are made anew.",
                             "warning")  # fmt: skip
        return
    before, after = ({one.circuit: one for one in part.outlets} for part in (mine, its))
    moved = [name for name in before if name in after and _sits(before[name]) != _sits(after[name])]
    if not before or not after:
        yield CylinderChange("Lines", "Where the outlets sit is not given of both: hold them side "
                             "by side, front outlet to front line.")  # fmt: skip
    elif moved:
        names = " and ".join(f"{name}, {_sits(after[name])}" for name in moved)
        yield CylinderChange("Lines", f"Outlets sit elsewhere ({names}): their lines are made "
                             "anew.", "warning")  # fmt: skip
    else:
        yield CylinderChange("Lines", "Outlets sit where they sat: look at their threads.")


def _sits(outlet: Outlet) -> str:
    return outlet.position or "not given"
