"""The trainer: a hidden fault, tests that cost their minutes, and what would have been shortest."""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from typing import NamedTuple

from urgens.bench.trainer.hidden_fault import HiddenFault, hidden
from urgens.document import Build
from urgens.guidance.faults.tables import TestOutcome, TraceCause, TraceSign, TraceTest
from urgens.guidance.tracing.ranking import TraceEvidence, entropy
from urgens.guidance.tracing.readings import TraceReading
from urgens.guidance.tracing.trace import Traced, traced

ASKED = 1  # minutes of a look
READ = 3  # a ruler
GAUGED = 20  # two gauges
WRONG = 30  # a wrong mend
SURE = 0.6  # share at which one would name it
MOST = 14  # tests of the shortest way at most


class Level(NamedTuple):
    """How hard it is: what is told at the start, and how many things are wrong."""

    words: str
    causes: int
    told: int
    repaired: bool


LEVELS: Mapping[int, Level] = {
    1: Level("one sign", 1, 1, False),
    2: Level("several signs", 1, 4, False),
    3: Level("two faults", 2, 4, False),
    4: Level("after a wrong repair", 1, 1, True),
}


class TestMade(NamedTuple):
    """A test that was made: what it showed, bits it told, minutes it took."""

    test: TraceTest
    outcome: TestOutcome
    bits: float
    minutes: int


@dataclass(frozen=True)
class Exercise:
    """One exercise under way; the same seed is the same vehicle.

    `repaired` is what somebody renewed before, in vain. `minutes` are spent so far, `wrong` the
    causes that were named and are not there.
    """

    fault: HiddenFault
    level: int
    evidence: TraceEvidence
    repaired: TraceCause | None = None
    told: tuple[TestMade, ...] = ()
    minutes: int = 0
    wrong: tuple[str, ...] = ()
    found: tuple[str, ...] = field(default_factory=tuple)

    @property
    def build(self) -> Build:
        """The build of the vehicle."""
        return self.fault.build

    @property
    def done(self) -> bool:
        """Whether all that is wrong has been named."""
        return len(self.found) == len(self.fault.causes)

    def known(self) -> Traced:
        """Return what all that is known comes to."""
        return traced(self.build, self.evidence, self.fault.case)

    def look(self, sign: TraceSign) -> "Exercise":
        """Return the exercise once it was looked for a sign.

        sign: of the layout.
        """
        signs = {**self.evidence.signs, sign.id: self.fault.shows(sign)}
        return replace(self, evidence=replace(self.evidence, signs=signs),
                       minutes=self.minutes + ASKED)  # fmt: skip

    def test(self, test: TraceTest) -> "Exercise":
        """Return the exercise once a test was made; test: of the build."""
        before = entropy(self.known().shares)
        outcome = self.fault.outcome(test)
        outcomes = {**self.evidence.outcomes, test.id: outcome.id}
        made = replace(self, evidence=replace(self.evidence, outcomes=outcomes),
                       minutes=self.minutes + test.minutes)  # fmt: skip
        bits = float(before - entropy(made.known().shares))
        return replace(made, told=(*self.told, TestMade(test, outcome, bits, test.minutes)))

    def read(self, kind: str, effort: float, stroke: int = 1) -> tuple["Exercise", TraceReading]:
        """Return the exercise once a figure was read, and it.

        kind: of the reading [text]; effort: of the foot [N]; stroke: which one [-].
        """
        found = self.fault.read(kind, effort, stroke)
        cost = GAUGED if kind.endswith("pressure") else READ
        readings = (*self.evidence.readings, found)
        made = replace(self, evidence=replace(self.evidence, readings=readings),
                       minutes=self.minutes + cost)  # fmt: skip
        return made, found

    def name(self, cause: str) -> "Exercise":
        """Return the exercise once a cause was named and mended; cause: its id [text]."""
        if cause in [one.id for one in self.fault.causes]:
            found = tuple(dict.fromkeys((*self.found, cause)))
            return replace(self, found=found)
        return replace(self, wrong=(*self.wrong, cause), minutes=self.minutes + WRONG)


def exercise(build: Build, level: int, seed: int) -> Exercise:
    """Return a new exercise.

    level: of LEVELS [-]; seed: of the vehicle [-].

    A hidden fault; at the start as many signs as the level tells.
    """
    rules = LEVELS[level]
    fault = hidden(build, seed, rules.causes)
    signs = {one.id: True for one in fault.signs()[: rules.told]}
    repaired = _repaired(fault, signs) if rules.repaired else None
    return Exercise(fault, level, TraceEvidence(signs), repaired)


def _repaired(fault: HiddenFault, signs: Mapping[str, bool]) -> TraceCause | None:
    """Return what somebody took for the cause, and mended in vain."""
    ranked = traced(fault.build, TraceEvidence(signs), fault.case).ranked
    true = {one.id for one in fault.causes}
    return next((one.cause for one in ranked if one.cause.id not in true), None)


@dataclass(frozen=True)
class Debrief:
    """What the exercise comes to: the shortest way with its minutes, and what was passed over.

    `best` are tests in order with what each shows; `passed` tests of it that were not made.
    """

    best: tuple[TestMade, ...]
    minutes: int
    passed: tuple[TraceTest, ...]


def debrief(done: Exercise) -> Debrief:
    """Return what would have been the shortest way; done: an exercise.

    The best test each time, until what is wrong would be named.
    """
    start = {one.id: True for one in done.fault.signs()[: LEVELS[done.level].told]}
    way = replace(done, evidence=TraceEvidence(start), told=(), minutes=0)
    true = [one.id for one in done.fault.causes]
    for _ in range(MOST):
        known = way.known()
        shares = [one.share for one in known.ranked if one.cause.id in true]
        if sum(shares) > SURE or not known.tests:
            break
        way = way.test(known.tests[0].test)
    made = {one.test.id for one in done.told}
    passed = tuple(one.test for one in way.told if one.test.id not in made)
    return Debrief(way.told, way.minutes, passed)


def rests(done: Exercise) -> tuple[TraceCause, ...]:
    """Return what is wrong and has not been named; done: an exercise."""
    return tuple(one for one in done.fault.causes if one.id not in done.found)
