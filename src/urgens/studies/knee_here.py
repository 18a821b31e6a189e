"""The knee of a rear valve as the load case chosen meets it, and what moves it there."""

import math

import numpy as np

from urgens.document.kinds.valves import kind_of
from urgens.document.kinds.valves.kind import LOWEST_KNEE, Move, Wanted
from urgens.physics import vehicle
from urgens.physics.arrays import Array
from urgens.physics.valve_law import at_rest, through
from urgens.solve.ball import rolling
from urgens.solve.line_pressure import booster_output, forces_at, line_pressures, pushrod_force
from urgens.solve.rolling_forces import felt_rolling
from urgens.solve.solution import Solution

POINTS = 161


def knee_here(solution: Solution, index: int) -> float:
    """Return the knee [Pa] of a rear valve, the press going up in the load case chosen.

    index: of a valve with a knee in the rear list [-]. Infinite where no
    press reaches it. Raises TypeError for a valve without one.
    Source: Limpert, Brake Design and Safety (from memory): a static valve by the load at
    rest, a dynamic one where the pressure meets the knee of the load it makes itself, a ball
    where it rolls.
    """
    law, standing = solution.system.valves.rear[index], solution.standing
    closing = rolling(solution.system, standing).closing
    felt = at_rest(standing)._replace(closing=np.inf if closing is None else closing)
    knee = law.knee(felt)
    if knee is None:
        raise TypeError(f"{type(law).__name__} has no knee")
    if not law.feels_load and closing is None:
        return float(knee)
    pressure, z = _without(solution, index)
    if not law.feels_load:
        return float(knee) if knee <= pressure[-1] else math.inf
    loads = vehicle.axle_loads(standing, z)[1]
    over = pressure - np.asarray(law.knee(felt._replace(now=loads)))
    if over[-1] < 0.0:
        return math.inf
    at = max(int(np.argmax(over >= 0.0)), 1)
    share = -over[at - 1] / (over[at] - over[at - 1]) if over[at] > over[at - 1] else 0.0
    return float(pressure[at - 1] + max(share, 0.0) * (pressure[at] - pressure[at - 1]))


def moves(solution: Solution, index: int, knee: float) -> list[Move]:
    """Return the figures of a rear valve that bring its knee to a pressure.

    index: of a valve with a knee [-]; knee: wanted in the load case chosen
    [Pa]. A load-sensing valve's knees rise together, by spring or by points; a ball's ramp gets
    steeper; an adjustable one goes to the nearest setting.
    Raises TypeError for another valve.
    """
    valve, knee = solution.build.valves.rear[index], max(knee, LOWEST_KNEE)
    move = kind_of(valve).moves
    if move is None:
        raise TypeError(f"{valve.kind} has no knee to move")
    law, standing = solution.system.valves.rear[index], solution.standing
    pressure, z = _without(solution, index)
    there = float(np.interp(knee, pressure, z))  # where this pressure meets the valve, still open
    load = float(np.asarray(standing.rear_weight))
    if law.feels_load:
        load = float(vehicle.axle_loads(standing, there)[1])
    return move(valve, law, Wanted(knee, load, there))


def _without(solution: Solution, index: int) -> tuple[Array, Array]:
    """Return the pressure in front of a rear valve [Pa] and the deceleration [g], as if open.

    Up to the hardest press, both rising.
    """
    valves, standing = solution.system.valves.rear, solution.standing
    made = solution.system.with_rear_valves(*valves[:index], *valves[index + 1 :])
    made = rolling(made, standing)
    efforts = np.linspace(0.0, made.max_effort, POINTS)
    output = booster_output(made, pushrod_force(made, efforts))
    felt = felt_rolling(made, output, standing)
    lines = line_pressures(made, output, felt)
    z = vehicle.demand(*forces_at(made, lines), standing)
    return through(valves[:index], lines.master_rear, felt), z
