"""What the foot feels at one effort, and what the cylinder has left."""

from dataclasses import dataclass

import numpy as np

from urgens.document import Build
from urgens.document.kinds.brakes import piston_area
from urgens.document.kinds.brakes.disc import Disc
from urgens.physics.arrays import Array
from urgens.physics.axle import Axle
from urgens.physics.vehicle import StaticVehicle
from urgens.physics.volume import wear_volume
from urgens.solve.line_pressure import pushrod_force
from urgens.solve.rolling_forces import rolling_lines
from urgens.solve.system import System
from urgens.solve.travel import strokes, travel

NEAR = 0.01  # of the effort, between which the slope is taken


@dataclass(frozen=True)
class Feel:
    """Pad travel [m], its slope [N/m], shares of the chambers' strokes used [-], way left [m].

    Travel and slope are those of the fluid, whatever ends first; `strokes` are in m. The chambers
    are in the order of the system's.
    """

    travel: float
    slope: float
    strokes: tuple[float, ...]
    used: tuple[float, ...]
    left: float


def feel(system: System, standing: StaticVehicle, effort: float) -> Feel:
    """Return what the foot feels.

    system: the system; standing: one load case [N, -]; effort: foot force, above zero [N].

    As `solve.travel`; slope between efforts close by.
    """
    efforts = effort * np.array([1.0 - NEAR, 1.0, 1.0 + NEAR])
    lines = rolling_lines(system, pushrod_force(system, efforts), standing)
    pad: Array = travel(system, efforts, lines.front, lines.rear).pad
    rise = float(pad[2] - pad[0])
    taken = tuple(
        float(np.broadcast_to(stroke, (3,))[1])
        for stroke in strokes(system, lines.front, lines.rear)
    )
    chambers = system.volumes.chambers
    return Feel(
        travel=float(pad[1]),
        slope=float(efforts[2] - efforts[0]) / rise if rise > 0 else float("inf"),
        strokes=taken,
        used=tuple(s / float(c.stroke) for s, c in zip(taken, chambers, strict=True)),
        left=float(system.volumes.floor) - float(pad[1]),
    )


def worn_volume(build: Build, axle: Axle) -> float | None:
    """Return what an axle draws from the reservoir as its pads wear out [m³]; both wheels.

    axle: which [-].
    None on a drum, whose shoes are adjusted, and where the pads' thickness is not known.
    """
    brake = build.axle(axle).brake
    if not isinstance(brake, Disc) or brake.pad_thickness is None:
        return None
    return 2.0 * float(wear_volume(piston_area(brake), brake.pad_thickness.value))
