"""One press of the pedal, or any number of them: pressures, forces, deceleration, grip."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import NamedTuple

import numpy as np

from urgens.physics import vehicle
from urgens.physics.arrays import Array, Bools, Floats
from urgens.physics.axle import Axle
from urgens.physics.valve_law import Felt, at_rest
from urgens.physics.vehicle import Standing
from urgens.solve.ball import closed
from urgens.solve.bracket import EXACT, crossing
from urgens.solve.line_pressure import (
    Lines,
    booster_output,
    forces_at,
    line_pressures,
    pushrod_force,
    wheel_torque,
)
from urgens.solve.system import System
from urgens.solve.travel import pedal_travel

HARD, CLOSE = 1e3, 1e-13  # g, beyond any deceleration; of that, how near a root is looked for


class Left(NamedTuple):
    """What is left of the brakes: shares of the front's and the rear's force, and of the grip."""

    front: float = 1.0
    rear: float = 1.0
    grip: float = 1.0


WHOLE, HALF = Left(), Left(0.5, 0.5, 0.5)  # the latter of a diagonal split with one circuit lost
FRONT_ALONE, REAR_ALONE = Left(rear=0.0), Left(front=0.0)


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
        """Return the pressure at an axle's cylinder [Pa]; axle: which [-]. Source: the fields."""
        return self.master_front if axle == Axle.FRONT else self.master_rear

    def pressure(self, axle: Axle) -> Array:
        """Return the pressure at an axle's brakes [Pa]; axle: which [-]. Source: the fields."""
        return self.front_pressure if axle == Axle.FRONT else self.rear_pressure

    def wheel_torque(self, axle: Axle) -> Array:
        """Return one wheel's torque [N·m]; axle: which [-]. Source: the fields."""
        return self.front_wheel_torque if axle == Axle.FRONT else self.rear_wheel_torque

    def at(self, index: int) -> "Presses":
        """Return one of the presses; index: of the effort [-]. Source: indexing."""
        return Presses(**{name: getattr(self, name)[index] for name in self.__dataclass_fields__})


def rolling_lines(made: System, pushrod: Floats, standing: Standing) -> Lines:
    """Return line pressures [Pa] while all wheels roll.

    made: the system; pushrod: force [N]; standing: load cases [N, -].
    A static load-sensing valve feels the load at rest, without downforce; a dynamic one the load
    at the deceleration it makes itself; a ball the deceleration.
    Source: Limpert, Brake Design and Safety (from memory).
    """
    made = rolling(made, standing)
    output = booster_output(made, pushrod)
    return line_pressures(made, output, felt_rolling(made, output, standing))


def felt_rolling(made: System, output: Array, standing: Standing) -> Felt:
    """Return what the valves feel of the vehicle while all wheels roll.

    made: the system, its ball closed where it has one; output: force on the cylinder [N];
    standing: load cases [N, -].
    Source: `settled_load`, solve.ball.
    """
    felt = settled_load(made, output, standing) if made.feels_load else at_rest(standing)
    return felt if made.closing is None else felt._replace(closing=made.closing)


def rolling(made: System, standing: Standing) -> System:
    """Return the system with its ball valve closed as it is while all wheels roll.

    made: the system; standing: load cases [N, -]. As it is where that is done, or has no ball.
    Source: solve.ball.
    """
    if made.closing is not None:
        return made

    def reached(one: System, output: Array) -> Array:
        lines = line_pressures(one, output, felt_rolling(one, output, standing))
        return vehicle.demand(*forces_at(one, lines), standing)

    return closed(made, standing, reached)


def settled_load(made: System, output: Array, standing: Standing) -> Felt:
    """Return the rear load [N] at which a dynamic valve and the deceleration agree.

    made: the system; output: force on the cylinder [N]; standing: load cases [N, -].
    More deceleration unloads the rear, which lowers the knee: the root is the only one.
    Source: Limpert, Brake Design and Safety, load-sensing valves (from memory); bracketed
    by no and by full load.
    """

    def load_at(z: Array) -> Felt:
        return Felt(vehicle.axle_loads(standing, z)[1], standing.rear_weight)

    def excess(z: Array) -> Array:
        forces = forces_at(made, line_pressures(made, output, load_at(z)))
        return np.asarray(z - vehicle.demand(*forces, standing))

    ends = [
        vehicle.demand(*forces_at(made, line_pressures(made, output, felt)), standing)
        for felt in (Felt(load, standing.rear_weight) for load in (-np.inf, np.inf))
    ]
    return load_at(settled_deceleration(excess, np.stack(np.broadcast_arrays(*ends))))


def settled_deceleration(
    excess: Callable[[Array], Array], ends: Array, exact: float = EXACT
) -> Array:
    """Return the deceleration [g] at which `excess` rises through zero; the low end if above it.

    excess: of decelerations, rising [g]; ends: where it is zero or less, and zero or more, along
    the first axis [g]; exact: as in `crossing` [-].
    Source: bracketed by the ends.
    """
    at_ends = excess(ends)
    (low, high), (at_low, at_high) = np.broadcast_to(ends, at_ends.shape), at_ends
    idle = at_low >= 0.0
    return crossing(
        lambda tried: np.where(idle, 0.0, excess(tried)),
        *(low, np.where(idle, low, high)),
        *(np.where(idle, -1.0, at_low), np.where(idle, 0.0, np.maximum(at_high, 0.0))),
        exact,
    )


def axle_forces(made: System, pushrod: Floats, standing: Standing) -> tuple[Array, Array]:
    """Return front and rear axle force [N] while all wheels roll.

    made: the system; pushrod: force [N]; standing: load cases [N, -].
    Source: physics, from the booster to the tyre.
    """
    return forces_at(made, rolling_lines(made, pushrod, standing))


def achieved(
    made: System,
    output: Array,
    standing: Standing,
    surface: Floats,
    left: Left = WHOLE,
    kept: Floats = 1.0,
) -> vehicle.Achieved:
    """Return what a surface lets the brakes achieve.

    made: the system; output: force on the cylinder [N]; standing: load cases [N, -]; surface:
    tyre-road coefficient [-]; left: of the brakes and the grip [-]; kept: share of its coefficient
    that a locked axle keeps [-].
    A dynamic valve feels the load at the achieved deceleration, a ball that deceleration.
    Source: Gillespie, Fundamentals of Vehicle Dynamics, braking (from memory); in closed form
    where no valve depends on the deceleration.
    """
    return slid(sliding(made, standing, surface, left), output, standing, surface, left, kept)


def sliding(made: System, standing: Standing, surface: Floats, left: Left = WHOLE) -> System:
    """Return the system with its ball valve closed as it is where a surface limits the axles.

    made: the system; standing: load cases [N, -]; surface: tyre-road coefficient [-]; left: as in
    `achieved` [-]. As it is where it has no ball.
    Source: solve.ball.
    """

    def reached(one: System, output: Array) -> Array:
        return slid(one, output, standing, surface, left).deceleration

    return closed(made, standing, reached)


def slid(
    made: System,
    output: Array,
    standing: Standing,
    surface: Floats,
    left: Left = WHOLE,
    kept: Floats = 1.0,
) -> vehicle.Achieved:
    """Return what a surface lets the brakes achieve, the ball closed already as `sliding` has it.

    made: the system; output: force on the cylinder [N]; standing: load cases [N, -]; surface:
    tyre-road coefficient [-]; left, kept: as in `achieved` [-].
    Source: `achieved`.
    """
    grip = np.multiply(surface, left.grip)

    def forces(felt: Felt) -> tuple[Array, Array]:
        front, rear = forces_at(made, line_pressures(made, output, felt))
        return left.front * front, left.rear * rear

    if not made.feels_load:
        return vehicle.achieved(*forces(at_rest(standing)), standing, grip, kept)

    def felt_at(z: Array) -> Felt:
        return Felt(vehicle.axle_loads(standing, z)[1], standing.rear_weight)

    def settled(reached: Callable[[Array], Array], most: Floats) -> Array:
        """Return the deceleration that forces and loads agree on, the valve with them."""

        def excess(z: Array) -> Array:
            return np.asarray(z - reached(z))

        ends = np.broadcast_to(most, np.shape(excess(np.zeros(np.shape(most)))))
        return settled_deceleration(excess, np.stack((np.zeros_like(ends), ends + 1e-9)), CLOSE)

    def of_both(z: Array) -> Array:
        return vehicle.achieved(*forces(felt_at(z)), standing, grip).deceleration

    if np.all(np.equal(kept, 1.0)):
        z = settled(of_both, vehicle.attainable(standing, grip))
        return vehicle.achieved(*forces(felt_at(z)), standing, grip)

    def with_sliding(*slides: bool) -> Array:
        def reached(z: Array) -> Array:
            passed = vehicle.grip(standing, z, kept * grip)
            held = zip(forces(felt_at(z)), passed, slides, strict=True)
            return np.asarray(sum(g if s else f for f, g, s in held) / standing.weight)

        return settled(reached, HARD)

    states = vehicle.States(
        with_sliding(False, False),
        with_sliding(True, False),
        with_sliding(False, True),
        vehicle.attainable(standing, kept * grip),
    )
    return vehicle.consistent(states, lambda z: forces(felt_at(z)), standing, grip)


def press(made: System, effort: Floats, standing: Standing, surface: Floats) -> Presses:
    """Return what pressing with `effort` does.

    made: the system; effort: foot force [N], any shape; standing: one load case [N, -];
    surface: tyre-road coefficient [-].
    Source: as its parts, in order.
    """
    effort = np.asarray(effort, dtype=float)
    pushrod = pushrod_force(made, effort)
    output = booster_output(made, pushrod)
    lines = rolling_lines(made, pushrod, standing)
    front_torque = wheel_torque(made.ends.front, lines.front)
    rear_torque = wheel_torque(made.ends.rear, lines.rear)
    front_force, rear_force = forces_at(made, lines)
    demand = vehicle.demand(front_force, rear_force, standing)
    front_load, rear_load = vehicle.axle_loads(standing, demand)
    used = vehicle.road_used((front_force, rear_force), (front_load, rear_load), standing)
    slid = achieved(made, output, standing, surface, kept=made.locked_grip)
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
        pedal_travel=pedal_travel(made, effort, lines.front, lines.rear),
    )
