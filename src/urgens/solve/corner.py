"""First lock with the grip that cornering leaves: a friction circle, an estimate."""

import numpy as np

from urgens.physics.vehicle import in_a_corner
from urgens.solve.lock import FirstLock, first_lock
from urgens.solve.solution import Solution


def corner_locks(
    solution: Solution, surfaces: tuple[float, ...] | None = None
) -> tuple[tuple[float, ...], FirstLock] | None:
    """Return the roads that give such a corner, and who locks first there; None without a corner.

    solution: of a build; surfaces: tyre-road coefficients, else every judged one [-]. The arrays
    are of load cases (rows) and roads (columns).
    Source: friction circle of each axle: inside wheels, roll and cornering stiffness left out.
    """
    build, made = solution.build, solution.system
    lateral = build.targets.corner
    least = min(build.front.tyre.grip, build.rear.tyre.grip)
    judged = tuple(solution.surfaces[road] for road in solution.roads)
    roads = tuple(mu for mu in (surfaces or judged) if least * mu > lateral)
    if lateral == 0.0 or not roads:
        return None
    across = np.array(roads)
    return roads, first_lock(made, in_a_corner(made.cases, across, lateral), across)
