"""A drafted layout passes every check: all cylinders, circuits, valves and brakes."""

from itertools import product
from typing import Any

import pytest

from tests.builds import bed
from urgens.document import Build, demo, demo_names, edited, own_vehicle, with_changes
from urgens.document.circuits import Circuits
from urgens.guidance import area_of, findings
from urgens.plumbing.draft import drafted
from urgens.solve import solve

DISC = {"kind": "disc", "caliper": "sliding", "piston_diameters": ["1.5 in"], "pad_friction": 0.38,
        "effective_radius": "5 in"}  # fmt: skip
DRUM = {"kind": "drum", "layout": "duo-servo", "cylinder_diameter": "13/16 in",
        "drum_diameter": "10.5 in", "shoe_factor": 4.5}  # fmt: skip
CYLINDERS: dict[str, tuple[dict[str, Any], tuple[str, ...]]] = {
    "single": ({"kind": "single", "bore": "1 in"}, ("single",)),
    "tandem": ({"kind": "tandem", "bore": "1 in"}, ("front-rear", "diagonal")),
    "twin": ({"kind": "twin", "front_bore": "3/4 in", "rear_bore": "3/4 in"}, ("front-rear",)),
}
REDUCING = {"kind": "reducing", "knee": "300 psi", "slope": 0.3}
METERING = {"kind": "metering"}
LOAD_SENSING = {
    "kind": "load-sensing",
    "points": [["1500 lb", "200 psi"], ["3000 lb", "600 psi"]],
    "slope": 0.3,
    "follows": "static",
}
BODY = {"body": "combination block"}
VALVES = {
    "none": {"front": [], "rear": []},
    "reducing": {"front": [], "rear": [REDUCING]},
    "metering and reducing": {"front": [METERING], "rear": [REDUCING]},
    "one body": {"front": [{**METERING, **BODY}], "rear": [{**REDUCING, **BODY}]},
    "one body and load-sensing": {"front": [{**METERING, **BODY}], "rear": [LOAD_SENSING]},
    "ball": {
        "front": [],
        "rear": [{"kind": "inertia-sensing", "slope": 0.3, "ball_angle": "15 deg"}],
    },
    "residual": {"front": [], "rear": [{"kind": "residual", "pressure": "10 psi"}, REDUCING]},
}
PLUMBING = ("line_limits", "threads", "feeding")
COMBINATIONS = [
    (name, split, valves, front, rear, switch)
    for name, (_, splits) in CYLINDERS.items()
    for split, valves, (front, rear), switch in product(
        splits, VALVES, [(DISC, DRUM), (DISC, DISC), (DRUM, DRUM)], [None, "warns"]
    )
]


def checked(build: Build) -> set[str]:
    """What the checks of plumbing find in a drafted layout."""
    laid = edited(build, "plumbing", drafted(build))
    return {f.code for f in findings(solve(laid)) if area_of(f.code) in PLUMBING}


@pytest.mark.parametrize("name", CYLINDERS)
def test_every_combination_passes_every_check(name: str) -> None:
    tried = 0
    for kind, split, valves, front, rear, switch in COMBINATIONS:
        if kind != name:
            continue
        build = with_changes(
            bed("bakery"),
            {
                "setups": [], "evidence": {}, "circuits": split, "master": CYLINDERS[name][0],
                "valves": VALVES[valves], "front.brake": front, "rear.brake": rear,
                "warning_switch": switch,
            },
        )  # fmt: skip
        assert checked(build) == set(), (split, valves)
        tried += 1
    assert tried >= 36


@pytest.mark.parametrize("build", [own_vehicle(), *map(demo, demo_names())], ids=lambda b: b.name)
def test_every_build_that_ships_can_be_drafted(build: Build) -> None:
    wanted = (
        {"switch-absent"} if build.warning_switch == "none" and build.split != "single" else set()
    )
    assert checked(build) == wanted


def test_each_wheel_hangs_on_its_circuit_by_hand() -> None:
    """Facts of the trade: of a diagonal split each circuit has a front and the opposite rear."""
    build = with_changes(bed("bakery"), {"setups": [], "circuits": "diagonal"})
    laid = edited(build, "plumbing", drafted(build))
    assert laid.plumbing is not None
    circuits = Circuits(laid, laid.plumbing)
    fed = {wheel: circuits.fed_by(part) for wheel, part in circuits.wheels.items()}

    assert fed["front-left"] == fed["rear-right"] != fed["front-right"]
    assert fed["front-right"] == fed["rear-left"]


def test_a_valve_is_behind_nothing_but_its_own_axle() -> None:
    build = with_changes(bed("bakery"), {"setups": [], "valves": VALVES["reducing"]})
    laid = edited(build, "plumbing", drafted(build))
    assert laid.plumbing is not None
    circuits = Circuits(laid, laid.plumbing)

    assert circuits.behind(circuits.parts["rv1"]) == {"rear-left", "rear-right"}
    assert circuits.behind(circuits.parts["hfl"]) == {"front-left"}
