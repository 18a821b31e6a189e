"""Figures behind the sayings of the trade, for one build at one press."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

import numpy as np

from urgens.document.kinds.brakes import piston_area
from urgens.physics import cylinder
from urgens.physics.axle import AXLES, Axle
from urgens.solve import Presses, Solution
from urgens.solve.line_pressure import cylinder_pressure
from urgens.studies.sizing import rear_bores_of, sizing_map


@dataclass(frozen=True)
class BoreRow:
    """One bore: pressure at this press [Pa], effort for the wanted deceleration [N], travel [m].

    `effort` and `travel` NaN out of reach; `own` is the build's.
    """

    text: str
    bore: float
    pressure: float
    effort: float
    travel: float
    own: bool


def bore_rows(
    solution: Solution, effort: float, bores: Sequence[tuple[str, float]]
) -> tuple[BoreRow, ...]:
    """Return what bores [m] make of an effort [N], with the build's own among them."""
    build = solution.build
    master = build.master
    own = master.main_bore
    named = {round(value, 6): text for text, value in bores}
    named[round(own.value, 6)] = own.text
    fronts = np.array(sorted(named))
    rears = rear_bores_of(build, fronts)
    fronts, rears = fronts[rears > 0], rears[rears > 0]
    ratio = np.array([float(solution.system.pedal_ratio)])
    found = sizing_map(build, solution.case, fronts, rears, ratio)
    made = solution.system
    output = float(solution.press(effort).booster_output)
    part = made.cylinders.front
    sized = part.sized(cylinder.bore_area(fronts) / part.area)
    pressure = cylinder_pressure(sized, output)
    return tuple(
        BoreRow(
            named[float(bore)],
            float(bore),
            float(pressure[index]),
            float(found.effort[index, 0]),
            float(np.nan_to_num(found.pedal_travel[index, 0], nan=np.inf)),
            abs(float(bore) - own.value) < 1e-6,
        )
        for index, bore in enumerate(fronts)
    )


@dataclass(frozen=True)
class Clamp:
    """Pressure times area of one wheel's pistons [Pa, m², N], and what that force is called."""

    axle: Axle
    part: str
    gives: str
    pressure: float
    area: float
    force: float


def clamp(solution: Solution, pressed: Presses) -> Iterator[Clamp]:
    """Yield the force each axle's pistons make at one press."""
    for axle in AXLES:
        brake = solution.build.axle(axle).brake
        is_disc = brake.has_pads
        area, pressure = piston_area(brake), float(pressed.pressure(axle))
        yield Clamp(
            axle,
            "caliper" if is_disc else "wheel cylinder",
            "clamp on each pad" if is_disc else "force on each shoe",
            pressure,
            area,
            area * pressure,
        )
