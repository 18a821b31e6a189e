"""Pedal travel from the fluid the system takes."""

from typing import NamedTuple

import numpy as np

from urgens.physics import cylinder, volume
from urgens.physics.arrays import Array, Bools
from urgens.physics.cylinder import Chamber
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
    taken = _taken(figures, front, rear)
    return tuple(
        figures.port_travel
        + (
            volume / chamber.area
            if chamber.step is None
            else _stepped(figures, chamber, taken, (front, rear))
        )
        for chamber, volume in zip(figures.chambers, taken, strict=True)
    )


def _taken(figures: Volumes, front: Array, rear: Array) -> list[Array]:
    """Return what each chamber's circuit takes at pressures of the brakes [m³]."""
    front_volume = axle_volume(figures, figures.axles.front, front)
    rear_volume = axle_volume(figures, figures.axles.rear, rear)
    return [
        np.asarray(chamber.front_part * front_volume + chamber.rear_part * rear_volume)
        for chamber in figures.chambers
    ]


def _stepped(
    figures: Volumes, stepped: Chamber, taken: list[Array], pressures: tuple[Array, Array]
) -> Array:
    """Return how far a stepped piston closes up to the one ahead of it [m].

    Its large bore fills what is ahead as well, whose piston goes by what that circuit takes; it
    never goes farther than the rod, to which it is caged. What a valve holds back until after the
    relief opens counts as taken before, up to the relief's own pressure.
    """
    assert stepped.step is not None
    relief = stepped.step.relief
    front, rear = (np.minimum(pressure, relief) for pressure in pressures)
    at_relief = _taken(figures, front, rear)
    own = next(i for i, chamber in enumerate(figures.chambers) if chamber is stepped)
    if not stepped.fills_all:
        return cylinder.way(stepped, taken[own], at_relief[own])
    ahead = sum(
        volume / chamber.area
        for index, (chamber, volume) in enumerate(zip(figures.chambers, taken, strict=True))
        if index != own
    )
    whole = cylinder.way(stepped, np.asarray(sum(taken)), np.asarray(sum(at_relief)))
    return np.maximum(whole - ahead, 0.0)


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
