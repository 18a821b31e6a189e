"""The engine's drag: as much as the driven wheels pass, and refused in words from there on."""

import pytest

from tests.builds import bakery_with, bed
from urgens.document import BuildErrors, edited, with_changes
from urgens.document.engine_drag import driven_axle, passed_at_rest
from urgens.document.numeric import NumericBuild
from urgens.physics.axle import Axle

LAUNCH = {"stall_torque": "300 N.m", "gear_ratio": 2.5, "final_drive": 4.0, "driven": "front"}


def test_more_drag_than_the_tyres_pass_is_refused_by_the_torque_they_do() -> None:
    """μ N r by hand: 0.8 of 8 kN at 0.3 m is 1920 N·m."""
    build = with_changes(
        bakery_with({}),
        {"vehicle.load_cases": [
            {"name": "a", "front_axle": "9 kN", "rear_axle": "8 kN", "cg_height": "0.5 m"},
            {"name": "b", "front_axle": "9 kN", "rear_axle": "9 kN", "cg_height": "0.5 m"},
         ],
         "rear.tyre": {"rolling_radius": "0.3 m"}, "targets.surface": 0.8},
    )  # fmt: skip
    assert edited(build, "vehicle.engine_drag", "1919 N.m").vehicle.engine_drag.value == 1919.0
    with pytest.raises(BuildErrors) as refused:
        edited(build, "vehicle.engine_drag", "1920 N.m")
    assert str(refused.value) == (
        'vehicle.engine_drag: "1920 N.m" locks the driven wheels by itself on the target road; '
        'write the torque at the axle, below "1920.000 N.m"'
    )


def test_the_launch_says_which_axle_is_driven() -> None:
    build = edited(bed("library"), "vehicle.launch", LAUNCH)
    assert driven_axle(build.vehicle) == Axle.FRONT
    assert driven_axle(bed("library").vehicle) == Axle.REAR
    front = min(case.front_axle.value for case in build.vehicle.load_cases)
    surface = build.targets.surface * build.front.tyre.grip
    assert float(passed_at_rest(NumericBuild(build))) == pytest.approx(front * surface)
