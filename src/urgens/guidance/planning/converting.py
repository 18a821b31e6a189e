"""The jobs that make one set-up of a build into another."""

from collections.abc import Iterator
from dataclasses import replace

from urgens.document import Build
from urgens.document.edits.past import changes_between
from urgens.guidance.advice.layouts import PER_LINE, PER_PART
from urgens.guidance.condition.consequences import asked_by
from urgens.guidance.planning.job import Job, Place
from urgens.guidance.planning.work import (
    BENCH_BLED,
    BENDING,
    CYLINDER_IN,
    FITTED,
    Work,
    begun_circuits,
    bending,
    circuits_opened,
    closing,
    every_circuit,
    laid_circuits,
    noted_items,
)
from urgens.guidance.procedures.rebleed import opened_by
from urgens.guidance.rules.fluids import SILICONE
from urgens.guidance.words.parts import part_name
from urgens.physics.axle import AXLES, Axle
from urgens.plumbing.conversion import (
    brake_items,
    conversion,
    layout_of,
    same_booster,
    same_cylinder,
)

# Minutes, common practice.
STRIP = 40
CYLINDER = 45
CYLINDER_BENCH = 45
BOOSTER = 60
PEDAL = 45
SETTING = 15
OTHER_KIND = 110
HYDRAULICS = 60
LININGS = 50
TYRES = 30
FLUSHED = 40
STRIPPED = "Strip and record"
AXLE_PLACE: dict[Axle, Place] = {Axle.FRONT: "front axle", Axle.REAR: "rear axle"}


def conversion_work(now: Build, then: Build) -> Work:
    """Return the jobs that make one build of another, and what is open of it besides.

    now, then: as it is and as it is to be.
    Source: `plumbing.conversion` and what differs; minutes are common practice.
    """
    changed = tuple(changes_between(now, then))
    asked = asked_by(then, changed)
    work = [*_brakes(now, then, changed), *_pedal_and_cylinder(now, then, changed)]
    work += [*_layout(now, then), *_flush(now, then)]
    work += _settings(changed, work)
    first = [_strip()] if any(job.opens for job in work) else []
    done = [_behind(job, first) for job in work]
    done += noted_items(then, (*first, *done))
    after = closing(then, done, begun_circuits(now), asked)
    return Work(then, (*first, *done, *after), begun_circuits(now))


def _strip() -> Job:
    return Job(
        STRIPPED, STRIP, "photographs, lengths, settings, before anything comes off",
        "all round", procedure="strip-record",
    )  # fmt: skip


def _behind(job: Job, first: list[Job]) -> Job:
    wanted = [one.name for one in first] if job.lane == "car" else []
    return replace(job, after=(*wanted, *job.after))


def _under(changed: tuple[str, ...], *places: str) -> bool:
    return any(path.startswith(place) for path in changed for place in places)


def _brakes(now: Build, then: Build, changed: tuple[str, ...]) -> Iterator[Job]:
    """Yield what other brakes and tyres take, an axle at a time."""
    for axle in AXLES:
        place, before, after = AXLE_PLACE[axle], now.axle(axle).brake, then.axle(axle).brake
        circuits = circuits_opened(then, {w for w, _ in _wheel_parts(then, axle)})
        head = str(axle).capitalize()
        item = brake_items(now, then, axle)
        if item == "brakes":
            what = f"{head}: {before.kind}s off, {after.kind}s on"
            yield Job(what, OTHER_KIND, f"{axle} open from here", place, opens=circuits,
                      brings=(f"{axle} brakes",))  # fmt: skip
        elif item in ("calipers", "wheel cylinders"):
            yield Job(f"{head} {item}", HYDRAULICS, f"while the {place} is up", place,
                      opens=circuits, brings=(f"{axle} {item}",))  # fmt: skip
        elif item:
            yield Job(f"{head} {item}", LININGS, "nothing that holds fluid is opened", place,
                      brings=(f"{axle} {item}",))  # fmt: skip
        if _under(changed, f"{axle}.tyre"):
            yield Job(f"{head} tyres", TYRES, "another radius or grip", place,
                      brings=(f"{axle} tyres",))  # fmt: skip


def _wheel_parts(build: Build, axle: Axle) -> Iterator[tuple[str, str]]:
    for wheel, part in laid_circuits(build).wheels.items():
        if wheel.startswith(axle):
            yield part.id, wheel


def _pedal_and_cylinder(now: Build, then: Build, changed: tuple[str, ...]) -> Iterator[Job]:
    circuits = every_circuit(then)
    boosted = not same_booster(now, then)
    other = not same_cylinder(now, then)
    if boosted:
        kind = "out" if not then.booster.fitted else "in"
        yield Job(f"Booster {kind}", BOOSTER, "the cylinder comes off for it", "pedal box",
                  opens=circuits, brings=("booster",) if kind == "in" else ())  # fmt: skip
    if other:
        yield Job(BENCH_BLED, CYLINDER_BENCH, "ports clear, plugs in, before it goes in", "bench",
                  procedure="bench-bleed", brings=("cylinder",))  # fmt: skip
    if other or boosted:
        after = (*([BENCH_BLED] if other else []), *([f"Booster {kind}"] if boosted else []))
        yield Job(CYLINDER_IN, CYLINDER, "rod with its play, proved by pressing once", "pedal box",
                  opens=circuits, after=after, procedure="pushrod-clearance")  # fmt: skip
    if _under(changed, "pedal.pivot"):
        pin = then.pedal.pivot_to_pushrod
        yield Job("Pedal: pin and height", PEDAL, f"pin {pin.text} from the pivot; switch after",
                  "pedal box", procedure="pedal-height")  # fmt: skip


def _layout(now: Build, then: Build) -> Iterator[Job]:
    """Yield what another layout takes: lines at the bench, then all that is screwed together."""
    needed = conversion(now, then)
    before = {line.id: line for line in layout_of(now).lines}
    laid = layout_of(then)
    new = [line for line in laid.lines if not line.direct and before.get(line.id) != line]
    kinds = {part.id: part.kind for part in laid.parts}
    parts = [name for name in needed.new if kinds.get(name) not in (None, "master", "wheel-brake")]
    if new:
        yield bending(new)
    opened = {*opened_by(now, then), *(line.id for line in new)}
    count = len(new) + len(parts) + len(needed.plugged)
    if not count:
        return
    after = (CYLINDER_IN, *((bending(new).name,) if new else ()))
    circuits = laid_circuits(then)
    told = [part_name(circuits, part) for part in laid.parts if part.id in parts]
    yield Job(
        FITTED, (PER_LINE - BENDING) * len(new) + PER_PART * (len(parts) + len(needed.plugged)),
        f"all by hand, then tight: {', '.join(told[:3]) or 'lines'}", "underneath",
        opens=circuits_opened(then, opened), after=after, procedure="assemble",
    )  # fmt: skip


def _flush(now: Build, then: Build) -> Iterator[Job]:
    """Yield what another class of fluid takes: the old one out of every line."""
    before, after = (None if one.fluid is None else one.fluid.grade for one in (now, then))
    if before is None or after is None or before == after:
        return
    why = "silicone and glycol never mix: all rubber new, every line dry" if SILICONE in (
        before, after
    ) else "the old one out of reservoir and lines first"  # fmt: skip
    yield Job(f"Old fluid out, for {after}", FLUSHED, why, "all round", opens=every_circuit(then))


def _settings(changed: tuple[str, ...], work: list[Job]) -> Iterator[Job]:
    """Yield what is only set: valves and the bar, where no part is changed."""
    laid = any(job.name == FITTED for job in work)
    valves = [path for path in changed if path.startswith("valves.")]
    if (valves and not laid) or "master.bar_offset" in changed:
        yield Job("Set valve or bar", SETTING, "as the build has it now; nothing is opened",
                  "underneath")  # fmt: skip
