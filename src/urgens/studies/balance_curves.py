"""Curves that show the balance: forces, low pressures, the front's share, efficiency by road."""

from dataclasses import dataclass

import numpy as np

from urgens.physics.arrays import Array, Bools
from urgens.physics.valve_law import at_rest
from urgens.physics.vehicle import (
    StaticVehicle,
    downforce,
    front_lock_line,
    ideal_forces,
    rear_lock_line,
)
from urgens.solve.ball import rolling
from urgens.solve.corner import corner_locks
from urgens.solve.first_rise import AxleName
from urgens.solve.line_pressure import forces_at, pushrod_force
from urgens.solve.lock import first_lock
from urgens.solve.rolling_forces import rolling_lines
from urgens.solve.solution import Solution
from urgens.solve.system import System


@dataclass(frozen=True)
class BrakeCurve:
    """What brakes do over rising effort (m,): at the cylinder and the brakes [Pa], axles [N]."""

    effort: Array
    master: Array
    front_pressure: Array
    rear_pressure: Array
    front_force: Array
    rear_force: Array

    @property
    def front_share(self) -> Array:
        """The front's share of the braking [-], NaN while there is none."""
        whole = self.front_force + self.rear_force
        with np.errstate(divide="ignore", invalid="ignore"):
            return np.where(whole > 0, self.front_force / whole, np.nan)


def line(solution: Solution, efforts: Array, system: System | None = None) -> BrakeCurve:
    """Return the line of the load case chosen.

    efforts: foot forces (m,) [N]; system: another system than its own.
    """
    system = solution.system if system is None else system
    lines = rolling_lines(system, pushrod_force(system, efforts), solution.standing)
    forces = forces_at(system, lines)
    shape = efforts.shape
    front, rear = (np.broadcast_to(force, shape) for force in forces)
    return BrakeCurve(
        effort=efforts,
        master=np.broadcast_to(lines.master_front, shape),
        front_pressure=np.broadcast_to(lines.front, shape),
        rear_pressure=np.broadcast_to(lines.rear, shape),
        front_force=front,
        rear_force=rear,
    )


def efficiency_by_surface(solution: Solution, surfaces: Array) -> tuple[Array, Bools]:
    """Return efficiency at first lock, and where the rear is first, for all load cases (c, s).

    surfaces: tyre-road coefficients (s,) [-]. NaN where nothing locks.
    Source: first lock.
    """
    made = solution.system
    cases = made.cases
    lock = first_lock(made, cases, surfaces)
    return lock.efficiency, np.asarray(lock.axle == AxleName.REAR)


@dataclass(frozen=True)
class SpeedLocks:
    """First lock of every load case at every speed (c, v): deceleration [g], who is first.

    `limit` [g] is what the road gives with both axles at their limit.
    """

    z: Array
    rear_first: Bools
    limit: Array


def lock_over_speed(solution: Solution, speeds: Array) -> SpeedLocks:
    """Return the first lock on the chosen road over speed; NaN where nothing locks.

    speeds: (v,) [m/s].
    Source: first lock, downforce as load.
    """
    made, wings = solution.system, solution.build.vehicle.downforce
    areas = (0.0, 0.0)
    if wings is not None:
        areas = (wings.front_cl_area.value, wings.rear_cl_area.value)
    presses = [np.broadcast_to(downforce(speeds, area), (1, speeds.size)) for area in areas]
    still = [np.asarray(value)[:, None] for value in made.standing[:3]]
    standing = StaticVehicle(*still, *presses)
    lock = first_lock(made, standing, solution.surface)
    limit = solution.surface * standing.pressed / standing.weight
    return SpeedLocks(lock.z, np.asarray(lock.axle == AxleName.REAR), np.asarray(limit))


def ideal_line(solution: Solution, decelerations: Array) -> tuple[Array, Array]:
    """Return front and rear force at which both axles use the same adhesion, over the weight [-].

    solution: of a build, its load case chosen; decelerations: (m,) [g].
    """
    standing = solution.standing
    front, rear = ideal_forces(standing, decelerations)
    return front / standing.weight, rear / standing.weight


def ideal_band(solution: Solution, decelerations: Array) -> tuple[Array, Array, Array]:
    """Return front forces, and the lowest and highest ideal rear force over them, of the weight.

    solution: of a build, all its load cases; decelerations: rising (m,) [g]. Shapes (m,) [-].

    Physics.vehicle, each load case over its own weight.
    """
    made = solution.system
    cases = made.cases
    front, rear = (force / cases.weight for force in ideal_forces(cases, decelerations))
    grid = np.linspace(0.0, float(front[:, -1].min()), decelerations.size)
    on_grid = np.array([np.interp(grid, x, y) for x, y in zip(front, rear, strict=True)])
    return grid, on_grid.min(axis=0), on_grid.max(axis=0)


def at_tolerance(solution: Solution, efforts: Array) -> tuple[BrakeCurve, BrakeCurve] | None:
    """Return the line with the first rear valve that has a knee at both ends of its tolerance.

    efforts: foot forces (m,) [N]; None where no rear valve has a knee.
    """
    made, standing = solution.system, solution.standing
    felt, closing = at_rest(standing), rolling(made, standing).closing
    if closing is not None:
        felt = felt._replace(closing=closing)
    for index, law in enumerate(made.valves.rear):
        ends = law.tolerance(felt)
        if ends is not None:
            before, behind = made.valves.rear[:index], made.valves.rear[index + 1 :]
            low, high = (
                line(solution, efforts, made.with_rear_valves(*before, end, *behind))
                for end in ends
            )
            return low, high
    return None


def efficiency_in_corner(solution: Solution, surfaces: Array) -> tuple[Array, Bools] | None:
    """Return efficiency at first lock in the corner, and where the rear is first (s,); else None.

    solution: of a build, its load case chosen; surfaces: tyre-road coefficients (s,) [-]. Of what
    the corner leaves for braking; NaN where it leaves nothing, or nothing locks.
    """
    found = corner_locks(solution, tuple(surfaces))
    if found is None:
        return None
    roads, lock = found
    efficiency, rear = np.full(surfaces.size, np.nan), np.zeros(surfaces.size, dtype=bool)
    left = np.isin(surfaces, roads)
    efficiency[left] = lock.efficiency[solution.case]
    rear[left] = lock.axle[solution.case] == AxleName.REAR
    return efficiency, rear


def lock_lines(
    solution: Solution, surface: float, other: Array, standing: StaticVehicle | None = None
) -> tuple[Array, Array]:
    """Return the front's and the rear's force at which each locks, over the weight [-].

    solution: of a build, its load case chosen; surface: tyre-road coefficient [-]; other: the
    other axle's force over the weight (m,) [-]; standing: other grip than that load case's [N, -].
    """
    standing = solution.standing if standing is None else standing
    force = other * standing.weight
    front = front_lock_line(standing, surface, force) / standing.weight
    return front, rear_lock_line(standing, surface, force) / standing.weight
