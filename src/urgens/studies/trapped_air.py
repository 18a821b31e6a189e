"""How much air a pedal's travel tells of, worked back from the travel the build should have."""

from dataclasses import dataclass, replace

import numpy as np

from urgens.physics.arrays import Array, Floats
from urgens.physics.axle import AXLES, Axle, Pair
from urgens.physics.valve_law import at_rest
from urgens.physics.vehicle import StaticVehicle
from urgens.solve.bracket import crossing
from urgens.solve.line_pressure import (
    LinePressures,
    booster_output,
    line_pressures,
    pushrod_force,
)
from urgens.solve.system import System
from urgens.solve.travel import travel

MOST = 1e-3  # m³ of air that is looked for
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
    slopes = Pair(*(_slope(system, axle, lines, effort) for axle in AXLES))
    with np.errstate(divide="ignore", invalid="ignore"):
        air = Pair(*(_air(system, axle, lines, effort, extra) for axle in AXLES))
        error = Pair(*(np.where(one > 0.0, within / one, np.nan) for one in slopes))
    return TrappedAir(computed, extra, air, error)


def _air(system: System, axle: Axle, lines: LinePressures, effort: Array, extra: Array) -> Array:
    """Return the air in an axle's circuit that takes so much pad travel more [m³], NaN: none does.

    A stepped cylinder's pistons come together, so that it is looked for there; else all goes
    straight.
    """
    slope = _slope(system, axle, lines, effort)
    straight = np.where(slope > 0.0, extra / slope, np.nan)
    if all(chamber.step is None for chamber in system.volumes.chambers):
        return straight
    least = _pad(system, axle, lines, effort, 0.0)

    def beyond(air: Array) -> Array:
        return _pad(system, axle, lines, effort, air) - least - extra

    low, high = np.zeros_like(extra), np.full_like(extra, MOST)
    below, above = beyond(low), beyond(high)
    inside = (below < 0.0) & (above >= 0.0)
    found = crossing(beyond, low, high, np.where(inside, below, -1.0), np.where(inside, above, 1.0))
    return np.where(inside, found, straight)


def _slope(system: System, axle: Axle, lines: LinePressures, effort: Array) -> Array:
    """Return the pad travel [m] that each m³ of air in an axle's circuit takes."""
    before, after = (_pad(system, axle, lines, effort, air) for air in (0.0, MOST))
    return (after - before) / MOST


def _pad(system: System, axle: Axle, lines: LinePressures, effort: Array, air: Floats) -> Array:
    """Return the pad's travel [m] with so much air more in an axle's circuit [m³]."""
    axles = system.volumes.axles
    more = replace(axles.of(axle), trapped_air=np.add(axles.of(axle).trapped_air, air))
    both = Pair(*(more if one is axle else axles.of(one) for one in AXLES))
    laid = replace(system, volumes=replace(system.volumes, axles=both))
    return travel(laid, effort, lines.front, lines.rear).pad
