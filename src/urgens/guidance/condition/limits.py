"""Between what a figure that was read is as it should be: by the build, or by common practice."""

from dataclasses import dataclass, replace
from functools import cached_property
from math import hypot, isfinite

import numpy as np

from urgens.document import Build, edited
from urgens.document.edits.edit import LISTS
from urgens.document.evidence import known_figures
from urgens.document.ledger.records import RecordEntry
from urgens.guidance.condition.deeds import Deed
from urgens.physics.axle import Pair
from urgens.quantity import FORCE, QuantityError, parse
from urgens.solve import Solution, solve
from urgens.solve.system import System
from urgens.studies.settle import presses_at_both_ends
from urgens.studies.trapped_air import trapped_air

MILLIMETRE = 1e-3  # m: what a travel is recorded in
INCH = 25.4e-3  # m
HALF_LOST = (10e-3, 0.15)  # m, of the computed: within the larger
LEAST_ASSISTED = 2  # strokes that the check valve has to leave
LONG = (5e-3, 0.10)  # m, of the computed, by which a travel is long
APART = (*LISTS, "name", "notes", "proof")  # of a build: what no limit follows from
READ = 3e-3  # m, either way, of a travel read by a rule
LATER = (3e-3, 0.05)  # m, of the day's, by which a later one has grown


@dataclass(frozen=True)
class Limits:
    """What figures of one build are judged by; computed where it is asked for."""

    build: Build

    @cached_property
    def solution(self) -> Solution:
        """The build solved."""
        return solve(self.build)

    def system_with(self, booster: str | None) -> System | None:
        """Return the system with what help a travel was read with.

        booster: working, out, or None where nobody told; without one fitted it does not matter.
        None where the help is not known.
        """
        system = self.solution.system
        if not self.build.booster.fitted:
            return system
        if booster == "out":
            return replace(system, booster=replace(system.booster, assist_limit=0.0))
        return system if booster == "working" else None

    def computed_travel(self, entry: RecordEntry) -> float | None:
        """Return the pedal's travel at the foot and with the help an entry names [m].

        None where the foot is not told, or whether the booster worked.
        """
        system, effort = self.system_with(entry.booster), _foot(entry)
        return None if system is None else self._travel(system, effort)

    def travel_without_help(self, effort: float) -> float | None:
        """Return the pedal's travel with the booster out [m]; effort: of the foot [N].

        None where none is computed.
        """
        system = self.system_with("out")
        return None if system is None else self._travel(system, effort)

    def clearance_travel(self, entry: RecordEntry) -> float:
        """Return how much of a computed travel only closes the running clearances [m].

        Nothing where none is computed.
        """
        system, effort = self.system_with(entry.booster), _foot(entry)
        if system is None:
            return 0.0
        front, rear = (replace(one, clearance_volume=0.0) for one in system.volumes.axles)
        volumes = replace(system.volumes, axles=Pair(front, rear))
        whole = self._travel(system, effort)
        closed = self._travel(replace(system, volumes=volumes), effort)
        return 0.0 if whole is None or closed is None else max(whole - closed, 0.0)

    def _travel(self, system: System, effort: float) -> float | None:
        if not effort > 0.0:
            return None
        computed = float(trapped_air(system, self.solution.standing, effort, 0.0, 0.0).computed)
        return computed if isfinite(computed) else None

    def long_by(self, entry: RecordEntry) -> float | None:
        """Return by how much a travel is longer than it may be [m], None where it is not."""
        computed = self.computed_travel(entry)
        if computed is None:
            return None
        more = float(entry.value) * MILLIMETRE - computed
        if more <= max(LONG[0], LONG[1] * computed):
            return None
        return more if more > hypot(READ, self.travel_spread(entry)) else None

    def travel_spread(self, entry: RecordEntry) -> float:
        """Return by how much a computed travel may be off, either way [m].

        Source: each figure at both ends of its spread, added as squares of independent figures.
        """
        build, effort = self.build, np.array([_foot(entry)])
        if build.booster.fitted and entry.booster == "out":
            build = edited(build, "booster.working", False)
        figures = known_figures(build)
        if not figures:
            return 0.0
        case, surface = self.solution.case, build.targets.surface
        found = presses_at_both_ends(build, figures, case, effort, surface)
        ends = np.asarray(found.pedal_travel).reshape(2, len(figures))
        computed = self.computed_travel(entry)
        assert computed is not None  # it was compared with what was read
        off = np.abs(ends - computed).max(axis=0)
        return float(np.sqrt(np.nansum(np.square(off))))

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
        return f"{length_words(travel)} for {length_words(computed)} computed"


def length_words(metres: float) -> str:
    """Return a travel in both systems of units; metres: of it [m]. Source: by definition."""
    return f"{metres / MILLIMETRE:.0f} mm ({metres / INCH:.1f} in)"


def _foot(entry: RecordEntry) -> float:
    """Return the force that a travel was read at [N], nothing where none is told."""
    try:
        return parse(entry.effort, FORCE).value
    except QuantityError:
        return 0.0


_kept: Limits | None = None


def limits_of(build: Build) -> Limits:
    """Return the limits of a build; those asked for last are kept, so that it is solved once.

    What is done and read on a vehicle makes its figures no others.
    """
    global _kept
    found = _kept
    if found is None or not (found.build is build or _figures(found.build) == _figures(build)):
        found = _kept = Limits(build)
    return found


def _figures(build: Build) -> tuple[object, ...]:
    return tuple(getattr(build, name) for name in Build.model_fields if name not in APART)


def grown(first: RecordEntry, later: RecordEntry, usual: float = 0.0) -> bool:
    """Return whether a travel has grown, read at the same foot with the same help.

    usual: by how much it grows anyhow [m].
    """
    if first.effort != later.effort or first.booster != later.booster:
        return False
    before, after = float(first.value) * MILLIMETRE, float(later.value) * MILLIMETRE
    return after - before > usual + max(LATER[0], LATER[1] * before)
