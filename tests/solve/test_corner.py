"""Braking in a corner, against Pythagoras; the rule a truck stands beside."""

from collections.abc import Callable
from dataclasses import replace
from math import sqrt

import numpy as np
import pytest

from urgens.document import Build, BuildErrors
from urgens.physics.atmosphere import GRAVITY
from urgens.physics.standards import CARS, TRUCKS
from urgens.solve import solve
from urgens.solve.corner import corner_locks
from urgens.solve.lock import first_lock

Built = Callable[..., Build]


@pytest.mark.parametrize("lateral", [0.2, 0.5, 0.7])
def test_a_corner_is_a_road_with_what_the_friction_circle_leaves(
    built: Built, lateral: float
) -> None:
    """Tyres alike: μ² = along² + across² (friction circle, textbooks; from memory)."""
    solution = solve(built({"targets.corner": lateral}))
    found = corner_locks(solution, (0.85,))
    assert found is not None
    roads, lock = found
    assert roads == (0.85,)

    left = sqrt(0.85**2 - lateral**2)
    straight = first_lock(solution.system, solution.system.cases, np.array([left]))
    assert lock.z == pytest.approx(straight.z, rel=1e-6)
    assert lock.effort == pytest.approx(straight.effort, rel=1e-6)
    assert (lock.axle == straight.axle).all()
    assert (lock.z < left + 1e-9).all()


def test_tyres_that_grip_less_have_less_left_on_that_axle_alone(built: Built) -> None:
    """On a front of 0.7: √(0.595² − 0.5²) = 0.323 in front, √(0.85² − 0.5²) = 0.687 behind."""
    solution = solve(built({"targets.corner": 0.5, "front.tyre.grip": 0.7}))
    found = corner_locks(solution, (0.85,))
    assert found is not None
    grips = {"front.tyre.grip": 0.3225 / 0.85, "rear.tyre.grip": 0.6874 / 0.85}
    assert grips["front.tyre.grip"] < 0.5  # less than a tyre may have, hence by hand
    cases = solution.system.cases._replace(
        front_grip=np.array(grips["front.tyre.grip"]), rear_grip=np.array(grips["rear.tyre.grip"])
    )
    by_hand = first_lock(solution.system, cases, np.array([0.85]))
    assert found[1].effort == pytest.approx(by_hand.effort, rel=1e-3)


def test_roads_that_cannot_give_the_corner_are_left_out(built: Built) -> None:
    found = corner_locks(solve(built({"targets.corner": 0.4})), (0.15, 0.4, 0.5, 0.85))
    assert found is not None
    assert found[0] == (0.5, 0.85)
    assert corner_locks(solve(built({"targets.corner": 0.4})), (0.15,)) is None
    assert corner_locks(solve(built())) is None


def test_a_corner_the_tyres_cannot_give_is_refused_with_its_bound(built: Built) -> None:
    with pytest.raises(BuildErrors) as refused:
        built({"targets.corner": 0.6, "targets.surface": 0.8, "rear.tyre.grip": 0.75})
    (fault,) = refused.value.errors
    assert fault.path == "targets.corner"
    assert "the tyres have 0.6 on the target road" in fault.problem
    assert fault.remedy == "write a number below 0.6"


def test_a_truck_stands_beside_its_own_rule(built: Built) -> None:
    """z ≥ 0.1 + 0.85 (k − 0.2) of UN R13 where a car has 0.7 of UN R13-H (from memory)."""
    truck, car = (solve(built({"vehicle.use": use})).system.rule for use in ("truck", "street"))
    assert truck is TRUCKS
    assert car is CARS
    assert float(truck.allows(0.61)) == pytest.approx(0.8)
    assert float(car.allows(0.52)) == pytest.approx(0.8)
    assert bool(truck.broken(np.array(0.8), np.array(0.60)))
    assert not bool(truck.broken(np.array(0.8), np.array(0.62)))


def test_a_truck_with_a_half_lost_keeps_less_than_a_car(built: Built) -> None:
    """2.2 m/s² of UN R13 Annex 4 where a car has 2.44 of UN R13-H Annex 3 (from memory)."""
    for use, asked in (("truck", 2.2), ("street", 2.44)):
        (half, _) = solve(built({"vehicle.use": use})).half_failed
        z = np.array([asked / GRAVITY - 1e-6, asked / GRAVITY + 1e-6])
        there, gone = np.full(2, 0.1), np.full(2, np.nan)
        assert list(replace(half, z=z, pedal_travel=there).meets_rule) == [False, True]
        assert not replace(half, z=z, pedal_travel=gone).meets_rule.any()  # on the floor
