"""Which figures can stand together: the rules between a build's fields, in numbers."""

import numpy as np

from urgens.document.engine_drag import drag_at_road, passed_at_rest
from urgens.document.kinds.boosters.vacuum import depression
from urgens.document.kinds.brakes import brake_kind
from urgens.document.kinds.cylinders import cylinder_kind
from urgens.document.kinds.valves import kind_of
from urgens.document.numeric import NumericBuild
from urgens.physics.arrays import Bools
from urgens.physics.atmosphere import air_pressure
from urgens.physics.axle import AXLES


def possible(reading: NumericBuild) -> Bools:
    """Return where the figures of a build go together, of their common shape.

    The rules of the document's parts, which hold for what is typed.
    """
    found: Bools = np.asarray(cylinder_kind(reading.part.master).possible(reading.of("master")))
    for axle in AXLES:
        brake = reading.of(axle).of("brake")
        found = found & brake_kind(brake.part).possible(brake)
        for valve in reading.of("valves").each(axle):
            found = found & kind_of(valve.part).possible(valve)
    found = found & np.less(drag_at_road(reading), passed_at_rest(reading))
    if reading.part.booster.by_vacuum:
        around = air_pressure(reading.of("vehicle")["altitude"])
        found = found & np.less_equal(depression(reading.of("booster")), around)
    return found
