"""A vehicle with something wrong that nobody has told: what is seen, tested and read on it."""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np
from numpy.random import Generator

from urgens.document import Build
from urgens.guidance.faults.tables import TestOutcome, TraceCause, TraceSign, TraceTest, tables
from urgens.guidance.tracing.ranking import Tracing
from urgens.guidance.tracing.readings import KINDS, TraceReading
from urgens.guidance.tracing.simulated import Simulated, effects, figures, rows_of

BY_HAND = 0.5  # of a reading's own error that a careful hand makes
SPREAD = 0.02  # by which a vehicle's figures differ from its build's [-]; assumed


@dataclass(frozen=True)
class HiddenFault:
    """One vehicle with causes that are hidden; the same seed is the same vehicle.

    `sizes` tells which row of each cause it is [-].
    """

    tracing: Tracing
    causes: tuple[TraceCause, ...]
    sizes: tuple[int, ...]
    seed: int
    case: int = 0

    @property
    def build(self) -> Build:
        """The build of the vehicle."""
        return self.tracing.build

    def _chance(self, *what: object) -> Generator:
        """Return chance that is the same for the same question."""
        words = "|".join(str(one) for one in (self.seed, *what))
        return np.random.default_rng(list(words.encode()))

    def outcome(self, test: TraceTest) -> TestOutcome:
        """Return what a test shows; test: that is made.

        The table; of two causes the one that shows what is less usual.
        """
        outcomes = self.tracing.outcomes(test)
        drawn = [self._drawn(test, outcomes, cause) for cause in self.causes]
        return next((one for one in drawn if one.id != test.usual), drawn[0])

    def _drawn(
        self, test: TraceTest, outcomes: tuple[TestOutcome, ...], cause: TraceCause
    ) -> TestOutcome:
        likely = self.tracing.likely(test)[:, self.tracing.ids.index(cause.id)]
        return outcomes[int(self._chance("test", test.id, cause.id).choice(likely.size, p=likely))]

    def shows(self, sign: TraceSign) -> bool:
        """Return whether a sign is seen; sign: that is looked for."""
        whole = tables()
        for cause in self.causes:
            named = dict(sign.causes.links())
            often = whole.links[named.get(cause.id, "never")]
            if self._chance("sign", sign.id, cause.id).random() < often:
                return True
        return False

    def signs(self) -> tuple[TraceSign, ...]:
        """Return the signs that it comes with, the most telling first; at least one."""
        shown = [one for one in self.tracing.signs if not one.when and self.shows(one)]
        return tuple(sorted(shown or [self._nearest()], key=self._rank))

    def _rank(self, sign: TraceSign) -> float:
        return -max(self._link(sign, cause) for cause in self.causes)

    def _link(self, sign: TraceSign, cause: TraceCause) -> float:
        return tables().links[dict(sign.causes.links()).get(cause.id, "never")]

    def _nearest(self) -> TraceSign:
        own = [one for one in self.tracing.signs if not one.when]
        return min(own, key=self._rank)

    def read(self, kind: str, effort: float, stroke: int = 1) -> TraceReading:
        """Return what is read on it at a foot.

        kind: of the reading [text]; effort: [N]; stroke: which one [-].
        """
        rows = self._row()
        found = figures(self.build, rows, np.array([effort]), self.case, stroke)
        value = float(KINDS[kind].figure(found)[0, 0])
        own = 1.0 + SPREAD * self._chance("vehicle", kind).normal()
        by_hand = BY_HAND * KINDS[kind].error * self._chance("hand", kind, effort, stroke).normal()
        return TraceReading(kind, max(value * own + by_hand, 0.0), effort, stroke)

    def _row(self) -> Simulated:
        """Return the one row that has all of its causes."""
        whole = rows_of([one.id for one in self.causes])
        names, changes = np.array(whole.causes), dict(whole.cold)
        neutral = {key: values[:1] for key, values in changes.items()}
        for cause, size in zip(self.causes, self.sizes, strict=True):
            row = np.flatnonzero(names == cause.id)[size]
            for key, values in changes.items():
                if not np.array_equal(values[row], values[0]):
                    neutral[key] = values[row : row + 1]
        return Simulated((self.causes[0].id,), neutral, neutral)


def hidden(build: Build, seed: int, count: int = 1, case: int = 0) -> HiddenFault:
    """Return a vehicle of a build with something wrong.

    seed: of which vehicle [-]; count: of its causes [-]; case: place of
    the load case [-].

    The causes that its layout can have, as common as they are.
    """
    tracing = Tracing(build)
    chance = np.random.default_rng(seed)
    weights = np.array([tables().common[one.common] for one in tracing.causes])
    picked = chance.choice(len(tracing.causes), count, replace=False, p=weights / weights.sum())
    return with_causes(tracing, tuple(tracing.causes[place] for place in picked), seed, case)


def with_causes(
    tracing: Tracing, causes: tuple[TraceCause, ...], seed: int, case: int = 0
) -> HiddenFault:
    """Return a vehicle with these causes, each of a size that is drawn.

    tracing: of its build; causes: of it; seed: of the sizes [-]; case:
    place of the load case [-].
    """
    return HiddenFault(tracing, causes, tuple(_sizes(causes, seed)), seed, case)


def _sizes(causes: tuple[TraceCause, ...], seed: int) -> Iterator[int]:
    chance = np.random.default_rng([seed, 1])
    for cause in causes:
        rows = sum(one == cause.id for one in rows_of([cause.id]).causes)
        yield int(chance.integers(rows)) if effects().get(cause.id) else 0
