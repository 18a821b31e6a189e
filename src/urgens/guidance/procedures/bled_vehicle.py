"""The fluid and the air in a vehicle, as strokes and bottles move them."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from math import ceil

import numpy as np

from urgens.guidance.procedures.step import Wheel
from urgens.guidance.procedures.ways import Ways
from urgens.physics.axle import AXLES, Axle, Pair
from urgens.physics.purge import Slug, Slugs, air_of, pushed, until_clear, volume_of
from urgens.solve.system import System

HALF = 0.5
ENOUGH = 1e-9  # of a stroke: what is left of one is none


@dataclass(frozen=True)
class Came:
    """What came out at a screw: fluid and air [m³]."""

    fluid: float = 0.0
    air: float = 0.0


@dataclass(frozen=True)
class BledVehicle:
    """What every line and part of the ways holds, and the air at dead ends of each wheel [m³].

    `kept` is what stays at a wheel whatever is pushed [m³]. A stand-in: nobody has seen it.
    """

    ways: Ways
    held: Mapping[str, Slugs]
    dead: Mapping[Wheel, float]
    kept: Mapping[Wheel, float]

    def way(self, wheel: Wheel) -> list[Slugs]:
        """Return what the way to a wheel holds, from the cylinder."""
        return [self.held[name] for name in self.ways.through[wheel]]

    def air_to(self, wheel: Wheel) -> float:
        """Return the air that strokes push out of the way to a wheel [m³].

        Source: by definition.
        """
        return sum(map(air_of, self.way(wheel)))

    def until_clear(self, wheel: Wheel) -> float:
        """Return how much has to go in until no air comes at a wheel [m³].

        Source: slugs that do not mix.
        """
        return until_clear(self.way(wheel))

    def strokes_until_clear(self, wheel: Wheel, swept: float) -> int:
        """Return how many strokes are wanted at a wheel; swept: by each [m³].

        Source: what stands behind the last air, over bore area times stroke.
        """
        return ceil(self.until_clear(wheel) / swept - ENOUGH) if swept > 0.0 else 0

    def given(self, wheel: Wheel, volume: float) -> tuple["BledVehicle", Came]:
        """Return it once fluid was pushed in, and what came out; volume: of it [m³].

        wheel: whose screw is open. Source: continuity of each part of the way.
        """
        moving: Slugs = (Slug(volume, 0.0),) if volume > 0.0 else ()
        held = dict(self.held)
        for name in self.ways.through[wheel]:
            held[name], moving = pushed(held[name], moving)
        air = air_of(moving)
        return replace(self, held=held), Came(volume_of(moving) - air, air)

    def cracked(self, wheels: Iterable[Wheel]) -> "BledVehicle":
        """Return it with dead ends let out; wheels: of their circuit."""
        return replace(self, dead={**self.dead, **dict.fromkeys(wheels, 0.0)})

    def air(self) -> Pair[float]:
        """Return the air in each axle's circuit [m³]; of what feeds both, half in each.

        Source: by definition.
        """
        found: dict[Axle, float] = {}
        of = {axle: [w for w in self.ways.through if w.startswith(axle)] for axle in AXLES}
        on = {axle: {name for w in wheels for name in self.ways.through[w]}
              for axle, wheels in of.items()}  # fmt: skip
        shared = on[Axle.FRONT] & on[Axle.REAR]
        for axle, wheels in of.items():
            lines = sum(air_of(self.held[name]) * (HALF if name in shared else 1.0)
                        for name in on[axle])  # fmt: skip
            found[axle] = lines + sum(self.dead[w] + self.kept[w] for w in wheels)
        return Pair(found[Axle.FRONT], found[Axle.REAR])


def dry(ways: Ways, wheels: Iterable[Wheel]) -> BledVehicle:
    """Return a vehicle whose ways to some wheels hold nothing but air.

    ways: of its layout; wheels: those whose lines were open. Source: by definition.
    """
    dried = [*wheels]
    empty = {name for wheel in dried for name in ways.through[wheel]}
    held = {
        name: (Slug(volume, 1.0 if name in empty else 0.0),) if volume > 0.0 else ()
        for name, volume in ways.holds.items()
    }
    stays = {wheel: volume if wheel in dried else 0.0 for wheel, volume in ways.kept.items()}
    # What stays at a wheel is there beside what can be pushed.
    for wheel in dried:
        brake = ways.through[wheel][-1]
        held[brake] = (Slug(ways.holds[brake] - stays[wheel], 1.0),)
    dead = {wheel: volume if wheel in dried else 0.0 for wheel, volume in ways.dead.items()}
    return BledVehicle(ways, held, dead, stays)


def with_air(system: System, air: Pair[float]) -> System:
    """Return a system with so much more air in each axle's circuit; air: at rest [m³].

    system: of the build. Source: `solve.travel`, which takes it by Boyle's law.
    """
    axles = Pair(*(
        replace(one, trapped_air=np.add(one.trapped_air, more))
        for one, more in zip(system.volumes.axles, air, strict=True)
    ))  # fmt: skip
    return replace(system, volumes=replace(system.volumes, axles=axles))
