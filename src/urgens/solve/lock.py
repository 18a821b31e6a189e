"""Which axle locks first, and how much foot there is between the two."""

from dataclasses import dataclass
from enum import IntEnum

import numpy as np

from urgens.physics import vehicle
from urgens.physics.arrays import Array, Bools, Floats
from urgens.physics.valve_law import Felt
from urgens.physics.vehicle import StaticVehicle
from urgens.solve.ball import rolling, sliding
from urgens.solve.bends import scan_of_efforts
from urgens.solve.bracket import EXACT, first_rise, straight_rise
from urgens.solve.line_pressure import booster_output, forces_at, line_pressures, pushrod_force
from urgens.solve.press import axle_forces, slid
from urgens.solve.system import System

EQUAL = 1e-9  # of adhesion used: closer than this, the front counts as first


class AxleName(IntEnum):
    """The axle that locks first, or none."""

    NONE = 0
    FRONT = 1
    REAR = 2


@dataclass(frozen=True)
class FirstLock:
    """The first lock; every array has the common shape of load cases and surfaces.

    `axle` of AxleName, `effort` and `second_effort` [N], `z` [g], `efficiency` [-];
    `front_used` and `rear_used` [-] the adhesion used there over the axle's grip factor, which is
    the road's coefficient where it locks; `lifted` where the rear carries nothing. NaN where
    max_effort locks nothing, or nothing more.
    """

    axle: Array
    effort: Array
    z: Array
    efficiency: Array
    second_effort: Array
    front_used: Array
    rear_used: Array
    lifted: Bools

    @property
    def margin(self) -> Array:
        """Effort between first and second lock [N]."""
        return self.second_effort - self.effort


@dataclass(frozen=True)
class Rise:
    """The first rise of either axle's excess: effort [N], forces [N], road's coefficient used [-].

    `scanned` are the axle forces at all `efforts` that were looked at, along an axis before all
    others; where nothing `locks` the rest means nothing.
    """

    efforts: Array
    scanned: tuple[Array, Array]
    locks: Bools
    effort: Array
    front_used: Array
    rear_used: Array
    lifted: Bools

    @property
    def rear_first(self) -> Bools:
        """Where the rear is first, or carries nothing."""
        return np.asarray(self.lifted | (self.rear_used > self.front_used + EQUAL))


def first_rise_of_either(
    system: System, standing: StaticVehicle, surface: Floats, exact: float = EXACT
) -> Rise:
    """Return where an axle first reaches the surface's coefficient.

    system: the system; standing: load cases [N, -]; surface: tyre-road coefficient [-]; exact: how
    far, as a share of what the excess changes in a step [-].
    Source: force balance: Gillespie, Fundamentals of Vehicle Dynamics, braking (from memory).
    """
    system = rolling(system, standing)
    start = axle_forces(system, pushrod_force(system, 0.0), standing)
    shapes = (start[0].shape, start[1].shape, np.shape(surface), *map(np.shape, standing))
    shape = np.broadcast_shapes(*shapes, np.shape(system.max_effort))
    efforts = scan_of_efforts(system, standing, len(shape))
    forces = axle_forces(system, pushrod_force(system, efforts), standing)
    each = _excess(*forces, standing, surface)
    over = np.maximum(*each)
    locks: Bools = np.any(over >= 0.0, axis=0)

    def excess_at(effort: Array) -> Array:
        found = axle_forces(system, pushrod_force(system, effort), standing)
        return np.maximum(*_excess(*found, standing, surface))

    effort = straight_rise(efforts, each)
    missed = locks & (np.abs(excess_at(effort)) > exact * np.ptp(over, axis=0))
    if missed.any():  # something bends between two steps
        effort = np.where(missed, first_rise(excess_at, efforts, over, locks, exact), effort)
    front, rear = axle_forces(system, pushrod_force(system, effort), standing)
    loads = vehicle.axle_loads(standing, vehicle.demand(front, rear, standing))
    front_used, rear_used = vehicle.road_used((front, rear), loads, standing)
    lifted = np.broadcast_to(loads[1] <= 0.0, shape)
    return Rise(efforts, forces, locks, effort, front_used, rear_used, lifted)


def first_lock(system: System, standing: StaticVehicle, surface: Floats) -> FirstLock:
    """Return the smallest effort at which an axle reaches the surface's coefficient.

    system: the system; standing: load cases [N, -]; surface: tyre-road coefficient [-]. The loads
    and the surface broadcast to the result's shape.
    Source: the same force balance; first crossing on a scan of efforts, refined.
    """
    system = rolling(system, standing)
    found = first_rise_of_either(system, standing, surface)
    efforts, scanned, locks = found.efforts, found.scanned, found.locks
    effort, lifted, rear_first = found.effort, found.lifted, found.rear_first
    pushrod = pushrod_force(system, effort)
    one_locked = sliding(system, standing, surface)
    z = slid(one_locked, booster_output(system, pushrod), standing, surface).deceleration
    grip, rear_load = _both_locked(standing, surface, rear_first)

    felt = Felt(rear_load, standing.rear_weight)

    def other_excess_at(effort: Array) -> Array:
        output = booster_output(system, pushrod_force(system, effort))
        forces = forces_at(system, line_pressures(one_locked, output, felt))
        return np.asarray(np.where(rear_first, *forces) - grip)

    if system.feels_load or system.ball is not None:  # bends lie elsewhere once an axle slides
        efforts = scan_of_efforts(one_locked, standing, locks.ndim, felt)
        other = other_excess_at(efforts)
    else:
        other = np.where(rear_first, *scanned) - grip
    locks_too: Bools = locks & np.any(other >= 0.0, axis=0)
    second = np.where(locks_too, first_rise(other_excess_at, efforts, other, locks_too), np.nan)

    def where_locked(values: Floats) -> Array:
        return np.where(locks, values, np.nan)

    return FirstLock(
        axle=np.where(locks, np.where(rear_first, AxleName.REAR, AxleName.FRONT), AxleName.NONE),
        effort=where_locked(effort),
        z=where_locked(z),
        efficiency=where_locked(z / vehicle.attainable(standing, surface)),
        second_effort=np.maximum(where_locked(effort), second),
        front_used=where_locked(found.front_used),
        rear_used=where_locked(found.rear_used),
        lifted=lifted & locks,
    )


def _both_locked(
    standing: StaticVehicle, surface: Floats, rear_first: Bools
) -> tuple[Array, Array]:
    """Return the force [N] at which the other axle locks too, and the rear load [N] there.

    With both at their limit the deceleration is known, and so are the loads.
    """
    both = vehicle.attainable(standing, surface)
    front_grip, rear_grip = vehicle.grip(standing, both, surface)
    return np.where(rear_first, front_grip, rear_grip), vehicle.axle_loads(standing, both)[1]


def _excess(
    front: Array, rear: Array, standing: StaticVehicle, surface: Floats
) -> tuple[Array, Array]:
    """Return each axle's force above what its tyres pass [N].

    The load that moves is written without the deceleration: this is asked thousands of times.
    """
    moved = standing.transfer * (front + rear)
    front_load = standing.front_weight + standing.front_press + moved
    rear_load = standing.rear_weight + standing.rear_press - moved
    front_mu, rear_mu = surface * standing.front_grip, surface * standing.rear_grip
    return front - front_mu * front_load, rear - rear_mu * rear_load
