"""A circuit valve by valve: what goes into each and what comes out, and its own loop."""

from dataclasses import dataclass

import numpy as np

from urgens.physics.arrays import Array
from urgens.physics.axle import Axle
from urgens.physics.valve_law import Felt, ValveLaw
from urgens.physics.vehicle import axle_loads
from urgens.solve.ball import rolling
from urgens.solve.press import Presses
from urgens.solve.solution import Solution

POINTS = 161


@dataclass(frozen=True)
class Stage:
    """One valve at a press: pressures before and behind it [Pa]."""

    law: ValveLaw
    inlet: float
    outlet: float


@dataclass(frozen=True)
class Loop:
    """One valve pressed and let go: inlet and outlet [Pa], up and down; its tolerance (m,) each.

    `low` and `high` are the outlets of the valve that opens earliest and latest; None where it has
    no knee.
    """

    inlet: Array
    up: Array
    down: Array
    low: Array | None
    high: Array | None


def felt(solution: Solution, pressed: Presses) -> Felt:
    """Return what valves feel of the vehicle at a press, while all wheels roll.

    pressed: one press.
    """
    standing = solution.standing
    now = axle_loads(standing, pressed.demand_z)[1]
    closing = rolling(solution.system, standing).closing
    return Felt(np.asarray(now), standing.rear_weight, np.inf if closing is None else closing)


def stages(solution: Solution, pressed: Presses, circuit: Axle) -> tuple[Stage, ...]:
    """Return what each valve of a circuit does at a press, in flow order.

    pressed: one press; circuit: the axle it feeds [-].
    Source: the outlet of one is the inlet of the next.
    """
    load = felt(solution, pressed)
    inlet = float(pressed.master(circuit))
    found = []
    for law in solution.system.valves.of(circuit):
        outlet = float(law.outlet(inlet, load))
        found.append(Stage(law, inlet, outlet))
        inlet = outlet
    return tuple(found)


def loop(solution: Solution, pressed: Presses, law: ValveLaw, hardest: float) -> Loop:
    """Return a valve's way up to a pressure and back.

    pressed: one press, whose load it feels; law: the valve; hardest: inlet
    pressure [Pa].
    Source: on release the outlet stays until the inlet has fallen to it.
    """
    load = felt(solution, pressed)
    inlet = np.linspace(0.0, hardest, POINTS)
    up = law.outlet(inlet, load)
    ends = law.tolerance(load)
    low, high = (None, None) if ends is None else (end.outlet(inlet, load) for end in ends)
    return Loop(inlet, up, law.release(inlet, up[-1:]), low, high)
