"""Feel at one effort, faults laid over it, set-ups side by side, heat of a build."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.builds import bakery_with, bed
from urgens.document import demo_names, with_changes, with_setup
from urgens.guidance.words.setups import rows
from urgens.physics.axle import Axle
from urgens.quantity import LENGTH
from urgens.solve import solve
from urgens.studies.compare import columns
from urgens.studies.feel import feel, worn_volume
from urgens.studies.heat import heated, shares
from urgens.studies.what_if import SOUND, WhatIf, supposed


@pytest.mark.parametrize("name", demo_names())
def test_feel_is_that_of_the_press(name: str) -> None:
    build = bed(name)
    effort = build.targets.comfortable_effort.value
    solution = solve(build, efforts=effort * np.array([0.999, 1.0, 1.001]))
    found = feel(solution.system, solution.standing, effort)
    travel = solution.presses.pedal_travel

    assert found.travel == pytest.approx(float(travel[1]))
    assert found.slope == pytest.approx(0.002 * effort / float(travel[2] - travel[0]), rel=0.02)
    assert found.left == pytest.approx(build.pedal.travel_available.value - found.travel)
    assert all(0 < used < 1 for used in found.used)


@given(
    st.floats(0.0, 10e-6), st.floats(1.0, 5.0), st.floats(1.0, 5.0), st.floats(0.0, 1e-3),
    st.sampled_from(demo_names()),
)  # fmt: skip
def test_no_fault_makes_a_pedal_higher(
    air: float, hose: float, brake: float, back: float, name: str
) -> None:
    build = bed(name)
    solution = solve(build)
    faulty = supposed(build, solution.system, SOUND, WhatIf(air, hose, brake, back))
    found = [feel(m, solution.standing, 200.0).travel for m in (solution.system, faulty)]

    assert found[1] >= found[0] - 1e-12


def test_faults_are_those_of_a_build_that_has_them() -> None:
    """The same figures typed into the document."""
    build = bed("bakery")
    air = solve(bakery_with({"lines.trapped_air_rear": "3 cm^3"}))
    soft = solve(bakery_with({"front.brake.compliance": "0.56 cm^3/MPa"}))
    knocked = solve(bakery_with({"front.brake.clearance": "0.42 mm"}))
    sound = solve(build)
    for typed, front, rear in (
        (air, SOUND, WhatIf(air=3e-6)),
        (soft, WhatIf(brake=2.0), SOUND),
        (knocked, WhatIf(knock_back=0.3e-3), SOUND),
    ):
        faulty = supposed(build, sound.system, front, rear)
        expected = feel(typed.system, typed.standing, 250.0).travel
        assert feel(faulty, sound.standing, 250.0).travel == pytest.approx(expected)


def test_worn_pads_draw_what_the_pistons_follow() -> None:
    """Two wheels, two pads of 10 mm each, a piston of 2-15/16 in: 174.9 cm³."""
    expected = 2 * 2 * np.pi / 4 * (2.9375 * 2.54) ** 2 * 1.0

    volume = worn_volume(bed("bakery"), "front")
    assert volume is not None
    assert volume * 1e6 == pytest.approx(expected)
    assert worn_volume(bed("bakery"), "rear") is None


@pytest.mark.parametrize("name", demo_names())
def test_columns_are_the_set_ups_solved(name: str) -> None:
    build = bed(name)
    found = columns(build, None, None)
    assert [column.name for column in found] == [None, *(setup.name for setup in build.setups)]
    for column in found:
        one = build if column.name is None else with_setup(build, column.name)
        assert column.solution.lock.effort == pytest.approx(solve(one).lock.effort, nan_ok=True)
    table = {row.name: row for row in rows(found)}
    assert table["Pedal ratio"].values[0] == pytest.approx(float(found[0].made.pedal_ratio))
    assert table["Left above the floor"].kind is LENGTH
    assert ("Foot that holds the launch" in table) == (build.vehicle.launch is not None)
    assert ("Booster lost leaves" in table) == any(
        column.solution.build.booster.kind != "none" for column in found
    )
    assert ("Pedal left with a half lost" in table) == (build.split != "single")


def test_a_corner_is_compared_where_one_is_asked_for() -> None:
    setup = {"name": "spare tyres", "changes": {"front.tyre.grip": 0.6}}
    build = with_changes(bed("bakery"), {"targets.corner": 0.3, "setups": [setup]})
    table = {row.name: row for row in rows(columns(build, None, None))}
    assert table["Locks first in the corner"].values == ("rear", "front")
    without = {row.name for row in rows(columns(bed("bakery"), None, None))}
    assert "Locks first in the corner" not in without


def test_a_set_up_without_the_load_case_takes_its_first() -> None:
    case = {"name": "Bare", "front_axle": "2000 lb", "rear_axle": "1500 lb", "cg_height": "26 in"}
    setup = {"name": "stripped", "changes": {"vehicle.load_cases": [case]}}
    build = with_changes(bed("bakery"), {"setups": [setup]})
    found = columns(build, "Full load", 0.5)

    assert found[0].solution.case_name == "Full load"
    assert found[1].solution.case_name == "Bare"
    assert {column.solution.surface for column in found} == {0.5}


def test_all_the_energy_goes_somewhere() -> None:
    """½ m v² of the loaded truck: what both axles' iron takes, by its rise and mass."""
    solution = solve(bed("bakery"), load_case="Full load")
    front, rear = (heated(solution, axle) for axle in ("front", "rear"))
    assert front is not None
    assert rear is not None
    mass = float(solution.standing.weight) / 9.80665
    speed = 55 * 0.44704
    taken = 2 * 460 * (22 * 0.45359237 * front.rise + 29 * 0.45359237 * rear.rise)

    assert taken == pytest.approx(0.5 * mass * speed**2, rel=1e-6)
    assert sum(shares(solution)) == pytest.approx(1.0)
    assert heated(solve(bed("mailvan")), "front") is None


def test_air_led_to_a_rotor_cools_it_and_an_inboard_one_stays_hotter() -> None:
    peaks = {}
    for cooling in ("ducted", "open", "inboard"):
        found = heated(solve(bakery_with({"front.brake.cooling": cooling})), "front")
        assert found is not None
        peaks[cooling] = float(found.peaks[-1])

    assert peaks["ducted"] < peaks["open"] < peaks["inboard"]


@pytest.mark.parametrize(("cooling", "tau"), [("open", 300), ("ducted", 180), ("inboard", 480)])
def test_a_brake_cools_by_its_time_between_two_stops(cooling: str, tau: float) -> None:
    """Newton's law of cooling, a mile at 60 mph between stops; times are common practice."""
    series = {"speed": "60 mph", "stops": 4, "between": "5280 ft", "air": "20 °C"}
    build = bakery_with({"front.brake.cooling": cooling, "heat": series})
    found = heated(solve(build), Axle.FRONT)
    assert found is not None
    excess = found.peaks - 293.15

    assert excess[0] == pytest.approx(found.rise)
    assert excess[1] / found.rise == pytest.approx(1 + np.exp(-60 / tau))
