"""What has to be proved standing before the vehicle moves, and what is still open."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace
from datetime import datetime
from typing import TYPE_CHECKING, Literal

from urgens.document import Build
from urgens.document.ledger.proof import GaugeRun
from urgens.guidance.condition.joints import joints
from urgens.guidance.rules.finding import Remark, Severity
from urgens.guidance.rules.registry import rule
from urgens.guidance.words.figures import FigureWords
from urgens.solve import Solution

if TYPE_CHECKING:
    from urgens.guidance.procedures import Procedure

MOVING = "prove-moving"
DRY = ("dry", "checked")


State = Literal["open", "done", "failed", "not-needed"]
ENOUGH = 5  # pairs read while the pedal went down: fewer tell no knee


@dataclass(frozen=True)
class StandingProof:
    """One proof that is made standing: its name, its state, why it is so, and when it was made."""

    name: str
    state: State
    why: str
    at: datetime | None = None


def standing_proofs(build: Build, before: datetime | None = None) -> tuple[StandingProof, ...]:
    """Return every standing proof with its state.

    before: of a time that they have to stand before.

    The procedures that the layout allows; all of them at once count for each.
    """
    from urgens.guidance.procedures.facts import Facts  # they are many, and not everyone asks
    from urgens.guidance.procedures.proving import PROOFS
    from urgens.guidance.procedures.records import records

    found, facts = [], Facts(build)
    for name in PROOFS:
        refused = records()[name].refusal(facts)
        if refused is not None:
            found.append(StandingProof(name, "not-needed", refused))
        else:
            found.append(_state(build, name, before))
    return tuple(found)


def _state(build: Build, name: str, before: datetime | None) -> StandingProof:
    from urgens.guidance.procedures.proving import ALL

    runs = [
        one
        for one in build.records
        if one.procedure in (name, ALL) and one.ended is not None
        if before is None or one.ended <= before
    ]
    if runs:
        last = max(runs, key=lambda one: one.ended or one.started)
        refused = [one for one in last.entries if one.value is False]
        if refused:
            said = f"the record of {last.started:%Y-%m-%d} says no at step {refused[0].step}"
            return StandingProof(name, "failed", said, last.ended)
        whole = "with all standing proofs, " if last.procedure == ALL else ""
        return StandingProof(name, "done", f"{whole}{last.started:%Y-%m-%d}", last.ended)
    read = _gauged(build, before) if name == "gauge-valve" else None
    if read is not None:
        return StandingProof(name, "done", f"read with gauges, {read.at:%Y-%m-%d}", read.at)
    begun = any(one.procedure == name and one.ended is None for one in build.records)
    return StandingProof(name, "open", "begun" if begun else "not on record")


def _gauged(build: Build, before: datetime | None) -> GaugeRun | None:
    """Return the last of the readings where every valve behind that reduces has been read."""
    runs = [] if build.proof is None else [one for one in build.proof.gauges if one.counts]
    found = None
    for index, valve in enumerate(build.valves.rear):
        if not valve.reduces:
            continue
        own = [
            one
            for one in runs
            if one.valve == f"rear[{index}]"
            and sum(point[2] == "rising" for point in one.points) >= ENOUGH
            and (before is None or one.at <= before)
        ]
        if not own:
            return None
        found = own[-1]
    return found


def open_proofs(build: Build, before: datetime | None = None) -> tuple[str, ...]:
    """Return the standing proofs that the layout needs and that no record tells of, or tells no.

    before: of a time that they have to stand before.
    """
    states = standing_proofs(build, before)
    return tuple(one.name for one in states if one.state in ("open", "failed"))


def _named(proofs: tuple[str, ...]) -> str:
    from urgens.guidance.procedures.records import title_of

    return ", ".join(f"“{title_of(name)}”" for name in proofs)


def held_from_moving(build: Build) -> tuple[str, ...]:
    """Return why the vehicle is not to move yet, each in words; none where nothing holds it.

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


def procedure_now(
    build: Build, name: str, method: str | None = None, opened: Iterable[str] = ()
) -> "Procedure":
    """Return a procedure for a build, with what stands against it now.

    build, name, method, opened: as `procedure` takes them. Raises BuildErrors as it does.
    """
    from urgens.guidance.procedures import procedure

    made = procedure(build, name, method, opened)
    if name != MOVING:
        return made
    held = tuple(f"Not yet: {reason}." for reason in held_from_moving(build))
    return replace(made, cautions=(*held, *made.cautions))


@rule("proof-open", Severity.WARNING)
def proof_open(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of a vehicle that was moved before a proof that its layout needs."""
    build = solution.build
    for at, where, reason in _moves(build):
        missing = open_proofs(build, at)
        if not missing:
            continue
        said = f" The reason that was given: {reason}." if reason else ""
        yield Remark(
            message=f"The vehicle was moved on {at:%Y-%m-%d} without a record of "
            f"{_named(missing)}.{said}",
            why="What does not hold standing does not hold moving: prove it before the next drive.",
            where=where,
        )


def _moves(build: Build) -> Iterator[tuple[datetime, str, str]]:
    """Yield when the vehicle was moved, where that stands, and the reason that was given.

    Of the stops only the first: the others follow from it.
    """
    for index, record in enumerate(build.records):
        if record.procedure == MOVING:
            yield record.started, f"records[{index}]", record.moved_without_proof
    stops = () if build.proof is None else build.proof.stops
    if stops:
        first = min(range(len(stops)), key=lambda index: stops[index].at)
        reason = stops[first].moved_without_proof
        yield stops[first].at, f"proof.stops[{first}]", reason
