"""The sheet's chart: rear against front line pressure, with the ideal lines, as SVG."""

import numpy as np

from urgens.quantity import PRESSURE, Units, UnitSystem, unit_shown
from urgens.quantity.display import in_units
from urgens.sheet.plot import INK, REAR, Plot
from urgens.solve import Solution, ideal_pressures

POINTS = 200
WIDE, HIGH, PER_INCH = 2.8, 2.25, 100.0  # inches, and px of one
DASHES = ("6 2", "2 2", "6 2 1 2")
# Of the legend
MOST_NAMED = 3
MOST_LETTERS = 30


def pressure_chart(solution: Solution, units: UnitSystem | Units) -> bytes:
    """Return the chart as SVG; units: shown.

    Source: the ideal distribution of physics.md section 4.
    """
    scale, made = in_units(PRESSURE, units), solution.system
    pressed = solution.press(np.linspace(0.0, made.max_effort, POINTS))
    front, rear = pressed.front_pressure / scale, pressed.rear_pressure / scale
    cases = made.cases
    z = np.linspace(0.0, 1.2, POINTS)
    ideal_front, ideal_rear = (p / scale for p in ideal_pressures(made, cases, z))
    inside = ideal_rear[ideal_front <= front.max()]
    most = 1.15 * max(float(rear.max()), float(inside.max(initial=0.0)))
    plot = Plot(float(front.max()), most, WIDE * PER_INCH, HIGH * PER_INCH)
    looks = [
        f'stroke="{INK}" stroke-width="0.9"'
        + ("" if index == solution.case else f' stroke-dasharray="{DASHES[index % len(DASHES)]}"')
        for index in range(len(made.case_names))
    ]
    unit = unit_shown(PRESSURE, units)
    plot.axes(f"front line, {unit}", f"rear line, {unit}")
    for one, other, look in zip(ideal_front, ideal_rear, looks, strict=True):
        plot.line(one, other, look)
    own = f'stroke="{REAR}" stroke-width="1.8"'
    plot.line(front, rear, own)
    plot.legend([*_named(solution, looks), ("as built", own)])
    return plot.svg()


def _named(solution: Solution, looks: list[str]) -> list[tuple[str, str]]:
    """Return the load cases that are named, the one that is looked at among them."""
    rows = [*zip(solution.system.case_names, looks, strict=True)]
    shown = rows[:MOST_NAMED]
    if solution.case >= MOST_NAMED:
        shown[-1] = rows[solution.case]
    more = len(rows) - len(shown)
    said = [(f"… and {more} more load cases", 'stroke="none"')] if more else []
    return [*((_cut(name), look) for name, look in shown), *said]


def _cut(name: str) -> str:
    return name if len(name) <= MOST_LETTERS else f"{name[: MOST_LETTERS - 1]}…"
