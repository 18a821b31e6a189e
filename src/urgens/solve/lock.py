"""Which axle locks first, and how much foot there is between the two."""

from dataclasses import dataclass

import numpy as np

from urgens.physics import vehicle
from urgens.physics.arrays import Array, Bools, Floats
from urgens.physics.valve_law import Felt
from urgens.physics.vehicle import StaticVehicle
from urgens.solve.achieved import slid
from urgens.solve.ball import rolling, sliding
from urgens.solve.bends import scan_of_efforts
from urgens.solve.bracket import first_rise
from urgens.solve.first_rise import AxleName, first_rise_of_either
from urgens.solve.line_pressure import booster_output, forces_at, line_pressures, pushrod_force
from urgens.solve.system import System


@dataclass(frozen=True)
class FirstLock:
    """The first lock; every array has the common shape of load cases and surfaces.

    `axle` of AxleName, `effort` and `second_effort` [N], `z` [g], `efficiency` [-];
    `front_used` and `rear_used` [-] the adhesion used there over the axle's grip factor, which is
    the road's coefficient where it locks; `second_effort` is where the other locks while the first
    slides; `lifted` where the rear carries nothing. NaN where
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
    grip, rear_load = _both_locked(standing, surface, rear_first, system.locked_grip)

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
    standing: StaticVehicle, surface: Floats, rear_first: Bools, kept: Floats
) -> tuple[Array, Array]:
    """Return the force [N] at which the other axle locks too, and the rear load [N] there.

    The first slides by then and passes what it keeps; with the other at its limit the deceleration
    is known, and so are the loads.
    """
    grips = standing.front_grip, standing.rear_grip
    slides = standing._replace(
        front_grip=np.where(rear_first, grips[0], kept * grips[0]),
        rear_grip=np.where(rear_first, kept * grips[1], grips[1]),
    )
    both = vehicle.attainable(slides, surface)
    front_grip, rear_grip = vehicle.grip(slides, both, surface)
    return np.where(rear_first, front_grip, rear_grip), vehicle.axle_loads(standing, both)[1]
