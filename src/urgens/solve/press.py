"""One press of the pedal, or any number of them: pressures, forces, deceleration, grip."""

from dataclasses import dataclass
from typing import NamedTuple

import numpy as np

from urgens.physics import booster, cylinder, pedal, tyre, vehicle
from urgens.physics.arrays import Array, Bools, Floats
from urgens.physics.vehicle import Standing
from urgens.solve.circuit import through
from urgens.solve.system import Cylinder, System, WheelEnd
from urgens.solve.travel import pedal_travel


class Lines(NamedTuple):
    """Pressures [Pa] at the cylinder and behind the valves."""

    master_front: Array
    master_rear: Array
    front: Array
    rear: Array


@dataclass(frozen=True)
class Presses:
    """What presses of the pedal do; every array has the shape of the efforts, in SI."""

    effort: Array
    pushrod_force: Array
    booster_output: Array
    master_front: Array
    master_rear: Array
    front_pressure: Array
    rear_pressure: Array
    front_wheel_torque: Array
    rear_wheel_torque: Array
    front_force: Array
    rear_force: Array
    demand_z: Array
    achieved_z: Array
    front_load: Array
    rear_load: Array
    front_adhesion: Array
    rear_adhesion: Array
    front_locked: Bools
    rear_locked: Bools
    pedal_travel: Array

    def at(self, index: int) -> "Presses":
        """Return one of the presses; index: of the effort [-]. Source: indexing."""
        return Presses(**{name: getattr(self, name)[index] for name in self.__dataclass_fields__})


def pushrod_force(made: System, effort: Floats) -> Array:
    """Return pushrod force [N]; made: the system; effort: foot force [N]. Source: physics.pedal."""
    return pedal.pushrod_force(effort, made.pedal_ratio, made.pedal_efficiency)


def booster_output(made: System, pushrod: Floats) -> Array:
    """Return the force [N] on the cylinder; made: the system; pushrod: force [N].

    Source: physics.booster.
    """
    assist = made.booster
    return booster.output_force(
        pushrod,
        crack_force=assist.crack_force,
        jump_in=assist.jump_in,
        gain=assist.gain,
        assist_limit=assist.assist_limit,
    )


def line_pressures(made: System, output: Array) -> Lines:
    """Return all line pressures [Pa]; made: the system; output: force on the cylinder [N].

    Source: physics.cylinder, physics.valve.
    """
    front = rear = _cylinder_pressure(made.front_cylinder, output)
    if made.rear_cylinder is not made.front_cylinder:  # else one bore makes both
        rear = _cylinder_pressure(made.rear_cylinder, output)
    return Lines(front, rear, through(made.front_valves, front), through(made.rear_valves, rear))


def _cylinder_pressure(part: Cylinder, output: Array) -> Array:
    return cylinder.pressure(part.share * output, part.area, part.spring_preload, part.efficiency)


def wheel_torque(end: WheelEnd, pressure: Floats) -> Array:
    """Return one wheel's brake torque [N·m]; end: its brake [object]; pressure: at the wheel [Pa].

    Source: physics.disc, physics.drum: proportional above the threshold.
    """
    return np.asarray(end.torque_per_pressure * np.maximum(pressure - end.threshold, 0.0))


def axle_forces(made: System, pushrod: Floats) -> tuple[Array, Array]:
    """Return front and rear axle force [N]; made: the system; pushrod: force [N].

    Source: physics, from the booster to the tyre.
    """
    lines = line_pressures(made, booster_output(made, pushrod))
    return _axle_force(made.front, lines.front), _axle_force(made.rear, lines.rear)


def _axle_force(end: WheelEnd, pressure: Array) -> Array:
    return tyre.axle_force(wheel_torque(end, pressure), end.rolling_radius)


def press(made: System, effort: Floats, standing: Standing, surface: Floats) -> Presses:
    """Return what pressing with `effort` does.

    made: the system; effort: foot force [N], any shape; standing: one load case [N, -];
    surface: tyre-road coefficient [-].
    Source: physics sections 1 to 5, in order.
    """
    effort = np.asarray(effort, dtype=float)
    pushrod = pushrod_force(made, effort)
    output = booster_output(made, pushrod)
    lines = line_pressures(made, output)
    front_torque = wheel_torque(made.front, lines.front)
    rear_torque = wheel_torque(made.rear, lines.rear)
    front_force = tyre.axle_force(front_torque, made.front.rolling_radius)
    rear_force = tyre.axle_force(rear_torque, made.rear.rolling_radius)
    demand = vehicle.demand(front_force, rear_force, standing)
    front_load, rear_load = vehicle.axle_loads(standing, demand)
    achieved = vehicle.achieved(front_force, rear_force, standing, surface)
    return Presses(
        effort=effort,
        pushrod_force=pushrod,
        booster_output=output,
        master_front=lines.master_front,
        master_rear=lines.master_rear,
        front_pressure=lines.front,
        rear_pressure=lines.rear,
        front_wheel_torque=front_torque,
        rear_wheel_torque=rear_torque,
        front_force=front_force,
        rear_force=rear_force,
        demand_z=demand,
        achieved_z=achieved.deceleration,
        front_load=front_load,
        rear_load=rear_load,
        front_adhesion=vehicle.adhesion(front_force, front_load),
        rear_adhesion=vehicle.adhesion(rear_force, rear_load),
        front_locked=achieved.front_locked,
        rear_locked=achieved.rear_locked,
        pedal_travel=pedal_travel(made, effort, lines.front, lines.rear),
    )
