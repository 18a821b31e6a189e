"""What speaks for a cause, and what against it: one thing that is known, in words."""

from collections.abc import Iterator, Sequence
from typing import NamedTuple

import numpy as np

from urgens.guidance.tracing.ranking import TraceEvidence, with_readings
from urgens.guidance.tracing.readings import KINDS, LITTLE
from urgens.guidance.tracing.trace import Traced
from urgens.physics.arrays import Array

AGAINST = 0.2  # of the likelihood of the cause that shows it most: what speaks against one


class Weight(NamedTuple):
    """One thing that is known: in words, and how likely each cause makes it (c,) [-].

    `parts` tells whether it parts causes, as a test does; a sign that is seen only points.
    """

    words: str
    likely: Array
    parts: bool = True


def weights(trace: Traced) -> Iterator[Weight]:
    """Yield everything that is known of a fault; trace: of it. Source: the factors of Bayes."""
    tracing, known = trace.tracing, trace.evidence
    for name, seen in known.signs.items():
        sign = tracing.sign(name)
        shown = tracing.shows(sign)[:-1]
        words = _small(sign.words)
        likely = shown if seen else 1.0 - shown
        yield Weight(words if seen else f"not seen: {words}", likely, parts=not seen)
    for ask, answer in tracing.answered(known):
        yield Weight(f"“{answer.words}” was answered", tracing.shows_answer(ask, answer)[:-1])
    for name, told in known.outcomes.items():
        test = tracing.test(name)
        outcome = tracing.outcome(test, told)
        likely = tracing.likely(test)[tracing.outcomes(test).index(outcome)][:-1]
        yield Weight(_small(outcome.words), likely)
    for place, read in enumerate(known.readings):
        yield Weight(
            f"the {KINDS[read.kind].words} that was read", trace.weights.each[:, place] + LITTLE
        )


def speaks_for(trace: Traced, cause: str) -> str:
    """Return what speaks most for a cause, in words, nothing where nothing does.

    trace: of a fault; cause: its id [text]. The largest likelihood beside that of all causes.
    """
    place = trace.tracing.ids.index(cause)
    found = [(float(one.likely[place] / one.likely.mean()), one.words) for one in weights(trace)]
    best = max(found, default=(0.0, ""))
    return best[1] if best[0] > 1.0 else ""


def ruled_out_by(trace: Traced, causes: Sequence[str]) -> str:
    """Return what speaks most against causes, in words, nothing where nothing does enough.

    trace: of a fault; causes: of one place, their ids [text]. A sign that is seen rules nothing
    out; what speaks against the one that the signs point to most is what counts.
    """
    before = seen_alone(trace)
    place = max((trace.tracing.ids.index(cause) for cause in causes), key=lambda at: before[at])
    found = [
        (float(one.likely[place] / np.max(one.likely)), one.words)
        for one in weights(trace)
        if one.parts
    ]
    least = min(found, default=(1.0, ""))
    return least[1] if least[0] <= AGAINST else ""


def seen_alone(trace: Traced) -> Array:
    """Return the share of each cause by the signs that are seen alone (c + 1,) [-].

    trace: of a fault.
    """
    signs = {name: True for name, seen in trace.evidence.signs.items() if seen}
    known = TraceEvidence(signs, raised=trace.evidence.raised)
    return trace.tracing.shares(known, with_readings(trace.tracing, (), 0))


def _small(words: str) -> str:
    return words[:1].lower() + words[1:]
