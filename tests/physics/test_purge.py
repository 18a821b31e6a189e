"""Slugs of fluid and air in a line, against sums by hand and a textbook's law."""

from math import pi

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from urgens.physics.purge import (
    Slug,
    air_of,
    flow_by_pressure,
    head,
    pushed,
    until_clear,
    volume_of,
)

SHARES = st.floats(0.0, 1.0)
VOLUMES = st.floats(1e-9, 1e-4)
LINES = st.lists(st.tuples(VOLUMES, SHARES), min_size=1, max_size=6).map(
    lambda rows: tuple(Slug(*row) for row in rows)
)


@given(held=LINES, entering=LINES)
def test_volume_and_air_are_neither_made_nor_lost(
    held: tuple[Slug, ...], entering: tuple[Slug, ...]
) -> None:
    inside, left = pushed(held, entering)
    assert volume_of(inside) == pytest.approx(volume_of(held), rel=1e-9)
    assert volume_of(left) == pytest.approx(volume_of(entering), rel=1e-9)
    assert air_of(inside) + air_of(left) == pytest.approx(
        air_of(held) + air_of(entering), rel=1e-9, abs=1e-18
    )
    assert all(slug.volume > 0.0 and 0.0 <= slug.air <= 1.0 for slug in (*inside, *left))


@given(held=LINES, first=VOLUMES, second=VOLUMES)
def test_more_fluid_never_leaves_more_air(
    held: tuple[Slug, ...], first: float, second: float
) -> None:
    once, _ = pushed(held, (Slug(first, 0.0),))
    twice, _ = pushed(once, (Slug(second, 0.0),))
    assert air_of(twice) <= air_of(once) + 1e-18 <= air_of(held) + 2e-18
    assert until_clear([twice]) <= until_clear([once]) + 1e-15


def test_a_plain_line_is_clear_when_it_has_been_filled_once() -> None:
    """10 ml of air: after 4 ml of fluid 6 ml are left, and 10 ml in all have to go in; by hand."""
    line = (Slug(10e-6, 1.0),)
    assert until_clear([line]) == pytest.approx(10e-6)
    inside, left = pushed(line, (Slug(4e-6, 0.0),))
    assert inside == (Slug(4e-6, 0.0), Slug(pytest.approx(6e-6), 1.0))
    assert left == (Slug(pytest.approx(4e-6), 1.0),)
    assert until_clear([inside]) == pytest.approx(6e-6 + 0.0)


def test_what_stands_before_the_air_has_to_go_out_as_well() -> None:
    """Air at the beginning of two lines of 3 and 5 ml: all 8 ml go through; by hand."""
    lines = [(Slug(1e-6, 1.0), Slug(2e-6, 0.0)), (Slug(5e-6, 0.0),)]
    assert until_clear(lines) == pytest.approx(8e-6)
    assert until_clear([(Slug(3e-6, 0.0),), (Slug(5e-6, 0.0),)]) == 0.0


def test_what_runs_by_itself_follows_hagen_poiseuille() -> None:
    """Q = π r⁴ Δp / (8 μ L) (White, Fluid Mechanics, from memory); of two tubes losses add up."""
    pressure, viscosity = 5e3, 0.015
    length, bore = np.array([2.0]), np.array([3.3e-3])
    one = pi * (bore[0] / 2.0) ** 4 * pressure / (8.0 * viscosity * length[0])
    assert flow_by_pressure(pressure, length, bore, viscosity) == pytest.approx(one)
    both = flow_by_pressure(pressure, np.array([2.0, 2.0]), np.array([3.3e-3, 3.3e-3]), viscosity)
    assert both == pytest.approx(one / 2.0)
    assert flow_by_pressure(2.0 * pressure, length, bore, viscosity) == pytest.approx(2.0 * one)


def test_half_a_metre_of_fluid_presses_by_its_weight() -> None:
    """1,060 kg/m³ · 9.81 m/s² · 0.5 m = 5,199 Pa, by hand."""
    assert head(0.5, 1060.0) == pytest.approx(5199.3)
