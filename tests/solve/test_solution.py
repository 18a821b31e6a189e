"""The solution's own promises: crossings, rules, travel, what is printed."""

import json
from collections.abc import Callable

import numpy as np
import pytest
from scipy.optimize import brentq

from tests.builds import bed
from tests.solve import second_way
from urgens.document import Build, BuildErrors, edited, with_changes
from urgens.document.kinds.brakes.drum import Drum
from urgens.document.kinds.cylinders.tandem import TandemMaster
from urgens.printed.solution import printed_solution
from urgens.solve import AxleName, solve
from urgens.solve.apply_release import trace
from urgens.solve.bracket import crossing
from urgens.solve.press import press
from urgens.solve.travel import bar_tilt

Built = Callable[..., Build]


def _rear_lead(build: Build, z: float) -> float:
    """Rear minus front adhesion used at a deceleration, found by halving the effort."""
    low, high = 0.0, 50_000.0
    for _ in range(100):
        middle = (low + high) / 2
        reached = second_way.axle_forces(build, 0, middle)[2]
        low, high = (middle, high) if reached < z else (low, middle)
    front, rear, _ = second_way.axle_forces(build, 0, high)
    on_front, on_rear = second_way.loads(build, 0, z, 0.0)
    return rear / on_rear - front / on_front


def test_crossings_are_where_the_curves_meet(bakery: Build) -> None:
    build = edited(
        edited(bakery, "front.brake.effective_radius", "4.9 in"), "booster.jump_in", "0 N"
    )
    found = solve(build).crossings

    assert found.z.size >= 2
    for z, above in zip(found.z, found.rear_above, strict=True):
        if z == pytest.approx(0.15):
            continue
        assert _rear_lead(build, z + 1e-4) > 0 if above else _rear_lead(build, z + 1e-4) < 0
        assert _rear_lead(build, z - 1e-4) < 0 if above else _rear_lead(build, z - 1e-4) > 0


def test_regulation_and_critical_deceleration_speak_of_the_same_line(
    built: Built, roadster: Build
) -> None:
    bad = solve(built({"valves.rear": []}))
    good = solve(roadster)

    assert bad.crossings.critical_z < 0.8
    assert not bad.regulation.rear_below_front
    assert np.isnan(good.crossings.critical_z)
    assert good.regulation.rear_below_front
    assert good.regulation.adhesion_limit


def test_a_front_that_does_nothing_breaks_the_adhesion_line(built: Built) -> None:
    build = built({"front.brake.pad_friction": 0.02})

    assert not solve(build).regulation.adhesion_limit


def test_nothing_locks_with_a_weak_foot(built: Built) -> None:
    solution = solve(built({"targets.max_effort": "20 N"}), surface=0.9)
    at = (solution.case, solution.road)

    assert solution.lock.axle[at] == AxleName.NONE
    assert np.isnan(solution.lock.effort[at])
    assert printed_solution(solution)["first_lock"] == {
        "axle": "none",
        "effort": None,
        "z": None,
        "efficiency": None,
        "second_effort": None,
        "margin": None,
    }


def test_lock_at_a_jump_is_at_the_effort_of_the_jump(built: Built) -> None:
    """A booster that jumps past the limit of ice locks as it cracks, at the achieved z."""
    build = built({"booster.crack_force": "80 N", "booster.jump_in": "1500 N", "valves.front": []})
    solution = solve(build, surface=0.15)
    at = (solution.case, solution.road)

    assert solution.lock.effort[at] == pytest.approx(80 / 4, rel=1e-9)
    assert solution.lock.z[at] <= 0.15 + 1e-12
    assert solution.lock.second_effort[at] == pytest.approx(80 / 4, rel=1e-9)


def test_travel_by_hand(roadster: Build) -> None:
    """Twin cylinders: R (δ + s_f (½ + e/l) + s_r (½ − e/l)), volumes added by hand."""
    typed = edited(roadster, "plumbing", None)  # its own totals of hoses and fluid count
    solution = solve(typed, efforts=np.array([0.0, 200.0]))
    presses = solution.presses
    area = {"front": 2 * np.pi / 4 * 0.0413**2, "rear": np.pi / 4 * 0.0413**2}
    bore = {"front": np.pi / 4 * 0.01905**2, "rear": np.pi / 4 * 0.0159**2}
    hose = {"front": 0.70, "rear": 0.60}
    soft = {"front": 0.12e-12, "rear": 0.09e-12}
    share = {"front": 0.5 + 3.2 / 62, "rear": 0.5 - 3.2 / 62}
    travel = 0.8e-3
    for end in ("front", "rear"):
        p = float(getattr(presses, f"{end}_pressure")[1])
        taken = 2 * (2 * area[end] * 0.1e-3 + soft[end] * p)
        taken += 0.15e-12 * hose[end] * p + 180e-6 * p / 1.8e9
        travel += share[end] * (1.2e-3 + taken / bore[end])

    assert presses.pedal_travel == pytest.approx([0.0, 5.2 * travel])


@pytest.mark.parametrize(
    "changes", [{"master.stroke": "0.6 in"}, {"pedal.travel_available": "1 in"}]
)
def test_travel_is_null_where_stroke_or_floor_ends_first(
    built: Built, changes: dict[str, str]
) -> None:
    row = printed_solution(solve(built(changes)))["presses"][0]

    assert row["pedal_travel"] is None
    assert row["front_pressure"] > 0


def test_air_makes_the_pedal_longer(built: Built) -> None:
    efforts = np.array([150.0])
    firm = solve(built(), efforts=efforts).presses.pedal_travel
    spongy = solve(built({"lines.trapped_air_rear": "2 cm^3"}), efforts=efforts).presses

    assert spongy.pedal_travel > firm


def test_load_case_by_name_and_unknown(bakery: Build) -> None:
    assert solve(bakery, load_case="Full load").case == 2
    with pytest.raises(BuildErrors) as refused:
        solve(bakery, load_case="Overload")

    assert str(refused.value) == (
        'vehicle.load_cases: there is no load case "Overload"; choose one of "Empty, driver", '
        '"Half load", "Full load"'
    )


def test_what_is_printed_is_the_contract(bakery: Build) -> None:
    row = printed_solution(solve(bakery, surface=0.9))

    assert list(row) == [
        "build", "load_case", "surface", "pedal_ratio", "presses", "first_lock", "critical_z",
        "crossings", "half_failed", "regulation", "linkage", "reservoir", "heat",
    ]  # fmt: skip
    assert list(row["presses"][0]) == [
        "effort", "pushrod_force", "booster_output", "master_front", "master_rear",
        "front_pressure", "rear_pressure", "front_wheel_torque", "rear_wheel_torque", "front_force",
        "rear_force", "demand_z", "achieved_z", "front_load", "rear_load", "front_adhesion",
        "rear_adhesion", "locked", "pedal_travel",
    ]  # fmt: skip
    assert json.loads(json.dumps(row, allow_nan=False)) == row


def test_an_adhesion_is_null_where_nothing_is_carried(built: Built) -> None:
    build = built({"vehicle.load_cases[0].cg_height": "2.2 m", "targets.surface": 1.2})
    row = printed_solution(solve(build, efforts=np.array([500.0])))["presses"][0]

    assert row["rear_load"] < 0
    assert row["rear_adhesion"] is None
    assert "rear" in row["locked"]


def test_many_brackets_close_at_once() -> None:
    """Roots of x³ = c and a jump, each in its own bracket."""
    aims = np.array([1.0, 8.0, 27.0])

    def cube(x: np.ndarray) -> np.ndarray:
        return x**3 - aims

    low, high = np.zeros(3), np.full(3, 5.0)

    found = crossing(cube, low, high, cube(low), cube(high))

    assert found == pytest.approx([1, 2, 3], abs=1e-7)

    def jump(x: np.ndarray) -> np.ndarray:
        return np.where(x > 0.3, 4.0, -1.0)

    for start in (0.0, -1000.0):
        at = crossing(jump, np.array(start), np.array(1.0), jump(start), jump(1.0))
        assert at == pytest.approx(0.3, abs=1e-12)
        assert at > 0.3

    def jump_at_nothing(x: np.ndarray) -> np.ndarray:
        return np.where(x > 0.0, 4.0, -1.0)

    at = crossing(jump_at_nothing, np.array(0.0), np.array(1.0), np.array(-1.0), np.array(4.0))
    assert 0 < at < 1e-14


def test_downforce_counts_with_speed_only(roadster: Build) -> None:
    winged = edited(
        roadster, "vehicle.downforce", {"front_cl_area": "0.3 m^2", "rear_cl_area": "0.4 m^2"}
    )

    assert solve(winged).lock.effort == pytest.approx(solve(roadster).lock.effort)
    assert (solve(winged, speed=50.0).lock.effort > solve(roadster).lock.effort).all()
    assert solve(winged, speed=50.0).regulation == solve(roadster).regulation


def test_two_gauges_show_the_valve_s_hysteresis(bakery: Build) -> None:
    """On the way back the outlet stays until the inlet has fallen to it: above the way up."""
    solution = solve(bakery)
    run = trace(solution.system, 400.0, solution.standing)
    up, down = slice(0, 101), slice(101, 202)
    inlet, outlet = run.master_rear, run.rear_pressure
    back = np.interp(inlet[up], inlet[down][::-1], outlet[down][::-1])
    between = (inlet[up] > bakery.valves.rear[0].knee.value) & (inlet[up] < 0.999 * inlet.max())

    assert between.sum() > 20
    assert (back[between] > outlet[up][between]).all()
    assert outlet[down] == pytest.approx(np.minimum(inlet[down], outlet[100]))


BALL = {"kind": "inertia-sensing", "ball_angle": "17 deg", "slope": 0.4}


@pytest.mark.parametrize("valve", [BALL, {"kind": "reducing", "knee": "300 psi", "slope": 0.3}])
def test_the_way_back_begins_where_the_way_up_ends(built: Built, valve: dict[str, object]) -> None:
    """Also with a ball, which has felt the stop by then: as much as one press there."""
    solution = solve(built({"valves.rear": [valve]}))
    run = trace(solution.system, 400.0, solution.standing)
    held = press(solution.system, np.array([400.0]), solution.standing, 10.0)  # tyres that hold

    assert run.effort[:101] == pytest.approx(np.linspace(0.0, 400.0, 101))
    assert run.effort[101:] == pytest.approx(np.linspace(400.0, 0.0, 101))
    assert run.rear_pressure[100] == run.rear_pressure[101]
    assert run.rear_pressure[101] == pytest.approx(float(held.rear_pressure[0]))


def test_a_residual_valve_keeps_its_pressure(built: Built) -> None:
    build = built({"valves.rear": [{"kind": "residual", "pressure": "15 psi"}]})
    solution = solve(build)
    kept = 15 * 6894.757293

    assert trace(solution.system, 300.0, solution.standing).rear_pressure[-1] == pytest.approx(kept)
    barely = trace(solution.system, 6.5, solution.standing).rear_pressure
    assert barely[-1] == pytest.approx(min(kept, barely.max()))


def test_an_outlet_s_residual_valve_keeps_its_pressure_like_one_in_the_line(built: Built) -> None:
    """Both are check valves before the wheel: the higher keeps its pressure (common practice)."""

    def kept(outlet: str, line: str | None) -> float:
        valves = [] if line is None else [{"kind": "residual", "pressure": line}]
        outlets = [{"circuit": "rear", "position": "end", "residual": outlet}]
        solution = solve(built({"valves.rear": valves, "master.outlets": outlets}))
        return float(trace(solution.system, 300.0, solution.standing).rear_pressure[-1] / 6894.757)

    assert kept("12 psi", None) == pytest.approx(12.0, rel=1e-6)
    assert kept("12 psi", "5 psi") == pytest.approx(12.0, rel=1e-6)
    assert kept("5 psi", "15 psi") == pytest.approx(15.0, rel=1e-6)


LAUNCH = {
    "stall_torque": "150 lbf.ft",
    "gear_ratio": 2.2,
    "final_drive": 3.73,
    "driven": "rear",
    "surface": 0.8,
}


@pytest.mark.parametrize("driven", ["rear", "front"])
@pytest.mark.parametrize("grips", [(1.0, 1.0), (0.6, 1.0), (1.0, 0.5)])
def test_the_hold_is_a_balance_of_free_bodies(
    built: Built, driven: str, grips: tuple[float, float]
) -> None:
    """At the effort given, driven brakes and road force together make the driveline's torque."""
    build = built(
        {
            "vehicle.launch": {**LAUNCH, "driven": driven}, "targets.max_effort": "900 N",
            "front.tyre.grip": grips[0], "rear.tyre.grip": grips[1],
        }
    )  # fmt: skip
    held = solve(build).hold
    assert held is not None
    assert held.effort is not None
    wanted = 150 * 0.3048 * 4.4482216152605 * 1.8 * 2.2 * 3.73 * 0.9

    def spare(effort: float) -> float:
        front, rear = second_way.forces_of(
            build, 0, second_way.cylinder_force(build, effort), 0.0, 0.0
        )
        weights = second_way.loads(build, 0, 0.0, 0.0)
        radius = 14.1 * 0.0254
        mine, other = (rear, front) if driven == "rear" else (front, rear)
        tyres = [0.8 * grip * weight for grip, weight in zip(grips, weights, strict=True)]
        road = min(other, *tyres)
        return mine * radius + radius * road - wanted

    assert held.driven_torque == pytest.approx(wanted)
    assert held.effort == pytest.approx(brentq(spare, 1.0, 900.0), rel=1e-6)


@pytest.mark.parametrize(
    ("changes", "short"),
    [
        ({"front.brake.pad_friction": 0.01}, "other axle brakes"),
        ({"vehicle.load_cases[0].front_axle": "300 lb"}, "other axle tyres"),
        ({"vehicle.load_cases[0].rear_axle": "300 lb"}, "driven brakes"),
    ],
)
def test_what_ends_the_hold_first(built: Built, changes: dict[str, object], short: str) -> None:
    torque = {**LAUNCH, "stall_torque": "2000 lbf.ft"}
    held = solve(built({"vehicle.launch": torque, **changes})).hold

    assert held is not None
    assert (held.holds, held.limited_by) == (False, short)
    row = printed_solution(solve(built({"vehicle.launch": torque, **changes})))["hold"]
    assert (row["effort"], row["pressure"], row["limited_by"]) == (None, None, short)


def test_a_dead_rod_bottoms_unless_the_bar_s_stop_comes_first(roadster: Build) -> None:
    """x = R (δ + s_f (½ + e/l) + stroke (½ − e/l)); at the stop all force goes to the live rod."""
    changes = {"pedal.travel_available": "140 mm", "targets.surface": 3.0, "plumbing": None}
    low = with_changes(roadster, changes)
    free, stopped = solve(low), solve(edited(low, "master.bar_max_angle", "4 deg"))
    share = 0.5 + 3.2 / 62
    area, bore = 2 * np.pi / 4 * 0.0413**2, np.pi / 4 * 0.01905**2

    def live_stroke(p: float) -> float:
        taken = 2 * (2 * area * 0.1e-3 + 0.12e-12 * p) + 0.15e-12 * 0.7 * p + 180e-6 * p / 1.8e9
        return float(1.2e-3 + taken / bore)

    shared = live_stroke(500 * 5.2 * share / bore)
    alone = live_stroke(500 * 5.2 / bore)
    bottomed = 5.2 * (0.8e-3 + share * shared + (1 - share) * 0.025)
    at_stop = 5.2 * (0.8e-3 + share * alone + (1 - share) * (alone + 0.062 * np.radians(4)))

    assert free.half_failed[1].pedal_travel[0] == pytest.approx(bottomed)
    assert stopped.half_failed[1].pedal_travel[0] == pytest.approx(at_stop)
    assert stopped.half_failed[1].z == pytest.approx(free.half_failed[1].z / share)


def test_engine_drag_adds_to_the_driven_axle(built: Built) -> None:
    """A torque at the rear axle over its tyre's radius, with the foot off."""
    dragged = solve(built({"vehicle.engine_drag": "100 N.m"}), efforts=np.array([0.0])).presses

    assert dragged.rear_force == pytest.approx([100 / (14.1 * 0.0254)])
    assert dragged.rear_wheel_torque == pytest.approx([0.0])


def test_the_friction_from_which_a_shoe_grabs_is_where_its_factor_runs_away() -> None:
    """Physics section 3: M_N = M_f there; just below it the factor is very large."""
    shoe = {
        "lining_friction": 0.3,
        "hinge_distance": "105 mm",
        "arm": "200 mm",
        "heel_angle": "10 deg",
        "toe_angle": "120 deg",
    }
    drum = {
        "kind": "drum",
        "layout": "leading-trailing",
        "cylinder_diameter": "20 mm",
        "drum_diameter": "250 mm",
        "shoe": shoe,
    }
    build = edited(bed("bakery"), "rear.brake", drum)
    assert isinstance(build.rear.brake, Drum)
    limit = build.rear.brake.grabs_from
    assert limit is not None
    near = edited(build, "rear.brake.shoe.lining_friction", limit * 0.999)
    assert isinstance(near.rear.brake, Drum)

    assert near.rear.brake.factor > 100 * build.rear.brake.factor
    with pytest.raises(BuildErrors, match="grab"):
        edited(build, "rear.brake.shoe.lining_friction", limit * 1.001)


@pytest.mark.parametrize("driven", ["front", "rear"])
def test_the_engine_drags_the_axle_that_the_launch_says_is_driven(
    built: Built, driven: str
) -> None:
    launch = {"stall_torque": "200 lbf.ft", "gear_ratio": 2.5, "final_drive": 4, "driven": driven}
    build = built({"vehicle.engine_drag": "100 N.m", "vehicle.launch": launch})
    pressed = solve(build, efforts=np.array([0.0])).presses
    forces = {"front": pressed.front_force, "rear": pressed.rear_force}
    (other,) = set(forces) - {driven}

    assert forces[driven] == pytest.approx([100 / (14.1 * 0.0254)])
    assert forces[other] == pytest.approx([0.0])


@pytest.mark.parametrize(
    ("given", "strokes"),
    [
        ({}, (18.0, 18.0)),
        ({"primary_stroke": "20 mm"}, (20.0, 16.0)),
        ({"secondary_stroke": "20 mm"}, (16.0, 20.0)),
        ({"primary_stroke": "19 mm", "secondary_stroke": "15 mm"}, (19.0, 15.0)),
    ],
)
def test_a_chamber_whose_stroke_is_not_given_has_the_rest(
    built: Built, given: dict[str, str], strokes: tuple[float, float]
) -> None:
    """By definition: both strokes make the whole; one half each where none is given."""
    changes = {f"master.{name}": value for name, value in given.items()}
    master = built({"master.stroke": "36 mm", **changes}).master

    assert isinstance(master, TandemMaster)
    assert [1000 * stroke for stroke in master.chamber_strokes] == pytest.approx(strokes)


@pytest.mark.parametrize(("feeds", "front", "rear"), [("front", 22, 14), ("rear", 14, 22)])
def test_each_axle_has_the_stroke_of_the_chamber_that_feeds_it(
    built: Built, feeds: str, front: float, rear: float
) -> None:
    """By definition: the pushrod's chamber is the primary one."""
    changes = {"stroke": "36 mm", "primary_stroke": "22 mm", "primary_feeds": feeds}
    made = solve(built({f"master.{name}": value for name, value in changes.items()})).system
    strokes = {float(c.front_part): 1000 * float(c.stroke) for c in made.volumes.chambers}

    assert strokes == pytest.approx({1.0: front, 0.0: rear})


@pytest.mark.parametrize(("soft", "sign"), [("front", 1.0), ("rear", -1.0)])
def test_the_rod_of_the_softer_circuit_goes_further_in(soft: str, sign: float) -> None:
    """Fact of the trade: a bar leans towards the cylinder that moves more fluid."""
    build = with_changes(bed("roadster"), {f"{soft}.brake.compliance": "3 cm^3/MPa"})
    made = solve(build).system
    tilt = bar_tilt(made, np.array([3e6]), np.array([3e6]))

    assert np.sign(tilt) == sign
