"""Where an inertia-sensing valve's ball shuts it: a knee that belongs to loads and road."""

from collections.abc import Callable
from dataclasses import replace

import numpy as np

from urgens.physics import vehicle
from urgens.physics.arrays import Array
from urgens.physics.valve_law import Felt, through
from urgens.physics.vehicle import Standing
from urgens.solve.bracket import first_rise
from urgens.solve.line_pressure import line_pressures
from urgens.solve.system import System

# N on the cylinder, from rest to beyond any foot: the first of them that is enough is refined.
TRIED: Array = np.append(0.0, np.exp2(np.arange(6, 21, dtype=float)))
EXACT = 1e-12  # of the deceleration there

Reached = Callable[[System, Array], Array]


def closed(made: System, standing: Standing, reached: Reached) -> System:
    """Return the system with its ball valve's knee; as it is where it has none.

    made: the system; standing: load cases [N, -]; reached: deceleration of a system over the
    force on its cylinder [g].
    The knee is the pressure in front of the valve at which the vehicle, with the valve still
    open, first reaches the ball's deceleration; infinite where it never does.
    Source: the ball rolls once the deceleration passes the tangent of its ramp.
    """
    ball = made.ball
    if ball is None:
        return made
    rolling = replace(made, closing=np.inf)

    def over_at(force: Array) -> Array:
        return np.asarray(reached(rolling, force) - ball.closes)

    shape = np.shape(over_at(np.asarray(0.0)))
    over = over_at(TRIED.reshape(-1, *(1 for _ in shape)))
    reaches = over[-1] >= 0.0
    output = first_rise(over_at, TRIED, over, reaches, EXACT)
    return replace(made, closing=np.where(reaches, _in_front(rolling, output, standing), np.inf))


def _in_front(made: System, output: Array, standing: Standing) -> Array:
    """Return the pressure [Pa] in front of the ball while it lets go."""
    ball = made.ball
    assert ball is not None
    felt = Felt(vehicle.axle_loads(standing, ball.closes)[1], standing.rear_weight)
    lines = line_pressures(made, output, felt)
    ways = ((made.valves.front, lines.master_front), (made.valves.rear, lines.master_rear))
    valves, pressure = next(way for way in ways if ball in way[0])
    return through(valves[: valves.index(ball)], pressure, felt)
