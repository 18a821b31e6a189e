"""The sheet's chart: rear against front line pressure, with the ideal lines, as SVG."""

from dataclasses import dataclass
from html import escape

import numpy as np
from numpy.typing import NDArray

from urgens.quantity import PRESSURE, Units, UnitSystem, unit_shown, written
from urgens.quantity.display import in_units
from urgens.solve import Solution, ideal_pressures

INK, REAR, GRID = "#1E2226", "#A64B00", "#E4DCCB"
FACE = "IBM Plex Sans Condensed"
POINTS = 200
DASHES = ("6 2", "2 2", "6 2 1 2")
WIDE, HIGH = 355.0, 360.0  # px
LEFT, TOP, RIGHT, FOOT = 46.0, 8.0, 14.0, 38.0  # px around the plot
LINE = 13.0  # px between two lines of the legend
MOST_NAMED, MOST_LETTERS = 6, 30  # of the legend
TICKS = 6  # about so many on an axis

Line = NDArray[np.float64]


@dataclass(frozen=True)
class _Plot:
    """From pressures, in the unit shown, to px."""

    most_front: float
    most_rear: float

    def x(self, front: float) -> float:
        return LEFT + front / self.most_front * (WIDE - LEFT - RIGHT)

    def y(self, rear: float) -> float:
        return HIGH - FOOT - rear / self.most_rear * (HIGH - FOOT - TOP)

    def line(self, front: Line, rear: Line, look: str) -> str:
        """Return a line as it is seen: up to where it leaves the plot."""
        inside = (front <= self.most_front) & np.isfinite(front) & np.isfinite(rear)
        points = " ".join(
            f"{self.x(f):.1f},{self.y(r):.1f}"
            for f, r in zip(front[inside], rear[inside], strict=True)
        )
        return f'<polyline points="{points}" fill="none" {look}/>'


def pressure_chart(solution: Solution, units: UnitSystem | Units) -> bytes:
    """Return the chart as SVG."""
    scale, made = in_units(PRESSURE, units), solution.system
    pressed = solution.press(np.linspace(0.0, made.max_effort, POINTS))
    front, rear = pressed.front_pressure / scale, pressed.rear_pressure / scale
    cases = made.cases
    z = np.linspace(0.0, 1.2, POINTS)
    ideal_front, ideal_rear = (p / scale for p in ideal_pressures(made, cases, z))
    inside = ideal_rear[ideal_front <= front.max()]
    plot = _Plot(float(front.max()), 1.15 * max(float(rear.max()), float(inside.max(initial=0.0))))
    looks = [
        f'stroke="{INK}" stroke-width="0.9"'
        + ("" if index == solution.case else f' stroke-dasharray="{DASHES[index % len(DASHES)]}"')
        for index in range(len(made.case_names))
    ]
    lines = [
        plot.line(f, r, look) for f, r, look in zip(ideal_front, ideal_rear, looks, strict=True)
    ]
    own = f'stroke="{REAR}" stroke-width="1.8"'
    drawn = [
        *_axes(plot, unit_shown(PRESSURE, units)),
        *lines,
        plot.line(front, rear, own),
        *_legend([*_named(solution, looks), ("as built", own)]),
    ]
    head = f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {WIDE:g} {HIGH:g}"'
    return "\n".join(
        [f'{head} font-family="{FACE}" font-size="11" fill="{INK}">', *drawn, "</svg>", ""]
    ).encode()


def _axes(plot: _Plot, unit: str) -> list[str]:
    bottom, right = HIGH - FOOT, WIDE - RIGHT
    drawn = []
    for tick in _ticks(plot.most_front):
        x, words = plot.x(tick), written(tick, 0)
        drawn.append(_rule(x, TOP, x, bottom, GRID))
        drawn.append(_text(x, bottom + 14, words, "middle"))
    for tick in _ticks(plot.most_rear):
        y, words = plot.y(tick), written(tick, 0)
        drawn.append(_rule(LEFT, y, right, y, GRID))
        drawn.append(_text(LEFT - 5, y + 4, words, "end"))
    drawn += [_rule(LEFT, bottom, right, bottom, INK), _rule(LEFT, TOP, LEFT, bottom, INK)]
    drawn.append(_text((LEFT + right) / 2, HIGH - 6, f"front line, {unit}", "middle"))
    middle = (TOP + bottom) / 2
    words = _text(0, 0, f"rear line, {unit}", "middle")
    drawn.append(f'<g transform="translate(10 {middle:.1f}) rotate(-90)">{words}</g>')
    return drawn


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


def _legend(rows: list[tuple[str, str]]) -> list[str]:
    """Name the lines, in the lower right corner, over whatever runs there."""
    width = 32 + 5.6 * max(len(name) for name, _ in rows)
    left, top = WIDE - RIGHT - width, HIGH - FOOT - LINE * len(rows) - 6
    box = f'<rect x="{left - 4:.1f}" y="{top - 4:.1f}" width="{width:.1f}"'
    drawn = [f'{box} height="{LINE * len(rows) + 6:.1f}" fill="#FFFFFF" fill-opacity="0.85"/>']
    for index, (name, look) in enumerate(rows):
        y = top + LINE * index + 6
        drawn.append(
            f'<line x1="{left:.1f}" y1="{y:.1f}" x2="{left + 24:.1f}" y2="{y:.1f}" {look}/>'
        )
        drawn.append(_text(left + 29, y + 4, name, "start", size=10))
    return drawn


def _ticks(most: float) -> Line:
    """Return round figures from none to `most`, in steps of 1, 2 or 5."""
    tens = 10.0 ** np.floor(np.log10(most / TICKS))
    step = next(tens * part for part in (1.0, 2.0, 5.0, 10.0) if most / (tens * part) <= TICKS)
    return np.arange(0.0, most, step)


def _rule(x1: float, y1: float, x2: float, y2: float, color: str) -> str:
    ends = f'x1="{x1:.1f}" y1="{y1:.1f}" x2="{x2:.1f}" y2="{y2:.1f}"'
    return f'<line {ends} stroke="{color}" stroke-width="0.6"/>'


def _text(x: float, y: float, words: str, anchor: str, size: int = 11) -> str:
    place = f'x="{x:.1f}" y="{y:.1f}" text-anchor="{anchor}" font-size="{size}"'
    return f"<text {place}>{escape(words)}</text>"
