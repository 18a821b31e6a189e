"""Systems out of wishes, and which change did it.

Wanted: 10^5 systems to cards in at most 2 s away from the hand; a waterfall of ten changes in at
most 1 s without the chance. The table of the first group gives the ratio to as many efforts by the
bare formulas.
"""

from typing import Any

import numpy as np
import pytest

from urgens.document import Build, demo, own_vehicle, with_changes
from urgens.guidance.advice.wish_cards import offered
from urgens.studies.attribution import attributed
from urgens.studies.mixtures import of_figures
from urgens.studies.wishes.systems import search
from urgens.studies.wishes.wanted import usual_wishes

SYSTEMS = 100_000
STEPS = 40  # of a bracket that is halved
CHOICES = {
    "bore": None, "ratio": None, "valve": None, "rear-pistons": None, "front-friction": None,
}  # fmt: skip
CHANGES = {
    "front.brake.pad_friction": 0.42, "pedal.pivot_to_pushrod": "55 mm", "master.bore": "1 in",
    "rear.tyre.rolling_radius": "400 mm", "targets.deceleration": 0.45, "pedal.efficiency": 0.9,
    "master.efficiency": 0.93, "front.brake.efficiency": 0.97, "vehicle.wheelbase": "2.1 m",
    "front.tyre.rolling_radius": "320 mm",
}  # fmt: skip


@pytest.mark.benchmark(group="100,000 systems to cards, at most 2 s")
def test_wishes(benchmark: Any) -> None:
    build = own_vehicle()
    wishes = usual_wishes(build)

    def cards() -> int:
        answer = search(build, wishes, CHOICES)
        assert answer is not None
        offer = offered(build, wishes, answer.systems, build.natural_units)
        assert offer is not None
        assert offer.cards
        return answer.tried

    assert benchmark.pedantic(cards, rounds=3, warmup_rounds=1) > SYSTEMS


@pytest.mark.benchmark(group="100,000 systems to cards, at most 2 s")
def test_as_many_efforts_bare(benchmark: Any) -> None:
    """Halved brackets of a force that rises: what a foot for a deceleration is made of."""
    chance = np.random.default_rng(1)
    area, ratio, rear = (chance.uniform(*ends, SYSTEMS) for ends in
                         ((2e-4, 8e-4), (3.0, 8.0), (1e-3, 3e-3)))  # fmt: skip

    def efforts() -> float:
        low, high = np.zeros(SYSTEMS), np.full(SYSTEMS, 2000.0)
        for _ in range(STEPS):
            middle = (low + high) / 2.0
            pressure = middle * ratio / area
            force = 4e-3 * pressure + rear * np.minimum(pressure, 3e6)
            over = force > 6e3
            low, high = np.where(over, low, middle), np.where(over, middle, high)
        return float(high.mean())

    assert benchmark(efforts) > 0.0


@pytest.fixture(scope="module")
def tractor() -> tuple[Build, Build]:
    build = demo("tractor")
    return build, with_changes(build, CHANGES)


@pytest.mark.benchmark(group="which of ten changes did it, at most 1 s")
def test_waterfall(benchmark: Any, tractor: tuple[Build, Build]) -> None:
    def parts() -> int:
        found = attributed(of_figures(*tractor))
        assert found is not None
        assert found.exact
        return len(found.changes)

    assert benchmark.pedantic(parts, rounds=3, warmup_rounds=1) == len(CHANGES)
