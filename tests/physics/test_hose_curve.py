"""A hose between two ends: its length is kept, its bend is that of the curve."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from urgens.physics.hose_curve import HoseTooShortError, hose_curve

STRAIGHT = 0.025  # m; common practice


def long(points: np.ndarray) -> float:
    return float(np.linalg.norm(np.diff(points, axis=0), axis=1).sum())


@given(st.floats(0.05, 0.5), st.floats(-1.5, 1.5), st.floats(-1.5, 1.5), st.floats(1.2, 2.5))
def test_the_curve_is_as_long_as_the_hose_and_leaves_as_its_ends_point(
    apart: float, first: float, second: float, times: float
) -> None:
    length = apart * times + 4 * STRAIGHT
    found = hose_curve(apart, first, second, length, STRAIGHT)
    assert long(found.points) == pytest.approx(length, rel=2e-3)
    way = found.points[1] - found.points[0]
    assert np.arctan2(way[1], way[0]) == pytest.approx(first, abs=1e-6)
    way = found.points[-1] - found.points[-2]
    assert np.arctan2(way[1], way[0]) == pytest.approx(second, abs=1e-6)
    assert found.least_radius > 0


def test_a_taut_hose_is_straight() -> None:
    found = hose_curve(0.3, 0.0, 0.0, 0.3, STRAIGHT)
    assert np.abs(found.points[:, 1]).max() < 1e-9
    assert found.least_radius == np.inf


def test_both_ends_up_and_down_again_is_about_a_half_circle() -> None:
    """Ends that point square off, as far apart as a circle is wide: pi times the radius, by hand.

    A cubic is within a twentieth of its height, and bends up to an eighth more sharply.
    """
    radius = 0.06
    length = np.pi * radius + 2 * STRAIGHT
    found = hose_curve(2 * radius, np.pi / 2, -np.pi / 2, length, STRAIGHT)
    assert 0.85 * radius < found.least_radius < radius  # on the careful side
    top = found.points[:, 1].max()
    assert top == pytest.approx(radius + STRAIGHT, rel=0.05)


def test_one_that_does_not_reach_says_by_how_much() -> None:
    with pytest.raises(HoseTooShortError) as short:
        hose_curve(0.35, 0.0, 0.0, 0.30, STRAIGHT)
    assert short.value.by == pytest.approx(0.05)
