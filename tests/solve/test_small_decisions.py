"""Small decisions of the solver that no figure of a whole build shows by itself."""

import numpy as np
import pytest

from tests.builds import bed
from urgens.document import with_changes
from urgens.physics.valve_law import at_rest
from urgens.physics.vehicle import StaticVehicle
from urgens.solve import AxleName, solve
from urgens.solve.bends import bends
from urgens.solve.line_pressure import booster_output, line_pressures, pushrod_force
from urgens.solve.rear_first import Sweep
from urgens.solve.system import system


def test_the_lead_between_two_efforts_is_that_of_forces_that_go_straight() -> None:
    """Rear need above the front's, times both loads: multiplied out by hand at any share."""
    chance = np.random.default_rng(4)
    front, rear = (np.sort(chance.uniform(0.0, 6e3, (5, 1)), axis=0) for _ in range(2))
    standing = StaticVehicle(*(np.array([v]) for v in (6e3, 5e3, 0.2, 0.0, 0.0, 1.0, 1.0)))
    sweep = Sweep(front, rear, standing)
    held = sweep.held
    for share in (0.0, 0.3, 0.8, 1.0):
        at = [one[:-1] + share * (one[1:] - one[:-1]) for one in (front, rear, *held)]
        expected = at[1] * at[2] - at[0] * at[3]
        assert sweep.lead.at(share) == pytest.approx(expected, rel=1e-6, abs=1e-3)


def test_each_of_two_cylinders_bends_by_its_own_bore() -> None:
    """The rear valve's knee is met at the foot that makes it in the rear cylinder."""
    valve = {"kind": "reducing", "knee": "30 bar", "slope": 0.4}
    twin = {"kind": "twin", "front_bore": "5/8 in", "rear_bore": "7/8 in"}
    build = with_changes(bed("sprint"), {"master": twin, "valves.rear": [valve]})
    made = system(build)
    found = bends(made, made.standing, 1)
    pressed = line_pressures(
        made, booster_output(made, pushrod_force(made, found)), at_rest(made.standing)
    ).master_rear

    assert np.isclose(pressed, 30e5, rtol=1e-6).any()


def test_a_road_between_is_shown_only_where_every_named_one_is_good() -> None:
    """Rear first at 0.45 and worst there; a wet road of 0.5, which has a name, shows it already."""
    valve = {"kind": "reducing", "knee": "400 psi", "slope": 0.2}
    solution = solve(with_changes(bed("library"), {"valves.rear": [valve], "plumbing": None}))
    rear = solution.lock.axle[0] == AxleName.REAR
    named = rear[list(solution.named)]

    assert named.any()
    assert not named.all()
    assert solution.shown == solution.named


def test_circuits_follow_from_the_cylinder_unless_they_are_given() -> None:
    build = bed("library")
    bare = with_changes(build, {"circuits": None, "plumbing": None})

    assert bare.circuits is None
    assert bare.split == "front-rear"
    assert with_changes(bare, {"circuits": "diagonal"}).split == "diagonal"
