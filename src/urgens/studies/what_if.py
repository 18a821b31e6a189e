"""What spoils a pedal's feel, laid over a build that does not change."""

from dataclasses import dataclass, replace

from urgens.document import Build
from urgens.document.kinds.brakes import piston_area
from urgens.physics.axle import AXLES, Pair
from urgens.solve.system import AxleFluid, System


@dataclass(frozen=True)
class WhatIf:
    """One axle's faults.

    Air in the line [m³]; how many times as soft its hoses and brakes are [-]; pads or shoes
    knocked back further by [m].
    """

    air: float = 0.0
    hose: float = 1.0
    brake: float = 1.0
    knock_back: float = 0.0


SOUND = WhatIf()


def supposed(build: Build, system: System, front: WhatIf, rear: WhatIf) -> System:
    """Return a system with faults.

    system: its system; front, rear: faults of an axle.
    Source: the volumes of `solve.travel`.
    """
    faults = Pair(front, rear)
    fluids = (
        _faulty(system.volumes.axles.of(axle), faults.of(axle), piston_area(build.axle(axle).brake))
        for axle in AXLES
    )
    return replace(system, volumes=replace(system.volumes, axles=Pair(*fluids)))


def _faulty(fluid: AxleFluid, fault: WhatIf, area: float) -> AxleFluid:
    return replace(
        fluid,
        trapped_air=fluid.trapped_air + fault.air,
        hose_length=fluid.hose_length * fault.hose,  # twice the swelling is twice the hose
        compliance=fluid.compliance * fault.brake,
        clearance_volume=fluid.clearance_volume + 2 * 2.0 * area * fault.knock_back,
    )
