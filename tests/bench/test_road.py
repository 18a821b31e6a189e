"""The test road: distance, energy, and why the front is to lock first."""

import math

import numpy as np
import pytest

from tests.builds import bed
from urgens.bench.logs.write import of_drive
from urgens.bench.road.drives import (
    Drive,
    drives,
    foot_over_lock,
    foot_to_lock,
    fully_developed,
    trial,
)
from urgens.bench.road.simulation import FEW
from urgens.bench.road.torque import BUILD_UP, RAMP, Foot, hold, pressed
from urgens.document import Build, demo, with_changes
from urgens.physics.slip import curve, share
from urgens.solve import AxleName, solve
from urgens.solve.system import System, system

G = 9.80665
WHEEL = 1.2  # kg·m², as the reference assumes


def driven(build: Build, share_of_lock: float, surface: float, speed: float, step: float = 1e-3,
           uneven: float = math.radians(0.5), ramp: float = RAMP) -> Drive:  # fmt: skip
    """A stop with a foot held at a share of that of the first lock."""
    solution = solve(build, surface=surface)
    effort = float(solution.lock.effort[0, solution.road]) * share_of_lock
    one = trial(build, solution.system, 0, surface, speed, hold(effort, ramp))
    [found] = drives([one], step, uneven)
    return found


DYNAMIC = {"kind": "load-sensing", "points": [["1500 N", "10 bar"], ["4500 N", "50 bar"]],
           "slope": 0.1, "follows": "dynamic"}  # fmt: skip
REARWARD = {"valves.rear": [], "master.bar_offset": "-6 mm"}


@pytest.mark.parametrize(("name", "surface", "of_lock"), [
    ("roadster", 0.9, 0.6), ("roadster", 0.9, 0.9), ("roadster", 0.15, 0.8),
    ("library", 0.85, 0.7), ("tractor", 0.8, 0.7), ("tender", 0.7, 0.7),
])  # fmt: skip
def test_a_stop_that_rolls_is_as_long_as_the_plain_formula_says(
    name: str, surface: float, of_lock: float
) -> None:
    """v²/(2 g z) with the wheels' own inertia, and half the build-up's way, within 1 %."""
    build = demo(name)
    speed = 22.0 if surface > 0.2 else 8.0
    found = driven(build, of_lock, surface, speed, ramp=0.0)
    solution = solve(build, surface=surface)
    effort = float(solution.lock.effort[0, solution.road]) * of_lock
    z = float(solution.press(np.array([effort])).demand_z[0])
    mass = float(solution.standing.weight) / G
    radii = [float(end.rolling_radius) for end in solution.system.ends]
    turning = 1.0 + sum(2.0 * WHEEL / r**2 for r in radii) / mass
    wanted = speed**2 / (2.0 * G * z) * turning + speed * BUILD_UP / 2.0
    assert not found.locked
    assert found.distance == pytest.approx(wanted, rel=0.01)
    assert found.mean_deceleration == pytest.approx(z / turning, rel=0.01)


@pytest.mark.parametrize("of_lock", [0.7, 1.12, 1.5])
@pytest.mark.parametrize("surface", [0.15, 0.9])
def test_energy_is_neither_made_nor_lost(of_lock: float, surface: float) -> None:
    """Brake work and sliding treads take what the vehicle loses, within 0.5 %."""
    for build in (demo("roadster"), with_changes(demo("roadster"), REARWARD)):
        assert driven(build, of_lock, surface, 12.0 * surface + 3.0).energy_error < 0.005


def test_half_the_step_changes_next_to_nothing() -> None:
    for of_lock in (0.8, 1.12):
        coarse = driven(demo("roadster"), of_lock, 0.9, 20.0)
        fine = driven(demo("roadster"), of_lock, 0.9, 20.0, step=5e-4)
        assert fine.distance == pytest.approx(coarse.distance, rel=1e-3)


def test_front_first_goes_straight_and_rear_first_spins() -> None:
    """At 1.12 times the first lock from 30 m/s: under 5°, and more than 30°."""
    straight = driven(demo("roadster"), 1.12, 0.9, 30.0)
    turned = driven(with_changes(demo("roadster"), REARWARD), 1.12, 0.9, 30.0)
    assert straight.locked[0][0] == "front"
    assert abs(math.degrees(straight.turned)) < 5.0
    assert turned.locked[0][0] == "rear"
    assert abs(math.degrees(turned.turned)) > 30.0
    assert straight.stands


SECOND = {  # rear valves behind of which the second lock is 4 to 17 % above the first
    "bakery": [(22, 0.45), (15, 0.6), (30, 0.3)], "library": [(17, 0.45), (27, 0.3)],
}  # fmt: skip


@pytest.mark.parametrize(
    ("name", "knee", "slope"), [(name, *one) for name, each in SECOND.items() for one in each]
)
def test_a_rear_that_is_first_by_little_turns_and_a_stamp_hides_it(
    name: str, knee: int, slope: float
) -> None:
    """What the table says is seen: the rear first, the vehicle turned, however close the front."""
    valve = {"kind": "reducing", "knee": f"{knee} bar", "slope": slope}
    build = with_changes(bed(name), {"valves.rear": [valve]})
    solution = solve(build, surface=0.8)
    at = 0, solution.road
    assert solution.lock.axle[at] == AxleName.REAR
    assert 1.04 < float(solution.lock.second_effort[at] / solution.lock.effort[at]) < 1.175
    one = trial(build, solution.system, 0, 0.8, 30.0, hold(0.0))
    foot = foot_over_lock(one)
    stamp = hold(float(foot.efforts[-1]), 0.0)
    built_up, stamped = drives([one._replace(foot=foot), one._replace(foot=stamp)])
    assert built_up.locked[0][0] == "rear"
    assert abs(math.degrees(built_up.turned)) > 30.0
    assert stamped.locked[0][0] == "front"
    assert abs(math.degrees(stamped.turned)) < 5.0


def test_wheels_of_a_vehicle_that_has_turned_lock_no_more() -> None:
    """The front of one that spins slides sideways: that is no lock of it."""
    turned = driven(with_changes(demo("roadster"), REARWARD), 1.12, 0.9, 30.0)
    [(axle, at)] = turned.locked
    assert axle == "rear"
    assert abs(math.degrees(turned.heading[np.searchsorted(turned.time, at)])) < 10.0


def growth(build: Build, locked: str, speed: float) -> float:
    """Largest real part of the linearised yaw equations with one axle locked, by hand.

    Gillespie, and Wong: a sliding tread's force opposes its slide, so across it is μ N v/u; a
    rolling tyre has its cornering stiffness.
    """
    made = system(build)
    standing = made.case(0)
    weight = float(standing.weight)
    mass, length = weight / G, build.vehicle.wheelbase.value
    loads = {"front": float(standing.front_weight), "rear": float(standing.rear_weight)}
    a, b = length * loads["rear"] / weight, length * loads["front"] / weight
    shape, stiffness = curve(0.8)
    slope = 0.9 * float(shape * stiffness) / math.sin(math.radians(8.0))
    across = {axle: slope * load for axle, load in loads.items()}
    across[locked] = 0.9 * loads[locked]
    f, r = across["front"] / speed, across["rear"] / speed
    matrix = np.array([
        [-(f + r) / mass, -(a * f - b * r) / mass - speed],
        [-(a * f - b * r) / (mass * a * b), -(a * a * f + b * b * r) / (mass * a * b)],
    ])  # fmt: skip
    return float(np.linalg.eigvals(matrix).real.max())


@pytest.mark.parametrize("speed", [8.0, 15.0, 30.0])
def test_a_locked_rear_has_a_growing_root_and_a_locked_front_none(speed: float) -> None:
    for build in (demo("roadster"), bed("bakery")):
        assert growth(build, "rear", speed) > 0.0
        assert growth(build, "front", speed) < 0.0


def test_the_road_s_unevenness_only_starts_it() -> None:
    """Twice the disturbance: the straight one stays straight; without one nothing turns at all."""
    build = demo("roadster")
    assert driven(build, 1.12, 0.9, 20.0, uneven=0.0).turned == 0.0
    twice = driven(build, 1.12, 0.9, 20.0, uneven=math.radians(1.0))
    assert abs(math.degrees(twice.turned)) < 5.0


def test_many_at_once_go_as_each_alone() -> None:
    """Arrays against plain numbers: a second way of working out the same."""
    build, other = demo("roadster"), bed("library")
    follows = with_changes(build, {"valves.rear": [DYNAMIC]})
    trials = [
        trial(build, system(build), 0, 0.9, 20.0, hold(200.0)),
        trial(other, system(other), 2, 0.5, 15.0, hold(150.0, 0.5)),
        trial(follows, system(follows), 0, 0.9, 20.0, hold(400.0)),
    ]
    together = drives([*trials, *trials[:1] * FEW])
    for one, found in zip(trials, together, strict=False):
        [alone] = drives([one])
        assert found.distance == pytest.approx(alone.distance, rel=1e-9)
        assert found.locked == alone.locked
        assert found.heading == pytest.approx(alone.heading, abs=1e-9)


def test_a_foot_that_goes_on_stops_at_the_lock() -> None:
    build = demo("roadster")
    one = trial(build, system(build), 0, 0.9, 25.0, hold(0.0))
    foot = foot_to_lock(one)
    [found] = drives([one._replace(foot=foot)])
    lock = solve(build, surface=0.9)
    effort = float(lock.lock.effort[0, lock.road])
    assert found.locked[0][0] == "front"
    assert effort < foot.efforts[-1] < 1.1 * effort  # the brakes stop the wheels as well
    assert foot.ramp == RAMP
    gentle = one._replace(foot=hold(20.0), speed=3.0)
    [rolled] = drives([gentle])
    assert not rolled.locked


def test_a_foot_that_is_not_there_never_stops() -> None:
    build = demo("roadster")
    [found] = drives([trial(build, system(build), 0, 0.9, 10.0, hold(0.0))])
    assert math.isinf(found.distance)
    assert found.mean_deceleration is None
    assert not found.stands


def test_the_foot_is_as_typed() -> None:
    foot = Foot(np.array([0.0, 1.0, 2.0]), np.array([0.0, 100.0, 50.0]))
    assert foot.at(np.array([0.5, 1.5, 9.0])) == pytest.approx([50.0, 75.0, 50.0])
    build = demo("roadster")
    made = pressed(system(build), system(build).case(0), foot, 3.0)
    risen = np.searchsorted(made.times, 1.0)
    assert made.lines[0, 0, risen] < made.cylinders[0, risen]  # the wheels come later


def test_a_load_sensing_valve_follows_the_load_that_moves() -> None:
    build = with_changes(demo("roadster"), {"valves.rear": [DYNAMIC]})
    made: System = system(build)
    brakes = pressed(made, made.case(0), hold(220.0), 3.0)
    assert brakes.loads.size > 1
    assert np.all(np.diff(brakes.lines[1, :, -1]) >= 0.0)
    found = driven(build, 0.8, 0.9, 20.0)
    solution = solve(build, surface=0.9)
    effort = float(solution.lock.effort[0, solution.road]) * 0.8
    z = float(solution.press(np.array([effort])).demand_z[0])
    assert found.deceleration.max() == pytest.approx(z / 1.08, rel=0.03)


@pytest.mark.parametrize("kept", [0.85, 0.55])
def test_the_curve_keeps_what_it_is_to_keep(kept: float) -> None:
    """By hand: C 1.4 gives B = tan(π/2.8) = 2.077, and sin(1.4 arctan(2.077/0.12)) = 0.854."""
    found = curve(kept)
    if kept == 0.85:
        assert found.shape == pytest.approx(1.4, abs=0.01)
    assert float(share(1.0 / 0.12, found)) == pytest.approx(kept, abs=1e-6)
    slips = np.linspace(0.0, 8.0, 4001)
    assert slips[int(np.argmax(share(slips, found)))] == pytest.approx(1.0, abs=0.01)


def test_a_mean_deceleration_is_that_of_the_regulation() -> None:
    """UN R13-H Annex 3: 100 km/h, 0.8 of it after 20 m, 0.1 of it after 60 m: by hand."""
    speed = np.array([100.0, 80.0, 10.0, 0.0]) / 3.6
    way = np.array([0.0, 20.0, 60.0, 61.0])
    assert fully_developed(speed, way) == pytest.approx((80.0**2 - 10.0**2) / (25.92 * 40.0) / G)
    assert fully_developed(speed[:2], way[:2]) is None


def test_downforce_presses_at_speed() -> None:
    calm = with_changes(demo("roadster"), {"targets.locked_grip": 0.8})
    winged = with_changes(calm, {
        "vehicle.downforce": {"front_cl_area": "1.5 m^2", "rear_cl_area": "1.5 m^2"},
    })  # fmt: skip
    effort = 500.0
    lengths = []
    for build in (calm, winged):
        [found] = drives([trial(build, system(build), 0, 0.9, 45.0, hold(effort))])
        lengths.append(found.distance)
    assert lengths[1] < 0.97 * lengths[0]


def test_its_log_reads_like_any_other() -> None:
    found = driven(demo("roadster"), 1.12, 0.9, 20.0)
    log = of_drive(found)
    assert log.channels["front_speed"].min() == 0.0
    assert np.all(np.diff(log.time) > 0.0)
    sizes = {one.size for one in log.channels.values()}
    assert len(sizes) == 1
