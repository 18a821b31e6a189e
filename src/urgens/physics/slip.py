"""A tyre that slips: its force along and across, up to a locked wheel.

Source: H. B. Pacejka, Tyre and Vehicle Dynamics, the magic formula and similarity of combined slip
(from memory).
"""

import math
from typing import NamedTuple

import numpy as np

from urgens.physics.arrays import Array, Floats

PEAK_SLIP = 0.12  # longitudinal slip of the peak [-]: assumed
PEAK_SIDE = math.sin(math.radians(8.0))  # of the angle to the side: assumed
MOST_KEPT = 0.99  # by a locked wheel: the curve needs a peak
_NARROW = 1.05
_WIDE = 1.95


class SlipCurve(NamedTuple):
    """Shape and stiffness factor of the curve over slip in units of its peak [-]."""

    shape: Floats
    stiffness: Floats


def curve(kept: float) -> SlipCurve:
    """Return the curve whose locked wheel keeps a share of the peak.

    kept: share of the coefficient that a locked wheel keeps [-]; taken as 0.99 at most.
    """
    wanted = min(kept, MOST_KEPT)
    low, high = _NARROW, _WIDE
    for _ in range(60):
        middle = 0.5 * (low + high)
        if float(share(1.0 / PEAK_SLIP, _of_shape(middle))) > wanted:
            low = middle
        else:
            high = middle
    return _of_shape(0.5 * (low + high))


def _of_shape(shape: float) -> SlipCurve:
    return SlipCurve(shape, math.tan(math.pi / (2.0 * shape)))


def share(slip: Floats, of: SlipCurve) -> Array:
    """Return the share of its coefficient that a tyre uses [-].

    slip: in units of the slip at the peak [-]; of: the curve.
    """
    return np.asarray(np.sin(of.shape * np.arctan(of.stiffness * np.asarray(slip, dtype=float))))
