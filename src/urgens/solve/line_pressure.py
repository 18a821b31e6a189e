"""From the foot to the line pressures, and from those to the forces at the road."""

from typing import NamedTuple

import numpy as np

from urgens.physics import booster, cylinder, pedal, tyre
from urgens.physics.arrays import Array, Floats
from urgens.physics.cylinder import Cylinder
from urgens.physics.valve_law import Felt, through
from urgens.solve.system import System, WheelEnd


class LinePressures(NamedTuple):
    """Pressures [Pa] at the cylinder and behind the valves."""

    master_front: Array
    master_rear: Array
    front: Array
    rear: Array


def pushrod_force(system: System, effort: Floats) -> Array:
    """Return pushrod force [N].

    system: the system; effort: foot force [N].
    """
    return pedal.pushrod_force(effort, system.pedal_ratio, system.pedal_efficiency)


def booster_output(system: System, pushrod: Floats) -> Array:
    """Return the force [N] on the cylinder; system: the system; pushrod: force [N]."""
    assist = system.booster
    return booster.output_force(
        pushrod,
        crack_force=assist.crack_force,
        jump_in=assist.jump_in,
        gain=assist.gain,
        assist_limit=assist.assist_limit,
    )


def line_pressures(system: System, output: Array, felt: Felt) -> LinePressures:
    """Return all line pressures [Pa].

    system: the system, its ball closed where it has one; output: force on the cylinder, any shape
    [N]; felt: what the valves feel of the vehicle.
    """
    if system.closing is not None:
        felt = felt._replace(closing=system.closing)
    front = rear = cylinder_pressure(system.cylinders.front, output)
    if system.cylinders.rear is not system.cylinders.front:  # else one bore makes both
        rear = cylinder_pressure(system.cylinders.rear, output)
    return LinePressures(
        front,
        rear,
        through(system.valves.front, front, felt),
        through(system.valves.rear, rear, felt),
    )


def cylinder_pressure(part: Cylinder, output: Floats) -> Array:
    """Return the pressure [Pa] of one cylinder; part: of it; output: force on all of them [N]."""
    force = part.share * output
    return cylinder.pressure(force, part.area, part.spring_preload, part.efficiency, part.step)


def wheel_torque(end: WheelEnd, pressure: Floats) -> Array:
    """Return one wheel's brake torque [N·m]; end: its brake; pressure: at the wheel [Pa].

    Physics.disc, physics.drum: proportional above the threshold.
    """
    return np.asarray(end.torque_per_pressure * np.maximum(pressure - end.threshold, 0.0))


def forces_at(system: System, lines: LinePressures) -> tuple[Array, Array]:
    """Return front and rear axle force [N]; system: the system; lines: pressures [Pa].

    The engine's drag counts while the wheels roll.
    """
    front, rear = brake_forces_at(system, lines)
    return front + system.drag.front, rear + system.drag.rear


def brake_forces_at(system: System, lines: LinePressures) -> tuple[Array, Array]:
    """Return what the brakes of either axle do by themselves, at the road [N].

    system: the system; lines: pressures [Pa]. Source: without the engine's drag, which heats and
    wears none of them.
    """
    ends = system.ends
    return _axle_force(ends.front, lines.front), _axle_force(ends.rear, lines.rear)


def _axle_force(end: WheelEnd, pressure: Array) -> Array:
    return tyre.axle_force(wheel_torque(end, pressure), end.rolling_radius)
