"""Between what a figure that was read is as it should be: by the build, or by common practice."""

from dataclasses import dataclass, replace
from functools import cached_property
from math import isfinite

from urgens.document import Build
from urgens.document.ledger.records import RecordEntry
from urgens.guidance.condition.deeds import Deed
from urgens.quantity import FORCE, QuantityError, parse
from urgens.solve import Solution, solve
from urgens.studies.trapped_air import trapped_air

MILLIMETRE = 1e-3  # m: what a travel is recorded in
HALF_LOST = (10e-3, 0.15)  # m, of the computed: within the larger
LEAST_ASSISTED = 2  # strokes that the check valve has to leave
LONG = (5e-3, 0.10)  # m, of the computed, by which a travel is long
LATER = (3e-3, 0.05)  # m, of the day's, by which a later one has grown


@dataclass(frozen=True)
class Limits:
    """What figures of one build are judged by; computed where it is asked for."""

    build: Build

    @cached_property
    def solution(self) -> Solution:
        """The build solved."""
        return solve(self.build)

    def computed_travel(self, entry: RecordEntry) -> float | None:
        """Return the pedal's travel at the foot and with the help an entry names [m].

        None where the foot is not told, or whether the booster worked.
        """
        fitted, system = self.build.booster.fitted, self.solution.system
        if not entry.effort or (fitted and entry.booster is None):
            return None
        try:
            effort = parse(entry.effort, FORCE).value
        except QuantityError:
            return None
        if fitted and entry.booster == "out":
            system = replace(system, booster=replace(system.booster, assist_limit=0.0))
        found = trapped_air(
            system, self.solution.standing, effort, float(entry.value) * MILLIMETRE, 0
        )
        computed = float(found.computed)
        return computed if isfinite(computed) else None

    def long_by(self, entry: RecordEntry) -> float | None:
        """Return by how much a travel is longer than it may be [m], None where it is not."""
        computed = self.computed_travel(entry)
        if computed is None:
            return None
        more = float(entry.value) * MILLIMETRE - computed
        return more if more > max(LONG[0], LONG[1] * computed) else None

    def wrong(self, deed: Deed) -> str | None:
        """Return why an answer of a proof is none, None where it is as it should be."""
        if deed.value is False:
            return "no"
        if not isinstance(deed.value, float):
            return None
        if deed.owner == "half-lost-test" and deed.field == "travel":
            return self._half_lost(deed.ordinal, deed.value * MILLIMETRE)
        if deed.owner == "booster-test" and deed.field == "strokes":
            return None if deed.value >= LEAST_ASSISTED else f"{deed.value:g} assisted strokes"
        return None

    def _half_lost(self, ordinal: int, travel: float) -> str | None:
        halves = self.solution.half_failed
        if not 1 <= ordinal <= len(halves):
            return None
        computed = float(halves[ordinal - 1].pedal_travel[self.solution.case])
        if not isfinite(computed):
            return None
        off = abs(travel - computed)
        if off <= max(HALF_LOST[0], HALF_LOST[1] * computed):
            return None
        return f"{travel / MILLIMETRE:.0f} mm for {computed / MILLIMETRE:.0f} mm computed"


def grown(first: RecordEntry, later: RecordEntry) -> bool:
    """Return whether a travel has grown, read at the same foot with the same help."""
    if first.effort != later.effort or first.booster != later.booster:
        return False
    before, after = float(first.value) * MILLIMETRE, float(later.value) * MILLIMETRE
    return after - before > max(LATER[0], LATER[1] * before)
