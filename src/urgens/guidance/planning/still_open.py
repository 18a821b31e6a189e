"""The jobs that are still open of a build, all of them where nothing is on record."""

from collections.abc import Iterator

from urgens.document import Build
from urgens.guidance.advice.layouts import PER_LINE, PER_PART
from urgens.guidance.condition.consequences import asked_by
from urgens.guidance.condition.deeds import MOVING
from urgens.guidance.condition.holds import condition
from urgens.guidance.condition.joints import LOOSE, MadeJoint, joints
from urgens.guidance.condition.proofs import standing_proofs
from urgens.guidance.planning.converting import CYLINDER, CYLINDER_BENCH
from urgens.guidance.planning.held import BLED_BY, ENDINGS, circuits_to_bleed, holding_jobs
from urgens.guidance.planning.job import Job
from urgens.guidance.planning.work import (
    BENCH_BLED,
    BENDING,
    CYLINDER_IN,
    FITTED,
    ITEM,
    Work,
    begun_circuits,
    bending,
    circuits_opened,
    closing,
    every_circuit,
    noted_items,
)
from urgens.guidance.procedures.proving import ALL, PROOFS
from urgens.guidance.procedures.records import records, title_of
from urgens.plumbing.conversion import layout_of

A_JOINT = 4  # minutes; common practice
BY_THEMSELVES = (*PROOFS, ALL, MOVING, "bleed", "rebleed")  # runs that are jobs of their own


def open_work(build: Build) -> Work:
    """Return what is still open: joints, runs, items, proofs; all, where none is told."""
    begun = tuple(sorted({*begun_circuits(build), *circuits_to_bleed(build)}))
    nothing = asked_by(build, ())
    bled = any(one.procedure in ("bleed", "rebleed") and one.ended for one in build.records)
    proved = any(one.state == "done" for one in standing_proofs(build))
    held = any(hold.code in (*BLED_BY, *ENDINGS) for hold in condition(build).holds)
    if not build.joints and not bled and not proved and not held:
        made = _from_nothing(build)
        said = (
            "Neither a joint nor a bleeding is on record: planned as if all were still to be made."
        )
        if build.plumbing is None:
            said += " No layout is drawn: these are the lines of the usual one."
        return Work(build, made, (), said)
    loose = [one for one in joints(build) if one.where and one.state in LOOSE]
    jobs = [*_loose(build, loose), *_runs(build)]
    jobs += holding_jobs(build, jobs)
    jobs += noted_items(build, jobs)
    return Work(build, (*jobs, *closing(build, jobs, begun, nothing)), begun)


def _loose(build: Build, loose: list[MadeJoint]) -> Iterator[Job]:
    if loose:
        names = {one.name.partition(".")[0] for one in loose}
        yield Job("Joints tight", A_JOINT * len(loose), f"{len(loose)} only started or capped",
                  "underneath", opens=circuits_opened(build, names))  # fmt: skip


def _runs(build: Build) -> Iterator[Job]:
    """Yield procedures that were left, but for proofs and bleeding, which come by themselves."""
    for record in build.records:
        if record.ended is None and record.procedure not in BY_THEMSELVES:
            title = title_of(record.procedure)
            known = record.procedure if record.procedure in records() else ""
            yield Job(f"Go on: {title}", ITEM, f"left at step {record.step}, minutes assumed",
                      procedure=known)  # fmt: skip


def _from_nothing(build: Build) -> tuple[Job, ...]:
    """Return the making of a whole system, from its layout."""
    laid, circuits = layout_of(build), every_circuit(build)
    lines = [line for line in laid.lines if not line.direct]
    parts = [part for part in laid.parts if part.kind not in ("master", "wheel-brake")]
    work = [bending(lines)] if lines else []
    work += [
        Job(BENCH_BLED, CYLINDER_BENCH, "ports clear, plugs in, before it goes in", "bench",
            procedure="bench-bleed"),
        Job(CYLINDER_IN, CYLINDER, "rod with its play, proved by pressing once", "pedal box",
            opens=circuits, after=(BENCH_BLED,), procedure="pushrod-clearance"),
        Job(FITTED, (PER_LINE - BENDING) * len(lines) + PER_PART * len(parts),
            "all by hand, then tight", "underneath", opens=circuits,
            after=(*(job.name for job in work), CYLINDER_IN), procedure="assemble"),
    ]  # fmt: skip
    work += noted_items(build, work)
    return (*work, *closing(build, work, (), asked_by(build, ())))
