"""What jobs are made from: circuits of a layout, bleeding, what is noted as open, what follows."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from urgens.document import Build
from urgens.document.circuits import Circuits, circuits_of
from urgens.document.layout.layout import BrakeLine
from urgens.guidance.condition.consequences import Consequences
from urgens.guidance.condition.deeds import MOVING
from urgens.guidance.condition.joints import opened_since_bled
from urgens.guidance.condition.proofs import OPEN, standing_proofs
from urgens.guidance.planning.job import Job
from urgens.guidance.procedures import procedure
from urgens.guidance.procedures.amounts import amounts
from urgens.guidance.procedures.records import title_of
from urgens.plumbing.conversion import layout_of

# Minutes, common practice. A line takes `alternatives.PER_LINE`, of which it lies at the bench:
BENDING = 15
MORNING = 15
A_PROOF = 10
MOVING_MINUTES = 60
JOINTS_AFTER = 30
ITEM = 30
NIGHT = 12.0  # hours
COOLING = 1.0  # hours
FITTED = "Lines and parts in"
BENCH_BLED = "Cylinder, on the bench"
CYLINDER_IN = "Cylinder and rod in"
MORNING_READ = "Travel, next morning"
STANDING = "Prove standing"
MOVED = "Prove moving, bed in"
JOINTS = "Every joint, looked at"

FOLLOWS = (MORNING_READ, STANDING, MOVED, JOINTS)


@dataclass(frozen=True)
class Work:
    """What there is to do on one build: jobs, and circuits that stand open already.

    `supposed` tells in words what is not on record and was supposed, empty where nothing was.
    """

    build: Build
    jobs: tuple[Job, ...]
    begun: tuple[str, ...] = ()
    supposed: str = ""


def bleed_job(build: Build, circuits: tuple[str, ...]) -> Job:
    """Return the bleeding of circuits of a build, its minutes and people.

    build: as it is then; circuits: which [text].
    """
    made = procedure(build, "bleed")
    wheels = {wheel for name in circuits for wheel in wheels_of(build, name)}
    share = max(len(wheels), 1) / 4
    names = {("all",): "the one circuit", ("front", "rear"): "both"}
    return Job(
        f"Fill and bleed {names.get(circuits, ' and '.join(circuits))}",
        round(amounts(build).minutes * share) + 5,
        f"{(made.method or 'as the layout lets it').replace('-', ' ')}, {len(wheels)} wheels",
        people=made.people,
        bleeds=circuits,
        procedure="bleed",
    )


def wheels_of(build: Build, circuit: str) -> tuple[str, ...]:
    """Return the wheels of a circuit; circuit: its name [text]."""
    laid = laid_circuits(build)
    return tuple(wheel for wheel, part in laid.wheels.items() if circuit in laid.fed_by(part))


def laid_circuits(build: Build) -> Circuits:
    """Return the layout of a build, the usual one where none is drawn."""
    return circuits_of(build) or Circuits(build, layout_of(build))


def every_circuit(build: Build) -> tuple[str, ...]:
    """Return the names of all circuits."""
    return tuple(sorted(set(laid_circuits(build).outlets.values())))


def circuits_opened(build: Build, names: set[str]) -> tuple[str, ...]:
    """Return the circuits that parts and lines belong to.

    names: ids [text].
    """
    laid = laid_circuits(build)
    found: set[str] = set()
    for line in laid.plumbing.lines:
        ends = {line.id, line.start.partition(".")[0], str(line.to).partition(".")[0]}
        if ends & names:
            found |= laid.fed[line.id]
    return tuple(sorted(found))


def begun_circuits(build: Build) -> tuple[str, ...]:
    """Return the circuits that stand open now."""
    return circuits_opened(build, set(opened_since_bled(build)))


def bending(new: Sequence[BrakeLine]) -> Job:
    """Return the making of lines at the bench; new: which. Source: common practice."""
    count = f"{len(new)} line{'s' if len(new) > 1 else ''}"
    why = "from the cut list; nuts on first"
    return Job(f"Bend, flare {count}", BENDING * len(new), why, "bench")


def noted_items(build: Build, work: Sequence[Job] = ()) -> Iterator[Job]:
    """Yield what the builder noted as open; what is at a joint or part of the layout opens it.

    work: jobs beside them, whose names are not given twice.
    Source: its open items; minutes are assumed.
    """
    taken = {*FOLLOWS, *(job.name for job in work)}
    for item in build.open_items:
        if item.done is not None:
            continue
        name, number = item.what, 1
        while name in taken:
            number += 1
            name = f"{item.what} ({number})"
        taken.add(name)
        where = item.place.partition(".")[0]
        laid = build.plumbing is not None and where in {
            *(part.id for part in build.plumbing.parts), *(line.id for line in build.plumbing.lines)
        }  # fmt: skip
        circuits = circuits_opened(build, {where}) if laid else ()
        held = "holds the vehicle; " if item.holds_vehicle else ""
        at = f"{item.place}; " if item.place else ""
        yield Job(name, ITEM, f"{at}{held}noted by you, minutes assumed",
                  opens=circuits)  # fmt: skip


def closing(
    build: Build, work: Sequence[Job], begun: tuple[str, ...], consequences: Consequences
) -> Iterator[Job]:
    """Yield what follows: travel after a night, proofs standing, moving, joints again.

    build: as it is then; work: what is done before; begun: circuits that are
    open already [text]; consequences: what changes ask for. Where a circuit was open all
    is proved anew; else what is asked for, and what is open still. Source: common practice.
    """
    circuits, last = every_circuit(build), tuple(job.name for job in work)
    opened = bool(begun) or any(job.opens for job in work)
    if opened:
        yield Job(MORNING_READ, MORNING, "air shows after a night", "pedal box", shut=circuits,
                  after=last, waits=NIGHT, waits_for="fluid rests")  # fmt: skip
        last = (MORNING_READ,)
    states = standing_proofs(build)
    due = [
        one.name
        for one in states
        if one.state in OPEN
        or (one.state == "done" and (opened or one.name in consequences.proves))
    ]
    if due:
        named = ", ".join(title_of(name).lower() for name in due[:3])
        more = f" and {len(due) - 3} more" if len(due) > 3 else ""
        people = max(procedure(build, "prove-standing").people, 2)
        yield Job(STANDING, A_PROOF * len(due), f"{named}{more}", "all round", people=people,
                  shut=circuits, after=last, procedure="prove-standing")  # fmt: skip
        last = (STANDING,)
    if opened or due or consequences.moves:
        yield Job(MOVED, MOVING_MINUTES, "walking pace first; private, level, empty ground",
                  "road", people=2, shut=circuits, after=last, procedure=MOVING)  # fmt: skip
    if opened:
        yield Job(JOINTS, JOINTS_AFTER, "after the first drive, wheels up", "all round",
                  shut=circuits, after=(MOVED,), waits=COOLING,
                  waits_for="brakes cool")  # fmt: skip
