"""Pedal travel from the fluid the system takes."""

from typing import NamedTuple

import numpy as np

from urgens.physics import volume
from urgens.physics.arrays import Array, Bools
from urgens.solve.system import AxleFluid, System, Volumes


class Travel(NamedTuple):
    """Pad travel [m], whatever ends it, and whether a stroke or the floor ends it first."""

    pad: Array
    stroke_ends: Bools
    floor_ends: Bools


def axle_volume(figures: Volumes, axle: AxleFluid, pressure: Array) -> Array:
    """Return the fluid [m³] one axle takes.

    figures: of the system; axle: one of its axles; pressure: any shape [Pa].
    """
    return (
        volume.brake_volume(pressure, axle.clearance_volume, axle.compliance, axle.take_up)
        + volume.hose_volume(pressure, axle.hose_length, axle.hose_expansion)
        + volume.fluid_volume(pressure, axle.fluid_volume, figures.bulk_modulus)
        + volume.air_volume(pressure, axle.trapped_air)
    )


def strokes(system: System, front: Array, rear: Array) -> tuple[Array, ...]:
    """Return the stroke [m] each chamber takes.

    system: the system; front: pressure at the front brakes, any shape [Pa]; rear: at the rear [Pa].
    Source: continuity of each chamber.
    """
    figures = system.volumes
    front_volume = axle_volume(figures, figures.axles.front, front)
    rear_volume = axle_volume(figures, figures.axles.rear, rear)
    return tuple(
        figures.port_travel
        + (chamber.front_part * front_volume + chamber.rear_part * rear_volume) / chamber.area
        for chamber in figures.chambers
    )


def travel(system: System, effort: Array, front: Array, rear: Array) -> Travel:
    """Return pad travel and what ends it.

    system: the system; effort: any shape [N]; front: pressure at the front brakes [Pa]; rear: at
    the rear [Pa].
    Source: continuity of each chamber, levers of the pedal and the bar.
    """
    figures = system.volumes
    pushrod = np.zeros(np.shape(effort)) + figures.pushrod_clearance
    short = np.zeros(np.shape(effort), dtype=bool)
    for chamber, stroke in zip(figures.chambers, strokes(system, front, rear), strict=True):
        pushrod = pushrod + chamber.lever * stroke
        short = short | (stroke > chamber.stroke)
    pad = np.where(effort > 0.0, system.pedal_ratio * pushrod, 0.0)
    pressed = effort > 0.0
    return Travel(pad, short & pressed, (pad > figures.floor) & pressed)


def pedal_travel(system: System, effort: Array, front: Array, rear: Array) -> Array:
    """Return pad travel [m], NaN where a stroke or the floor ends first.

    system: the system; effort: any shape [N]; front: pressure at the front brakes [Pa]; rear: at
    the rear [Pa].
    """
    found = travel(system, effort, front, rear)
    return np.where(found.stroke_ends | found.floor_ends, np.nan, found.pad)


def bar_tilt(system: System, front: Array, rear: Array) -> Array:
    """Return the angle [rad] a balance bar takes, the front's rod further in positive.

    system: the system, of twin cylinders; front: pressure at the front brakes, any shape [Pa];
    rear: at the rear [Pa]. Raises ValueError where there is no bar.
    Source: geometry: both strokes over the bar's length.
    """
    if system.bar_length is None:
        raise ValueError("there is no bar")
    front_stroke, rear_stroke = strokes(system, front, rear)
    return np.asarray((front_stroke - rear_stroke) / system.bar_length)
