"""Master cylinders: force to pressure, and the balance bar between two of them."""

from dataclasses import dataclass

import numpy as np

from urgens.physics.arrays import Array, Floats


@dataclass(frozen=True)
class Cylinder:
    """What makes one circuit's pressure: share of the force [-], bore [m²], preload [N]."""

    share: Floats
    area: Floats
    spring_preload: Floats
    efficiency: Floats


@dataclass(frozen=True)
class Chamber:
    """One chamber of the cylinder: share of each axle it feeds [-], bore [m²], stroke [m].

    `lever` is how much of its stroke the pushrod moves [-].
    """

    front_part: float
    rear_part: float
    area: Floats
    stroke: Floats
    lever: Floats


def bore_area(diameter: Floats) -> Array:
    """Return the area of a round bore or piston [m²].

    diameter: [m].
    Source: geometry.
    """
    return np.asarray(np.pi / 4.0 * np.square(diameter))


def pressure(
    force: Floats, area: Floats, spring_preload: Floats = 0.0, efficiency: Floats = 1.0
) -> Array:
    """Return the line pressure [Pa] a cylinder makes.

    force: on its piston [N].
    area: of its bore [m²].
    spring_preload: of its return spring [N].
    efficiency: share of the force that seal friction leaves [-].
    Source: Pascal's law.
    """
    return np.asarray(efficiency * np.maximum(np.subtract(force, spring_preload), 0.0) / area)


def bar_shares(bar_length: Floats, bar_offset: Floats) -> tuple[Array, Array]:
    """Return the shares [-] of the force that go to the front and the rear cylinder.

    bar_length: between the two rods [m].
    bar_offset: bearing from the middle, towards the front cylinder positive [m].
    Source: moments about the bearing.
    """
    lean = np.divide(bar_offset, bar_length)
    return np.asarray(0.5 + lean), np.asarray(0.5 - lean)
