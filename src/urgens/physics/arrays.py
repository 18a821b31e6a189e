"""The array types of the physics."""

from typing import TypeAlias, cast

import numpy as np
from numpy.typing import NDArray

Floats: TypeAlias = float | NDArray[np.float64]
Array: TypeAlias = NDArray[np.float64]
Bools: TypeAlias = NDArray[np.bool_]


def figure(value: Array) -> float:
    """Return a figure as a plain number, or as the array it is.

    value: any shape [any]. What one build has is a number, what many have an array; both go where a
    number goes.
    """
    return float(value) if value.ndim == 0 else cast(float, value)
