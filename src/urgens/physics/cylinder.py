"""Master cylinders: force to pressure, the step of two bores, the bar between two cylinders."""

from dataclasses import dataclass, replace

import numpy as np

from urgens.physics.arrays import Array, Floats


@dataclass(frozen=True)
class Step:
    """The large bore of a stepped cylinder [m²], and the pressure up to which it works [Pa]."""

    area: Floats
    relief: Floats


@dataclass(frozen=True)
class Cylinder:
    """What makes one circuit's pressure: share of the force [-], bore [m²], preload [N].

    `step` is what works below a pressure, `area` then the small bore; None where there is one bore.
    """

    share: Floats
    area: Floats
    spring_preload: Floats
    efficiency: Floats
    step: Step | None = None

    def sized(self, share: Floats) -> "Cylinder":
        """Return it with all its bores' areas by a share; share: of the areas that it has [-].

        Source: by definition.
        """
        return replace(self, area=self.area * share, step=_sized(self.step, share))


@dataclass(frozen=True)
class Chamber:
    """One chamber of the cylinder: share of each axle it feeds [-], bore [m²], stroke [m].

    `lever` is how much of its stroke the pushrod moves [-]. `step` is a large bore that works first
    and fills every circuit behind it, or its own alone where the other is lost.
    """

    front_part: float
    rear_part: float
    area: Floats
    stroke: Floats
    lever: Floats
    step: Step | None = None
    fills_all: bool = True

    @property
    def first_area(self) -> Floats:
        """The bore that moves fluid while nothing holds against it [m²]."""
        return self.area if self.step is None else self.step.area

    def sized(self, share: Floats) -> "Chamber":
        """Return it with all its bores' areas by a share; share: of the areas that it has [-].

        Source: by definition.
        """
        return replace(self, area=self.area * share, step=_sized(self.step, share))


def _sized(step: Step | None, share: Floats) -> Step | None:
    return None if step is None else replace(step, area=step.area * share)


def bore_area(diameter: Floats) -> Array:
    """Return the area of a round bore or piston [m²].

    diameter: [m].
    Source: geometry.
    """
    return np.asarray(np.pi / 4.0 * np.square(diameter))


def pressure(
    force: Floats,
    area: Floats,
    spring_preload: Floats = 0.0,
    efficiency: Floats = 1.0,
    step: Step | None = None,
) -> Array:
    """Return the line pressure [Pa] a cylinder makes.

    force: on its piston [N].
    area: of its bore, the small one of two [m²].
    spring_preload: of its return spring [N].
    efficiency: share of the force that seal friction leaves [-].
    step: its large bore, None where there is one bore.
    Source: Pascal's law; with two bores the balance of forces on both, the large one's pressure no
    higher than its relief.
    """
    left = efficiency * np.maximum(np.subtract(force, spring_preload), 0.0)
    if step is None:
        return np.asarray(left / area)
    ring = np.subtract(step.area, area)
    return np.maximum(left / step.area, (left - step.relief * ring) / area)


def force_for(cylinder: Cylinder, pressure: Floats) -> Array:
    """Return the force on a piston [N] that makes a pressure; source: as `pressure`, turned round.

    cylinder: whose piston; pressure: any shape [Pa].
    """
    left = np.multiply(pressure, cylinder.area)
    if cylinder.step is not None:
        ring = np.subtract(cylinder.step.area, cylinder.area)
        left = left + np.minimum(pressure, cylinder.step.relief) * ring
    return np.asarray(left / cylinder.efficiency + cylinder.spring_preload)


def way(chamber: Chamber, taken: Array, at_relief: Array) -> Array:
    """Return how far a stepped piston goes for the fluid that it moves [m].

    chamber: with a step; taken: all that it moves, any shape [m³]; at_relief: what of it is taken
    until the large bore's relief opens, any shape [m³]. Raises ValueError where there is no step.
    Source: continuity: the large bore fills until its relief opens, the small one from there on.
    """
    if chamber.step is None:
        raise ValueError("there is no step")
    return np.asarray(at_relief / chamber.step.area + (taken - at_relief) / chamber.area)


def bar_shares(bar_length: Floats, bar_offset: Floats) -> tuple[Array, Array]:
    """Return the shares [-] of the force that go to the front and the rear cylinder.

    bar_length: between the two rods [m].
    bar_offset: bearing from the middle, towards the front cylinder positive [m].
    Source: moments about the bearing.
    """
    lean = np.divide(bar_offset, bar_length)
    return np.asarray(0.5 + lean), np.asarray(0.5 - lean)
