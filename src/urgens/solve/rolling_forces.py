"""Pressures and forces while all wheels roll, and what the valves feel of the vehicle then."""

from urgens.physics import vehicle
from urgens.physics.arrays import Array, Floats
from urgens.physics.valve_law import Felt, at_rest
from urgens.physics.vehicle import StaticVehicle
from urgens.solve.ball import rolling
from urgens.solve.line_pressure import (
    LinePressures,
    booster_output,
    forces_at,
    line_pressures,
)
from urgens.solve.settled import felt_at, settled_lines
from urgens.solve.system import System


def rolling_lines(system: System, pushrod: Floats, standing: StaticVehicle) -> LinePressures:
    """Return line pressures [Pa] while all wheels roll.

    system: the system; pushrod: force [N]; standing: load cases [N, -].
    A static load-sensing valve feels the load at rest, without downforce; a dynamic one the load
    at the deceleration it makes itself; a ball the deceleration.
    Source: Limpert, Brake Design and Safety (from memory).
    """
    system = rolling(system, standing)
    return _lines(system, booster_output(system, pushrod), standing)


def _lines(system: System, output: Array, standing: StaticVehicle) -> LinePressures:
    if system.feels_load:
        return settled_lines(system, output, standing)
    return line_pressures(system, output, at_rest(standing))


def felt_rolling(system: System, output: Array, standing: StaticVehicle) -> Felt:
    """Return what the valves feel of the vehicle while all wheels roll.

    system: the system, its ball closed where it has one; output: force on the cylinder, any shape
    [N].
    standing: load cases [N, -].

    The load at the deceleration that all make, solve.ball.
    """
    felt = at_rest(standing)
    if system.feels_load:
        forces = forces_at(system, settled_lines(system, output, standing))
        felt = felt_at(standing, vehicle.demand(*forces, standing))
    return felt if system.closing is None else felt._replace(closing=system.closing)


def axle_forces(system: System, pushrod: Floats, standing: StaticVehicle) -> tuple[Array, Array]:
    """Return front and rear axle force [N] while all wheels roll.

    system: the system; pushrod: force [N]; standing: load cases [N, -].
    """
    return forces_at(system, rolling_lines(system, pushrod, standing))
