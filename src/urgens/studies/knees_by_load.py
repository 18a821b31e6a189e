"""How a valve's knee moves with what the vehicle carries."""

from dataclasses import dataclass

import numpy as np

from urgens.document.kinds.valves.load_sensing import LoadSensing
from urgens.physics.arrays import Array
from urgens.physics.cylinder import bore_area
from urgens.physics.valve import lever_knee, spring_force
from urgens.physics.valve_law import InertiaSensingLaw, LoadSensingLaw, ValveLaw
from urgens.physics.vehicle import StaticVehicle, axle_loads
from urgens.solve.ball import rolling
from urgens.solve.press import Presses
from urgens.solve.solution import Solution
from urgens.studies.valve_stages import felt

POINTS = 81
HARDEST = 1.2  # g, down to whose rear load the line of a valve that feels it goes
BESIDE = 0.25  # of the loads, how far beyond the lightest and heaviest case the line goes


@dataclass(frozen=True)
class KneeLine:
    """Knees over loads: a line (m,), and one point a load case (c,) [N, Pa].

    The load is the rear axle's, or, `of_vehicle`, the whole weight.
    """

    of_vehicle: bool
    load: Array
    knee: Array
    case_load: Array
    case_knee: Array


def knee_line(solution: Solution, law: ValveLaw) -> KneeLine | None:
    """Return how a valve's knee follows the load, None where it does not.

    law: of one of its valves. A knee no press reaches is infinite.
    """
    standing = solution.system.standing
    if isinstance(law, LoadSensingLaw):
        cases = np.asarray(standing.rear_weight, dtype=float)
        braked = axle_loads(standing, HARDEST)[1] if law.feels_load else cases
        load = _around(np.maximum(np.minimum(cases, braked), 0.0), cases)
        return KneeLine(False, load, law.knee_at(load), cases, law.knee_at(cases))
    if isinstance(law, InertiaSensingLaw):
        cases = np.asarray(standing.weight, dtype=float)
        load = _around(cases, cases)
        knees = (_ball_knee(solution, StaticVehicle(0.5 * w, 0.5 * w, 0.0)) for w in (load, cases))
        line, at_cases = knees
        return KneeLine(True, load, line, cases, at_cases)
    return None


def _around(least: Array, most: Array) -> Array:
    return np.linspace(
        (1.0 - BESIDE) * float(least.min()), (1.0 + BESIDE) * float(most.max()), POINTS
    )


def _ball_knee(solution: Solution, standing: StaticVehicle) -> Array:
    """Return where the ball shuts, which only the weight decides."""
    closing = rolling(solution.system, standing).closing
    return np.broadcast_to(np.asarray(closing), np.shape(standing.front_weight))


@dataclass(frozen=True)
class LeverState:
    """How a load-sensing valve's lever stands: rear load [N], axle's travel [m], forces [N].

    `travel` is up from where the spring is set, between the stops; `spring` is its force, `push`
    the lever's on the piston; `knee` [Pa].
    """

    load: float
    travel: float
    spring: float
    push: float
    knee: float


def lever_state(solution: Solution, pressed: Presses, valve: LoadSensing) -> LeverState:
    """Return how a valve's lever stands at a press.

    pressed: one press; valve: described by its lever.
    Source: statics; physics.valve, spring_force and lever_knee.
    """
    lever = valve.lever
    assert lever is not None
    loads = felt(solution, pressed)
    load = float(np.asarray(loads.now if valve.follows == "dynamic" else loads.still))
    travel = (load - lever.at_load.value) / lever.suspension_rate.value
    if lever.droop is not None:
        travel = max(travel, -lever.droop.value)
    if lever.bump is not None:
        travel = min(travel, lever.bump.value)
    at_load, rate = lever.at_load.value, lever.suspension_rate.value
    rates = lever.spring_rate.value / rate
    spring = float(spring_force(at_load + rate * travel, at_load, lever.preload.value, rates))
    arms = lever.arm.value, lever.piston_arm.value
    knee = lever_knee(spring, *arms, bore_area(lever.piston_diameter.value), valve.slope)
    return LeverState(load, travel, spring, spring * arms[0] / arms[1], float(knee))
