"""First lock with the grip that cornering leaves: a friction circle, an estimate."""

import numpy as np

from urgens.physics.vehicle import StaticVehicle, in_a_corner
from urgens.solve.lock import FirstLock, first_lock
from urgens.solve.solution import Solution


def corner_locks(
    solution: Solution, surfaces: tuple[float, ...] | None = None
) -> tuple[tuple[float, ...], FirstLock] | None:
    """Return the roads that give such a corner, and who locks first there; None without a corner.

    surfaces: tyre-road coefficients, else every judged one [-]. The arrays
    are of load cases (rows) and roads (columns).
    Source: friction circle of each axle: inside wheels, roll and cornering stiffness left out.
    """
    made, lateral = solution.system, solution.build.targets.corner
    judged = tuple(solution.surfaces[road] for road in solution.roads)
    roads = tuple(mu for mu in (surfaces or judged) if _leaves(solution, mu))
    if lateral == 0.0 or not roads:
        return None
    across = np.array(roads)
    return roads, first_lock(made, in_a_corner(made.cases, across, lateral), across)


def cornering(solution: Solution) -> StaticVehicle | None:
    """Return the load case chosen with the grip that the corner leaves on the road looked at.

    None without a corner, and where that road gives none such.
    """
    lateral = solution.build.targets.corner
    if lateral == 0.0 or not _leaves(solution, solution.surface):
        return None
    return in_a_corner(solution.standing, solution.surface, lateral)


def _leaves(solution: Solution, surface: float) -> bool:
    """Return whether the corner leaves both axles grip on a road."""
    tyres = (solution.build.front.tyre.grip, solution.build.rear.tyre.grip)
    return min(tyres) * surface > solution.build.targets.corner
