"""The way back after a mend: what was opened and is bled again, what is proved again."""

from collections.abc import Iterator
from dataclasses import dataclass

from urgens.document import Build
from urgens.document.circuits import Circuits, circuits_of
from urgens.document.kinds.valves import LAID
from urgens.document.layout.layout import FittedPart
from urgens.guidance.faults.tables import Place, TraceCause
from urgens.guidance.procedures.facts import Facts
from urgens.guidance.procedures.records import records

VALVES = (*LAID, "combination")
# What is at a place, to be lit on the layout.
KINDS: dict[Place, tuple[str, ...]] = {
    "reservoir": ("reservoir",), "cylinder": ("master",), "rod": ("master",),
    "booster": ("master",), "lines": (), "joints": (), "hose": ("hose",),
    "brake": ("wheel-brake",), "valve": VALVES, "switch": ("switch",),
    "vehicle": (),
}  # fmt: skip


@dataclass(frozen=True)
class WayBack:
    """What follows a mend: its procedure, the parts it opens, the proofs made again.

    `bleeds` tells that a circuit is opened; which parts is empty where the layout does not say.
    """

    mend: str
    opened: tuple[str, ...]
    bleeds: bool
    proves: tuple[str, ...]


def way_back(build: Build, cause: TraceCause) -> WayBack:
    """Return the way back after a cause is mended; cause: of it.

    Source: common practice: what was open is bled again, what it bears on is proved again.
    """
    record, facts = records()[cause.mend], Facts(build)
    opened = tuple(
        dict.fromkeys(part for kind in record.opens for part in _parts(build, kind, cause))
    )
    proves = tuple(name for name in record.proves if records()[name].refusal(facts) is None)
    return WayBack(cause.mend, opened, bool(record.opens) or cause.mend == "bleed", proves)


def lit(build: Build, cause: TraceCause) -> tuple[str, ...]:
    """Return the ids of the parts where a cause sits; build, cause: as in `way_back`.

    The layout; none where it is not drawn, or the place is everywhere.
    """
    kinds = KINDS[cause.place]
    return tuple(part for kind in kinds for part in _parts(build, kind, cause))


def _parts(build: Build, kind: str, cause: TraceCause) -> tuple[str, ...]:
    circuits = circuits_of(build)
    if circuits is None:
        return ()
    kinds = VALVES if kind == "valve" else (kind,)
    parts = [part for part in circuits.plumbing.parts if part.kind in kinds]
    if cause.axle not in ("front", "rear"):
        return tuple(part.id for part in parts)
    return tuple(part.id for part in parts
                 if _axles(circuits, part) in ({cause.axle}, set()))  # fmt: skip


def _axles(circuits: Circuits, part: FittedPart) -> set[str]:
    """Return the axles of the wheel brakes that are the fewest lines away from a part."""
    if part.wheel is not None:
        return {part.wheel.partition("-")[0]}
    if part.valve is not None:
        return {part.valve.partition("[")[0]}
    seen, here = {part.id}, {part.id}
    while here:
        here = {other for one in here for other in _beside(circuits, one)} - seen
        seen |= here
        wheels = [circuits.parts[one].wheel for one in here]
        found = {wheel.partition("-")[0] for wheel in wheels if wheel is not None}
        if found:
            return found
    return set()


def _beside(circuits: Circuits, part: str) -> Iterator[str]:
    """Yield the parts at the other end of the lines of a part."""
    for line in circuits.plumbing.lines:
        ends = line.start.partition(".")[0], str(line.to).partition(".")[0]
        if part in ends:
            yield ends[ends[0] == part]
