"""One press of the pedal, or any number of them: pressures, forces, deceleration, grip."""

from dataclasses import dataclass

import numpy as np

from urgens.physics import vehicle
from urgens.physics.arrays import Array, Bools, Floats
from urgens.physics.axle import Axle
from urgens.physics.vehicle import StaticVehicle
from urgens.solve.achieved import Way, achieved_at
from urgens.solve.ball import rolling
from urgens.solve.line_pressure import (
    booster_output,
    forces_at,
    pushrod_force,
    wheel_torque,
)
from urgens.solve.rolling_forces import rolling_lines
from urgens.solve.system import System
from urgens.solve.travel import pedal_travel


@dataclass(frozen=True)
class Presses:
    """What presses of the pedal do; every array has the shape of the efforts, in SI.

    `front_used`, `rear_used` are the adhesions over the axles' grip factors: of the road's [-].
    """

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
    front_used: Array
    rear_used: Array
    front_locked: Bools
    rear_locked: Bools
    pedal_travel: Array

    def master(self, axle: Axle) -> Array:
        """Return the pressure at an axle's cylinder [Pa]; axle: which [-]."""
        return self.master_front if axle == Axle.FRONT else self.master_rear

    def pressure(self, axle: Axle) -> Array:
        """Return the pressure at an axle's brakes [Pa]; axle: which [-]."""
        return self.front_pressure if axle == Axle.FRONT else self.rear_pressure

    def wheel_torque(self, axle: Axle) -> Array:
        """Return one wheel's torque [N·m]; axle: which [-]."""
        return self.front_wheel_torque if axle == Axle.FRONT else self.rear_wheel_torque

    def at(self, index: int) -> "Presses":
        """Return one of the presses; index: of the effort [-]."""
        return Presses(**{name: getattr(self, name)[index] for name in self.__dataclass_fields__})


def press(
    system: System,
    effort: Floats,
    standing: StaticVehicle,
    surface: Floats,
    way: Way | None = None,
) -> Presses:
    """Return what pressing with `effort` does.

    system: the system; effort: foot force [N], any shape; standing: one load case [N, -].
    surface: tyre-road coefficient [-]; way: of the foot to the lock, where it is known.
    """
    effort = np.asarray(effort, dtype=float)
    system = rolling(system, standing)
    pushrod = pushrod_force(system, effort)
    output = booster_output(system, pushrod)
    lines = rolling_lines(system, pushrod, standing)
    front_torque = wheel_torque(system.ends.front, lines.front)
    rear_torque = wheel_torque(system.ends.rear, lines.rear)
    front_force, rear_force = forces_at(system, lines)
    demand = vehicle.demand(front_force, rear_force, standing)
    front_load, rear_load = vehicle.axle_loads(standing, demand)
    used = vehicle.road_used((front_force, rear_force), (front_load, rear_load), standing)
    slid = achieved_at(system, effort, standing, surface, known=way)
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
        achieved_z=slid.deceleration,
        front_load=front_load,
        rear_load=rear_load,
        front_adhesion=vehicle.adhesion(front_force, front_load),
        rear_adhesion=vehicle.adhesion(rear_force, rear_load),
        front_used=used[0],
        rear_used=used[1],
        front_locked=slid.front_locked,
        rear_locked=slid.rear_locked,
        pedal_travel=pedal_travel(system, effort, lines.front, lines.rear),
    )
