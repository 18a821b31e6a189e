"""The fit of a valve's line, beside a second way of finding it, and its limits on many vehicles."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.optimize import least_squares

from tests.builds import gauge_run
from urgens.bench.gauges.simulated_gauges import readings
from urgens.bench.plant.plant import plant
from urgens.document import demo
from urgens.studies.expected_pressures import expected, schedule
from urgens.studies.valve_line_fit import fit_bends, fit_hinge, fit_two_hinges
from urgens.studies.valve_verdict import rising

PSI = 6894.757


def law(inlet: np.ndarray, knee: float, slope: float, offset: float) -> np.ndarray:
    """The law as the reference says it: out = in − o up to the knee, then slope s."""
    return np.where(inlet <= knee, inlet - offset, knee - offset + slope * (inlet - knee))


@settings(max_examples=40)
@given(
    knee=st.floats(15.0, 60.0),
    slope=st.floats(0.0, 0.7),
    offset=st.floats(-2.0, 2.0),
    seed=st.integers(0, 10_000),
)
def test_no_start_value_finds_less_than_the_fit_leaves_over(
    knee: float, slope: float, offset: float, seed: int
) -> None:
    chance = np.random.default_rng(seed)
    inlet = np.sort(chance.uniform(3.0, 90.0, 12))
    outlet = law(inlet, knee, slope, offset) + chance.normal(0.0, 0.4, 12)
    fit = fit_hinge(inlet, outlet)

    tried = [
        least_squares(lambda x: law(inlet, *x) - outlet, start).cost * 2.0
        for start in ([k, s, 0.0] for k in np.linspace(8.0, 80.0, 9) for s in (0.1, 0.5))
    ]
    assert fit.squares <= min(tried) * (1.0 + 1e-6) + 1e-9
    assert np.square(fit.outlet(inlet) - outlet).sum() == pytest.approx(fit.squares, rel=1e-6)


def test_exact_readings_give_the_exact_line() -> None:
    inlet = np.arange(1.0, 13.0)
    fit = fit_hinge(inlet, law(inlet, 4.3, 0.45, 0.2))
    assert (fit.knee, fit.slope, fit.offset) == pytest.approx((4.3, 0.45, 0.2))


@pytest.mark.parametrize(("name", "scale"), [("library", 1500 * PSI), ("roadster", 1500 * PSI)])
def test_limits_hold_the_true_knee_and_slope_of_most_vehicles(name: str, scale: float) -> None:
    """Of 200 vehicles, 95 % limits hold 90 to 99 %: what limits mean."""
    from urgens.studies.valve_verdict import read_valve

    build = demo(name)
    wanted = expected(build, "rear[0]")
    at = schedule(wanted, scale, PSI)
    knees, slopes = [], []
    for seed in range(100):
        real = plant(build, seed)
        chance = np.random.default_rng(seed)
        points = readings(real, "rear[0]", at, np.empty(0), scale, 1.6, chance)
        fit = read_valve(gauge_run("rear[0]", scale, 1.6, points), wanted).fitted
        assert fit is not None
        truth = real.system.valves.rear[0]
        knees.append(fit.knee_limits[0] <= truth.knee(wanted.felt) <= fit.knee_limits[1])
        slopes.append(fit.slope_limits[0] <= truth.slope <= fit.slope_limits[1])
    assert 0.90 <= np.mean(knees) <= 0.99
    assert 0.90 <= np.mean(slopes) <= 0.99


def test_two_knees_are_found_where_they_are() -> None:
    inlet = np.linspace(2.0, 90.0, 23)
    once = np.minimum(inlet, 20.0 + 0.5 * (inlet - 20.0))
    outlet = np.minimum(once, 35.0 + 0.4 * (once - 35.0))  # from 50 in: 0.5 × 0.4 is left
    two = fit_two_hinges(inlet, outlet)
    assert two.knees == pytest.approx((20.0, 50.0), abs=0.2)
    assert two.slopes == pytest.approx((0.5, 0.2), abs=0.01)


@pytest.mark.parametrize("start", [1.0, 1.3])  # of twin cylinders: the lines' bores differ
def test_a_bend_of_two_lines_is_told_at_the_pressure_that_the_valve_sees(start: float) -> None:
    front = np.linspace(0.5, 60.0, 120)
    into = start * front
    rear = np.minimum(into, 25.0 + 0.4 * (into - 25.0))
    bend, _ = fit_bends(front[None], rear)
    assert bend.knee == pytest.approx(25.0, rel=0.02)
    assert bend.slope == pytest.approx(0.4, abs=0.02)
    assert bend.bends
    assert not fit_bends(front[None], into + 0.01 * np.sin(7.0 * front))[0].bends


def test_too_few_readings_are_refused() -> None:
    with pytest.raises(ValueError, match="four readings"):
        fit_hinge(np.array([1.0, 2.0, 3.0]), np.array([1.0, 2.0, 2.5]))
    with pytest.raises(ValueError, match="eight"):
        fit_bends(np.ones((1, 9)), np.ones(9))


def test_readings_of_a_run_are_told_by_the_way_they_were_read() -> None:
    run = gauge_run("rear[0]", 1e7, 1.6, [(1e6, 1e6, "rising"), (2e6, 1.5e6, "falling")])
    assert rising(run)[0].tolist() == [1e6]
