"""One fault traced: what stops the vehicle, ranked causes with reasons, the next test."""

from collections.abc import Set
from dataclasses import dataclass

from urgens.document import Build
from urgens.document.ledger.history import HistoryEntry
from urgens.guidance.faults.tables import TraceAsk, TraceSign, tables
from urgens.guidance.faults.together import contradictions, stops
from urgens.guidance.tracing.ranking import (
    LUMPED,
    RAISED,
    CandidateTest,
    Ranked,
    TraceEvidence,
    Tracing,
    entropy,
    keeping_other,
    with_readings,
)
from urgens.guidance.tracing.readings import KINDS, TraceReading, Weighed
from urgens.guidance.words.figures import FigureWords
from urgens.physics.arrays import Array
from urgens.quantity import FORCE, show

LEAST = 0.02  # bit: a question that tells less is not asked


@dataclass(frozen=True)
class Traced:
    """What is known comes to: why not to drive, causes by share, something else, what is next.

    `shares` are those of the tracing's causes and of something else (c + 1,) [-].
    """

    tracing: Tracing
    evidence: TraceEvidence
    stops: tuple[str, ...]
    contradictions: tuple[str, ...]
    ranked: tuple[Ranked, ...]
    other: float
    tests: tuple[CandidateTest, ...]
    shares: Array
    weights: Weighed

    def reason(self, ranked: Ranked, words: FigureWords) -> str:
        """Return why a cause is where it is, in a sentence or two.

        ranked: of the causes; words: in units shown.

        The table; the reading that tells most, beside what the cause would show.
        """
        told = [
            _reading_words(read, float(best), words)
            for read, best in zip(
                self.evidence.readings, self.weights.best[ranked.place], strict=True
            )
        ]
        return " ".join([ranked.cause.why, *told[:1]])

    def question(self, skipped: Set[str] = frozenset()) -> TraceSign | None:
        """Return the sign whose answer is expected to tell most, None where none tells anything.

        skipped: those that are not to be asked [text].

        The largest expected drop of entropy, of what has not been answered.
        """
        best, found = LEAST, None
        for sign in self.tracing.signs:
            if sign.id in self.evidence.signs or sign.when or sign.id in skipped:
                continue
            seen = self.tracing.shows(sign)
            chance = float(self.shares @ seen)
            after = [self.shares * seen / chance, self.shares * (1.0 - seen) / (1.0 - chance)]
            gain = float(entropy(self.shares)) - float(
                chance * entropy(after[0]) + (1.0 - chance) * entropy(after[1])
            )
            if gain > best:
                best, found = gain, sign
        return found

    def asks(self, sign: TraceSign) -> tuple[TraceAsk, ...]:
        """Return what is worth asking of a sign that is seen, or was answered; sign: of it.

        What tells causes apart by more than LEAST; which side, where one wheel can be at fault; on
        what was worked, where the history does not say.
        """
        given = set(self.evidence.answers.get(sign.id, ()))
        asks = [tables().ask(name) for name in sign.asks]
        return tuple(ask for ask in asks
                     if given & {one.id for one in ask.answers} or self._worth(ask))  # fmt: skip

    def _worth(self, ask: TraceAsk) -> bool:
        if {one.sign for one in ask.answers} & set(self.evidence.signs):
            return False  # it was answered by itself
        if ask.raises:
            return not self.evidence.raised
        if ask.ranks:
            return self.tracing.tells(ask, self.shares) > LEAST
        return any(one.cause.wheel and one.share > LUMPED for one in self.ranked)


def traced(build: Build, evidence: TraceEvidence, case: int = 0) -> Traced:
    """Return what is known comes to; evidence: of it; case: its place [-].

    Raises BuildErrors for a sign, test or outcome that is none, or that the layout cannot have.
    """
    tracing = Tracing(build)
    weights = with_readings(tracing, evidence.readings, case)
    shares = tracing.shares(evidence, weights)
    ranked = tracing.ranked(keeping_other(shares), evidence)
    tests = tracing.next_tests(evidence, shares)
    known = evidence.signs, evidence.outcomes
    said = stops(*known), contradictions(*known)
    return Traced(
        tracing, evidence, *said, ranked, float(keeping_other(shares)[-1]), tests, shares, weights
    )


def raised_by(entry: HistoryEntry | None) -> dict[str, float]:
    """Return how much likelier a change makes each cause that it can have brought [-].

    entry: the last change of the history, None without one.
    """
    if entry is None:
        return {}
    found = {}
    answers = (answer for ask in tables().asks if ask.raises for answer in ask.answers)
    for answer in answers:
        for place in answer.paths:
            within = (f"{place}.", f"{place}[")
            if any(path == place or path.startswith(within) for path in entry.changes):
                found.update({cause: RAISED for cause, _ in answer.links()})
    return found


def last_change(build: Build) -> HistoryEntry | None:
    """Return the last change of the history, None without one."""
    changes = [one for one in build.history if one.kind == "change"]
    return max(changes, key=lambda one: one.at) if changes else None


def _reading_words(read: TraceReading, shown: float, words: FigureWords) -> str:
    kind = KINDS[read.kind]
    foot = show(read.effort, FORCE, words.units)
    if kind.exponents is None:
        figures = f"{shown:.2f}", f"{read.value:.2f}"
    else:
        figures = (str(show(shown, kind.exponents, words.units)),
                   str(show(read.value, kind.exponents, words.units)))  # fmt: skip
    at = f" at {foot}" if kind.foot else ""
    said = f"{kind.words[:1].upper()}{kind.words[1:]}"
    return f"{said}{at}: {figures[0]} with it, {figures[1]} read."
