"""The sheet's chart: rear against front line pressure, with the ideal band."""

import io
from functools import lru_cache

import numpy as np

from urgens.data import font_files
from urgens.physics.vehicle import Standing
from urgens.quantity import PRESSURE, Units, UnitSystem, unit_shown
from urgens.quantity.display import in_units
from urgens.solve import Solution, ideal_pressures

INK, REAR, GRID = "#1E2226", "#A64B00", "#E4DCCB"
POINTS = 200
DASHES = ((0, (6, 2)), (0, (2, 2)), (0, (6, 2, 1, 2)))


@lru_cache(maxsize=1)
def _settings() -> dict[str, object]:
    """Return matplotlib's settings for this chart, its face made known."""
    from matplotlib import font_manager

    for path in font_files():
        font_manager.fontManager.addfont(path)
    return {
        "font.family": "IBM Plex Sans Condensed",
        "font.size": 9,
        "svg.hashsalt": "urgens",  # the same build gives the same file
    }


def pressure_chart(solution: Solution, units: UnitSystem | Units) -> bytes:
    """Return the chart as SVG."""
    import matplotlib
    from matplotlib.backends.backend_svg import FigureCanvasSVG
    from matplotlib.figure import Figure

    scale = in_units(PRESSURE, units)
    with matplotlib.rc_context(_settings()):
        figure = Figure(figsize=(3.55, 3.6), layout="constrained")
        FigureCanvasSVG(figure)
        axes = figure.add_subplot()
        made = solution.system
        pressed = solution.press(np.linspace(0.0, made.max_effort, POINTS))
        front, rear = pressed.front_pressure / scale, pressed.rear_pressure / scale
        cases = Standing(*(np.asarray(value)[:, None] for value in made.standing))
        z = np.linspace(0.0, 1.2, POINTS)
        ideal_front, ideal_rear = (p / scale for p in ideal_pressures(made, cases, z))
        for index, name in enumerate(made.case_names):
            dashes = "-" if index == solution.case else DASHES[index % len(DASHES)]
            axes.plot(
                ideal_front[index], ideal_rear[index], ls=dashes, color=INK, lw=0.9, label=name
            )
        axes.plot(front, rear, color=REAR, lw=1.8, label="as built")
        unit = unit_shown(PRESSURE, units)
        axes.set_xlabel(f"front line, {unit}")
        axes.set_ylabel(f"rear line, {unit}")
        axes.set_xlim(0, float(front.max()))
        axes.set_ylim(0, 1.15 * max(float(rear.max()), float(ideal_rear.max())))
        axes.grid(color=GRID, lw=0.6)
        axes.spines[["top", "right"]].set_visible(False)
        axes.legend(frameon=False, fontsize=8, loc="lower right")
        out = io.BytesIO()
        figure.savefig(out, format="svg", metadata={"Date": None, "Creator": "Urgens"})
    return out.getvalue()
