"""The knee of a rear valve as the load case chosen meets it, and what moves it there."""

import math
from dataclasses import replace

import numpy as np

from urgens.document.valves import InertiaSensing, Lever, Limiting, LoadSensing, Reducing
from urgens.physics import cylinder, vehicle
from urgens.physics.arrays import Array
from urgens.physics.valve import lever_knee
from urgens.quantity import ANGLE, FORCE, PRESSURE, Kind
from urgens.solve.line_pressure import booster_output, forces_at, line_pressures, pushrod_force
from urgens.solve.press import felt_rolling, rolling
from urgens.solve.solution import Solution
from urgens.solve.valve_law import InertiaSensingLaw, LoadSensingLaw, ReducingLaw, through

POINTS = 161
LOWEST = 1e5  # Pa; a knee stays above zero while it is dragged
ANGLES = (math.radians(1.0), math.radians(55.0))

Move = tuple[str, float, Kind]  # path below the valve, value [SI], kind


def knee_here(solution: Solution, index: int) -> float:
    """Return the knee [Pa] of a rear valve, the press going up in the load case chosen.

    solution: of a build; index: of a valve with a knee in the rear list [-]. Infinite where no
    press reaches it. Raises TypeError for a valve without one.
    Source: physics section 2: a static valve by the load at rest, a dynamic one where the
    pressure meets the knee of the load it makes itself, a ball where it rolls.
    """
    law, standing = solution.system.rear_valves[index], solution.standing
    if isinstance(law, ReducingLaw):
        return float(law.knee)
    if isinstance(law, InertiaSensingLaw):
        closing = float(np.asarray(rolling(solution.system, standing).closing))
        return closing if closing <= _without(solution, index)[0][-1] else math.inf
    if not isinstance(law, LoadSensingLaw):
        raise TypeError(f"{type(law).__name__} has no knee")
    if not law.dynamic:
        return float(law.knee(standing.rear_weight))
    pressure, z = _without(solution, index)
    over = pressure - law.knee(vehicle.axle_loads(standing, z)[1])
    if over[-1] < 0.0:
        return math.inf
    at = max(int(np.argmax(over >= 0.0)), 1)
    share = -over[at - 1] / (over[at] - over[at - 1]) if over[at] > over[at - 1] else 0.0
    return float(pressure[at - 1] + max(share, 0.0) * (pressure[at] - pressure[at - 1]))


def moves(solution: Solution, index: int, knee: float) -> list[Move]:
    """Return the figures of a rear valve that bring its knee to a pressure.

    solution: of a build; index: of a valve with a knee that is no adjustable one [-]; knee: wanted
    in the load case chosen [Pa].
    A load-sensing valve's knees rise together, by spring or by points; a ball's ramp gets steeper.
    Raises TypeError for another valve.
    Source: `knee_here`, turned round.
    """
    valve, knee = solution.build.valves.rear[index], max(knee, LOWEST)
    if isinstance(valve, Reducing | Limiting):
        return [("knee", knee, PRESSURE)]
    if isinstance(valve, InertiaSensing):
        pressure, z = _without(solution, index)
        angle = math.atan(float(np.interp(knee, pressure, z)))
        return [("ball_angle", min(max(angle, ANGLES[0]), ANGLES[1]), ANGLE)]
    if not isinstance(valve, LoadSensing):
        raise TypeError(f"{valve.kind} has no knee to move")
    load = float(np.asarray(solution.standing.rear_weight))
    if valve.follows == "dynamic":  # the load where this pressure meets the valve, still open
        pressure, z = _without(solution, index)
        at = np.interp(knee, pressure, z)
        load = float(vehicle.axle_loads(solution.standing, at)[1])
    if valve.lever is not None:
        return [("lever.preload", _preload(valve.lever, valve.slope, load, knee), FORCE)]
    law = solution.system.rear_valves[index]
    assert valve.points is not None
    assert isinstance(law, LoadSensingLaw)
    factor = knee / float(law.knee(load))
    return [
        (f"points[{row}][1]", max(point[1].value * factor, LOWEST), PRESSURE)
        for row, point in enumerate(valve.points)
    ]


def _preload(lever: Lever, slope: float, load: float, knee: float) -> float:
    """Return the force [N] a lever's spring is to be set to for a knee [Pa] at a rear load [N]."""
    area = cylinder.bore_area(lever.piston_diameter.value)
    per_newton = lever_knee(1.0, lever.arm.value, lever.piston_arm.value, area, slope)
    more = (load - lever.at_load.value) / lever.suspension_rate.value * lever.spring_rate.value
    return max(knee / float(per_newton) - more, 1.0)


def _without(solution: Solution, index: int) -> tuple[Array, Array]:
    """Return the pressure in front of a rear valve [Pa] and the deceleration [g], as if open.

    Up to the hardest press, both rising.
    """
    valves, standing = solution.system.rear_valves, solution.standing
    made = replace(solution.system, rear_valves=(*valves[:index], *valves[index + 1 :]))
    made = rolling(made, standing)
    efforts = np.linspace(0.0, made.max_effort, POINTS)
    output = booster_output(made, pushrod_force(made, efforts))
    felt = felt_rolling(made, output, standing)
    lines = line_pressures(made, output, felt)
    z = vehicle.demand(*forces_at(made, lines), standing)
    return through(valves[:index], lines.master_rear, felt), z
