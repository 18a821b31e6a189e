"""What the tyres' own grip and a bend change about who locks first."""

from collections.abc import Iterator

import numpy as np

from urgens.guidance.rules.finding import Remark, Severity
from urgens.guidance.rules.registry import rule
from urgens.guidance.words.figures import FigureWords, state
from urgens.solve import AxleName, Solution, first_lock
from urgens.solve.corner import corner_locks


@rule("grip-decides", Severity.ADVICE)
def grip_decides(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell where another axle would lock first if all tyres gripped alike."""
    made, build = solution.system, solution.build
    if build.front.tyre.grip == build.rear.tyre.grip:  # as a road that grips more, or less
        return
    roads = list(solution.roads)
    surfaces = np.array(solution.surfaces)[roads]
    alike = made.cases._replace(front_grip=1.0, rear_grip=1.0)
    other = first_lock(made, alike, surfaces).axle
    now = solution.lock.axle[:, roads]
    differs = (now != other) & (now != AxleName.NONE) & (other != AxleName.NONE)
    if not differs.any():
        return
    case, road = np.argwhere(differs)[-1]
    is_first, would = (AxleName(int(axle[case, road])).name.lower() for axle in (now, other))
    yield Remark(
        message=f"{state(made.case_names[case], float(surfaces[road]))}: the {is_first} locks "
        f"first; with tyres that all grip alike the {would} would.",
        why="The balance hangs on these tyres: another set, or a spare pair, turns it round.",
        basis="the grip factors of both axles' tyres",
        where=f"{would}.tyre.grip",
    )


@rule("corner-rear-first", Severity.WARNING)
def corner_rear_first(solution: Solution, words: FigureWords) -> Iterator[Remark]:
    """Tell where the rear locks first with the grip that cornering leaves."""
    lateral = solution.build.targets.corner
    found = corner_locks(solution)
    if found is None:
        return
    surfaces, lock = found
    rear = lock.axle == AxleName.REAR
    if not rear.any():
        return
    case, road = np.argwhere(rear)[-1]
    name = solution.system.case_names[case]
    yield Remark(
        message=f"{state(name, surfaces[road])}, with {lateral:g} g to the side: the rear locks "
        f"first, at {words.force(lock.effort[case, road])} of foot and "
        f"{lock.z[case, road]:.2f} g.",
        why="Cornering takes grip from both axles, and more of what has less: what is left behind "
        "for braking is used up before that in front.",
        basis="a friction circle of each axle, an estimate: inside wheels, roll and cornering "
        "stiffness are left out",
        where="targets.corner",
    )
