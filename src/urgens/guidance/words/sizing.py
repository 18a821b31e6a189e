"""One choice of bore and ratio in words."""

import numpy as np

from urgens.document import Build
from urgens.guidance.words.figures import listed
from urgens.quantity import FORCE, LENGTH, PRESSURE, show
from urgens.solve import solve
from urgens.studies.sizing import BOOSTED, MANUAL, SizingMap, usual


def why(build: Build, sizing_map: SizingMap, row: int, column: int) -> str:
    """Return in words what one choice gives.

    sizing_map: its map; row, column: places in it [-].
    """
    units, at = build.natural_units, (row, column)
    ratio, boosted = float(sizing_map.ratios[column]), build.booster.fitted
    share = float(usual(sizing_map.ratios[column : column + 1], boosted=boosted)[0])
    low, high = BOOSTED if boosted else MANUAL
    unusual = (
        "" if share == 1.0 else f" A ratio of {ratio:.2f} is outside the usual {low:g} to {high:g}."
    )
    floor = build.pedal.travel_available.value
    return (
        f"{show(float(sizing_map.effort[at]), FORCE, units)} of foot for the wanted deceleration, "
        f"{show(float(sizing_map.pressure[at]), PRESSURE, units)} at the comfortable effort, "
        f"{100 * sizing_map.pedal_travel[at] / floor:.0f} % of the way to the floor, "
        f"{100 * sizing_map.stroke_used[at]:.0f} % of the stroke."
        f"{_against_now(build, sizing_map, at)}{unusual}"
    )


def _against_now(build: Build, sizing_map: SizingMap, at: tuple[int, int]) -> str:
    """Say what a choice gives up against what is fitted now."""
    solution = solve(build)
    units = build.natural_units
    effort, pedal = solution.wanted_effort, float("nan")
    if effort == effort:
        pedal = float(solution.travel(np.array([effort]))[0])
    given_up = []
    if sizing_map.effort[at] > effort + 1.0:
        given_up.append(f"{show(float(sizing_map.effort[at] - effort), FORCE, units)} more foot")
    if sizing_map.pedal_travel[at] > pedal + 1e-3:
        given_up.append(
            f"{show(float(sizing_map.pedal_travel[at] - pedal), LENGTH, units)} more travel"
        )
    return f" Against what is fitted it gives up: {listed(given_up)}." if given_up else ""
