"""A solution as the JSON object the command line prints."""

from typing import Any

from urgens.document import BuildErrors
from urgens.physics.axle import AXLES
from urgens.printed.values import figure, figures
from urgens.solve.corner import corner_locks
from urgens.solve.first_rise import AxleName
from urgens.solve.half_failed import HalfFailed
from urgens.solve.launch_hold import Hold
from urgens.solve.press import Presses
from urgens.solve.solution import Solution
from urgens.studies.heat import heated
from urgens.studies.pedal_linkage import linkage
from urgens.studies.vacuum_reserve import reserve

_OWN = ("front_used", "rear_used", "front_locked", "rear_locked")  # said in other ways
_PRINTED = tuple(name for name in Presses.__dataclass_fields__ if name not in _OWN)


def printed_solution(solution: Solution) -> dict[str, Any]:
    """Return `solution` as plain JSON values, SI throughout, null where there is no figure.

    Source: RFC 8259; the names are those of the results.
    """
    return {
        "build": solution.build.name,
        "load_case": solution.case_name,
        "surface": solution.surface,
        "pedal_ratio": solution.system.pedal_ratio,
        "presses": [_press(solution.presses, i) for i in range(solution.presses.effort.size)],
        "first_lock": _first_lock(solution),
        "critical_z": figure(solution.crossings.critical_z),
        "crossings": [
            {"z": float(z), "rear_above": bool(above)}
            for z, above in zip(solution.crossings.z, solution.crossings.rear_above, strict=True)
        ],
        "half_failed": [
            {
                "dead": half.dead,
                "z": float(half.z[solution.case]),
                "reached": bool(half.reached[solution.case]),
                "pedal_travel": figure(half.pedal_travel[solution.case]),
                "meets_rule": bool(half.meets_rule[solution.case]),
                **_shut(half, solution.case),
            }
            for half in solution.half_failed
        ],
        "regulation": {
            "rear_below_front": solution.regulation.rear_below_front,
            "adhesion_limit": solution.regulation.adhesion_limit,
        },
        **_corner(solution),
        **_hold(solution.hold),
        **_linkage(solution),
        **_reservoir(solution),
        **_heat(solution),
    }


def _corner(solution: Solution) -> dict[str, Any]:
    """Return the first lock with the grip a corner leaves, where one is asked for."""
    lateral = solution.build.targets.corner
    if lateral == 0.0:
        return {}
    found = corner_locks(solution, (solution.surface,))
    if found is None:
        raise BuildErrors.one(
            "targets.corner",
            f"{lateral:g} g to the side leaves no grip to brake with on {solution.surface:g}",
            "look at a road that grips more, or write a smaller number",
        )
    lock, at = found[1], (solution.case, 0)
    return {
        "corner": {
            "lateral": lateral,
            "axle": AxleName(int(lock.axle[at])).name.lower(),
            "effort": figure(lock.effort[at]),
            "z": figure(lock.z[at]),
        }
    }


def _linkage(solution: Solution) -> dict[str, Any]:
    """Return the pedal along its stroke, where its angles are known."""
    found = linkage(solution.build)
    if found is None:
        return {}
    return {
        "linkage": {
            "ratio": figures(found.ratio),
            "rod_angle": figures(found.rod_angle),
            "pad_moved": figure(found.pad_moved),
        }
    }


def _reservoir(solution: Solution) -> dict[str, Any]:
    """Return what a vacuum reservoir keeps, where there is one."""
    found = reserve(solution.build, solution.system, solution.standing)
    if found is None:
        return {}
    return {
        "reservoir": {
            "stops": figure(found.stops),
            "vacuum": figures(found.vacuum),
            "vacuum_at_end": figures(found.at_end),
            "effort": figures(found.effort),
        }
    }


def _heat(solution: Solution) -> dict[str, Any]:
    """Return the estimate of heat of the axles whose iron is known."""
    found = {axle: heated(solution, axle) for axle in AXLES}
    printed = {
        axle: {
            "share": one.share,
            "rise": one.rise,
            "peaks": figures(one.peaks),
            "fluid": one.fluid,
            "cooling_time": one.cooling_time,
            "cooling": "measured" if one.settled else "assumed",
        }
        for axle, one in found.items()
        if one is not None
    }
    return {"heat": printed} if printed else {}


def _shut(half: HalfFailed, case: int) -> dict[str, Any]:
    """Return the pedal's travel with the dead line shut, where a shuttle does that."""
    if half.shut_travel is None:
        return {}
    return {"shut_pedal_travel": figure(half.shut_travel[case])}


def _hold(held: Hold | None) -> dict[str, Any]:
    if held is None:
        return {}
    return {
        "hold": {
            "driven_torque": held.driven_torque,
            "holds": held.holds,
            "effort": held.effort,
            "pressure": held.pressure,
            "limited_by": held.limited_by,
        }
    }


def _press(presses: Presses, index: int) -> dict[str, Any]:
    row: dict[str, Any] = {name: figure(getattr(presses, name)[index]) for name in _PRINTED}
    locked = (presses.front_locked[index], presses.rear_locked[index])
    names = [axle for axle, is_locked in zip(AXLES, locked, strict=True) if is_locked]
    travel = row.pop("pedal_travel")
    return {**row, "locked": names, "pedal_travel": travel}


def _first_lock(solution: Solution) -> dict[str, Any]:
    lock, at = solution.lock, (solution.case, solution.road)
    return {
        "axle": AxleName(int(lock.axle[at])).name.lower(),
        "effort": figure(lock.effort[at]),
        "z": figure(lock.z[at]),
        "efficiency": figure(lock.efficiency[at]),
        "second_effort": figure(lock.second_effort[at]),
        "margin": figure(lock.margin[at]),
    }
