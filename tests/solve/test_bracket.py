"""Many brackets at once: each is followed to its root, whatever the others have come to."""

import numpy as np
import pytest
from scipy.optimize import brentq

from urgens.physics.arrays import Array
from urgens.solve.bracket import crossing


def test_a_closed_bracket_whose_ends_have_the_same_value_holds_up_no_other() -> None:
    """Seen on a drawn vehicle: the halved lower end came to be exactly the upper one."""

    def cubic(x: float) -> float:
        return x**3 - 0.3

    def function(x: Array) -> Array:
        return np.array([-1e-9, cubic(float(x[1]))])  # the first is as good as at its root

    low, high = np.zeros(2), np.ones(2)
    found = crossing(function, low, high, np.array([-2e-9, -0.3]), np.array([1.0, 0.7]), 1e-6)

    assert found[1] == pytest.approx(brentq(cubic, 0.0, 1.0), abs=1e-5)
    assert 0.0 <= found[0] <= 1.0
