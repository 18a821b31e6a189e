"""The height of the centre of gravity, from weighing with one axle raised.

Wheels free to turn, suspension blocked, on level ground; the axle that stays down is weighed.
"""

import numpy as np

from urgens.physics.arrays import Array, Floats

TRIED = 400  # lifts looked at for the least one that is exact enough
HIGHEST = 0.5  # of the wheelbase; nobody raises an axle further


def tangent(lift: Floats, wheelbase: Floats) -> Array:
    """Return the tangent of the angle the vehicle is tilted by [-].

    lift: how far the hubs of the raised axle are above those of the other [m]; wheelbase: [m].
    Source: geometry; the wheelbase is the hypotenuse.
    """
    sine = np.divide(lift, wheelbase)
    return np.asarray(sine / np.sqrt(1.0 - np.square(sine)))


def height(
    weight: Floats, wheelbase: Floats, rolling_radius: Floats, gained: Floats, lift: Floats
) -> Array:
    """Return the height of the centre of gravity [m] from one lifting.

    weight: of the vehicle [N]; wheelbase: [m]; rolling_radius: of the tyres [m]; gained: load the
    axle that stays down gains [N]; lift: how far the other axle's hubs are raised [m].
    Source: moments about the hubs of the axle that stays down.
    """
    rise = np.multiply(gained, wheelbase) / (weight * tangent(lift, wheelbase))
    return np.asarray(rolling_radius + rise)


def fitted_height(
    weight: float, wheelbase: float, rolling_radius: float, gained: Array, lift: Array
) -> float:
    """Return the height of the centre of gravity [m] from several liftings.

    weight: of the vehicle [N]; wheelbase: [m]; rolling_radius: [m]; gained: loads gained, shape
    (n,) [N]; lift: of the hubs, shape (n,) [m].
    Source: least squares on a line through the origin, gained load over tangent.
    """
    slope = weight * tangent(lift, wheelbase) / wheelbase  # N a metre of height above the hubs
    return float(rolling_radius + np.sum(slope * gained) / np.sum(np.square(slope)))


def height_error(
    weight: Floats,
    wheelbase: Floats,
    rise: Floats,
    lift: Floats,
    scale_error: Floats,
    lift_error: Floats,
) -> Array:
    """Return how far off the height of one lifting may be [m].

    weight: [N]; wheelbase: [m]; rise: height above the hubs [m]; lift: [m]; scale_error: ± of each
    of the two weighings [N]; lift_error: ± of the lift [m].
    Source: errors of independent readings, added as squares (first order).
    """
    tan = tangent(lift, wheelbase)
    from_scale = np.sqrt(2.0) * np.multiply(scale_error, wheelbase) / (weight * tan)
    # d(tan)/dH over tan is 1/H · 1/cos²; a lift read too large makes the height too small.
    from_lift = np.multiply(rise, lift_error) / lift * (1.0 + np.square(tan))
    return np.asarray(np.hypot(from_scale, from_lift))


def least_lift(
    weight: float,
    wheelbase: float,
    rise: float,
    scale_error: float,
    lift_error: float,
    wanted: float,
) -> float:
    """Return the smallest lift [m] whose height is off by no more than wanted; NaN if none is.

    weight: [N]; wheelbase: [m]; rise: height above the hubs, about [m]; scale_error: [N].
    lift_error: [m]; wanted: ± of the height [m].
    """
    lifts = np.linspace(0.0, HIGHEST * wheelbase, TRIED + 1)[1:]
    enough = height_error(weight, wheelbase, rise, lifts, scale_error, lift_error) <= wanted
    return float(lifts[int(np.argmax(enough))]) if enough.any() else float("nan")
