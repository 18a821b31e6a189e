"""Where an axle first reaches what a road gives, both still rolling."""

from dataclasses import dataclass
from enum import IntEnum

import numpy as np

from urgens.physics import vehicle
from urgens.physics.arrays import Array, Bools, Floats
from urgens.physics.vehicle import StaticVehicle
from urgens.solve.ball import rolling
from urgens.solve.bends import scan_of_efforts
from urgens.solve.bracket import EXACT, first_rise, straight_rise
from urgens.solve.line_pressure import pushrod_force
from urgens.solve.rolling_forces import axle_forces
from urgens.solve.system import System

NEVER = 1e9  # grip factor of an axle that does not slide, whatever it is asked for
EQUAL = 1e-9  # of adhesion used: closer than this, the front counts as first


class AxleName(IntEnum):
    """The axle that locks first, or none."""

    NONE = 0
    FRONT = 1
    REAR = 2


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


def rolls_again(
    system: System, standing: StaticVehicle, surface: Floats, front: bool, rear: bool
) -> Array:
    """Return the foot [N] down to which it is let off until what slides rolls again.

    system: the system; standing: load cases [N, -]; surface: tyre-road coefficient [-]; front,
    rear: which axles slide [-].
    Where an axle begins to roll, what its brakes ask for is what it keeps: the force balance of
    both states is one there, so that it is the lock on a road of so much less.
    """
    grips = [
        np.where(slides, grip, NEVER)
        for slides, grip in ((front, standing.front_grip), (rear, standing.rear_grip))
    ]
    alone = standing._replace(front_grip=grips[0], rear_grip=grips[1])
    return first_rise_of_either(system, alone, np.multiply(surface, system.locked_grip)).effort


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
