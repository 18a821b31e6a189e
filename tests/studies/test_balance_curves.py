"""The curves of the balance, against the second way and against hand sums."""

import numpy as np
import pytest

from tests.builds import bed
from tests.solve.second_way import axle_forces, loads
from urgens.document import Build, demo_names, with_changes
from urgens.solve import solve
from urgens.solve.corner import cornering
from urgens.studies.balance_curves import (
    at_tolerance,
    efficiency_by_surface,
    efficiency_in_corner,
    ideal_band,
    ideal_line,
    line,
    lock_lines,
    lock_over_speed,
)

EFFORTS = np.array([20.0, 120.0, 300.0])  # N
WINGS = {"front_cl_area": "0.3 m2", "rear_cl_area": "0.9 m2"}


TYPED = sorted(set(demo_names()) - {"roadster"})  # the second way wants radii, no tyre's size


@pytest.mark.parametrize("name", TYPED)
def test_forces_over_effort_agree_with_the_second_way(name: str) -> None:
    build = bed(name)
    drawn = line(solve(build), EFFORTS)
    for index, effort in enumerate(EFFORTS):
        front, rear, _ = axle_forces(build, 0, float(effort))
        assert drawn.front_force[index] == pytest.approx(front, rel=1e-9, abs=1e-6)
        assert drawn.rear_force[index] == pytest.approx(rear, rel=1e-9, abs=1e-6)
        share = front / (front + rear) if front + rear else np.nan
        assert drawn.front_share[index] == pytest.approx(share, nan_ok=True)


def test_while_nothing_brakes_there_is_no_share() -> None:
    assert np.isnan(line(solve(bed("bakery")), np.array([0.0])).front_share[0])


@pytest.mark.parametrize("speed", [0.0, 50.0])
def test_on_the_ideal_line_both_axles_use_the_same_grip(speed: float) -> None:
    """Its definition; the loads are the second way's, downforce among them."""
    build = with_changes(bed("sprint"), {"vehicle.downforce": WINGS})
    z = np.array([0.2, 0.6, 1.0])
    front, rear = ideal_line(solve(build, speed=speed), z)
    weight = sum(loads(build, 0, 0.0, 0.0))
    for index, deceleration in enumerate(z):
        on_front, on_rear = loads(build, 0, float(deceleration), speed)
        assert front[index] * weight / on_front == pytest.approx(rear[index] * weight / on_rear)
        assert front[index] + rear[index] == pytest.approx(deceleration)


def test_the_band_holds_the_line_of_every_load_case() -> None:
    build = bed("bakery")
    z = np.linspace(0.0, 1.2, 200)
    grid, low, high = ideal_band(solve(build), z)
    for case in build.vehicle.load_cases:
        front, rear = ideal_line(solve(build, load_case=case.name), z)
        inside = np.interp(grid, front, rear)
        assert np.all((low <= inside + 1e-4) & (inside <= high + 1e-4))


@pytest.mark.parametrize("surface", [0.3, 0.9])
def test_lock_lines_cross_on_the_ideal_line(surface: float) -> None:
    """Where both axles lock at once the vehicle uses the whole road: z is its coefficient."""
    solution = solve(bed("bakery"))
    front, rear = (float(force[0]) for force in ideal_line(solution, np.array([surface])))
    locked = (
        lock_lines(solution, surface, np.array([rear])),
        lock_lines(solution, surface, np.array([front])),
    )

    assert float(locked[0][0][0]) == pytest.approx(front)
    assert float(locked[1][1][0]) == pytest.approx(rear)


def test_efficiency_by_road_is_that_of_the_first_lock_there() -> None:
    """What is braked with over what the road gives, and the rear first where it is in the table."""
    build, surfaces = bed("bakery"), np.array([0.2, 0.5, 0.9])
    efficiency, rear_first = efficiency_by_surface(solve(build), surfaces)
    for at, surface in enumerate(surfaces):
        solution = solve(build, surface=float(surface))
        place = slice(None), solution.road
        assert efficiency[:, at] == pytest.approx(solution.lock.z[place] / surface)
        assert list(rear_first[:, at]) == [int(a) == 2 for a in solution.lock.axle[place]]


def test_a_corner_is_drawn_as_a_road_with_what_the_friction_circle_leaves() -> None:
    """Tyres alike: braking in it is braking straight on sqrt(μ² − a²) (Pythagoras)."""
    build, surfaces = with_changes(bed("bakery"), {"targets.corner": 0.3}), np.array([0.2, 0.5])
    solution, other = solve(build, surface=0.5), np.array([0.1, 0.3])
    standing = cornering(solution)
    assert standing is not None
    found = lock_lines(solution, 0.5, other, standing)
    for one, straight in zip(found, lock_lines(solution, 0.4, other), strict=True):
        assert one == pytest.approx(straight)
    in_corner = efficiency_in_corner(solution, surfaces)
    assert in_corner is not None
    whole, rear = efficiency_by_surface(solution, np.array([0.4]))
    assert np.isnan(in_corner[0][0])
    assert in_corner[0][1] == pytest.approx(whole[solution.case, 0])
    assert list(in_corner[1]) == [False, rear[solution.case, 0]]


def test_without_a_corner_or_the_grip_for_it_none_is_drawn() -> None:
    build = with_changes(bed("bakery"), {"targets.corner": 0.3})
    assert cornering(solve(build, surface=0.3)) is None
    assert cornering(solve(bed("bakery"))) is None
    assert efficiency_in_corner(solve(bed("bakery")), np.array([0.5])) is None


def test_wings_press_the_first_lock_on_to_more_deceleration() -> None:
    """Downforce is load without mass: q times the area, over the weight, is what the road adds."""
    build = with_changes(bed("sprint"), {"vehicle.downforce": WINGS})
    speeds = np.array([0.0, 40.0])
    found = lock_over_speed(solve(build), speeds)
    weight, mu = sum(loads(build, 0, 0.0, 0.0)), build.targets.surface
    pressed = 0.5 * 1.225 * 40.0**2 * 1.2

    assert found.limit[0] == pytest.approx([mu, mu * (1 + pressed / weight)])
    assert np.all(found.z[:, 1] > found.z[:, 0])
    bare = lock_over_speed(solve(bed("sprint")), speeds)
    assert bare.z[:, 0] == pytest.approx(bare.z[:, 1])


def test_a_knee_at_the_ends_of_its_tolerance_lies_on_both_sides() -> None:
    solution = solve(bed("bakery"))
    found = at_tolerance(solution, EFFORTS)
    assert found is not None
    own = line(solution, EFFORTS).rear_pressure
    low, high = (end.rear_pressure for end in found)

    assert np.all(low <= own)
    assert np.all(own <= high)
    assert float(high[-1] - low[-1]) > 0


def test_without_a_valve_there_is_no_tolerance() -> None:
    build: Build = bed("sprint")

    assert at_tolerance(solve(build), EFFORTS) is None
