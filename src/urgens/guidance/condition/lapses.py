"""What takes from a proof its ground: the table of what is opened, moved or changed."""

from collections.abc import Iterable

from urgens.document import Build
from urgens.document.circuits import Circuits, circuits_of
from urgens.guidance.condition.consequences import asked_by
from urgens.guidance.faults.tables import TraceCause, tables
from urgens.guidance.faults.way_back import way_back
from urgens.plumbing.conversion import layout_of

WHEELS = ("front-left", "front-right", "rear-left", "rear-right")
OPENED = ("leak-test", "three-strokes")  # by any joint or screw of a circuit
VALVE = ("gauge-valve", "load-sensing-test", "metering-test")
CYLINDER = ("ports-test", "half-lost-test", "booster-test", "three-strokes")
SWITCH = ("switch-test",)
CLASS = ("three-strokes",)
# What a thing that is fitted, taken off or loosened opens: proofs, and which circuits.
THINGS: dict[str, tuple[tuple[str, ...], str]] = {
    "lines": ((*OPENED, *CYLINDER, *SWITCH, *VALVE), "all"),
    "gauges": (OPENED, "rear"),
    "pistons": ((*OPENED, *CYLINDER), "all"),
    "pushrod": (CYLINDER, ""),
    "booster": (CYLINDER, ""),
    "cylinder's lines": ((*OPENED, *CYLINDER), "all"),
    "front cylinder's lines": ((*OPENED, *CYLINDER), "front"),
    "rear cylinder's lines": ((*OPENED, *CYLINDER), "rear"),
}


def wheels_of(circuit: str) -> tuple[str, ...]:
    """Return the wheels of a circuit; circuit: an axle, all, or nothing [text]."""
    if circuit in ("all", "layout"):
        return WHEELS
    return tuple(wheel for wheel in WHEELS if circuit and wheel.startswith(circuit))


def behind_joint(build: Build, joint: str) -> tuple[tuple[str, ...], tuple[str, ...]]:
    """Return the proofs that a joint's opening takes, and the wheels behind it.

    joint: a line's id with .a or .b, or a part's port [text]. All wheels where the layout does not
    have it: what is not known is not bled.
    """
    circuits = circuits_of(build) or Circuits(build, layout_of(build))
    line, _, _ = joint.rpartition(".")
    direct = next((one.id for one in circuits.plumbing.lines if str(one.to) == joint), line)
    known = {one.id: one for one in circuits.plumbing.lines}
    if direct not in known:
        return OPENED, WHEELS
    ends = {name.partition(".")[0] for name in (known[direct].start, str(known[direct].to))}
    kinds = {circuits.parts[end].kind for end in ends if end in circuits.parts}
    valves = {part.id for part in circuits.plumbing.parts if part.valve is not None}
    proofs = (*OPENED, *(VALVE if ends & valves else ()), *(SWITCH if "switch" in kinds else ()))
    fed = circuits.fed[direct]
    wheels = circuits.wheels_behind(direct) or {
        wheel for wheel, part in circuits.wheels.items() if circuits.fed_by(part) & fed
    }
    return proofs, tuple(sorted(wheels))


def by_changes(build: Build, paths: Iterable[str]) -> tuple[tuple[str, ...], tuple[str, ...]]:
    """Return the proofs that changes of figures take, and the wheels that they open.

    paths: of figures that are others now [text]. Source: `consequences.RULES`.
    """
    asked = asked_by(build, paths)
    wheels = [wheel for circuit in asked.opens for wheel in wheels_of(circuit)]
    return asked.proves, tuple(dict.fromkeys(wheels))


def proved_after_mend(build: Build, cause: str) -> tuple[str, ...]:
    """Return the proofs that are made again after the mend of a cause; cause: its id [text].

    Where the tables do not have it nobody told what was opened: as after any opening.
    """
    known = _known(cause)
    return OPENED if known is None else way_back(build, known).proves or OPENED


def by_mend(build: Build, cause: str) -> tuple[tuple[str, ...], tuple[str, ...]]:
    """Return the proofs that the mend of a cause takes, and the wheels that it opens.

    cause: its id [text]. Source: the way back of tracing.
    """
    known, proofs = _known(cause), proved_after_mend(build, cause)
    if known is None or not way_back(build, known).bleeds:
        return proofs, ()
    return (*OPENED, *proofs), wheels_of(known.axle or "all")


def _known(cause: str) -> TraceCause | None:
    return next((one for one in tables().causes if one.id == cause), None)
