"""Reservoir, hoses, fluids, lines, hold and half failure, against what stands outside."""

import math

import fluids
import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.optimize import brentq, linprog

from tests.builds import bakery_with, bed
from urgens.document import Build
from urgens.document.tables import fluid_table, hose_table, window_table
from urgens.guidance.words.boosters import effort_factor
from urgens.physics.atmosphere import air_pressure, vacuum_at
from urgens.physics.booster import input_force, output_force
from urgens.physics.heat import cooling_time_measured, peaks_of_a_series, rise_of_one_stop
from urgens.physics.line import pressure_drop
from urgens.physics.reservoir import assisted_stops, vacuum_at_end, vacuum_left
from urgens.solve import solve
from urgens.studies.vacuum_reserve import reserve

INCH, PSI, FOOT = 0.0254, 6894.757293, 0.3048
IN_HG = 3386.389  # Pa


# --- vacuum ---


@pytest.mark.parametrize("in_air", [False, True])
def test_a_reservoir_runs_down_by_its_recurrence(*, in_air: bool) -> None:
    """Boyle's law one application after another: physics section 1, reservoir."""
    ambient, tank, swept, vacuum = 101325.0, 5e-3, 1.2e-3, 18 * IN_HG
    inside = ambient - vacuum
    for count in range(1, 9):
        if in_air:
            inside = (inside * tank + ambient * swept) / (tank + swept)
        else:
            inside = min(ambient, inside + ambient * swept / (tank + swept))
        left = vacuum_left(vacuum, ambient, tank, swept, count, rests_in_air=in_air)
        assert left == pytest.approx(ambient - inside, abs=1e-6)


@given(
    st.floats(5.0, 25.0), st.floats(1.0, 24.0), st.floats(1e-3, 2e-2), st.floats(5e-4, 3e-3),
    st.booleans(),
)  # fmt: skip
def test_assisted_stops_are_those_after_which_enough_is_left(
    vacuum: float, least: float, tank: float, swept: float, in_air: bool
) -> None:
    ambient = 101325.0
    sizes = (ambient, tank, swept)
    stops = float(assisted_stops(vacuum * IN_HG, least * IN_HG, *sizes, rests_in_air=in_air))
    after = vacuum_left(vacuum * IN_HG, *sizes, np.array([stops, stops + 1.0]), rests_in_air=in_air)

    assert stops == 0 or after[0] >= least * IN_HG * (1 - 1e-8)
    assert after[1] < least * IN_HG


@pytest.mark.parametrize("stroke", [0.25, 0.5, 1.0])
def test_a_stroke_presses_what_is_in_front_of_the_diaphragm_together(stroke: float) -> None:
    """Boyle's law on the vacuum side alone, by hand; the whole stroke as the reference has it."""
    ambient, tank, swept, vacuum = 101325.0, 5e-3, 1.2e-3, 18 * IN_HG
    inside = (ambient - vacuum) * (tank + swept) / (tank + swept * (1 - stroke))
    at_end = vacuum_at_end(vacuum, ambient, tank, swept, stroke)

    assert at_end == pytest.approx(ambient - inside)
    if stroke == 1.0:
        assert at_end == pytest.approx(vacuum - (ambient - vacuum) * swept / tank)


def test_the_reservoir_of_a_build_and_the_foot_each_stop_takes() -> None:
    solution = solve(bed("bakery"))
    found = reserve(solution.build, solution.system, solution.standing)
    assert found is not None
    lost = 101325.0 * 0.9 / 6.9  # of 6 l and 0.9 l

    assert found.vacuum[:3] == pytest.approx(18 * IN_HG - lost * np.arange(3))
    assert found.stops == math.floor((18 - 10) * IN_HG / lost)
    weaker = bakery_with({"booster.vacuum": f"{found.at_end[0] / IN_HG:.9f} inHg"})
    assert found.at_end[0] < found.vacuum[0]
    assert found.effort[0] == pytest.approx(solve(weaker).wanted_effort, rel=1e-6)
    known = found.effort[np.isfinite(found.effort)]
    assert (np.diff(known) >= -1e-9).all()  # less vacuum never takes less foot
    assert reserve(bed("sprint"), solution.system, solution.standing) is None


def test_a_pump_holds_what_the_engine_does_not() -> None:
    weak = solve(bakery_with({"booster.vacuum": "10 inHg"}))
    pumped = solve(bakery_with({"booster.vacuum": "10 inHg", "booster.pump": "20 inHg"}))
    strong = solve(bakery_with({"booster.vacuum": "20 inHg"}))

    assert pumped.wanted_effort == pytest.approx(strong.wanted_effort)
    assert pumped.wanted_effort < weak.wanted_effort


@pytest.mark.parametrize(
    ("altitude", "ambient"), [(0, 101325), (1000, 89870), (2000, 79500), (3000, 70110)]
)
def test_thin_air_takes_from_the_vacuum_what_the_air_lacks(altitude: int, ambient: int) -> None:
    """ISO 2533, within 10 Pa."""
    left = vacuum_at(18 * IN_HG, altitude)

    assert left == pytest.approx(18 * IN_HG - (101325 - ambient), abs=10)
    assert air_pressure(altitude) - left == pytest.approx(101325 - 18 * IN_HG, abs=10)


@given(
    st.floats(1.0, 2e4), st.floats(0.0, 100.0), st.floats(0.0, 300.0), st.floats(1.0, 8.0),
    st.floats(0.0, 3e3),
)  # fmt: skip
def test_a_boosters_input_gives_its_output_back(
    output: float, crack: float, jump: float, gain: float, limit: float
) -> None:
    figures = {"crack_force": crack, "jump_in": jump, "gain": gain, "assist_limit": limit}
    pushrod = float(input_force(output, **figures))

    assert output_force(pushrod * (1 + 1e-9) + 1e-9, **figures) >= output * (1 - 1e-8)
    if pushrod > crack + 1e-6:
        assert output_force(pushrod, **figures) == pytest.approx(output, rel=1e-9)


def test_a_boosted_cylinder_on_a_manual_pedal_takes_1_44_times_the_effort() -> None:
    """Common practice: 1-1/8 in without its booster against a manual 15/16 in, (18/15)²."""
    assert effort_factor(1.125 * INCH, 0.9375 * INCH) == pytest.approx(1.44)


# --- hoses, fluids, lines ---


@pytest.mark.parametrize(
    ("name", "millilitres"),
    [
        ("1/8 in regular", 0.66), ("1/8 in low expansion", 0.33), ("3/16 in regular", 0.86),
        ("3/16 in low expansion", 0.55), ("over 3/16 in regular", 1.04),
        ("over 3/16 in low expansion", 0.82),
    ],
)  # fmt: skip
def test_fmvss_106_hose_expansion(name: str, millilitres: float) -> None:
    """49 CFR 571.106 (from memory): the largest expansion of a foot at 1,000 psi."""
    table = hose_table()
    (hose,) = [h for h in table.hoses if h.name == name]
    swelling = table.expansion(hose).value * FOOT * 1000 * PSI

    assert swelling == pytest.approx(millilitres * 1e-6, rel=2e-3)
    assert "FMVSS 106" in table.source


def test_shipped_hoses_swell_no_more_than_fmvss_106_allows() -> None:
    """49 CFR 571.106 (from memory): of the regular 1/8 in hose; the default is beneath it."""
    allowed = 0.66e-6 / FOOT / (1000 * PSI)

    assert bed("bakery").lines.hose_expansion.value <= allowed
    for name in ("sprint", "roadster", "mailvan"):
        assert bed(name).lines.hose_expansion.value <= allowed


@pytest.mark.parametrize(
    ("grade", "dry", "wet"),
    [("DOT 3", 205, 140), ("DOT 4", 230, 155), ("DOT 5", 260, 180), ("DOT 5.1", 260, 180)],
)
def test_fmvss_116_boiling_points(grade: str, dry: int, wet: int) -> None:
    """49 CFR 571.116 (from memory)."""
    row = fluid_table().fluids[grade]

    assert (row.dry.value, row.wet.value) == pytest.approx((dry + 273.15, wet + 273.15))


def test_windows_to_start_from_are_those_of_the_trade() -> None:
    """Common practice: 500 to 1,000 psi ordinary, 700 to 1,200 psi manual competition."""
    found = {
        (round(w.pressure[0].value / PSI), round(w.pressure[1].value / PSI))
        for w in window_table().windows
    }

    assert {(500, 1000), (700, 1200)} <= found
    assert "common practice" in window_table().source


@given(st.floats(0.01, 3.0), st.floats(0.5, 6.0), st.floats(1e-7, 2e-6), st.floats(2e-3, 6e-3))
def test_a_laminar_line_against_the_library_fluids(
    viscosity: float, length: float, flow: float, bore: float
) -> None:
    """`fluids`: Darcy's equation with its laminar friction factor, 64 over Reynolds' number."""
    density, speed = 1060.0, flow / (math.pi / 4 * bore**2)
    reynolds = fluids.Reynolds(V=speed, D=bore, rho=density, mu=viscosity)
    if reynolds > 2000:
        return
    factor = fluids.friction.friction_laminar(reynolds)
    resistance = fluids.K_from_f(fd=factor, L=length, D=bore)
    expected = fluids.dP_from_K(K=resistance, rho=density, V=speed)

    assert pressure_drop(viscosity, length, flow, bore) == pytest.approx(expected, rel=1e-9)


# --- heat ---


def test_one_stop_turns_its_energy_into_warmth() -> None:
    """1,000 kg from 30 m/s: 450 kJ; 70 % of it into two rotors of 7 kg of iron at 460 J/(kg K)."""
    assert rise_of_one_stop(1000.0, 30.0, 0.7, 7.0) == pytest.approx(315e3 / (14 * 460))


def test_a_series_of_stops_cools_in_between_by_newtons_law() -> None:
    rise, between, cooling, warm = 45.0, 60.0, 250.0, 0.0
    for peak in peaks_of_a_series(rise, 12, between, cooling):
        warm = warm * math.exp(-between / cooling) + rise
        assert peak == pytest.approx(warm)


@given(st.floats(5.0, 90.0), st.integers(2, 30), st.floats(5.0, 120.0), st.floats(20.0, 2000.0))
def test_a_measured_temperature_tells_the_cooling_time_back(
    rise: float, stops: int, between: float, cooling: float
) -> None:
    last = float(peaks_of_a_series(rise, stops, between, cooling)[-1])
    if not 1.001 * rise < last < 0.999 * rise * stops:
        return

    assert cooling_time_measured(rise, stops, between, last) == pytest.approx(cooling, rel=1e-3)


def test_a_temperature_no_cooling_explains_is_not_explained() -> None:
    found = cooling_time_measured(50.0, 10, 30.0, np.array([40.0, 600.0]))

    assert np.isnan(found).all()


# --- half failed ---


def drum_travel(build: Build, force: float) -> tuple[float, float, float]:
    """Deceleration [g], pad travel [m] and rear line [Pa] with the bakery's front lost, by hand."""
    area = math.pi / 4 * (1.125 * INCH) ** 2
    pressure = force / area
    line = min(pressure, 375 * PSI + 0.3 * (pressure - 375 * PSI))
    cylinder = math.pi / 4 * (0.875 * INCH) ** 2
    rear = 2 * 4.5 * (line - 70 * PSI) * cylinder * 5.5 * INCH / (14.1 * INCH)
    weight = 4000 * 4.4482216152605
    volume = 2 * (2 * cylinder * 0.9e-3 + 0.09e-12 * line)  # both shoes out, then both wheels
    volume += 14 * INCH * 0.30e-12 * line + 250e-6 / 1.8e9 * line
    live = 1.5e-3 + volume / area
    pad = 13.5 / 3.375 * (1e-3 + 0.7 * INCH + live)
    return rear / weight, pad, line


def test_half_failed_is_the_force_balance_written_out() -> None:
    """The bakery's front lost at 500 N: past run-out, the primary bottoms, the rear holds."""
    build = bed("bakery")
    pushrod = 500.0 * 4.0
    limit = math.pi / 4 * (8.5 * INCH) ** 2 * 18 * IN_HG
    force = pushrod - 25.0 + min(60.0 + 1.6 * (pushrod - 25.0), limit)
    z, pad, _ = drum_travel(build, force)
    front_lost = solve(build).half_failed[0]

    assert front_lost.z[0] == pytest.approx(z, rel=1e-9)
    assert front_lost.pedal_travel[0] == pytest.approx(pad, rel=1e-9)


def test_a_shuttle_that_shuts_leaves_more_pedal() -> None:
    """The dead chamber ends at the fluid that shuts the line: port travel and volume over area."""
    changes = {"warning_switch": "shuts", "shuttle_volume": "0.5 ml"}
    plain, shut = solve(bed("bakery")).half_failed[0], solve(bakery_with(changes)).half_failed[0]
    area = math.pi / 4 * (1.125 * INCH) ** 2
    saved = 0.7 * INCH - (1.5e-3 + 0.5e-6 / area)
    assert shut.shut_travel is not None

    assert shut.pedal_travel == pytest.approx(plain.pedal_travel)
    assert plain.pedal_travel[0] - shut.shut_travel[0] == pytest.approx(4.0 * saved)
    assert plain.shut_travel is None


# --- the launch ---


def most_held(build: Build, effort: float) -> float:
    """The largest torque at the driven hubs a free body holds, by linear programming.

    Unknown are the torque, what each axle's brakes take of it and the force through the road;
    wheels and vehicle stand still.
    """
    area = math.pi / 4 * INCH**2
    pressure = effort * 6.25 / area

    def torque(pistons: float) -> float:
        return 2 * 2 * 0.42 * pressure * pistons * math.pi / 4 * 4.6 * INCH

    front, rear = torque(0.063**2), torque(0.045**2)
    loads = 1480 * 4.4482216152605, 1420 * 4.4482216152605
    equal = [
        [1.0, -1.0, 0.0, -14.2 * INCH],  # driven wheels: torque = their brakes + road
        [0.0, 0.0, 1.0, -12.6 * INCH],  # other wheels: their brakes = road
    ]
    bounds = [(0, None), (0, rear), (0, front), (0, 1.2 * min(loads))]
    found = linprog([-1.0, 0.0, 0.0, 0.0], A_eq=equal, b_eq=[0.0, 0.0], bounds=bounds)
    return float(found.x[0])


def test_the_launch_is_held_as_a_free_body_says() -> None:
    build = bed("sprint")
    asked = 290 * 1.3558179483 * 1.8 * 1.8 * 4.1 * 0.9
    effort = brentq(lambda f: most_held(build, f) - asked, 10.0, 600.0, xtol=1e-9)
    held = solve(build).hold
    assert held is not None

    assert held.driven_torque == pytest.approx(asked, rel=1e-9)
    assert held.effort == pytest.approx(effort, rel=1e-7)
    assert held.pressure == pytest.approx(effort * 6.25 / (math.pi / 4 * INCH**2), rel=1e-7)
