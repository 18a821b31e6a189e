"""What happens when one half of the brakes is lost, in the order in which it happens."""

from dataclasses import dataclass

import numpy as np

from urgens.document.kinds.cylinders.tandem import TwoChambers
from urgens.document.kinds.cylinders.twin import TwinMaster
from urgens.quantity import FORCE, LENGTH, Units, UnitSystem, show
from urgens.solve import Solution


@dataclass(frozen=True)
class LostHalf:
    """One half lost: its name, what happens, what is left [g], the pad's travel [m] or NaN.

    `shut_travel` is the pad's where a shuttle shuts the line, None where none does.
    """

    name: str
    steps: tuple[str, ...]
    left: float
    meets_rule: bool
    travel: float
    shut_travel: float | None


def lost_halves(solution: Solution, units: Units | UnitSystem) -> tuple[LostHalf, ...]:
    """Return each half lost in the load case chosen; none of a single circuit."""
    if solution.system.split == "single":
        return ()
    found = []
    for index, half in enumerate(solution.half_failed):
        shut = None if half.shut_travel is None else float(half.shut_travel[solution.case])
        left = float(half.z[solution.case])
        found.append(
            LostHalf(
                name=_name(solution, index),
                steps=_steps(solution, index, units),
                left=left,
                meets_rule=bool(half.meets_rule[solution.case]),
                travel=float(half.pedal_travel[solution.case]),
                shut_travel=shut,
            )
        )
    return tuple(found)


def _name(solution: Solution, index: int) -> str:
    if solution.system.split == "diagonal":
        return ("Primary circuit lost", "Secondary circuit lost")[index]
    return ("Front circuit lost", "Rear circuit lost")[index]


def dead_is_primary(solution: Solution, index: int) -> bool:
    """Return whether the half that is lost hangs on the pushrod's own chamber of a tandem."""
    master = solution.build.master
    if not isinstance(master, TwoChambers):
        return False
    if solution.system.split == "diagonal":
        return index == 0
    return (index == 0) == (master.primary_feeds == "front")


def _steps(solution: Solution, index: int, units: Units | UnitSystem) -> tuple[str, ...]:
    made = solution.system
    dead = made.volumes.chambers[index]
    stroke = show(float(dead.stroke), LENGTH, units)
    effort = show(float(made.max_effort), FORCE, units)
    first, second = _fall(solution, index, str(stroke))
    travel = float(solution.half_failed[index].pedal_travel[solution.case])
    floor = float(made.volumes.floor)
    if np.isnan(travel):
        last = f"At {effort} of foot the live chamber or the floor ends first: no pedal is left."
    else:
        left = show(floor - travel, LENGTH, units)
        last = (
            f"At {effort} of foot the pad has gone {show(travel, LENGTH, units)}; {left} are left."
        )
    return first, second, last


def _fall(solution: Solution, index: int, stroke: str) -> tuple[str, str]:
    """Return what gives way first, and what holds then."""
    if isinstance(solution.build.master, TwinMaster):
        angle = solution.build.master.bar_max_angle
        stop = "" if angle is None else f", or until the bar meets its stop at {angle.text}"
        return (
            f"The bar tips: the dead rod runs in, up to its {stroke}{stop}.",
            "Then the live cylinder takes its share of the foot, and the bar the rest.",
        )
    if dead_is_primary(solution, index):
        return (
            f"The pushrod's piston meets nothing and runs its {stroke} until it touches the other.",
            "From there it pushes the far piston itself, and the live circuit holds.",
        )
    return (
        f"The far piston meets nothing and runs its {stroke} to the end of the bore.",
        "It stands there, and the pushrod's own chamber holds.",
    )
