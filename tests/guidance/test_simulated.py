"""Simulated causes, each against the plain relation, by hand, on a bakery without a booster."""

import math

import numpy as np
import pytest

from tests.builds import bakery_with
from urgens.document import Build, edited
from urgens.guidance.tracing.simulated import Figures, HowRead, figures, rows_of
from urgens.solve import solve

FOOT, RATIO = 500.0, 4.0  # N; 13-1/2 in over 3-3/8 in
AREA = math.pi / 4.0 * (1.125 * 0.0254) ** 2  # m² of the cylinder
PRESSURE = FOOT * RATIO / AREA  # 3.12 MPa, above the valve's knee
KNEE, SLOPE = 375 * 6894.757, 0.3
AIR = 101325.0  # Pa
BEHIND = KNEE + SLOPE * (PRESSURE - KNEE)


@pytest.fixture
def bakery() -> Build:
    return bakery_with({"booster": {"kind": "none"}, "pedal.travel_available": "20 in"})


def most(build: Build, cause: str, stroke: int = 1, foot: float = FOOT) -> tuple[Figures, Figures]:
    """The build's figures, and those of a cause at its most; what boils is hot."""
    how = HowRead(hot=cause == "fluid-boils")
    found = figures(build, rows_of([cause]), np.array([foot]), 0, stroke, how)
    as_built, wrong = (Figures(*(one[row, 0] for one in found)) for row in (0, -1))
    return as_built, wrong


def test_the_build_itself_is_as_solve_has_it(bakery: Build) -> None:
    found, _ = most(bakery, "air-front")
    press = solve(bakery).press(np.array([FOOT]))
    assert found.front == pytest.approx(PRESSURE, rel=1e-6)
    assert found.rear == pytest.approx(BEHIND, rel=1e-6)
    assert found.travel == pytest.approx(float(press.pedal_travel[0]), rel=1e-9)
    assert found.deceleration == pytest.approx(float(press.demand_z[0]), rel=1e-9)


@pytest.mark.parametrize(
    ("cause", "stroke", "fluid"),
    [
        ("air-front", 1, 20e-6 * (1.0 - AIR / (AIR + PRESSURE))),  # Boyle
        ("air-front", 3, 0.85 * 20e-6 * (1.0 - AIR / (AIR + PRESSURE))),
        ("air-rear", 1, 20e-6 * (1.0 - AIR / (AIR + BEHIND))),
        ("hose-soft-front", 1, 3.0 * 0.3e-12 * 32 * 0.0254 * PRESSURE),  # four times as soft
        ("caliper-flexes-front", 2, 3.0 * 2.0 * 0.28e-12 * PRESSURE),  # both wheels
        ("hose-soft-rear", 1, 3.0 * 0.3e-12 * 14 * 0.0254 * BEHIND),
        ("caliper-flexes-rear", 1, 3.0 * 2.0 * 0.09e-12 * BEHIND),  # shoes and drum give way
        ("no-residual", 1, 6e-6 * (1.0 - AIR / (AIR + BEHIND))),
        ("side-air", 1, 8e-6 * (1.0 - AIR / (AIR + PRESSURE))),
        ("fluid-boils", 1, 30e-6 * (2.0 - AIR / (AIR + PRESSURE) - AIR / (AIR + BEHIND))),
        ("rod-short", 1, 4e-3 * AREA),  # its stroke is gone
    ],
)
def test_what_takes_fluid_takes_travel(
    bakery: Build, cause: str, stroke: int, fluid: float
) -> None:
    """Continuity: the pad moves by the fluid over the bore, times the ratio."""
    as_built, wrong = most(bakery, cause, stroke)
    assert wrong.travel - as_built.travel == pytest.approx(RATIO * fluid / AREA, rel=1e-3)
    assert wrong.front == pytest.approx(as_built.front)


def test_a_clearance_is_gone_by_the_third_stroke(bakery: Build) -> None:
    """Common practice: the first strokes take it up; what is left is assumed at 15 %."""
    extra = []
    for stroke in (1, 3):
        as_built, wrong = most(bakery, "knock-back-front", stroke)
        extra.append(wrong.travel - as_built.travel)
    bore = math.pi / 4.0 * (2.9375 * 0.0254) ** 2
    both = 2.0 * 2.0 * bore * 0.12e-3  # m³: two wheels, two pads' way
    assert extra[0] == pytest.approx(7.0 * both * RATIO / AREA, rel=1e-6)
    assert extra[1] == pytest.approx(0.15 * extra[0], rel=1e-6)


@pytest.mark.parametrize(
    ("cause", "front", "rear"),
    [
        ("bore-big", PRESSURE / 1.4, PRESSURE / 1.4),  # below the knee now
        ("ratio-hole", 0.75 * PRESSURE, 0.75 * PRESSURE),
        ("valve-open", PRESSURE, PRESSURE),
        ("knee-high", PRESSURE, PRESSURE),  # 1.8 times the knee is above it
        ("second-valve", PRESSURE, KNEE + 0.6 * SLOPE * (PRESSURE - KNEE)),
        ("knee-low", PRESSURE, 0.8 * KNEE + SLOPE * (PRESSURE - 0.8 * KNEE)),
        ("adjustable-open", PRESSURE, PRESSURE),
        ("valve-missing", PRESSURE, BEHIND),  # the build has it reckoned in as it is
        ("hose-blocked-front", 0.0, BEHIND),
        ("lost-front", 0.0, BEHIND),
        ("lost-rear", PRESSURE, 0.0),
        ("hose-blocked-rear", PRESSURE, 0.0),
        ("shuttle-across", PRESSURE, 0.0),
        ("metering-shut", 10 * 6894.757, BEHIND),  # it stays where it closes
    ],
)
def test_pressures_are_those_of_what_is_wrong(
    bakery: Build, cause: str, front: float, rear: float
) -> None:
    _, wrong = most(bakery, cause)
    assert wrong.front == pytest.approx(front, rel=1e-5, abs=1.0)
    assert wrong.rear == pytest.approx(rear, rel=1e-5, abs=1.0)


def test_a_metering_valve_that_never_shuts_passes_a_light_press(bakery: Build) -> None:
    light = 40.0  # N: 36 psi, between 10 and 130
    as_built, wrong = most(bakery, "metering-open", foot=light)
    assert as_built.front == pytest.approx(10 * 6894.757, rel=1e-6)
    assert wrong.front == pytest.approx(light * RATIO / AREA, rel=1e-6)


@pytest.mark.parametrize(
    ("cause", "front", "rear"),
    [
        ("glazed-front", 0.8, 1.0),
        ("glazed-rear", 1.0, 0.8),
        ("drums-grab", 1.0, 1.6),
        ("side-seized", 0.7, 1.0),
        ("side-wet", 0.8, 1.0),
        ("hose-blocked-side", 0.6, 1.0),
    ],
)
def test_friction_scales_the_force(bakery: Build, cause: str, front: float, rear: float) -> None:
    as_built, wrong = most(bakery, cause)
    assert wrong.front_force == pytest.approx(front * as_built.front_force)
    assert wrong.rear_force == pytest.approx(rear * as_built.rear_force)
    weight = 4000 * 0.45359237 * 9.80665
    z = (wrong.front_force + wrong.rear_force) / weight
    assert wrong.deceleration == pytest.approx(z, rel=1e-6)


def test_a_dead_booster_leaves_the_foot_alone() -> None:
    """A second way: the same build with its booster said not to work."""
    build = bakery_with({})
    _, wrong = most(build, "booster-dead")
    dead = solve(edited(build, "booster.working", False)).press(np.array([FOOT]))
    assert wrong.front == pytest.approx(float(dead.front_pressure[0]), rel=1e-9)


def test_a_lost_half_drops_the_pedal_as_computed(bakery: Build) -> None:
    """A second way: the half that is lost, as the solution has it at the largest effort."""
    solution = solve(bakery)
    [lost] = [one for one in solution.half_failed if one.dead == "front"]
    _, wrong = most(bakery, "lost-front", foot=float(solution.system.max_effort))
    assert wrong.travel == pytest.approx(float(lost.pedal_travel[0]), rel=1e-9)


def test_all_rows_go_through_one_solve() -> None:
    rows = rows_of(["air-front", "valve-open", "grommet"])
    assert rows.causes == ("", *["air-front"] * 15, *["valve-open"] * 15, "grommet")
    found = figures(bakery_with({}), rows, np.array([100.0, 200.0, 300.0]), 1)
    assert all(one.shape == (32, 3) for one in found)
    assert found.travel[-1] == pytest.approx(found.travel[0])  # a grommet changes no figure


@pytest.mark.parametrize(
    ("cause", "front", "rear"),
    [("grommet", 1.0, 1.0), ("hose-blocked-rear", 1.0, 0.0), ("lost-front", 0.0, 1.0)],
)
def test_a_stroke_brings_what_its_chamber_sweeps(
    bakery: Build, cause: str, front: float, rear: float
) -> None:
    """By hand: half of 1.4 in of stroke each, over the bore."""
    _, wrong = most(bakery, cause)
    swept = AREA * 0.7 * 0.0254
    assert wrong.front_flow == pytest.approx(front * swept, rel=1e-6)
    assert wrong.rear_flow == pytest.approx(rear * swept, rel=1e-6)


@pytest.mark.parametrize(("cause", "share"), [("vacuum-low", 0.8), ("booster-valve", 0.3)])
def test_a_weak_booster_runs_out_early(cause: str, share: float) -> None:
    """A second way: the same build with that share of its vacuum, pressed beyond its run-out."""
    build = bakery_with({})
    as_built, wrong = most(build, cause, foot=1500.0)
    weak = edited(build, "booster.vacuum", f"{18.0 * share:.4f} inHg")
    weak = edited(weak, "booster.pump", None) if "pump" in build.booster.model_fields_set else weak
    found = solve(weak).press(np.array([1500.0]))
    assert wrong.front < as_built.front
    assert wrong.front == pytest.approx(float(found.front_pressure[0]), rel=1e-6)


@pytest.mark.parametrize(
    ("cause", "factor"), [("load-sensing-high", 2.2), ("load-sensing-low", 0.5)]
)
def test_a_load_sensing_valve_that_sticks_has_another_knee(cause: str, factor: float) -> None:
    """By hand: at 1750 lb behind the knee is that of its light point, 20 bar, times the factor."""
    valve = {"kind": "load-sensing", "points": [["1750 lb", "20 bar"], ["3000 lb", "50 bar"]],
             "slope": 0.3, "follows": "static"}  # fmt: skip
    build = bakery_with({"booster": {"kind": "none"}, "valves.rear": [valve]})
    _, wrong = most(build, cause)
    knee = factor * 20e5
    behind = PRESSURE if knee > PRESSURE else knee + 0.3 * (PRESSURE - knee)
    assert wrong.rear == pytest.approx(behind, rel=1e-5)


def test_shoes_that_stand_off_take_their_clearance_first(bakery: Build) -> None:
    """By hand: five clearances more of two shoes on two wheels, 7/8 in, until the third stroke."""
    as_built, wrong = most(bakery, "shoes-far-rear")
    bore = math.pi / 4.0 * (0.875 * 0.0254) ** 2
    both = 2.0 * 2.0 * bore * 0.9e-3
    assert wrong.travel - as_built.travel == pytest.approx(5.0 * both * RATIO / AREA, rel=1e-6)


def test_a_half_of_crossed_circuits_takes_half_of_each_axle(bakery: Build) -> None:
    """By hand: a front wheel and the rear one across from it; the pedal falls to the first half."""
    crossed = edited(bakery, "circuits", "diagonal")
    as_built, wrong = most(crossed, "lost-half")
    assert wrong.front_force == pytest.approx(0.5 * as_built.front_force)
    assert wrong.rear_force == pytest.approx(0.5 * as_built.rear_force)
    assert wrong.front == pytest.approx(as_built.front)
    assert wrong.travel > as_built.travel + 0.02
