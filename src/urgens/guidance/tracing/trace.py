"""One fault traced: what stops the vehicle, ranked causes with reasons, the next test."""

from collections.abc import Mapping, Set
from dataclasses import dataclass

from urgens.document import Build
from urgens.document.ledger.history import HistoryEntry
from urgens.guidance.faults.tables import TraceSign
from urgens.guidance.faults.together import contradictions, stops
from urgens.guidance.tracing.ranking import (
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
RAISED = 3.0  # by how much a change makes likelier what it can have brought; assumed
# What a change of figures can bring, by where it was made; common practice.
BRINGS: Mapping[str, tuple[str, ...]] = {
    "master": ("bore-big", "bore-small", "air-front", "air-rear", "rod-long", "rod-short",
               "cylinder-tilted", "insert-missing", "lines-wrong", "leak-joint"),
    "pedal": ("rod-long", "rod-short", "ratio-hole", "switch-holds", "rod-out", "insert-missing"),
    "booster": ("booster-dead", "booster-valve", "vacuum-low", "rod-long", "rod-short"),
    "valves": ("knee-high", "knee-low", "adjustable-open", "load-sensing-high",
               "load-sensing-low", "second-valve", "valve-missing", "metering-missing",
               "residual-disc-front", "residual-disc-rear", "no-residual", "leak-joint"),
    "front.brake": ("air-front", "glazed-front", "linings-new", "screw-low", "leak-joint",
                    "shoes-far-front", "knock-back-front", "residual-disc-front"),
    "rear.brake": ("air-rear", "glazed-rear", "linings-new", "screw-low", "leak-joint",
                   "shoes-far-rear", "knock-back-rear", "residual-disc-rear", "no-residual",
                   "drums-grab", "shoes-uneven"),
    "front.tyre": ("tyres-changed", "tyres-unequal"),
    "rear.tyre": ("tyres-changed", "tyres-unequal"),
    "vehicle": ("rear-unloaded", "tyres-changed"),
    "plumbing": ("leak-joint", "air-front", "air-rear", "lines-wrong", "line-pinched",
                 "hose-leaks-front", "hose-leaks-rear", "shuttle-across"),
    "lines": ("hose-soft-front", "hose-soft-rear", "air-front", "air-rear"),
    "fluid": ("fluid-boils", "air-front", "air-rear"),
}  # fmt: skip


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
    for path in entry.changes:
        for place, causes in BRINGS.items():
            if path == place or path.startswith((f"{place}.", f"{place}[")):
                found.update(dict.fromkeys(causes, RAISED))
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
