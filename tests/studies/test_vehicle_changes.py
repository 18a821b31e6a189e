"""What changes do to the balance, and the sayings they answer."""

import numpy as np
import pytest

from tests.builds import bakery_with, bed
from urgens.document import demo_names, with_changes
from urgens.guidance.words.vehicle_changes import what_it_does
from urgens.solve import solve
from urgens.studies.vehicle_changes import CHANGES, changed, lays, outcome

BY_KEY = {change.key: change for change in CHANGES}


@pytest.mark.parametrize("name", demo_names())
@pytest.mark.parametrize("key", list(BY_KEY))
def test_an_outcome_is_that_of_the_edited_build(name: str, key: str) -> None:
    build, change = bed(name), BY_KEY[key]
    found = changed(build, change, change.amount)
    one = build if change.lay is None else with_changes(build, change.lay(build, change.amount))
    solution = solve(one)
    roads = list(solution.roads)
    apart = (solution.lock.front_used - solution.lock.rear_used)[:, roads]
    apart = apart / np.array(solution.surfaces)[roads]
    expected = np.nanmin(apart) if np.isfinite(apart).any() else np.nan

    assert found.margin == pytest.approx(expected, nan_ok=True)


@pytest.mark.parametrize(
    ("key", "sign"),
    [
        ("rear-tyres", 1), ("front-tyres", -1), ("height", 1), ("front-pads", 1),
        ("rear-pads", -1), ("rear-ballast", 1), ("front-grip", -1), ("rear-grip", 1),
    ],
)  # fmt: skip
def test_changes_move_the_margin_the_way_mechanics_says(key: str, sign: int) -> None:
    """Lever of the tyre, load transfer, friction: the roadster, without what its valve adds."""
    build = with_changes(bed("roadster"), {"valves.rear": []})
    change = BY_KEY[key]
    moved = changed(build, change, change.amount).margin - outcome(build).margin

    assert moved * sign > 0


@pytest.mark.parametrize("key", ["springs", "wheels"])
def test_stiffer_springs_and_wider_wheels_move_nothing(key: str) -> None:
    """Common practice disputes it; steady load transfer does not know the spring rate."""
    build = bed("bakery")

    assert changed(build, BY_KEY[key], 50.0) == outcome(build)
    assert "spring" in what_it_does(build, "springs")


def test_a_load_sensing_valve_has_to_be_set_again() -> None:
    valve = {
        "kind": "load-sensing",
        "points": [["1500 lb", "200 psi"], ["2800 lb", "500 psi"]],
        "slope": 0.4,
        "follows": "static",
    }
    build = bakery_with({"valves.rear": [valve]})

    assert "set it again" in what_it_does(build, "springs")
    assert "set it again" not in what_it_does(bed("bakery"), "springs")


def test_a_lever_feels_springs_and_ride_height() -> None:
    """Statics: stiffer springs halve its travel; an inch lower presses its spring an inch."""
    lever = {
        "arm": "6 in",
        "piston_arm": "1 in",
        "piston_diameter": "5/8 in",
        "spring_rate": "20 lbf/in",
        "preload": "30 lbf",
        "at_load": "1700 lb",
        "suspension_rate": "300 lbf/in",
    }
    valve = {"kind": "load-sensing", "lever": lever, "slope": 0.4, "follows": "static"}
    build = bakery_with({"valves.rear": [valve]})
    springs, height = BY_KEY["springs"], BY_KEY["height"]
    assert springs.lay is not None
    assert height.lay is not None

    stiffer = with_changes(build, springs.lay(build, 100.0)).valves.rear[0].lever  # type: ignore[union-attr]
    lower = with_changes(build, height.lay(build, -0.0254)).valves.rear[0].lever  # type: ignore[union-attr]
    assert stiffer is not None
    assert lower is not None
    assert stiffer.suspension_rate.value == pytest.approx(2 * 300 * 175.126835, rel=1e-6)
    assert lower.preload.value == pytest.approx((30 + 20) * 4.4482216, rel=1e-6)
    assert lays(build, springs)
    assert not lays(bed("bakery"), springs)
    assert "as computed here" in what_it_does(build, "height")


def test_a_ball_feels_the_rake_which_is_not_computed() -> None:
    valve = {"kind": "inertia-sensing", "ball_angle": "17 deg", "slope": 0.4}
    build = bakery_with({"valves.rear": [valve]})

    assert "not computed" in what_it_does(build, "height")
    assert "rake" not in what_it_does(build, "springs")


@pytest.mark.parametrize("axle", ["front", "rear"])
def test_ballast_stands_on_its_own_axle(axle: str) -> None:
    build = bed("bakery")
    laid = BY_KEY[f"{axle}-ballast"]
    assert laid.lay is not None
    heavier = with_changes(build, laid.lay(build, 500.0))

    for before, after in zip(build.vehicle.load_cases, heavier.vehicle.load_cases, strict=True):
        front = after.front_axle.value - before.front_axle.value
        rear = after.rear_axle.value - before.rear_axle.value
        assert (front, rear) == pytest.approx((500.0, 0.0) if axle == "front" else (0.0, 500.0))


def test_where_the_front_locks_first_everywhere_the_rear_never_does() -> None:
    """The roadster's valve is chosen so; the bakery's sold casting is not: as their notes say."""
    assert outcome(bed("roadster")).rear_first == 0
    assert outcome(bed("bakery")).rear_first > 0
