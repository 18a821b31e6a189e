"""The next setting to try, why, how risky it is, and when the work is done."""

from dataclasses import dataclass
from typing import Literal

import numpy as np

from urgens.bench.stops.adjusters import Adjuster, adjuster
from urgens.bench.stops.posterior import Posterior, why_not_counted
from urgens.bench.stops.rear_first_chance import chances, least_factors
from urgens.document import Build
from urgens.document.ledger.proof import MeasuredStop
from urgens.physics.arrays import Array

RISK = 0.05  # of the rear locking first: no setting beyond it is proposed
Kind = Literal["first", "rearward", "forward", "again", "done"]


@dataclass(frozen=True)
class NextStop:
    """What to do next.

    `setting` [SI] is to be tried, `chance` of the rear locking first there; `chances` are those of
    all settings. `before` is the setting of the last stop, or the build's. `kind` is `first`,
    `rearward`, `forward`, `again` (the same, wet) or `done`.
    """

    turned: Adjuster
    setting: float
    chance: float
    kind: Kind
    before: float
    chances: Array

    @property
    def wet(self) -> bool:
        """Whether it is to be made on a wet road."""
        return self.kind == "again"

    @property
    def risky(self) -> bool:
        """Whether even the best setting locks the rear first too often."""
        return self.chance >= RISK

    @property
    def done(self) -> bool:
        """Whether nothing is left to try."""
        return self.kind == "done"


def next_stop(
    build: Build, stops: tuple[MeasuredStop, ...], posterior: Posterior, least: Array | None = None
) -> NextStop | None:
    """Return the next stop, None where nothing can be set on the build.

    stops: so far, as typed; posterior: what they say; least:
    rear factors of its front ones, where they are known already, (f,) [-].
    Source: common practice: from the front on, a step at a time, back at once where the rear
    locked; done where two neighbours bracket it, or the best was repeated wet.
    """
    turned = adjuster(build)
    if turned is None:
        return None
    made = tuple(stop for stop in stops if why_not_counted(build, stop) is None)
    if least is None:
        least = least_factors(build, turned, posterior.front)
    risks = chances(posterior, least)
    return choose(turned, made, risks, turned.now(build))


def choose(
    turned: Adjuster, stops: tuple[MeasuredStop, ...], risks: Array, start: float
) -> NextStop:
    """Return the next stop.

    turned: what is turned; stops: that count; risks: of each setting, (settings,) [-]; start:
    the setting that stands now [SI].
    """
    tried = [(turned.place(_setting(turned, stop)), stop) for stop in stops]
    allowed = np.flatnonzero(risks < RISK)
    best = int(allowed[-1]) if allowed.size else 0
    if not tried:
        first = min(turned.place(start), best)
        return _to(turned, risks, first, "first", turned.values[turned.place(start)])
    here, last = tried[-1]
    ceiling = min((place for place, stop in tried if _rear_first(stop)), default=None)
    if ceiling is not None:
        best = min(best, max(ceiling - 1, 0))
    before = turned.values[here]
    if _rear_first(last):
        back = min(here - 1, best) if here else 0
        return _to(turned, risks, max(back, 0), "forward", before)
    best = min(best, here + turned.most)
    if best < here:
        return _to(turned, risks, best, "forward", before)
    if best > here:
        return _to(turned, risks, best, "rearward", before)
    bracketed = ceiling is not None and ceiling == here + 1
    wet = any(place == here and stop.wet for place, stop in tried)
    if bracketed or wet:
        return _to(turned, risks, here, "done", before)
    return _to(turned, risks, here, "again", before)


def _to(turned: Adjuster, risks: Array, place: int, kind: Kind, before: float) -> NextStop:
    return NextStop(turned, turned.values[place], float(risks[place]), kind, before, risks)


def _rear_first(stop: MeasuredStop) -> bool:
    return stop.locked == "rear"


def _setting(turned: Adjuster, stop: MeasuredStop) -> float:
    found = turned.laid(stop.setting[turned.path])
    assert found is not None  # else it would not count
    return found
