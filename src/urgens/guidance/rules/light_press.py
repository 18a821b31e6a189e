"""What a metering valve changes at a light press: the front's share of the braking."""

from dataclasses import replace

import numpy as np

from urgens.document.kinds.valves.metering import Metering
from urgens.physics.axle import Pair
from urgens.physics.cylinder import force_for
from urgens.physics.valve_law import MeteringLaw, at_rest
from urgens.quantity import PRESSURE, parse
from urgens.solve import Solution
from urgens.solve.line_pressure import forces_at, line_pressures
from urgens.solve.system import System

LIGHT = parse("100 psi", PRESSURE).value  # a light press, where a metering valve still holds


def front_shares(solution: Solution) -> tuple[float, float]:
    """Return the front's share of the braking at a light press, with a metering valve and without.

    NaN where nothing brakes yet.
    Source: the laws of both; common practice: 10 to 130 psi.
    """
    made = solution.system
    kept = tuple(v for v in made.valves.front if not isinstance(v, MeteringLaw))
    metering = Metering(kind="metering")
    law = MeteringLaw(metering.close.value, metering.open.value, metering.full_pressure)
    held, without = (
        _share(replace(made, valves=Pair(laws, made.valves.rear)), solution)
        for laws in ((law, *kept), kept)
    )
    return held, without


def _share(system: System, solution: Solution) -> float:
    part = system.cylinders.front
    output = np.asarray(force_for(part, LIGHT) / part.share)
    lines = line_pressures(system, output, at_rest(solution.standing))
    front, rear = (float(force) for force in forces_at(system, lines))
    return front / (front + rear) if front + rear > 0 else float("nan")
