"""Pressing and letting go: what two gauges across a valve show."""

from dataclasses import dataclass

import numpy as np

from urgens.physics.arrays import Array
from urgens.physics.axle import AXLES
from urgens.physics.valve_law import Felt, ValveLaw
from urgens.physics.vehicle import StaticVehicle
from urgens.solve.ball import rolling
from urgens.solve.line_pressure import booster_output, pushrod_force
from urgens.solve.rolling_forces import felt_rolling, rolling_lines
from urgens.solve.system import System


@dataclass(frozen=True)
class Trace:
    """Pressures [Pa] at the cylinder and behind the valves, up to a press and back to rest."""

    effort: Array  # N
    master_front: Array
    master_rear: Array
    front_pressure: Array
    rear_pressure: Array


def trace(system: System, effort: float, standing: StaticVehicle, points: int = 101) -> Trace:
    """Return the way up to `effort` and back.

    system: the system; effort: the hardest [N]; standing: one load case [N, -]; points: each way
    [-].
    Source: common practice: on the way back each valve's outlet stays until the inlet has
    fallen to it, and a residual valve keeps its pressure.
    """
    system = rolling(system, standing)
    up = np.linspace(0.0, effort, points)
    lines = rolling_lines(system, pushrod_force(system, up), standing)
    felt = felt_rolling(system, booster_output(system, pushrod_force(system, up[-1:])), standing)
    ways = [(*system.outlets.of(axle), *system.valves.of(axle)) for axle in AXLES]
    down_front = _released(ways[0], lines.master_front[::-1], felt)
    down_rear = _released(ways[1], lines.master_rear[::-1], felt)
    return Trace(
        effort=np.concatenate((up, up[::-1])),
        master_front=np.concatenate((lines.master_front, lines.master_front[::-1])),
        master_rear=np.concatenate((lines.master_rear, lines.master_rear[::-1])),
        front_pressure=np.concatenate((lines.front, down_front)),
        rear_pressure=np.concatenate((lines.rear, down_rear)),
    )


def _released(laws: tuple[ValveLaw, ...], falling: Array, felt: Felt) -> Array:
    """Return the pressure [Pa] behind all valves while the cylinder's falls from its peak."""
    inlet, peak = falling, falling[:1]
    for law in laws:
        peak = law.outlet(peak, felt)
        inlet = law.release(inlet, peak)
    return inlet
