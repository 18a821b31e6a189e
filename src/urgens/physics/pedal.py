"""The pedal: a lever between foot and pushrod."""

import numpy as np

from urgens.physics.arrays import Array, Floats


def ratio(pivot_to_pad: Floats, pivot_to_pushrod: Floats) -> Array:
    """Return the pedal ratio [-].

    pivot_to_pad: pivot to the middle of the pad [m].
    pivot_to_pushrod: pivot to the pushrod pin [m].
    Source: lever law.
    """
    return np.asarray(np.divide(pivot_to_pad, pivot_to_pushrod))


def pushrod_force(effort: Floats, pedal_ratio: Floats, efficiency: Floats = 1.0) -> Array:
    """Return the force on the pushrod [N].

    effort: foot force, square to the pad's arm [N].
    pedal_ratio: pivot to pad over pivot to pushrod [-].
    efficiency: share of the force that friction leaves [-].
    Source: moments about the pivot.
    """
    return np.asarray(np.multiply(efficiency, np.multiply(pedal_ratio, effort)))
