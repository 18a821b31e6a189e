"""What the engine brakes at the driven axle, and how much of it the tyres there can pass."""

from typing import TYPE_CHECKING

import numpy as np

from urgens.document.numeric import NumericBuild
from urgens.document.wheel_ends import rolling_radius
from urgens.physics.arrays import Floats
from urgens.physics.axle import Axle

if TYPE_CHECKING:
    from urgens.document.vehicle import VehicleSection


def driven_axle(vehicle: "VehicleSection") -> Axle:
    """Return which axle is driven: known from the launch figures, else taken as the rear.

    vehicle: of the document. Source: by definition.
    """
    return Axle.REAR if vehicle.launch is None else Axle(vehicle.launch.driven)


def drag_at_road(reading: NumericBuild) -> Floats:
    """Return the engine's drag at the road [N].

    reading: of the build. Source: torque over rolling radius.
    """
    tyre = reading.of(driven_axle(reading.part.vehicle)).of("tyre")
    force: Floats = np.divide(reading.of("vehicle")["engine_drag"], rolling_radius(tyre))
    return force


def passed_at_rest(reading: NumericBuild) -> Floats:
    """Return the most drag that the driven axle's tyres pass on the target road [N].

    reading: of the build.

    Coefficient times load, in the load case with least.
    """
    driven = driven_axle(reading.part.vehicle)
    cases = reading.of("vehicle").each("load_cases")
    loads = [case["front_axle" if driven == Axle.FRONT else "rear_axle"] for case in cases]
    grip = reading.of(driven).of("tyre")["grip"] * reading.of("targets")["surface"]
    least: Floats = grip * np.min(np.stack(np.broadcast_arrays(*loads)), axis=0)
    return least
