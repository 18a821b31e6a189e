"""The first rise of functions that are straight between steps, against interpolation."""

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from urgens.solve.bracket import first_rise, straight_rise

VALUES = st.lists(st.integers(-100, 100).filter(bool), min_size=2, max_size=8)


@given(st.lists(VALUES, min_size=1, max_size=3), st.floats(0.1, 50.0))
def test_it_is_where_the_polyline_first_reaches_zero(rows: list[list[int]], step: float) -> None:
    count = min(map(len, rows))
    tried = step * np.arange(count)
    values = [np.array(row[:count], dtype=float) for row in rows]
    over = np.max(values, axis=0)
    over[0] = min(over[0], -1.0)
    values = [np.minimum(row, over) for row in values]
    if not np.any(over >= 0.0):
        return

    found = straight_rise(tried, tuple(row[:, None] for row in values))[0]
    finely = np.linspace(0.0, tried[-1], 20_001)
    lines = np.max([np.interp(finely, tried, row) for row in values], axis=0)
    reached = finely[np.argmax(lines >= 0.0)]

    assert reached - tried[-1] / 10_000 <= found <= reached + 1e-9 * tried[-1]


def test_it_agrees_with_the_search_for_many_columns_and_one_that_does_not_depend_on_them() -> None:
    tried = np.array([0.0, 1.0, 4.0])
    one = np.array([-3.0, -2.0, 1.0])[:, None]  # of all columns alike
    other = np.array([[-5.0, -1.0], [-4.0, 1.0], [-3.0, 2.0]])

    found = straight_rise(tried, (one, other))

    def excess(at: np.ndarray) -> np.ndarray:
        every = [np.interp(at, tried, row) for row in other.T]
        return np.maximum(
            np.interp(at, tried, one[:, 0]), np.array([e[i] for i, e in enumerate(every)])
        )

    over = np.maximum(one, other)
    searched = first_rise(excess, tried, over, np.array([True, True]))
    np.testing.assert_allclose(found, searched, rtol=1e-9)
    np.testing.assert_allclose(found, [3.0, 0.5])  # by hand: 1 + 3 × 2/3, half way from -1 to 1
