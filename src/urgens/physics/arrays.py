"""The array types of the physics."""

from typing import TypeAlias

import numpy as np
from numpy.typing import NDArray

Floats: TypeAlias = float | NDArray[np.float64]
Array: TypeAlias = NDArray[np.float64]
Bools: TypeAlias = NDArray[np.bool_]
