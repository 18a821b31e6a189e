"""What a brake does by itself: shares of work and heat, the engine's drag by hand."""

import numpy as np
import pytest
from scipy.optimize import brentq

from tests.builds import bakery_with
from tests.solve import second_way
from urgens.document import Build
from urgens.solve import solve
from urgens.studies.heat import shares
from urgens.studies.real_split import computed_split

USUAL = (0.1, 0.3)  # g
DRAG = "200 N.m"


def at(build: Build, z: float) -> tuple[float, float]:
    """The brakes' own forces at a deceleration [N]: the drag is its torque over the radius."""
    effort = brentq(lambda e: second_way.axle_forces(build, 0, e, 0.0)[2] - z, 0.0, 500.0)
    front, rear, _ = second_way.axle_forces(build, 0, effort, 0.0)
    return front, rear - 200.0 / build.rear.tyre.radius


@pytest.mark.parametrize("valves", [[], [{"kind": "reducing", "knee": "12 bar", "slope": 0.3}]])
def test_the_rears_share_is_that_of_its_brakes_alone(valves: list[dict[str, object]]) -> None:
    build = bakery_with({"vehicle.engine_drag": DRAG, "valves.rear": valves})
    own = [rear / (front + rear) for front, rear in
           (at(build, z) for z in np.linspace(*USUAL, 21))]  # fmt: skip
    found = computed_split(solve(build), USUAL)
    assert found.rear_share == pytest.approx(np.mean(own), rel=0.02)


def test_what_the_engine_takes_heats_no_brake() -> None:
    build = bakery_with({"vehicle.engine_drag": DRAG})
    z = build.targets.deceleration
    front, rear = at(build, z)
    weight = sum(axle.value for axle in (build.vehicle.load_cases[0].front_axle,
                                         build.vehicle.load_cases[0].rear_axle))  # fmt: skip
    found = shares(solve(build))
    assert found.front == pytest.approx(front / (z * weight), rel=1e-3)
    assert found.rear == pytest.approx(rear / (z * weight), rel=1e-3)
    assert found.front + found.rear < 1.0
