"""Where an inertia-sensing valve's ball shuts it: a knee that belongs to loads and road."""

from dataclasses import replace

import numpy as np

from urgens.physics import vehicle
from urgens.physics.arrays import Array, Floats
from urgens.physics.valve_law import Felt, through
from urgens.physics.vehicle import StaticVehicle
from urgens.solve.bracket import first_rise
from urgens.solve.line_pressure import LinePressures, forces_at, line_pressures
from urgens.solve.settled import WHOLE, Left, felt_at
from urgens.solve.system import System

# N on the cylinder, from rest to beyond any foot: the first of them that is enough is refined.
TRIED: Array = np.append(0.0, np.exp2(np.arange(6, 21, dtype=float)))
EXACT = 1e-12  # of the force there
NO_LIMIT = (np.inf, np.inf)


def rolling(system: System, standing: StaticVehicle) -> System:
    """Return the system with its ball valve closed as it is while all wheels roll.

    system: the system; standing: load cases [N, -]. As it is where that is done, or has no ball.
    """
    return _closed(system, standing, NO_LIMIT, WHOLE) if system.closing is None else system


def sliding(system: System, standing: StaticVehicle, surface: Floats, left: Left = WHOLE) -> System:
    """Return the system with its ball valve closed as it is where a surface limits the axles.

    system: the system; standing: load cases [N, -]; surface: tyre-road coefficient [-]; left: of
    the brakes and the grip [-]. As it is where it has no ball, or where it closed while all wheels
    rolled and no axle was at its grip by then.
    """
    ball = system.ball
    if ball is None:
        return system
    passed = vehicle.grip(standing, ball.closes, np.multiply(surface, left.grip))
    reached = np.less_equal(ball.closes, standing.lifts)
    front, rear = (np.where(reached, most, 0.0) for most in passed)
    if left is WHOLE and system.closing is not None and system.at_closing is not None:
        held = [own <= most for own, most in zip(system.at_closing, (front, rear), strict=True)]
        if np.all((held[0] & held[1]) | np.isinf(system.closing)):
            return system
    return _closed(system, standing, (front, rear), left)


def _closed(
    system: System, standing: StaticVehicle, most: tuple[Floats, Floats], left: Left
) -> System:
    """Return the system with its ball valve's knee; as it is where it has none.

    The knee is the pressure in front of the valve at which the vehicle, with the valve still
    open, first reaches the ball's deceleration; infinite where it never does. At that deceleration
    the loads are known, and so is the `most` that each axle passes [N].
    Source: the ball rolls once the deceleration passes the tangent of its ramp.
    """
    ball = system.ball
    if ball is None:
        return system
    open_ = system if system.closing is None else replace(system, closing=None)
    felt = felt_at(standing, ball.closes)
    wanted = ball.closes * standing.weight

    def over_at(output: Array) -> Array:
        front, rear = left.of(forces_at(open_, line_pressures(open_, output, felt)))
        if most is not NO_LIMIT:
            front, rear = np.minimum(front, most[0]), np.minimum(rear, most[1])
        return np.asarray(front + rear - wanted)

    shape = np.shape(over_at(np.asarray(0.0)))
    over = over_at(TRIED.reshape(-1, *(1 for _ in shape)))
    reaches = over[-1] >= 0.0
    output = first_rise(over_at, TRIED, over, reaches, EXACT)
    lines = line_pressures(open_, output, felt)
    closing = np.where(reaches, _in_front(open_, lines, felt), np.inf)
    return replace(system, closing=closing, at_closing=left.of(forces_at(open_, lines)))


def _in_front(system: System, lines: LinePressures, felt: Felt) -> Array:
    """Return the pressure [Pa] in front of the ball while it lets go."""
    ball = system.ball
    assert ball is not None
    ways = ((system.valves.front, lines.master_front), (system.valves.rear, lines.master_rear))
    valves, pressure = next(way for way in ways if ball in way[0])
    return through(valves[: valves.index(ball)], pressure, felt)
