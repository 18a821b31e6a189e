"""One press of the pedal, or any number of them: pressures, forces, deceleration, grip."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import NamedTuple

import numpy as np

from urgens.physics import booster, cylinder, pedal, tyre, vehicle
from urgens.physics.arrays import Array, Bools, Floats
from urgens.physics.vehicle import Standing
from urgens.solve.bracket import crossing
from urgens.solve.circuit import RearLoad, at_rest, through
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


def line_pressures(made: System, output: Array, load: RearLoad) -> Lines:
    """Return all line pressures [Pa].

    made: the system; output: force on the cylinder [N]; load: on the rear axle, which
    load-sensing valves feel [N].
    Source: physics.cylinder, physics.valve.
    """
    front = rear = _cylinder_pressure(made.front_cylinder, output)
    if made.rear_cylinder is not made.front_cylinder:  # else one bore makes both
        rear = _cylinder_pressure(made.rear_cylinder, output)
    return Lines(
        front,
        rear,
        through(made.front_valves, front, load),
        through(made.rear_valves, rear, load),
    )


def _cylinder_pressure(part: Cylinder, output: Array) -> Array:
    return cylinder.pressure(part.share * output, part.area, part.spring_preload, part.efficiency)


def wheel_torque(end: WheelEnd, pressure: Floats) -> Array:
    """Return one wheel's brake torque [N·m]; end: its brake [object]; pressure: at the wheel [Pa].

    Source: physics.disc, physics.drum: proportional above the threshold.
    """
    return np.asarray(end.torque_per_pressure * np.maximum(pressure - end.threshold, 0.0))


def forces_at(made: System, lines: Lines) -> tuple[Array, Array]:
    """Return front and rear axle force [N]; made: the system; lines: pressures [Pa].

    The engine's drag counts while the wheels roll.
    Source: physics.tyre.
    """
    front = _axle_force(made.front, lines.front) + made.front_drag
    return front, _axle_force(made.rear, lines.rear) + made.rear_drag


def _axle_force(end: WheelEnd, pressure: Array) -> Array:
    return tyre.axle_force(wheel_torque(end, pressure), end.rolling_radius)


def rolling_lines(made: System, pushrod: Floats, standing: Standing) -> Lines:
    """Return line pressures [Pa] while all wheels roll.

    made: the system; pushrod: force [N]; standing: load cases [N, -].
    A static load-sensing valve feels the load at rest, without downforce; a dynamic one the load
    at the deceleration it makes itself.
    Source: physics sections 1, 2 and 4.
    """
    output = booster_output(made, pushrod)
    if not made.feels_load:
        return line_pressures(made, output, at_rest(standing))
    return line_pressures(made, output, settled_load(made, output, standing))


def settled_load(made: System, output: Array, standing: Standing) -> RearLoad:
    """Return the rear load [N] at which a dynamic valve and the deceleration agree.

    made: the system; output: force on the cylinder [N]; standing: load cases [N, -].
    More deceleration unloads the rear, which lowers the knee: the root is the only one.
    Source: physics section 2, load-sensing; bracketed by no and by full load.
    """

    def load_at(z: Array) -> RearLoad:
        return RearLoad(vehicle.axle_loads(standing, z)[1], standing.rear_weight)

    def excess(z: Array) -> Array:
        forces = forces_at(made, line_pressures(made, output, load_at(z)))
        return np.asarray(z - vehicle.demand(*forces, standing))

    shape = np.broadcast_shapes(np.shape(output), *map(np.shape, standing))
    none_and_all = np.array([-np.inf, np.inf]).reshape(2, *(1 for _ in shape))
    lines = line_pressures(made, output, RearLoad(none_and_all, standing.rear_weight))
    return load_at(settled_deceleration(excess, vehicle.demand(*forces_at(made, lines), standing)))


def settled_deceleration(excess: Callable[[Array], Array], ends: Array) -> Array:
    """Return the deceleration [g] at which `excess` rises through zero; the low end if above it.

    excess: of decelerations, rising [g]; ends: where it is zero or less, and zero or more, along
    the first axis [g].
    Source: bracketed by the ends.
    """
    at_ends = excess(ends)
    (low, high), (at_low, at_high) = np.broadcast_to(ends, at_ends.shape), at_ends
    idle = at_low >= 0.0
    return crossing(
        lambda tried: np.where(idle, 0.0, excess(tried)),
        *(low, np.where(idle, low, high)),
        *(np.where(idle, -1.0, at_low), np.where(idle, 0.0, np.maximum(at_high, 0.0))),
    )


def axle_forces(made: System, pushrod: Floats, standing: Standing) -> tuple[Array, Array]:
    """Return front and rear axle force [N] while all wheels roll.

    made: the system; pushrod: force [N]; standing: load cases [N, -].
    Source: physics, from the booster to the tyre.
    """
    return forces_at(made, rolling_lines(made, pushrod, standing))


def achieved(
    made: System, output: Array, standing: Standing, surface: Floats, part: float = 1.0
) -> vehicle.Achieved:
    """Return what a surface lets the brakes achieve.

    made: the system; output: force on the cylinder [N]; standing: load cases [N, -]; surface:
    tyre-road coefficient [-]; part: of each axle's brakes and grip that is left [-].
    A dynamic valve feels the load at the achieved deceleration.
    Source: physics section 4; in closed form where no valve depends on the deceleration.
    """
    grip = np.multiply(surface, part)
    if not made.feels_load:
        lines = line_pressures(made, output, at_rest(standing))
        front, rear = (part * force for force in forces_at(made, lines))
        return vehicle.achieved(front, rear, standing, grip)

    def forces(z: Array) -> tuple[Array, Array]:
        load = RearLoad(vehicle.axle_loads(standing, z)[1], standing.rear_weight)
        lines = line_pressures(made, output, load)
        front, rear = forces_at(made, lines)
        return part * front, part * rear

    def excess(z: Array) -> Array:
        front_grip, rear_grip = vehicle.grip(standing, z, grip)
        front, rear = forces(z)
        held = np.minimum(front, front_grip) + np.minimum(rear, rear_grip)
        return np.asarray(z - held / standing.weight)

    shape = np.broadcast_shapes(np.shape(output), np.shape(grip), *map(np.shape, standing))
    most = np.broadcast_to(grip * standing.pressed / standing.weight + 1e-9, shape)
    z = settled_deceleration(excess, np.stack((np.zeros_like(most), most)))
    front_grip, rear_grip = vehicle.grip(standing, z, grip)
    front, rear = forces(z)
    near = 1.0 - 1e-9
    return vehicle.Achieved(z, front >= front_grip * near, rear >= rear_grip * near)


def press(made: System, effort: Floats, standing: Standing, surface: Floats) -> Presses:
    """Return what pressing with `effort` does.

    made: the system; effort: foot force [N], any shape; standing: one load case [N, -];
    surface: tyre-road coefficient [-].
    Source: physics sections 1 to 5, in order.
    """
    effort = np.asarray(effort, dtype=float)
    pushrod = pushrod_force(made, effort)
    output = booster_output(made, pushrod)
    lines = rolling_lines(made, pushrod, standing)
    front_torque = wheel_torque(made.front, lines.front)
    rear_torque = wheel_torque(made.rear, lines.rear)
    front_force, rear_force = forces_at(made, lines)
    demand = vehicle.demand(front_force, rear_force, standing)
    front_load, rear_load = vehicle.axle_loads(standing, demand)
    slid = achieved(made, output, standing, surface)
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
        front_locked=slid.front_locked,
        rear_locked=slid.rear_locked,
        pedal_travel=pedal_travel(made, effort, lines.front, lines.rear),
    )
