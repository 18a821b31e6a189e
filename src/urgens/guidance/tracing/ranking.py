"""From signs, outcomes and readings to ranked causes and the next test."""

import difflib
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import NamedTuple, TypeVar

import numpy as np

from urgens.document import Build, BuildErrors
from urgens.guidance.faults.tables import (
    Link,
    TestOutcome,
    TraceAnswer,
    TraceAsk,
    TraceCause,
    TraceSign,
    TraceTest,
    tables,
)
from urgens.guidance.tracing.fitting import fits
from urgens.guidance.tracing.readings import TraceReading, Weighed, weighed
from urgens.physics.arrays import Array, Bools

_T = TypeVar("_T", TraceSign, TraceTest, TestOutcome, TraceAnswer)
OTHER = 0.1  # kept for something that is in no list
RAISED = 3.0  # by how much work makes likelier what it can have brought; assumed
UNNAMED: Link = "never"  # how often a cause shows a sign that does not name it
LUMPED = 0.02  # share under which causes count as one: to tell those apart is worth no test yet
# Minutes that an open joint and a second person cost more
OPENING = 10.0
SECOND = 5.0


@dataclass(frozen=True)
class TraceEvidence:
    """What is known: signs seen or not, outcomes of tests, readings; how much work raised causes.

    `answers` are those to what a sign asks besides, by its id; `raised` factors on causes that the
    last changes can have brought [-].
    """

    signs: Mapping[str, bool] = field(default_factory=dict)
    outcomes: Mapping[str, str] = field(default_factory=dict)
    readings: tuple[TraceReading, ...] = ()
    raised: Mapping[str, float] = field(default_factory=dict)
    answers: Mapping[str, tuple[str, ...]] = field(default_factory=dict)


class Ranked(NamedTuple):
    """A cause, and its share of all [-]; `place` that of it among the causes of the build."""

    cause: TraceCause
    share: float
    place: int


class CandidateTest(NamedTuple):
    """A test that may be next: bits it is expected to tell a minute, how likely each outcome is.

    `then` (outcomes, causes + 1) are the shares after each outcome [-].
    """

    test: TraceTest
    outcomes: tuple[TestOutcome, ...]
    gain: float
    chances: Array
    then: Array

    @property
    def cost(self) -> float:
        """The minutes it counts for: an open joint and a second person cost more."""
        return costs(self.test)


def costs(test: TraceTest) -> float:
    """Return the minutes a test counts for; test: of it. Source: assumed, as OPENING."""
    return test.minutes + OPENING * test.opens + SECOND * (test.people > 1)


class Tracing:
    """All that a build's layout can have, with how each cause shows; asked for shares and tests."""

    def __init__(self, build: Build) -> None:
        """Take what the layout has."""
        whole = tables()
        self.build = build
        self.causes = tuple(one for one in whole.causes if fits(build, one.needs))
        self.ids = tuple(one.id for one in self.causes)
        self.signs = tuple(
            one for one in whole.signs if any(cause in self.ids for cause, _ in one.causes.links())
        )
        self.tests = tuple(one for one in whole.tests if fits(build, one.needs))
        common = np.array([whole.common[one.common] for one in self.causes])
        self._prior = common / common.sum()
        self._likely: dict[str, Array] = {}  # by test, worked out when first asked for

    def sign(self, name: str) -> TraceSign:
        """Return a sign; name: its id [text]. Raises BuildErrors with the nearest one."""
        return _found(name, self.signs, tables().signs, "--sign")

    def test(self, name: str) -> TraceTest:
        """Return a test; name: its id [text]. Raises BuildErrors with the nearest one."""
        return _found(name, self.tests, tables().tests, "--test")

    def outcomes(self, test: TraceTest) -> tuple[TestOutcome, ...]:
        """Return the outcomes that the layout can show; test: of it."""
        return tuple(one for one in test.outcomes if fits(self.build, one.needs))

    def outcome(self, test: TraceTest, name: str) -> TestOutcome:
        """Return an outcome; test: of it; name: its id [text]. Raises BuildErrors."""
        return _found(name, self.outcomes(test), test.outcomes, f"--test {test.id}")

    def shares(self, evidence: TraceEvidence, weights: Weighed) -> Array:
        """Return the share of each cause and last of something else (c + 1,) [-].

        evidence: what is known; weights: of its readings.
        Source: Bayes; signs, outcomes and readings taken as independent given the cause.
        """
        raised = np.array([evidence.raised.get(cause, 1.0) for cause in self.ids])
        found = np.append((1.0 - OTHER) * self._prior * raised, OTHER)
        for name, seen in evidence.signs.items():
            shown = self.shows(self.sign(name))
            found = found * (shown if seen else 1.0 - shown)
        for ask, answer in self.answered(evidence):
            found = found * self.shows_answer(ask, answer)
        for name, told in evidence.outcomes.items():
            test = self.test(name)
            outcomes = self.outcomes(test)
            found = found * self.likely(test)[outcomes.index(self.outcome(test, told))]
        found = found * np.append(weights.causes, weights.other)
        return np.asarray(found / found.sum())

    def answered(self, evidence: TraceEvidence) -> tuple[tuple[TraceAsk, TraceAnswer], ...]:
        """Return what was answered of the signs that are seen, each once; evidence: what is known.

        Raises BuildErrors for an answer that its sign does not ask for, for two to one question.
        What a sign says that was answered by itself is not counted twice.
        """
        found: dict[str, tuple[TraceAsk, TraceAnswer]] = {}
        for name, answers in evidence.answers.items():
            sign = self.sign(name)
            asks = [tables().ask(one) for one in sign.asks]
            known = [answer for ask in asks for answer in ask.answers]
            for each in answers:
                _found(each, known, known, f"--sign {name}")
            for ask in asks:
                given = [one for one in ask.answers if one.id in answers]
                if len(given) > 1:
                    both = " and ".join(f"“{one.id}”" for one in given)
                    raise BuildErrors.one(
                        f"--sign {name}", f"{both} answer one question", "write one of them"
                    )
                said = {one.sign for one in ask.answers} & set(evidence.signs)
                if given and evidence.signs.get(name) and not said:
                    found[given[0].id] = ask, given[0]
        return tuple(found.values())

    def shows_answer(self, ask: TraceAsk, answer: TraceAnswer) -> Array:
        """Return how likely each cause, and something else, makes an answer (c + 1,) [-].

        ask: of a sign; answer: to it.
        The table; causes of no axle show either, and those that no answer names any of them. Where
        it raises causes: by how much.
        """
        whole = tables()
        if ask.raises:
            named = {cause for cause, _ in answer.links()}
            return np.array([*(RAISED if one in named else 1.0 for one in self.ids), 1.0])
        if any(one.sign for one in ask.answers):
            signs = {one.id: one for one in self.signs}
            each = [
                shown if one is answer else 1.0 - shown
                for one in ask.answers if one.sign in signs
                for shown in (self.shows(signs[one.sign]),)
            ]  # fmt: skip
            return np.asarray(np.prod(each, axis=0)) if each else np.ones(len(self.ids) + 1)
        shown = np.array([self._named(one) for one in ask.answers])
        shown = np.where(np.isnan(shown).all(axis=0), 1.0, shown)
        shown = np.where(np.isnan(shown), whole.links["seldom"], shown)
        likely = (shown / shown.sum(axis=0))[ask.answers.index(answer)]
        return np.append(likely, likely @ self._prior)

    def _named(self, answer: TraceAnswer) -> list[float]:
        """Return how often each cause shows an answer [-], NaN where it is not named."""
        links = tables().links
        named = {cause: links[link] for cause, link in answer.links()}
        if answer.axle is not None:
            own = links["nearly-always"]
            named |= {one.id: own for one in self.causes if one.axle == answer.axle}
        return [named.get(cause, np.nan) for cause in self.ids]

    def tells(self, ask: TraceAsk, shares: Array) -> float:
        """Return what an answer is expected to tell [bit]; ask: of a sign; shares: (c + 1,) [-].

        What only raises causes tells nothing by itself. Source: the expected drop of entropy.
        """
        if not ask.ranks or ask.raises:
            return 0.0
        likely = np.array([self.shows_answer(ask, one) for one in ask.answers])
        joint = likely / likely.sum(axis=0) * shares
        chances = joint.sum(axis=1)
        return float(entropy(shares) - chances @ entropy(joint / chances[:, None]))

    def shows(self, sign: TraceSign) -> Array:
        """Return how often each cause, and something else, shows a sign (c + 1,) [-].

        sign: of the table.

        The table; something else as all causes on the whole.
        """
        whole = tables()
        named = dict(sign.causes.links())
        links = np.array([whole.links[named.get(cause, UNNAMED)] for cause in self.ids])
        return np.append(links, links @ self._prior)

    def likely(self, test: TraceTest) -> Array:
        """Return how likely each outcome is of each cause, (outcomes, c + 1) [-].

        test: of the table.

        The table; something else as all causes on the whole.
        """
        if test.id not in self._likely:
            self._likely[test.id] = self._worked_out(test)
        return self._likely[test.id]

    def _worked_out(self, test: TraceTest) -> Array:
        whole, outcomes = tables(), self.outcomes(test)
        seldom, place = whole.links["seldom"], [one.id for one in outcomes].index(test.usual)
        table = np.full((len(outcomes), len(self.ids)), np.nan)
        for row, one in enumerate(outcomes):
            for cause, link in one.links():
                if cause in self.ids:
                    table[row, self.ids.index(cause)] = whole.links[link]
        left = np.maximum(1.0 - np.nansum(table, axis=0), seldom)  # it shows the usual one else
        usual = np.isnan(table[place])
        table[place, usual] = left[usual]
        table = np.where(np.isnan(table), seldom, table)
        table = table / table.sum(axis=0)
        return np.column_stack([table, table @ self._prior])

    def next_tests(self, evidence: TraceEvidence, shares: Array) -> tuple[CandidateTest, ...]:
        """Return the tests that are left, the best first.

        evidence: what is known; shares: of the causes (c + 1,) [-].

        The largest expected drop of entropy a minute, all causes of little share taken as one;
        equal ones in the table's order.
        """
        found = []
        kept = np.append(shares[:-1] >= LUMPED, False)
        for test in self.tests:
            if test.id in evidence.outcomes or set(test.answers) & set(evidence.signs):
                continue
            joint = self.likely(test) * shares
            chances = joint.sum(axis=1)
            then = joint / chances[:, None]
            gain = entropy(_lumped(shares, kept)) - chances @ entropy(_lumped(then, kept))
            found.append(
                CandidateTest(test, self.outcomes(test), float(gain) / costs(test), chances, then)
            )
        return tuple(sorted(found, key=lambda one: -round(one.gain, 9)))

    def ranked(self, shares: Array, evidence: TraceEvidence) -> tuple[Ranked, ...]:
        """Return the causes by their share, equal ones in the order of the first sign's table.

        shares: (c + 1,) [-]; evidence: what is known.
        """
        order = {cause: place for place, cause in enumerate(self.ids)}
        seen = next((name for name, yes in evidence.signs.items() if yes), None)
        if seen is not None:
            listed = [cause for cause, _ in self.sign(seen).causes.links()]
            order = {c: listed.index(c) if c in listed else len(listed) + p
                     for c, p in order.items()}  # fmt: skip
        found = [Ranked(one, float(shares[place]), place) for place, one in enumerate(self.causes)]
        return tuple(sorted(found, key=lambda one: (-round(one.share, 12), order[one.cause.id])))


def keeping_other(shares: Array) -> Array:
    """Return shares of which something else has its own at least; shares: (c + 1,) [-]."""
    if shares[-1] >= OTHER:
        return shares
    return np.append(shares[:-1] * (1.0 - OTHER) / (1.0 - shares[-1]), OTHER)


def _lumped(shares: Array, kept: Bools) -> Array:
    """Return the shares that are kept, and last all others as one (…, k + 1) [-]."""
    own = shares[..., kept]
    return np.concatenate([own, 1.0 - own.sum(axis=-1, keepdims=True)], axis=-1)


def entropy(shares: Array) -> Array:
    """Return the entropy along the last axis [bit]; shares: [-]. Source: Shannon."""
    safe = np.where(shares > 0.0, shares, 1.0)
    return np.asarray(-(shares * np.log2(safe)).sum(axis=-1))


def with_readings(tracing: Tracing, readings: Sequence[TraceReading], case: int) -> Weighed:
    """Return how likely readings are of each cause; as in `weighed`."""
    return weighed(tracing.build, tracing.ids, readings, case)


def _found(name: str, here: Sequence[_T], whole: Sequence[_T], place: str) -> _T:
    for one in here:
        if one.id == name:
            return one
    names = [one.id for one in here]
    if any(one.id == name for one in whole):
        raise BuildErrors.one(place, f'"{name}" cannot be here: the layout has no such part',
                              f"choose one of {', '.join(names)}")  # fmt: skip
    near = difflib.get_close_matches(name, names, n=1)
    remedy = f'write "{near[0]}"' if near else f"choose one of {', '.join(names)}"
    raise BuildErrors.one(place, f'there is no "{name}"', remedy)
