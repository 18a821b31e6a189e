"""Where a new valve goes, and what it starts from."""

import pytest

from tests.builds import bakery_with, bed
from urgens.document import Build
from urgens.document.kinds.valves.load_sensing import LoadSensing
from urgens.guidance.rules.starting_valves import new_valve
from urgens.guidance.rules.valve_fixes import put_in
from urgens.guidance.words.vehicle_changes import what_it_does
from urgens.physics.axle import Axle

RESIDUAL = {"kind": "residual", "pressure": "2 psi"}
LEVER = {
    "kind": "load-sensing",
    "slope": 0.3,
    "follows": "dynamic",
    "lever": {
        "arm": "150 mm", "piston_arm": "25 mm", "piston_diameter": "15 mm",
        "spring_rate": "4 N/mm", "preload": "150 N", "at_load": "800 kg",
        "suspension_rate": "50 N/mm",
    },
}  # fmt: skip


@pytest.mark.parametrize(("first", "order"), [(True, (RESIDUAL, 0)), (False, (0, RESIDUAL))])
def test_a_valve_is_put_at_the_cylinder_or_at_the_brakes(
    bakery: Build, *, first: bool, order: tuple[object, ...]
) -> None:
    assert put_in(bakery, Axle.REAR, RESIDUAL, "Fit one", first=first).order == order


def test_a_load_sensing_valve_of_one_load_has_its_heavy_point_above_it() -> None:
    case = bed("bakery").model_dump(mode="json", exclude_unset=True)["vehicle"]["load_cases"][0]
    build = bakery_with({"vehicle.load_cases": [case]})
    (new,) = new_valve(build, Axle.REAR, "load-sensing")[Axle.REAR]
    made = bakery_with({"vehicle.load_cases": [case], "valves.rear": [new]}).valves.rear[0]

    assert isinstance(made, LoadSensing)
    assert made.points is not None
    light, heavy = (load.value for load, _ in made.points)
    assert light == build.vehicle.load_cases[0].rear_axle.value
    assert heavy > light


def test_what_a_lever_feels_of_springs_and_of_height_is_told_apart() -> None:
    build = bakery_with({"valves.rear": [LEVER]})

    assert "travels less for the same load" in what_it_does(build, "springs")
    assert "is pressed further" in what_it_does(build, "height")
