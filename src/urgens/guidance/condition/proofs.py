"""What has to be proved standing before the vehicle moves, and what is still open."""

from collections.abc import Iterable, Iterator
from dataclasses import replace
from datetime import datetime
from typing import TYPE_CHECKING

from urgens.document import Build
from urgens.guidance.condition.deeds import MOVING, Deed
from urgens.guidance.condition.hold import GRAVE
from urgens.guidance.condition.holds import condition
from urgens.guidance.condition.standing import StandingProof
from urgens.guidance.rules.finding import Remark, Severity
from urgens.guidance.rules.registry import rule
from urgens.guidance.words.figures import FigureWords
from urgens.solve import Solution

if TYPE_CHECKING:
    from urgens.guidance.procedures import Procedure

OPEN = ("open", "begun", "failed", "lapsed")  # states of a proof that is to be made
PROOFS = ("proof-open", "proof-failed", "proof-lapsed")


def standing_proofs(build: Build, before: datetime | None = None) -> tuple[StandingProof, ...]:
    """Return every standing proof with its state; before: of a time that they stand at."""
    return condition(build, before).standing.proofs


def _named(proofs: Iterable[str]) -> str:
    from urgens.guidance.procedures.records import title_of

    return ", ".join(f"“{title_of(name)}”" for name in proofs)


def held_from_moving(build: Build) -> tuple[str, ...]:
    """Return why the vehicle is not to move yet, each in words; none where nothing holds it.

    Source: the condition; where nothing is on record, every proof is open.
    """
    found = condition(build)
    proofs = [one for one in found.standing.proofs if one.state in OPEN]
    if found.may_move is None:
        return (f"nothing is on record, neither {_named(one.name for one in proofs)}",)
    others = [hold.words for hold in found.holds if hold.code not in PROOFS]
    missing = [hold for hold in found.holds if hold.code == "proof-open"]
    lost = [hold.words for hold in found.holds if hold.code in PROOFS[1:]]
    told = [f"not on record: {_named(hold.place for hold in missing)}"] if missing else []
    return (*others, *lost, *told)


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
    """Tell of a vehicle that was moved in spite of what held it."""
    for deed in _moves(solution.build):
        assert deed.at is not None
        holds = condition(solution.build, deed.at).holds
        if not holds:
            continue
        told = _named(dict.fromkeys(one.place for one in holds if one.code in PROOFS))
        others = "; ".join(one.words for one in holds if one.code not in PROOFS)
        without = f"without a record of {told}" if told else ""
        while_ = f"while this held it: {others}" if others else ""
        reason = f" The reason that was given: {deed.value}." if deed.value else ""
        yield Remark(
            message=f"The vehicle was moved on {deed.at:%Y-%m-%d} "
            f"{', and '.join(filter(None, (without, while_)))}.{reason}",
            why="What does not hold standing does not hold moving: prove it before the next drive.",
            where=deed.place,
            severity=Severity.DANGER if any(one.code in GRAVE for one in holds) else None,
        )


def _moves(build: Build) -> Iterator[Deed]:
    """Yield when the vehicle was moved; of stops and logs only the first: the others follow."""
    moves = condition(build).standing.fold.moves
    yield from (deed for deed in moves if deed.place.startswith("records"))
    yield from [deed for deed in moves if not deed.place.startswith("records")][:1]
