"""The example of the build file's contract, kinds of this version only."""

import json
from typing import Any

import pytest

from tests.builds import bed
from urgens.document import BuildErrors, edited, loads, with_changes
from urgens.document.kinds.brakes import brake_kind
from urgens.solve import solve, system

EXAMPLE: dict[str, Any] = {
    "format": "urgens.build",
    "version": 1,
    "name": "…",
    "notes": "",
    "vehicle": {
        "use": "street",
        "wheelbase": "2.30 m",
        "load_cases": [
            {
                "name": "Driver, half tank",
                "front_axle": "372 kg",
                "rear_axle": "408 kg",
                "cg_height": "0.45 m",
            }
        ],
        "downforce": {"front_cl_area": "0.10 m^2", "rear_cl_area": "0.20 m^2"},
    },
    "front": {
        "tyre": {"rolling_radius": "285 mm"},
        "brake": {
            "kind": "disc",
            "caliper": "opposed",
            "piston_diameters": ["1.75 in", "1.75 in"],
            "pad_friction": 0.45,
            "effective_radius": "115 mm",
        },
    },
    "rear": {
        "tyre": {"size": "185/60R14"},
        "brake": {
            "kind": "drum",
            "layout": "leading-trailing",
            "cylinder_diameter": "7/8 in",
            "drum_diameter": "10 in",
            "shoe_factor": 2.3,
            "threshold": "60 psi",
        },
    },
    "pedal": {"pivot_to_pad": "12 in", "pivot_to_pushrod": "2 in"},
    "booster": {"kind": "none"},
    "master": {"kind": "tandem", "bore": "15/16 in"},
    "circuits": "front-rear",
    "valves": {"front": [], "rear": [{"kind": "reducing", "knee": "275 psi", "slope": 0.5}]},
    "targets": {
        "comfortable_effort": "75 lbf",
        "deceleration": 0.9,
        "pressure_window": ["700 psi", "1200 psi"],
        "surface": 0.9,
    },
}


def test_the_example_of_the_contract_is_solved() -> None:
    """75 lbf at 6:1 on 15/16 in: 652 psi (fact of the trade), 463 psi behind 275 psi and a half."""
    presses = solve(loads(json.dumps(EXAMPLE))).presses
    psi = 6894.757293

    assert presses.effort == pytest.approx([333.6], abs=0.05)
    assert presses.pushrod_force == pytest.approx([2001.7], abs=0.05)
    assert presses.master_front / psi == pytest.approx([652], abs=0.5)
    assert presses.rear_pressure / psi == pytest.approx([275 + (652 - 275) / 2], abs=0.5)


@pytest.mark.parametrize(
    ("path", "typed", "guess"),
    [
        ("front.tyre.rolling_radius", "4 m", '"4 in"'),
        ("front.tyre.rolling_radius", "14.1 ft", '"14.1 in"'),
        ("master.bore", "200 mm", '"20 mm"'),
        ("front.brake.piston_diameters[0]", "54 cm", '"54 mm"'),
        ("rear.brake.drum_diameter", "11 ft", '"11 in"'),
    ],
)
def test_a_slip_of_the_hand_is_guessed_at(path: str, typed: str, guess: str) -> None:
    with pytest.raises(BuildErrors) as refused:
        edited(bed("bakery"), path, typed)

    (error,) = refused.value.errors
    assert error.path == path
    assert error.problem == f'"{typed}" is larger than any vehicle has'
    assert error.remedy == f"did you mean {guess}?"


@pytest.mark.parametrize(
    ("size", "radius"),
    [
        # Unloaded radius by the published rule, times 0.97 (from memory): millimetres.
        ("185/60R14", 0.97 * (14 * 25.4 / 2 + 185 * 0.60)),
        ("P225/70R15", 0.97 * (15 * 25.4 / 2 + 225 * 0.70)),
        ("28x10.50-15", 0.97 * 28 * 25.4 / 2),
        ("31x10.50R15LT", 0.97 * 31 * 25.4 / 2),
    ],
)
def test_tyre_sizes_by_their_published_rules(size: str, radius: float) -> None:
    """ISO 4000-1 metric sizes; flotation sizes name the outer diameter in inches (from memory)."""
    made = system(edited(bed("roadster"), "front.tyre", {"size": size}))

    assert made.ends.front.rolling_radius * 1000 == pytest.approx(radius)


def test_an_old_tyre_size_is_asked_about() -> None:
    with pytest.raises(BuildErrors, match="roll it out"):
        edited(bed("roadster"), "front.tyre", {"size": "6.50-16"})


@pytest.mark.parametrize(
    ("pressure", "radius"),
    [
        # Annular pad 3.875 to 5.5 in (Shigley, caliper brake example, from memory): mean radius
        # 4.6875 in with even wear; with even pressure two thirds of the cubes over the squares.
        ("uniform-wear", 4.6875),
        ("uniform-pressure", 2 / 3 * (5.5**3 - 3.875**3) / (5.5**2 - 3.875**2)),
    ],
)
def test_a_pad_by_its_two_radii(pressure: str, radius: float) -> None:
    disc = {
        "kind": "disc",
        "caliper": "sliding",
        "piston_diameters": ["1.5 in"],
        "pad_friction": 0.37,
        "pad_inner_radius": "3.875 in",
        "pad_outer_radius": "5.5 in",
        "pad_pressure": pressure,
    }
    build = edited(bed("bakery"), "front.brake", disc)

    assert build.front.brake.radius / 0.0254 == pytest.approx(radius)  # type: ignore[arg-type]
    for field, value, words in (
        ("pad_outer_radius", "3 in", "not less than the outer radius"),
        ("pad_outer_radius", None, "is missing"),
    ):
        with pytest.raises(BuildErrors, match=words):
            edited(build, f"front.brake.{field}", value)


@pytest.mark.parametrize(
    ("caliper", "pistons", "words"),
    [
        ("sliding", ["54 mm"], "sliding, 1 piston"),
        ("sliding", ["38 mm", "38 mm"], "sliding, 2 pistons"),
        ("opposed", ["38 mm", "44 mm"], "opposed, 4 pistons"),
    ],
)
def test_an_opposed_caliper_has_its_pistons_on_both_sides(
    caliper: str, pistons: list[str], words: str
) -> None:
    changes = {"front.brake.caliper": caliper, "front.brake.piston_diameters": pistons}
    brake = with_changes(bed("bakery"), changes).front.brake

    assert brake_kind(brake).words(brake) == words
