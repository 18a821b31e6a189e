"""The pedal's linkage against the constraint integrated numerically, and against geometry."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.integrate import solve_ivp
from scipy.optimize import brentq

from tests.builds import bakery_with
from urgens.physics.linkage import rest_with_pin_moved, swung
from urgens.studies.pedal_linkage import linkage, metal_between

PAD = 0.30  # m


def integrated(pin: float, rest: float, rod: float, axis: float, swing: float) -> float:
    """The rod end's way from the constraint |pin - end| = rod, by its own differential equation.

    x forwards along the cylinder's line, y square to it; the pivot is the origin.
    """

    def place(phi: float) -> np.ndarray:
        return np.array([-pin * np.sin(rest - phi), pin * np.cos(rest - phi)])

    def speed(phi: float) -> np.ndarray:
        return np.array([pin * np.cos(rest - phi), pin * np.sin(rest - phi)])

    def rate(phi: float, end: np.ndarray) -> list[float]:
        apart = place(phi) - np.array([end[0], axis])
        return [float(apart @ speed(phi) / apart[0])]

    start = place(0.0)
    first = start[0] + np.sqrt(rod**2 - (axis - start[1]) ** 2)
    found = solve_ivp(rate, (0.0, swing), [first], rtol=1e-11, atol=1e-14)
    return float(found.y[0, -1] - first)


@given(
    st.floats(0.03, 0.1), st.floats(-0.6, 0.9), st.floats(0.12, 0.3),
    st.floats(-0.02, 0.02), st.floats(0.02, 0.45),
)  # fmt: skip
def test_rod_travel_is_the_integrated_constraint(
    pin: float, rest: float, rod: float, off: float, swing: float
) -> None:
    axis = pin * np.cos(rest) + off
    found = swung(PAD, pin, rest, swing, rod, axis)

    assert found.rod_travel == pytest.approx(integrated(pin, rest, rod, axis, swing), abs=1e-9)


@given(st.floats(0.03, 0.1), st.floats(-0.4, 0.6), st.floats(0.12, 0.3), st.floats(0.0, 0.4))
def test_the_ratio_is_pad_travel_over_rod_travel(
    pin: float, rest: float, rod: float, swing: float
) -> None:
    step = 1e-6
    near = swung(PAD, pin, rest, np.array([swing - step, swing, swing + step]), rod)
    by_difference = PAD * 2 * step / (near.rod_travel[2] - near.rod_travel[0])

    assert near.ratio[1] == pytest.approx(by_difference, rel=1e-5)


def test_square_to_the_rod_the_ratio_is_arm_over_arm() -> None:
    """The lever law: both lengths square to their forces."""
    assert swung(PAD, 0.05, 0.0, 0.0, 0.15).ratio == pytest.approx(6.0)
    assert swung(PAD, 0.05, 0.3, 0.3).ratio == pytest.approx(6.0)  # swung upright, endless rod


def test_where_the_rod_does_not_reach_there_is_no_figure() -> None:
    found = swung(PAD, 0.08, 0.0, 1.2, 0.05)

    assert np.isnan(found.rod_travel)
    assert np.isnan(found.ratio)


def test_past_its_dead_point_a_pedal_pushes_no_more() -> None:
    assert np.isnan(swung(PAD, 0.05, 0.0, 1.7).ratio)  # 97° on, an endless rod


@given(st.floats(0.03, 0.09), st.floats(-0.3, 0.6), st.floats(0.14, 0.3), st.floats(0.8, 1.25))
def test_the_same_rod_in_another_hole_is_as_long_as_before(
    pin: float, rest: float, rod: float, share: float
) -> None:
    """Two circles meet; found again by bisection on the distance between pin and rod's end."""
    axis = pin * np.cos(rest)
    end = np.array([-pin * np.sin(rest) + rod, axis])
    moved = share * pin

    def longer(angle: float) -> float:
        at = moved * np.array([-np.sin(angle), np.cos(angle)])
        return float(np.hypot(*(end - at)) - rod)

    expected = brentq(longer, rest - 0.9, rest + 0.9, xtol=1e-13)

    assert rest_with_pin_moved(pin, rest, moved, rod) == pytest.approx(expected, abs=1e-9)


def test_a_build_tells_ratio_at_rest_mid_stroke_and_floor() -> None:
    """Arms of 300 and 60 mm, 20° and 20°, endless rod: a over b cos of the angle left."""
    build = bakery_with(
        {
            "pedal": {
                "pivot_to_pad": "300 mm",
                "pivot_to_pushrod": "60 mm",
                "travel_available": "120 mm",
                "angles": {"pad": "20 deg", "pushrod": "20 deg"},
            }
        }
    )
    found = linkage(build)
    assert found is not None
    swing = np.array([0.0, 0.2, 0.4])

    assert found.swing == pytest.approx(swing)
    assert found.ratio == pytest.approx(5.0 / np.cos(np.radians(20) - swing))
    assert linkage(bakery_with({"pedal.angles": None})) is None


def test_a_slope_of_the_cylinder_counts_as_so_much_of_the_arm() -> None:
    """Tilting pedal and cylinder together changes nothing."""
    level = bakery_with({"pedal.angles": {"pad": "30 deg", "pushrod": "17 deg"}})
    tilted = bakery_with(
        {"pedal.angles": {"pad": "27 deg", "pushrod": "14 deg", "cylinder": "3 deg"}}
    )
    one, other = linkage(level), linkage(tilted)
    assert one is not None
    assert other is not None

    assert one.ratio == pytest.approx(other.ratio)


def test_a_pin_nearer_to_the_pivot_lets_the_pad_rest_elsewhere() -> None:
    build = bakery_with({"pedal.pivot_to_pushrod": "2-1/2 in"})
    found = linkage(build)
    assert found is not None

    assert abs(found.pad_moved) > 1e-3
    assert found.ratio[0] > 5.0


def test_metal_between_holes_is_counted_from_their_edges() -> None:
    """Common practice asks for a hole's width of it; here only the geometry: 2 in less 3/8 in."""
    build = bakery_with({"pedal.holes": ["3 in"], "pedal.hole_diameter": "3/8 in"})
    metal = metal_between(build, 1.0 * 0.0254)

    assert metal == pytest.approx(np.array([0.625, 1.625]) * 0.0254)
