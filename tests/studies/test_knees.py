"""The knee a load case meets, what moves it, and how it follows the load."""

import math
from dataclasses import replace

import numpy as np
import pytest

from tests.builds import bakery_with
from urgens.document import Build, with_changes
from urgens.solve import Solution, solve
from urgens.studies.knee_here import knee_here, moves
from urgens.studies.knees_by_load import knee_line

BAR, PSI = 1e5, 6894.757293
POINTS = [["1500 lb", "200 psi"], ["3000 lb", "600 psi"]]
LEVER = {
    "arm": "150 mm",
    "piston_arm": "25 mm",
    "piston_diameter": "16 mm",
    "spring_rate": "3 N/mm",
    "preload": "60 N",
    "at_load": "800 kg",
    "suspension_rate": "50 N/mm",
}
KINDS: dict[str, dict[str, object]] = {
    "reducing": {"kind": "reducing", "knee": "300 psi", "slope": 0.4},
    "limiting": {"kind": "limiting", "knee": "300 psi"},
    "static": {"kind": "load-sensing", "points": POINTS, "slope": 0.3, "follows": "static"},
    "dynamic": {"kind": "load-sensing", "points": POINTS, "slope": 0.3, "follows": "dynamic"},
    "lever": {"kind": "load-sensing", "lever": LEVER, "slope": 0.3, "follows": "dynamic"},
    "ball": {"kind": "inertia-sensing", "ball_angle": "15 deg", "slope": 0.3},
}


def behind(name: str, load_case: str | None = None) -> Solution:
    return solve(bakery_with({"valves.rear": [KINDS[name]]}), load_case=load_case)


def kink(solution: Solution) -> float:
    """Where the line starts to bend away, read off four thousand presses."""
    presses = solution.press(np.linspace(0.0, solution.build.targets.max_effort.value, 4_001))
    bent = presses.rear_pressure < presses.master_rear * (1 - 1e-9)
    return float(presses.master_rear[int(np.argmax(bent))])


@pytest.mark.parametrize("name", KINDS)
@pytest.mark.parametrize("case", [0, 2])
def test_the_knee_is_where_the_line_bends(name: str, case: int) -> None:
    build = bakery_with({"valves.rear": [KINDS[name]]})
    solution = solve(build, load_case=build.vehicle.load_cases[case].name)

    assert knee_here(solution, 0) == pytest.approx(kink(solution), rel=2e-3)


@pytest.mark.parametrize("name", KINDS)
@pytest.mark.parametrize("wanted", [16.0, 27.0, 38.0])
def test_a_knee_moves_to_where_it_is_wanted(name: str, wanted: float) -> None:
    """Dragged there, the knee is under the hand at once."""
    build = bakery_with({"valves.rear": [KINDS[name]]})
    solution = solve(moved(build, solve(build), wanted * BAR))

    assert knee_here(solution, 0) == pytest.approx(wanted * BAR, rel=5e-3)


def moved(build: Build, solution: Solution, knee: float) -> Build:
    changes: dict[str, object] = {
        f"valves.rear[0].{path}": f"{value:.9g} {kind.si}"
        for path, value, kind in moves(solution, 0, knee)
    }
    return with_changes(build, changes)


def test_no_press_reaches_a_steep_ramp_or_a_stiff_spring() -> None:
    steep = solve(bakery_with({"valves.rear": [{**KINDS["ball"], "ball_angle": "55 deg"}]}))
    stiff = {**KINDS["dynamic"], "points": [["1 kN", "900 bar"], ["2 kN", "990 bar"]]}

    assert math.isinf(knee_here(steep, 0))
    assert math.isinf(knee_here(solve(bakery_with({"valves.rear": [stiff]})), 0))


def test_what_has_no_knee_says_so() -> None:
    solution = solve(bakery_with({"valves.rear": [{"kind": "residual", "pressure": "1 bar"}]}))
    with pytest.raises(TypeError, match="has no knee"):
        knee_here(solution, 0)
    with pytest.raises(TypeError, match="no knee to move"):
        moves(solution, 0, 20 * BAR)


def test_a_line_of_knees_goes_through_every_load_case() -> None:
    for name in ("static", "lever", "ball"):
        solution = behind(name)
        found = knee_line(solution, solution.system.valves.rear[0])
        assert found is not None

        on_line = np.interp(found.case_load, found.load, found.knee)
        assert on_line == pytest.approx(found.case_knee, rel=5e-3)
        assert found.of_vehicle is (name == "ball")
        assert (np.diff(found.knee) >= -1e-6).all()


def test_a_balls_knee_takes_twice_the_force_for_twice_the_mass() -> None:
    """Newton: with brakes proportional to pressure the knee is proportional to the weight."""
    plain = {
        "valves.rear": [KINDS["ball"]],
        "valves.front": [],
        "rear.brake.threshold": "0 bar",
    }
    solution = solve(bakery_with(plain))
    found = knee_line(solution, solution.system.valves.rear[0])
    assert found is not None

    per_newton = found.knee / found.load
    assert per_newton == pytest.approx(np.full_like(per_newton, per_newton[0]), rel=1e-6)


def test_a_plain_knee_follows_no_load() -> None:
    solution = behind("reducing")
    law = solution.system.valves.rear[0]

    assert knee_line(solution, law) is None
    assert knee_line(replace(solution, case=1), law) is None
