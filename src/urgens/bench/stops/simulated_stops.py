"""Stops of the stand-in, one after another: what is seen of each, and how many are left."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field

import numpy as np
from numpy.random import Generator

from urgens.bench.stops.adjusters import adjuster
from urgens.bench.stops.next_setting import NextStop, next_stop
from urgens.bench.stops.posterior import (
    READ_WITHIN,
    SEEN_WITHIN,
    Posterior,
    Prior,
    axle_turns,
    posterior,
    prior,
    scaled,
)
from urgens.bench.stops.rear_first_chance import least_factors
from urgens.document import Build
from urgens.document.ledger.proof import MeasuredStop
from urgens.physics.arrays import Array, Floats
from urgens.solve.first_rise import first_rise_of_either
from urgens.solve.line_pressure import pushrod_force
from urgens.solve.rolling_forces import axle_forces
from urgens.solve.system import System, system

WET_SHARE = 0.55  # of the dry road's coefficient: common practice
MOST_STOPS = 12
LOOK_AHEAD = 9  # vehicles that are followed
COARSE = (17, 11)  # how finely each is judged


@dataclass(frozen=True)
class TrueVehicle:
    """A vehicle as it really is: what differs by path [SI], factors on its brakes and its road."""

    build: Build
    over: Mapping[str, Floats] = field(default_factory=dict)
    factors: tuple[float, float] = (1.0, 1.0)
    road: float = 1.0

    def at(self, path: str, setting: float) -> System:
        """Return its numbers at a setting; path: of what is turned [text]; setting: [SI]."""
        made = system(self.build, over={**self.over, path: setting})
        return scaled(made, *self.factors)

    def stop(
        self, advice: NextStop, surface: float, chance: Generator, share: float = 1.0
    ) -> MeasuredStop:
        """Return a stop up to the first lock, or to a share of its foot, as it would be noted.

        advice: what was proposed; surface: what the road is taken for [-]; chance: to draw
        with; share: of the foot of the first lock [-].
        Source: first lock; deceleration and who locked seen as exactly as is assumed of a builder.
        """
        made = self.at(advice.turned.path, advice.setting)
        standing = made.case(0)
        found = first_rise_of_either(made, standing, np.array([surface * self.road]))
        locks = bool(found.locks[0]) and share >= 1.0
        reached = float(found.effort[0]) if found.locks[0] else float(made.max_effort)
        effort = reached * min(share, 1.0)
        forces = axle_forces(made, pushrod_force(made, effort), standing)
        turns = 1.0 + float(sum(axle_turns(made, standing)))
        z = float((forces[0] + forces[1]) / standing.weight) / turns
        z += chance.normal(0.0, READ_WITHIN)
        apart = float(found.rear_used[0] - found.front_used[0]) + chance.normal(0.0, SEEN_WITHIN)
        return MeasuredStop.model_validate({
            "at": "2026-01-01T12:00",
            "load_case": self.build.vehicle.load_cases[0].name,
            "surface": surface,
            "setting": {advice.turned.path: advice.turned.typed(advice.setting)},
            "deceleration": round(min(max(z, 0.01), 3.0), 3),
            "effort": f"{effort:.4g} N",
            "locked": ("rear" if apart > 0.0 else "front") if locks else "none",
            "wet": advice.wet,
        })  # fmt: skip


def campaign(
    vehicle: TrueVehicle,
    stops: tuple[MeasuredStop, ...],
    prior: Prior,
    chance: Generator,
    steps: tuple[int, int],
    least: Array | None = None,
) -> tuple[int, NextStop | None]:
    """Return how many more stops a vehicle takes until all is done, and the last advice.

    vehicle: as it really is; stops: so far; prior: of the brakes before any; chance: to draw with.
    steps: of the grid [-]; least: rear factors of its front ones, where they are known already,
    (f,) [-].

    The advice followed on the stand-in, no more than `MOST_STOPS` times.
    """
    build, dry = vehicle.build, vehicle.build.targets.surface
    for count in range(MOST_STOPS):
        found = posterior(build, stops, prior, steps)
        least = _least(build, found.front) if least is None else least
        advice = next_stop(build, stops, found, least)
        if advice is None or advice.done:
            return count, advice
        surface = dry * WET_SHARE if advice.wet else dry
        stops = (*stops, vehicle.stop(advice, surface, chance))
    return MOST_STOPS, advice


def stops_left(
    build: Build,
    stops: tuple[MeasuredStop, ...],
    known: Posterior,
    seed: int = 1,
    goes_on: Callable[[], bool] | None = None,
) -> int:
    """Return how many stops are likely still to make; of several vehicles the middle one.

    stops: so far; known: what they say; seed: of the draws
    [-]; goes_on: asked between two vehicles whether to go on [callable].

    The advice followed on vehicles drawn from what is known.
    """
    chance, before = np.random.default_rng(seed), prior(build)
    pairs = zip(*known.draws(LOOK_AHEAD, seed), strict=True)
    least = _least(build, posterior(build, (), before, COARSE).front)
    counts = [
        campaign(
            TrueVehicle(build, {}, (float(a), float(b))), stops, before, chance, COARSE, least
        )[0]
        for a, b in pairs
        if goes_on is None or goes_on()
    ]
    return int(np.median(counts)) if counts else 0


def _least(build: Build, front: Array) -> Array | None:
    turned = adjuster(build)
    return None if turned is None else least_factors(build, turned, front)
