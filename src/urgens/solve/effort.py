"""The effort a deceleration takes."""

import numpy as np

from urgens.physics import vehicle
from urgens.physics.arrays import Array
from urgens.physics.booster import run_out
from urgens.physics.vehicle import StaticVehicle
from urgens.solve.ball import rolling
from urgens.solve.bracket import crossing
from urgens.solve.line_pressure import pushrod_force
from urgens.solve.rolling_forces import axle_forces
from urgens.solve.system import System

SCANNED = 200  # steps of effort


def effort_for(system: System, standing: StaticVehicle, deceleration: float) -> float:
    """Return the smallest effort [N] that asks for a deceleration, NaN where max_effort does not.

    system: the system; standing: one load case [N, -]; deceleration: by demand [g].
    """
    system = rolling(system, standing)

    def excess(effort: Array) -> Array:
        forces = axle_forces(system, pushrod_force(system, effort), standing)
        return vehicle.demand(*forces, standing) - deceleration

    efforts = np.linspace(0.0, system.max_effort, SCANNED + 1)
    over = excess(efforts)
    if over[-1] < 0.0:
        return float("nan")
    index = int(np.argmax(over >= 0.0))
    if index == 0:
        return 0.0
    ends = (efforts[index - 1], efforts[index])
    return float(crossing(excess, *ends, over[index - 1], over[index]))


def run_out_effort(system: System) -> float:
    """Return the effort [N] from which the booster helps no more, inf where it has no gain.

    system: the system.
    """
    assist = system.booster
    end = run_out(assist.crack_force, assist.jump_in, assist.gain, assist.assist_limit)
    return float(end) / (float(system.pedal_ratio) * float(system.pedal_efficiency))
