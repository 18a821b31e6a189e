"""What has to be proved standing before the vehicle moves, and what is still open."""

from collections.abc import Iterator

from urgens.document import Build
from urgens.document.records import Record
from urgens.guidance.finding import Finding, Severity
from urgens.guidance.joints import joints
from urgens.guidance.registry import rule
from urgens.guidance.words import COMMON_PRACTICE, Words
from urgens.solve import Solution

ALL = "prove-standing"
MOVING = "prove-moving"
PROOFS = (
    "ports-test", "gauge-valve", "load-sensing-test", "metering-test", "switch-test",
    "booster-test", "half-lost-test", "three-strokes",
)  # fmt: skip
DRY = ("dry", "checked")


def _done(build: Build, before: Record | None = None) -> set[str]:
    """Return the procedures that are recorded to their end, all of them or before a run began."""
    return {
        one.procedure
        for one in build.records
        if one.ended is not None and (before is None or one.ended <= before.started)
    }


def open_proofs(build: Build, before: Record | None = None) -> tuple[str, ...]:
    """Return the standing proofs that the layout needs and that no record tells of.

    build: the document [object]; before: a run that they have to stand before [object].
    Source: the procedures that the layout allows; all of them at once count for each.
    """
    from urgens.guidance.procedures import procedure  # they are many, and not everyone asks

    done = _done(build, before)
    if ALL in done:
        return ()
    return tuple(name for name in PROOFS if name not in done and procedure(build, name).allowed)


def _named(proofs: tuple[str, ...]) -> str:
    from urgens.guidance.procedures.titles import TITLES  # as above

    return ", ".join(f"“{TITLES[name]}”" for name in proofs)


def held_from_moving(build: Build) -> tuple[str, ...]:
    """Return why the vehicle is not to move yet, each in words; none where nothing holds it.

    build: the document [object].
    Source: common practice: every joint dry, nothing left open that holds it, every proof done.
    """
    found = []
    wet = [one for one in joints(build) if one.where and one.state not in DRY]
    if wet and build.joints:
        found.append(f"{len(wet)} joints are not noted as dry under pressure")
    items = [one.what for one in build.open_items if one.holds_vehicle and one.done is None]
    found += [f"still open: {what}" for what in items]
    missing = open_proofs(build)
    if missing:
        found.append(f"not on record: {_named(missing)}")
    return tuple(found)


@rule("proof-open")
def proof_open(solution: Solution, words: Words) -> Iterator[Finding]:
    """Tell of a vehicle that was moved before a proof that its layout needs."""
    build = solution.build
    for index, record in enumerate(build.records):
        if record.procedure != MOVING:
            continue
        missing = open_proofs(build, record)
        if not missing:
            continue
        reason = record.moved_without_proof
        said = f" The reason that was given: {reason}." if reason else ""
        yield Finding(
            code="proof-open",
            severity=Severity.WARNING,
            message=f"The vehicle was moved on {record.started:%Y-%m-%d} without a record of "
            f"{_named(missing)}.{said}",
            why="What does not hold standing does not hold moving: prove it before the next drive.",
            basis=COMMON_PRACTICE,
            where=f"records[{index}]",
        )
