"""How much air a pedal's travel tells of, worked back from the travel the build should have."""

from dataclasses import dataclass

import numpy as np

from urgens.physics.arrays import Array, Floats
from urgens.physics.axle import AXLES, Axle, Pair
from urgens.physics.valve_law import at_rest
from urgens.physics.vehicle import StaticVehicle
from urgens.physics.volume import air_volume
from urgens.solve.line_pressure import booster_output, line_pressures, pushrod_force
from urgens.solve.system import System
from urgens.solve.travel import travel

READ_WITHIN = 0.002  # m: pad travel by a rule held beside the pedal; common practice


@dataclass(frozen=True)
class TrappedAir:
    """Travel the standing vehicle should have and what was read beyond it [m].

    `air`: what would take that, if all of it were in that axle's circuit [m³]; `error`: what the
    reading leaves open of it, either way [m³]. NaN where a press does not reach that circuit.
    """

    computed: Array
    extra: Array
    air: Pair[Array]
    error: Pair[Array]


def trapped_air(
    system: System,
    standing: StaticVehicle,
    effort: Floats,
    pad: Floats,
    within: float = READ_WITHIN,
) -> TrappedAir:
    """Return what travels that were read at known efforts tell of air.

    system: the system; standing: one load case [N, -]; effort: foot forces, any shape [N]; pad:
    travels read at them [m]; within: how closely they were read [m].
    Air takes volume by Boyle's law beside everything else, so that it is found in one step. Air
    that the build already supposes counts as computed.
    Source: continuity of each chamber, as `solve.travel`; Boyle's law.
    """
    effort, pad = np.broadcast_arrays(np.asarray(effort, float), np.asarray(pad, float))
    output = booster_output(system, pushrod_force(system, effort))
    lines = line_pressures(system, output, at_rest(standing))
    computed = travel(system, effort, lines.front, lines.rear).pad
    extra = pad - computed
    pressures = Pair(lines.front, lines.rear)
    per_air = Pair(*(_per_air(system, axle, pressures.of(axle)) for axle in AXLES))
    with np.errstate(divide="ignore", invalid="ignore"):
        air = Pair(*(np.where(one > 0.0, extra / one, np.nan) for one in per_air))
        error = Pair(*(np.where(one > 0.0, within / one, np.nan) for one in per_air))
    return TrappedAir(computed, extra, air, error)


def _per_air(system: System, axle: Axle, pressure: Array) -> Array:
    """Return the pad travel [m] that each m³ of air in an axle's circuit takes."""
    share = air_volume(pressure, 1.0)
    pushed = np.zeros_like(share)
    for chamber in system.volumes.chambers:
        part = chamber.front_part if axle is Axle.FRONT else chamber.rear_part
        pushed = pushed + chamber.lever * part * share / chamber.area
    return np.asarray(system.pedal_ratio * pushed)
