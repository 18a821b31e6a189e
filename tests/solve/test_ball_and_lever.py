"""The valves that feel the vehicle: a ball that rolls, a lever on the axle; notches."""

import math

import numpy as np
import pytest

from tests.builds import bakery_with
from tests.solve.second_way import axle_forces, loads
from urgens.document import BuildErrors
from urgens.document.kinds.valves.adjustable import Adjustable
from urgens.document.kinds.valves.load_sensing import LoadSensing
from urgens.guidance import findings
from urgens.physics.valve_law import LoadSensingLaw, ReducingLaw
from urgens.quantity import UnitSystem
from urgens.solve import AxleName, Solution, solve
from urgens.solve.ball import rolling, sliding
from urgens.solve.settled import HALF
from urgens.studies.knees_by_load import lever_state
from urgens.studies.valve_stages import loop, stages

PSI, POUND, INCH = 6894.757293, 4.4482216152605, 0.0254
BALL = {"kind": "inertia-sensing", "ball_angle": "17 deg", "slope": 0.3}
LEVER = {
    "arm": "6 in",
    "piston_arm": "1 in",
    "piston_diameter": "0.625 in",
    "spring_rate": "20 lbf/in",
    "preload": "10 lbf",
    "at_load": "1700 lb",
    "suspension_rate": "300 lbf/in",
}


def with_ball(**changes: object) -> Solution:
    return solve(bakery_with({"valves.rear": [{**BALL, **changes}]}))


def test_the_ball_rolls_at_the_tangent_of_its_ramp() -> None:
    """Statics of a ball on a ramp: 17 degrees roll at 0.306 g."""
    solution = with_ball()
    efforts = np.linspace(1.0, solution.build.targets.max_effort.value, 2000)
    presses = solution.press(efforts)
    reduced = presses.rear_pressure < presses.master_rear * (1 - 1e-9)

    assert reduced.any()
    assert presses.demand_z[~reduced].max() <= math.tan(math.radians(17.0)) + 1e-9
    assert presses.demand_z[reduced].min() >= math.tan(math.radians(17.0)) - 1e-9
    # from there on the outlet rises by the slope
    rise = np.diff(presses.rear_pressure[reduced]) / np.diff(presses.master_rear[reduced])
    assert rise == pytest.approx(0.3)


def test_a_heavier_load_case_has_a_higher_knee() -> None:
    """Common practice: that is what the valve is for; with the force proportional to the mass."""
    build = bakery_with({"valves.rear": [BALL]})
    made = solve(build).system
    knees = np.asarray(rolling(made, made.standing).closing)
    weights = np.asarray(made.standing.weight)

    assert np.all(np.diff(knees[np.argsort(weights)]) > 0)


def test_on_a_road_too_slippery_for_it_the_ball_stays_and_the_rear_gets_all() -> None:
    """Common practice, the valve's weakness: below its tangent no road lets it work."""
    solution = with_ball(ball_angle="12 deg")
    ice, dry = (
        sliding(solution.system, solution.standing, surface).closing for surface in (0.15, 0.9)
    )

    assert np.isinf(np.asarray(ice))
    assert np.isfinite(np.asarray(dry))


def test_with_the_front_locked_it_takes_more_pressure_to_roll_the_ball() -> None:
    """The second lock counts with the knee of the road, not that of rolling wheels."""
    solution = with_ball()
    at_rolling = float(np.asarray(rolling(solution.system, solution.standing).closing))
    on_wet = float(np.asarray(sliding(solution.system, solution.standing, 0.32).closing))
    road = solution.surfaces.index(0.5)

    assert on_wet > at_rolling
    at = solution.case, road
    front, rear, z = axle_forces(solution.build, solution.case, float(solution.lock.effort[at]))
    on_front, on_rear = loads(solution.build, solution.case, z, 0.0)
    used = {AxleName.FRONT: front / on_front, AxleName.REAR: rear / on_rear}
    assert solution.lock.axle[at] == max(used, key=lambda axle: used[axle])
    assert max(used.values()) == pytest.approx(0.5)


def test_half_the_brakes_on_half_the_grip_do_not_roll_the_ball() -> None:
    """A diagonal half on a road of 0.5 makes 0.25 g at most, and 17 degrees want 0.306 g."""
    solution = with_ball()
    made, standing = solution.system, solution.standing

    assert np.isinf(np.asarray(sliding(made, standing, 0.5, HALF).closing))
    assert np.isfinite(np.asarray(sliding(made, standing, 0.5).closing))
    assert np.isfinite(np.asarray(sliding(made, standing, 0.9, HALF).closing))


def test_a_vehicle_whose_rear_lifts_first_never_rolls_the_ball() -> None:
    """Moments: the rear leaves the ground at rear share of the load over height by wheelbase."""
    solution = with_ball(ball_angle="40 deg")  # 0.84 g
    weight = solution.standing.weight
    light = solution.standing._replace(front_weight=0.8 * weight, rear_weight=0.2 * weight)
    tall = light._replace(transfer=0.25)  # lifts at 0.8 g

    assert tall.lifts == pytest.approx(0.8)
    assert np.isinf(np.asarray(sliding(solution.system, tall, 1.2).closing))
    low = light._replace(transfer=0.2)  # lifts at 1 g
    assert np.isfinite(np.asarray(sliding(solution.system, low, 1.2).closing))


def test_a_ball_that_no_press_rolls_is_told_in_words() -> None:
    solution = with_ball(ball_angle="55 deg")
    (found,) = [f for f in findings(solution, UnitSystem.INCH) if f.code == "knee-never-reached"]

    assert "its ball rolls at 1.43 g" in found.message


def test_a_ball_has_a_loop_and_a_tolerance_where_it_rolls() -> None:
    solution = with_ball()
    pressed = solution.press(solution.build.targets.max_effort.value)
    (stage,) = stages(solution, pressed, "rear")
    found = loop(solution, pressed, stage.law, stage.inlet)
    assert found.low is not None
    assert found.high is not None

    assert stage.outlet == pytest.approx(float(pressed.rear_pressure))
    assert (found.low <= found.up + 1e-6).all()
    assert (found.up <= found.high + 1e-6).all()
    assert float(found.down[80]) == pytest.approx(min(float(found.inlet[80]), stage.outlet))


def test_two_balls_are_refused() -> None:
    with pytest.raises(BuildErrors, match=r"valves.rear\[1\].*second inertia-sensing valve"):
        bakery_with({"valves.rear": [BALL, BALL]})


def law_of(**changes: object) -> LoadSensingLaw:
    valve = {
        "kind": "load-sensing",
        "lever": {**LEVER, **changes},
        "slope": 0.3,
        "follows": "dynamic",
    }
    (law,) = solve(bakery_with({"valves.rear": [valve]})).system.valves.rear
    assert isinstance(law, LoadSensingLaw)
    return law


def test_a_levers_knee_by_moments_and_the_stepped_pistons_balance() -> None:
    """Statics, written out: spring, lever, then p A = p s A + push."""
    law = law_of()
    for load in (1700.0, 2300.0):
        force = 10 + 20 * (load - 1700) / 300  # lbf; an inch of travel every 300 lbf
        push = force * 6 / 1
        area = math.pi / 4 * 0.625**2
        knee = push / (area * (1 - 0.3))  # psi
        assert float(law.knee_at(load * POUND)) == pytest.approx(knee * PSI, rel=1e-6)


def test_a_lever_is_slack_at_droop_and_stops_at_bump() -> None:
    """Common practice: some bodies shut nearly off at full droop."""
    free, stopped = law_of(), law_of(bump="2 in", droop="0.3 in")
    slack = 1700 - 10 * 300 / 20  # lbf, where the spring is slack

    assert float(free.knee_at((slack - 200) * POUND)) == pytest.approx(0.0, abs=1e-6)
    at_droop = float(stopped.knee_at(0.0))
    assert at_droop == pytest.approx(float(free.knee_at((1700 - 0.3 * 300) * POUND)), rel=1e-9)
    assert float(stopped.knee_at(9000 * POUND)) == pytest.approx(float(free.knee_at(2300 * POUND)))


def test_stiffer_springs_bring_a_levers_knees_together() -> None:
    """Less travel for the same load: the knee moves less between empty and laden."""
    soft, stiff = law_of(), law_of(suspension_rate="600 lbf/in")

    def apart(law: LoadSensingLaw) -> float:
        return float(law.knee_at(2500 * POUND) - law.knee_at(1700 * POUND))

    assert apart(stiff) == pytest.approx(apart(soft) / 2)


@pytest.mark.parametrize(
    ("valve", "said"),
    [
        ({"lever": LEVER, "points": [["1 kN", "9 bar"], ["2 kN", "20 bar"]]}, "both points and a"),
        ({}, "neither points nor a lever"),
        ({"lever": {**LEVER, "spring_rate": "20 lbf"}}, "spring_rate.*a force"),
        ({"lever": {**LEVER, "arm": "0 in"}}, "arm.*is zero"),
    ],
)
def test_levers_that_cannot_be(valve: dict[str, object], said: str) -> None:
    whole = {"kind": "load-sensing", "slope": 0.3, "follows": "static", **valve}
    with pytest.raises(BuildErrors, match=said):
        bakery_with({"valves.rear": [whole]})


def notched(turns: float) -> dict[str, object]:
    return {
        "kind": "adjustable",
        "table": [[1, "150 psi"], [2, "230 psi"], [3, "320 psi"]],
        "slope": 0.4,
        "turns": turns,
        "counted": "notches",
    }


def test_a_notch_is_one_of_its_table() -> None:
    build = bakery_with({"valves.rear": [notched(2)]})
    (valve,) = build.valves.rear
    (law,) = solve(build).system.valves.rear
    assert isinstance(valve, Adjustable)
    assert isinstance(law, ReducingLaw)

    assert float(law.at) == pytest.approx(230 * PSI)
    with pytest.raises(BuildErrors, match=r"there is no notch 2.5; choose one of its table: 1, 2"):
        bakery_with({"valves.rear": [notched(2.5)]})


def test_a_lever_stands_as_statics_have_it() -> None:
    """Written out: load over rate, spring by travel, moments about the pivot, slack at droop."""
    valve = {"kind": "load-sensing", "lever": LEVER, "slope": 0.3, "follows": "dynamic"}
    solution = solve(bakery_with({"valves.rear": [valve]}))
    (fitted,) = solution.build.valves.rear
    assert isinstance(fitted, LoadSensing)
    rest, hard = (lever_state(solution, solution.press(foot), fitted) for foot in (0.0, 400.0))

    case = solution.build.vehicle.load_cases[0]
    travel = (case.rear_axle.value / POUND - 1700) / 300  # in
    force = 10 + 20 * travel  # lbf
    assert rest.travel / INCH == pytest.approx(travel)
    assert rest.spring / POUND == pytest.approx(force)
    assert rest.push / POUND == pytest.approx(6 * force)
    assert rest.knee == pytest.approx(6 * force / (math.pi / 4 * 0.625**2 * 0.7) * PSI, rel=1e-6)
    assert hard.load < rest.load
    assert hard.spring == 0.0
    assert hard.knee == 0.0


@pytest.mark.parametrize(("asked", "notch"), [(0.2, 1), (1.4, 1), (1.6, 2), (2.9, 3), (9.0, 3)])
def test_the_nearest_notch_is_one_of_the_table(asked: float, notch: float) -> None:
    valve = Adjustable.model_validate({**notched(2)})

    assert valve.nearest(asked) == notch


@pytest.mark.parametrize(
    ("turns", "steps", "there"), [(2, 1, 3), (2, -1, 1), (3, 1, 3), (1, -5, 1), (1, 2, 3)]
)
def test_notches_are_stepped_to_the_end_of_the_table(turns: int, steps: int, there: int) -> None:
    assert Adjustable.model_validate(notched(turns)).stepped(steps) == there


@pytest.mark.parametrize(
    ("turns", "steps", "there"), [(1.5, 1, 1.75), (1.5, -2, 1.0), (2.9, 3, 3.0), (1.1, -1, 1.0)]
)
def test_turns_are_stepped_by_quarters_within_the_table(
    turns: float, steps: int, there: float
) -> None:
    """Common practice: a builder counts quarter turns."""
    valve = Adjustable.model_validate({**notched(turns), "counted": "turns"})

    assert valve.stepped(steps) == there
    assert valve.nearest(1.3) == 1.25
    assert valve.nearest(-4.0) == 1.0
