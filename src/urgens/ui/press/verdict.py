"""What the press says about locking, in words: for the load case and road chosen."""

from collections.abc import Callable
from dataclasses import dataclass
from enum import Enum

import numpy as np

from urgens.physics.axle import Axle
from urgens.quantity import FORCE, Units, UnitSystem, show
from urgens.solve import AxleName, Presses, Solution


class PressState(Enum):
    """Which of the states the press is in."""

    FRONT_FIRST = "front first"
    REAR_FIRST = "rear first"
    REAR_LOCKED = "rear locked"
    FRONT_LOCKED = "front locked"
    NOTHING = "nothing locks"


@dataclass(frozen=True)
class LockState:
    """Outcome, heading and the margin in effort; two short words where there is no room."""

    outcome: PressState
    heading: str
    detail: str
    brief: tuple[str, str]


def off_to_roll(over: float, force: Callable[[float], str]) -> str:
    """Return how far the foot has to be let off [N] until all wheels roll."""
    return f"let off {force(max(over, 0.0))} to roll"


def verdict(solution: Solution, presses: Presses, units: UnitSystem | Units) -> LockState:
    """Return the verdict on a single press."""
    at = (solution.case, solution.road)
    lock = solution.lock
    axle = AxleName(int(lock.axle[at]))
    effort = float(presses.effort)
    margin = float(lock.margin[at])

    def force(value: float) -> str:
        return str(show(value, FORCE, units))

    if axle is AxleName.NONE:
        most = force(solution.max_effort)
        return LockState(
            PressState.NOTHING, "Nothing locks", f"up to {most} of foot", ("nothing", "locks")
        )
    other = Axle.REAR if axle is AxleName.FRONT else Axle.FRONT
    later = f"{other} never locks" if np.isnan(margin) else f"{other} {force(margin)} later"
    over = effort - float(lock.effort[at])
    locked = bool(presses.front_locked or presses.rear_locked)
    off = off_to_roll(effort - solution.rolls_again(presses), force) if locked else ""
    if bool(lock.lifted[at]):
        more = off if locked else f"{force(max(-over, 0.0))} more foot"
        return LockState(PressState.REAR_FIRST, "Rear lifts: it goes over", more, ("rear", "lifts"))
    if not locked:
        more = f"{force(max(-over, 0.0))} more foot; {later}"
        if axle is AxleName.FRONT:
            return LockState(PressState.FRONT_FIRST, "Front locks first", more, ("front", "first"))
        return LockState(
            PressState.REAR_FIRST, "Rear locks first: it spins", more, ("rear", "first")
        )
    if bool(presses.rear_locked) and axle is AxleName.REAR:
        return LockState(PressState.REAR_LOCKED, "Rear locked: it spins", off, ("rear", "locked"))
    if bool(presses.rear_locked):
        return LockState(PressState.FRONT_LOCKED, "Front and rear locked", off, ("both", "locked"))
    heading = "Front locked: no steering"
    return LockState(PressState.FRONT_LOCKED, heading, off, ("front", "locked"))
