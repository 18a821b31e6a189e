"""First lock and equilibrium against scalar equations and scipy, on drawn vehicles."""

import json
from typing import Any

import numpy as np
import pytest
from hypothesis import assume, given, settings
from scipy.optimize import brentq

from tests.solve import second_way
from tests.strategies import documents
from urgens.build import loads
from urgens.solve import AxleName, solve

EFFORTS = np.array([0.0, 40.0, 110.0, 230.0, 400.0])
SCANNED = 501  # efforts, another grid than the solver's
DRAWN = settings(max_examples=50, deadline=None)


@DRAWN
@given(documents())
def test_presses_agree_with_the_second_way(document: dict[str, Any]) -> None:
    build = loads(json.dumps(document))
    solution = solve(build, efforts=EFFORTS)

    for index, effort in enumerate(EFFORTS):
        front, rear = second_way.axle_forces(build, float(effort))
        z = second_way.achieved(build, 0, float(effort), build.targets.surface)

        assert solution.presses.front_force[index] == pytest.approx(front, rel=1e-9, abs=1e-6)
        assert solution.presses.rear_force[index] == pytest.approx(rear, rel=1e-9, abs=1e-6)
        assert solution.presses.achieved_z[index] == pytest.approx(z, rel=1e-9, abs=1e-9)


@DRAWN
@given(documents())
def test_first_lock_agrees_with_scipy(document: dict[str, Any]) -> None:
    build = loads(json.dumps(document))
    solution = solve(build)
    most = build.targets.max_effort.value
    scanned = np.linspace(0.0, most, SCANNED)
    forces = [second_way.axle_forces(build, float(effort)) for effort in scanned]

    for (case, road), axle in np.ndenumerate(solution.lock.axle):
        mu = solution.surfaces[road]
        over = np.array([second_way.over(build, case, force, mu) for force in forces])
        effort = float(solution.lock.effort[case, road])
        if axle == AxleName.NONE:
            assert (over < 0).all()
            continue
        assert (over[scanned < effort * (1 - 1e-9)] < 1e-6).all()

        def over_at(tried: float, case: int = case, mu: float = mu) -> float:
            return second_way.over(build, case, second_way.axle_forces(build, tried), mu)

        near = 1e-6 * effort + 1e-9
        root = brentq(over_at, effort - near, effort + near)
        assert effort == pytest.approx(root, rel=1e-6, abs=1e-9)


@DRAWN
@given(documents())
def test_the_axle_that_locks_first_has_used_more(document: dict[str, Any]) -> None:
    build = loads(json.dumps(document))
    lock = solve(build).lock
    assume((lock.axle != AxleName.NONE).any())
    rear, front = lock.axle == AxleName.REAR, lock.axle == AxleName.FRONT

    assert (lock.rear_used[rear & ~lock.lifted] > lock.front_used[rear & ~lock.lifted]).all()
    assert (lock.rear_used[front] <= lock.front_used[front] + 1e-9).all()
    assert (lock.efficiency[rear | front] <= 1 + 1e-9).all()
    locks_too = ~np.isnan(lock.second_effort)
    assert (lock.second_effort[locks_too] >= lock.effort[locks_too]).all()
