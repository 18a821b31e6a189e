"""What a surface lets the brakes achieve, and which axles slide then."""

from dataclasses import replace
from typing import NamedTuple

import numpy as np

from urgens.physics import vehicle
from urgens.physics.arrays import Array, Bools, Floats
from urgens.physics.valve_law import at_rest
from urgens.physics.vehicle import StaticVehicle
from urgens.solve.ball import sliding
from urgens.solve.bracket import first_rise
from urgens.solve.first_rise import AxleName, first_rise_of_either
from urgens.solve.line_pressure import booster_output, forces_at, line_pressures, pushrod_force
from urgens.solve.settled import WHOLE, Forces, Left, settled_states
from urgens.solve.system import System

ROLLS = vehicle.Path(np.asarray(False), np.asarray(False))
HALVINGS = 40  # of the way to a force, until where an axle locks is known
AT_LOCK = 1.0 - 1e-12  # of the effort at which an axle locks


class Way(NamedTuple):
    """The way of a foot from rest: where an axle locks first, and what the front does to that.

    `effort` [N], `locks` whether one does, `rear_first`, `rolled_again` as in `vehicle.Path`.
    """

    effort: Array
    locks: Bools
    rear_first: Bools
    rolled_again: Bools

    def at(self, effort: Array) -> vehicle.Path:
        """Return what has locked at an effort; effort: any shape [N]."""
        there = np.asarray(self.locks & (effort >= self.effort * AT_LOCK))
        return vehicle.Path(there, self.rear_first, self.rolled_again)


def achieved(
    system: System,
    output: Array,
    standing: StaticVehicle,
    surface: Floats,
    left: Left = WHOLE,
) -> vehicle.Achieved:
    """Return what a surface gives at most: an axle at its limit passes all that its tyres hold.

    system: the system; output: force on the cylinder, any shape [N]; standing: load cases [N, -];
    surface: tyre-road coefficient [-]; left: of the brakes and the grip [-]. A dynamic valve feels
    the load at the achieved deceleration, a ball that deceleration.
    Source: Gillespie, Fundamentals of Vehicle Dynamics, braking (from memory); in closed form
    where no valve depends on the deceleration.
    """
    return slid(sliding(system, standing, surface, left), output, standing, surface, left)


def slid(
    system: System, output: Array, standing: StaticVehicle, surface: Floats, left: Left = WHOLE
) -> vehicle.Achieved:
    """Return what a surface gives at most, the ball closed already as `sliding` has it.

    system: the system; output: force on the cylinder, any shape [N]; standing: load cases [N, -];
    surface: tyre-road coefficient [-]; left: as in `achieved` [-].
    """
    grip = np.multiply(surface, left.grip)
    return vehicle.consistent(*_states(system, output, standing, grip, left, 1.0), standing, grip)


def achieved_at(
    system: System,
    effort: Floats,
    standing: StaticVehicle,
    surface: Floats,
    left: Left = WHOLE,
    known: vehicle.Path | Way | None = None,
) -> vehicle.Achieved:
    """Return what a foot that goes up to an effort comes to, with tyres that keep less sliding.

    system: the system; effort: foot force, any shape [N]; standing: load cases [N, -]; surface:
    tyre-road coefficient [-]; left: of the brakes and the grip [-]; known: what locks first on the
    way there, or did, where somebody has found out.
    With less than all of its grip left to an axle that slides, one effort may have several states;
    it is the one that the vehicle comes to from rest. Source: `physics.vehicle.followed`; force
    balance of each state (Gillespie, Fundamentals of Vehicle Dynamics, from memory).
    """
    output, kept = booster_output(system, pushrod_force(system, effort)), system.locked_grip
    grip = np.multiply(surface, left.grip)
    one = sliding(system, standing, surface, left)
    states, forces = _states(one, output, standing, grip, left, kept)
    if np.all(np.equal(kept, 1.0)) or 0.0 in (left.front, left.rear):
        return vehicle.consistent(states, forces, standing, grip)
    held = vehicle.grip(standing, states.rolling, grip)
    if not any(np.any(own > kept * most) for own, most in zip(forces[0], held, strict=True)):
        path = ROLLS  # nothing can have locked, or what did rolls again
    elif isinstance(known, vehicle.Path):
        path = known
    elif left is WHOLE:
        way = known or way_to_lock(system, standing, surface, float(np.max(effort)))
        path = way.at(np.asarray(effort))
    else:
        path = _path_of_half(one, output, standing, surface, left)
    return vehicle.followed(states, forces, standing, grip, kept, path)


def way_to_lock(system: System, standing: StaticVehicle, surface: Floats, most: float = 0.0) -> Way:
    """Return what locks first as the foot goes up from rest.

    system: the system; standing: load cases [N, -]; surface: tyre-road coefficient [-]; most: foot
    that is looked at, where it is beyond the hardest [N].
    Source: the first lock, both axles still rolling; then the force balance of the states.
    """
    made = replace(system, max_effort=np.maximum(system.max_effort, most))
    found = first_rise_of_either(made, standing, surface)
    return _way(made, standing, surface, found.effort, found.locks, found.rear_first)


def way_known(
    system: System, standing: StaticVehicle, surface: Floats, axle: Array, effort: Array
) -> Way:
    """Return the way of the foot where the first lock has been found out.

    system: the system; standing: load cases [N, -]; surface: tyre-road coefficient [-]; axle: that
    locks first, of AxleName, of the shape of the load cases [-]; effort: foot at that, the same
    shape [N].
    """
    locks, rear_first = (np.asarray(axle != AxleName.NONE), np.asarray(axle == AxleName.REAR))
    return _way(system, standing, surface, effort, locks, rear_first)


def _way(
    system: System,
    standing: StaticVehicle,
    surface: Floats,
    effort: Array,
    locks: Bools,
    rear_first: Bools,
) -> Way:
    again = np.zeros(locks.shape, dtype=bool)
    if np.any(locks & rear_first) and np.any(np.less(system.locked_grip, 1.0)):
        again = _rolls_again(system, effort, standing, surface)
    return Way(effort, locks, rear_first, again)


def _rolls_again(system: System, locked: Array, standing: StaticVehicle, surface: Floats) -> Bools:
    """Return whether the rear, locked first at an effort, rolls again when the front locks too."""
    one = sliding(system, standing, surface)

    def with_rear_locked(effort: Array) -> tuple[vehicle.States, tuple[Forces, ...]]:
        output = booster_output(system, pushrod_force(system, effort))
        return _states(one, output, standing, surface, WHOLE, system.locked_grip)

    def excess(effort: Array) -> Array:
        states, forces = with_rear_locked(effort)
        return np.asarray(forces[2][0] - vehicle.grip(standing, states.rear_only, surface)[0])

    states, forces = with_rear_locked(locked)
    keeps = system.locked_grip * vehicle.grip(standing, states.both, surface)[1]
    if not np.any(forces[3][1] <= keeps):  # nor at a harder foot: brakes do no less there
        return np.zeros(locked.shape, dtype=bool)
    ends = np.stack(np.broadcast_arrays(locked, np.asarray(system.max_effort)))
    over = np.stack([excess(end) for end in ends])
    _, forces = with_rear_locked(first_rise(excess, ends, over, over[-1] >= 0.0))
    return np.asarray(forces[3][1] <= keeps)


def _path_of_half(
    system: System, output: Array, standing: StaticVehicle, surface: Floats, left: Left
) -> vehicle.Path:
    """Return what locks first of the half that is left, on the way to a force on the cylinder.

    By halving: whatever is locked at a force is so at a larger one, as long as tyres keep it all.
    """
    now = slid(system, output, standing, surface, left)
    locked = np.asarray(now.front_locked | now.rear_locked)
    low, high = np.zeros(locked.shape), np.broadcast_to(output, locked.shape)
    for _ in range(HALVINGS if np.any(now.front_locked & now.rear_locked) else 0):
        middle = (low + high) / 2.0
        tried = slid(system, middle, standing, surface, left)
        over = tried.front_locked | tried.rear_locked
        low, high = np.where(over, low, middle), np.where(over, middle, high)
    first = slid(system, high, standing, surface, left)
    return vehicle.Path(locked, np.asarray(first.rear_locked & ~first.front_locked))


def _states(
    system: System, output: Array, standing: StaticVehicle, grip: Floats, left: Left, kept: Floats
) -> tuple[vehicle.States, tuple[Forces, ...]]:
    """Return the decelerations of the states, and the forces that both brakes give in each."""
    if system.feels_load:
        return settled_states(system, output, standing, grip, left, kept)
    forces = left.of(forces_at(system, line_pressures(system, output, at_rest(standing))))
    return vehicle.states(*forces, standing, grip, kept), (forces,) * 4
