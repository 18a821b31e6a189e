"""Figures of published rules, for the builder's own comparison only."""

import numpy as np

from urgens.physics.arrays import Array, Bools, Floats

ADHESION_RANGE = (0.2, 0.8)  # [-], UN R13-H Annex 5 (from memory)
DECELERATION_RANGE = (0.15, 0.8)  # [g], UN R13-H Annex 5 (from memory)
TOLERANCE = 1e-9  # [-]


def adhesion_allowed(deceleration: Floats) -> Array:
    """Return the largest adhesion used [-] that Annex 5 allows for k of 0.2 to 0.8.

    deceleration: [g].
    Source: UN Regulation No. 13-H, Annex 5 (from memory).
    """
    return np.asarray((np.asarray(deceleration, dtype=float) + 0.04) / 0.7)


def above_limit(used: Floats, deceleration: Floats) -> Bools:
    """Return where an axle uses more adhesion than Annex 5 allows.

    used: adhesion used by the axle [-], NaN where it carries nothing.
    deceleration: [g].
    Source: UN Regulation No. 13-H, Annex 5 (from memory).
    """
    low, high = ADHESION_RANGE
    counts = np.greater_equal(used, low - TOLERANCE) & np.less_equal(used, high + TOLERANCE)
    return np.asarray(counts & (used > adhesion_allowed(deceleration) + TOLERANCE))
