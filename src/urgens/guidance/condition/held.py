"""That something on record holds the vehicle, as a finding beside all others."""

from collections.abc import Iterator

from urgens.guidance.condition.holds import condition
from urgens.guidance.condition.proofs import PROOFS
from urgens.guidance.rules.finding import Remark, Severity
from urgens.guidance.rules.registry import rule
from urgens.guidance.words.figures import FigureWords
from urgens.solve import Solution


@rule("held", Severity.WARNING)
def held(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell of a vehicle that something on record holds, and that nobody moved since."""
    found = condition(solution.build)
    since = [one.since for one in found.holds if one.since is not None]
    moved = [deed.at for deed in found.standing.fold.moves if deed.at is not None]
    if not found.holds or (since and any(at >= min(since) for at in moved)):
        return
    grave = [one for one in found.holds if one.code not in PROOFS] or list(found.holds)
    rest = len(found.holds) - 1
    more = f", and {rest} more thing{'s' if rest > 1 else ''}" if rest else ""
    yield Remark(
        message=f"On record it is held: {grave[0].words}{more}.",
        why=f"It stays where it is until each has ended; the first: {grave[0].ends_by}.",
        where="noted",
    )
