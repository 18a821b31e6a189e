"""Presses, first lock, equilibrium, travel: scalar equations and scipy, on drawn vehicles."""

import json
from dataclasses import replace
from typing import Any

import numpy as np
import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st
from scipy.optimize import brentq

from tests.builds import bakery_with, bed
from tests.solve import second_way
from tests.strategies import documents
from urgens.document import loads
from urgens.physics.axle import Pair
from urgens.physics.valve_law import Felt, MeteringLaw
from urgens.physics.vehicle import axle_loads
from urgens.solve import AxleName, solve
from urgens.solve.half_failed import half_failed
from urgens.solve.line_pressure import pushrod_force
from urgens.solve.lock import first_lock
from urgens.solve.rolling_forces import rolling_lines
from urgens.solve.system import system
from urgens.solve.travel import travel

EFFORTS = np.array([0.0, 40.0, 110.0, 230.0, 400.0])
SCANNED = 201  # efforts, another grid than the solver's
DRAWN = settings(max_examples=20)


@DRAWN
@given(documents(), st.sampled_from([0.0, 40.0]))
def test_presses_agree_with_the_second_way(document: dict[str, Any], speed: float) -> None:
    build = loads(json.dumps(document))
    solution = solve(build, efforts=EFFORTS, speed=speed)
    presses = solution.presses
    came = second_way.followed(build, 0, EFFORTS.tolist(), build.targets.surface, speed)

    for index, effort in enumerate(EFFORTS):
        front, rear, z = second_way.axle_forces(build, 0, float(effort), speed)
        on_front, on_rear = second_way.loads(build, 0, z, speed)

        assert presses.front_force[index] == pytest.approx(front, rel=1e-6, abs=1e-6)
        assert presses.rear_force[index] == pytest.approx(rear, rel=1e-6, abs=1e-6)
        assert presses.demand_z[index] == pytest.approx(z, rel=1e-6, abs=1e-9)
        assert presses.achieved_z[index] == pytest.approx(came[index][0], rel=1e-6, abs=1e-8)
        assert presses.front_load[index] == pytest.approx(on_front, rel=1e-6)
        if on_rear > 1:
            assert presses.rear_adhesion[index] == pytest.approx(rear / on_rear, rel=1e-5, abs=1e-9)


@DRAWN
@given(documents())
def test_first_lock_agrees_with_scipy(document: dict[str, Any]) -> None:
    build = loads(json.dumps(document))
    solution = solve(build)
    scanned = np.linspace(0.0, build.targets.max_effort.value, SCANNED)
    cases = range(len(solution.system.case_names))
    closing = [second_way.rolling_closing(build, case) for case in cases]
    forces = [
        [second_way.axle_forces(build, c, float(e), 0.0, closing[c]) for e in scanned]
        for c in cases
    ]

    for (case, road), axle in np.ndenumerate(solution.lock.axle):
        mu = solution.surfaces[road]
        over = np.array([second_way.over(build, case, force, mu) for force in forces[case]])
        effort = float(solution.lock.effort[case, road])
        if axle == AxleName.NONE:
            assert (over < 1e-6).all()
            continue
        assert (over[scanned < effort * (1 - 1e-9)] < 1e-5).all()

        def over_at(tried: float, case: int = case, mu: float = mu) -> float:
            forces = second_way.axle_forces(build, case, max(tried, 0.0), 0.0, closing[case])
            return second_way.over(build, case, forces, mu)

        near = 1e-6 * effort + 1e-9
        if effort == 0.0:  # the engine alone locks it
            assert over_at(0.0) >= -1e-6
            continue
        root = brentq(over_at, effort - near, effort + near)
        assert effort == pytest.approx(root, rel=1e-6, abs=1e-9)


def test_a_lock_is_found_as_well_where_its_step_is_long_and_steep() -> None:
    """A quarter of the foot's way is one step, whose end is far above the first lock."""
    build = bed("steep")
    solution = solve(build)
    effort = float(solution.lock.effort[0, 0])
    closing = second_way.rolling_closing(build, 0)

    def over_at(tried: float) -> float:
        forces = second_way.axle_forces(build, 0, tried, 0.0, closing)
        return second_way.over(build, 0, forces, solution.surfaces[0])

    assert effort == pytest.approx(brentq(over_at, 0.9 * effort, 1.1 * effort), rel=1e-7)


def test_a_lock_that_is_there_for_a_part_of_the_foot_s_way_is_found() -> None:
    """Two valves behind that both feel the dive: what they pass rises, and falls again."""
    build = bed("slack")
    solution = solve(build)
    road = solution.surfaces.index(0.6)
    closing = second_way.rolling_closing(build, 0)
    scanned = np.linspace(80.0, 120.0, 4001)
    forces = [second_way.axle_forces(build, 0, float(e), 0.0, closing) for e in scanned]
    over = np.array([second_way.over(build, 0, each, 0.6) for each in forces])

    assert over[0] < 0.0 < over.max()
    assert over[-1] < 0.0
    assert solution.lock.axle[0, road] == AxleName.REAR
    assert solution.lock.effort[0, road] == pytest.approx(scanned[over >= 0.0][0], abs=0.011)


@DRAWN
@given(documents())
def test_the_axle_that_locks_first_has_used_more(document: dict[str, Any]) -> None:
    build = loads(json.dumps(document))
    lock = solve(build).lock
    assume((lock.axle != AxleName.NONE).any())
    rear, front = lock.axle == AxleName.REAR, lock.axle == AxleName.FRONT

    assert (lock.rear_used[rear & ~lock.lifted] > lock.front_used[rear & ~lock.lifted]).all()
    assert (lock.rear_used[front] <= lock.front_used[front] + 1e-9).all()
    assert (lock.efficiency[rear | front] <= 1 + 1e-7).all()
    locks_too = ~np.isnan(lock.second_effort)
    assert (lock.second_effort[locks_too] >= lock.effort[locks_too]).all()


@DRAWN
@given(documents())
def test_travel_agrees_with_the_second_way(document: dict[str, Any]) -> None:
    build = loads(json.dumps(document))
    solution = solve(build)
    made = solution.system
    lines = rolling_lines(made, pushrod_force(made, EFFORTS), made.case(0))
    found = travel(made, EFFORTS, lines.front, lines.rear)

    reached = np.where(found.stroke_ends | found.floor_ends, np.nan, found.pad)
    assert solution.travel(EFFORTS) == pytest.approx(reached, rel=1e-9, nan_ok=True)
    for index in range(1, EFFORTS.size):
        front, rear = float(lines.front[index]), float(lines.rear[index])
        assert found.pad[index] == pytest.approx(second_way.travel(build, front, rear), rel=1e-9)


@DRAWN
@given(documents())
def test_half_failed_agrees_with_a_force_balance(document: dict[str, Any]) -> None:
    """One half's force, limited by its own grip, over the whole weight."""
    document["vehicle"]["engine_drag"] = "0 N.m"
    build = loads(json.dumps(document))
    solution = solve(build)
    mu, effort = build.targets.surface, build.targets.max_effort.value

    halves = half_failed(solution.system, solution.system.standing, mu)
    assert len(halves) == (1 if build.split == "single" else 2)
    for index, half in enumerate(halves):
        z = float(half.z[0])
        if half.dead == "all":
            assert z == 0
            continue
        if half.dead == "diagonal":
            pushed = second_way.pushed_by_the_rod(build, "") if index == 0 else build
            left = second_way.achieved(pushed, 0, effort, mu, part=0.5)
            assert z == pytest.approx(left, rel=1e-6, abs=1e-8)
            continue

        live = "rear" if half.dead == "front" else "front"
        left = second_way.one_axle(build, 0, effort, mu, live)
        assert z == pytest.approx(left, rel=1e-6, abs=1e-8)


@DRAWN
@given(documents(), st.sampled_from(["static", "dynamic"]))
def test_travel_with_one_axle_lost_agrees_where_a_valve_feels_the_load(
    document: dict[str, Any], follows: str
) -> None:
    """The live valve meets the load at the deceleration that is left, in force and in fluid."""
    points = [["100 kg", "6 bar"], ["900 kg", "60 bar"]]
    valve = {"kind": "load-sensing", "points": points, "slope": 0.2, "follows": follows}
    document["vehicle"]["engine_drag"] = "0 N.m"
    document["master"] = {"kind": "tandem", "bore": "20 mm", "stroke": "60 mm"}
    document["circuits"] = "front-rear"
    document["pedal"]["travel_available"] = "2 m"  # so that the floor never ends it
    document["valves"] = {"front": [valve], "rear": [valve]}
    build = loads(json.dumps(document))
    made, mu = solve(build).system, build.targets.surface
    effort = build.targets.max_effort.value

    for half, live in zip(half_failed(made, made.standing, mu), ("rear", "front"), strict=True):
        expected = second_way.half_travel(build, 0, effort, mu, live)
        if np.isfinite(half.pedal_travel[0]):  # else the chamber's stroke ends first
            assert half.pedal_travel[0] == pytest.approx(expected, rel=1e-6)


def test_a_front_valve_that_feels_the_load_opens_with_downforce() -> None:
    """Loads at a deceleration may be above those at rest: the bracket has to reach them."""
    valve = {
        "kind": "load-sensing",
        "points": [["100 kg", "2 bar"], ["5000 kg", "40 bar"]],
        "slope": 0.0,
        "follows": "dynamic",
    }
    wings = {"front_cl_area": "3 m^2", "rear_cl_area": "12 m^2"}
    build = bakery_with(
        {"valves.front": [valve], "vehicle.downforce": wings, "rear.brake.threshold": "0 psi"}
    )
    made = system(build, speed=80.0)
    rear_lost = half_failed(made, made.standing, 2.0)[1]

    for case, z in enumerate(rear_lost.z):
        load = float(np.asarray(axle_loads(made.case(case), z)[1]))
        front = made.ends.front
        pressure = float(made.valves.front[0].knee(Felt(load, load)))
        force = 2 * front.torque_per_pressure * pressure / front.rolling_radius
        assert load > made.case(case).rear_weight
        assert z == pytest.approx(force / float(made.case(case).weight), rel=1e-6)


def test_a_lock_between_two_steps_of_the_scan_is_found() -> None:
    """A metering valve lets the front's force rest while the rear's grows and lifts its load.

    The front comes up to its limit at the pressure where the valve shuts, and is under it again
    within two newtons of foot; written out from the vehicle's own figures.
    """
    weak = {"rear.brake.threshold": "0 psi", "rear.brake.shoe_factor": 1.5}
    build = bakery_with({"booster": {"kind": "none"}, **weak})
    made = system(build)
    shut = 20e5
    metering = MeteringLaw(shut, 80e5, 160e5)
    made = replace(made, valves=Pair((metering,), ()))
    front, rear = made.ends
    standing = made.case(0)
    at_front = 2 * front.torque_per_pressure * shut / front.rolling_radius
    at_rear = 2 * rear.torque_per_pressure * shut / rear.rolling_radius
    load = standing.front_weight + standing.transfer * (at_front + at_rear)
    mu = at_front / load * (1.0 - 1e-7)  # reached just below the bend, and left just above it
    area = made.cylinders.front.area
    effort = shut * area / made.pedal_ratio / made.pedal_efficiency

    lock = first_lock(made, standing, mu)
    assert lock.axle == AxleName.FRONT
    assert lock.effort == pytest.approx(effort, rel=1e-5)
