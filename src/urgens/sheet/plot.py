"""Plots on paper as SVG, in the application's own look: axes, lines, dots and a legend."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from html import escape

import numpy as np
from numpy.typing import NDArray

from urgens.quantity import written

INK = "#1E2226"
FRONT = "#174A86"
REAR = "#A64B00"
GRID = "#E4DCCB"
BAND = "#D9D2BF"
FACE = "IBM Plex Sans Condensed"
# px around the plot
LEFT = 46.0
TOP = 8.0
RIGHT = 14.0
FOOT = 38.0
LINE = 14.0  # px between two lines of the legend
TEXT = 12  # px, at a hundred an inch 8.6 pt
TICKS = 6  # about so many on an axis

Line = NDArray[np.float64]


@dataclass
class Plot:
    """From figures, in the units shown, to px; what is drawn gathers in the order it is asked."""

    most_x: float
    most_y: float
    wide: float = 355.0
    high: float = 360.0
    drawn: list[str] = field(default_factory=list)
    _named: list[tuple[str, str]] = field(default_factory=list)

    def __post_init__(self) -> None:
        """Give a plot with nothing in it a scale all the same."""
        self.most_x, self.most_y = self.most_x or 1.0, self.most_y or 1.0

    def x(self, value: float) -> float:
        """Return where a figure is across; value: in the unit shown."""
        return LEFT + value / self.most_x * (self.wide - LEFT - RIGHT)

    def y(self, value: float) -> float:
        """Return where a figure is down; value: in the unit shown."""
        return self.high - FOOT - value / self.most_y * (self.high - FOOT - TOP)

    def axes(self, across: str, up: str) -> None:
        """Draw grid and axes with their names and units; across, up: the names [text]."""
        bottom, right = self.high - FOOT, self.wide - RIGHT
        for tick in ticks(self.most_x):
            x, words = self.x(tick), _tick(tick, self.most_x)
            self.drawn += [_rule(x, TOP, x, bottom, GRID), _text(x, bottom + 14, words, "middle")]
        for tick in ticks(self.most_y):
            y, words = self.y(tick), _tick(tick, self.most_y)
            self.drawn += [_rule(LEFT, y, right, y, GRID), _text(LEFT - 5, y + 4, words, "end")]
        self.drawn += [_rule(LEFT, bottom, right, bottom, INK), _rule(LEFT, TOP, LEFT, bottom, INK)]
        self.drawn.append(_text((LEFT + right) / 2, self.high - 6, across, "middle"))
        middle = (TOP + bottom) / 2
        words = _text(0, 0, up, "middle")
        self.drawn.append(f'<g transform="translate(10 {middle:.1f}) rotate(-90)">{words}</g>')

    def line(self, x: Line, y: Line, look: str, name: str = "") -> None:
        """Draw a line up to where it leaves the plot; x, y: any length; look: SVG [text]."""
        inside = (x <= self.most_x) & (y <= self.most_y) & np.isfinite(x) & np.isfinite(y)
        points = " ".join(
            f"{self.x(a):.1f},{self.y(b):.1f}" for a, b in zip(x[inside], y[inside], strict=True)
        )
        self.drawn.append(f'<polyline points="{points}" fill="none" {look}/>')
        if name:
            self._named.append((name, look))

    def band(self, x: Line, low: Line, high: Line, name: str = "") -> None:
        """Fill between two lines; x, low, high: any length."""
        way = [*zip(x, low, strict=True), *reversed([*zip(x, high, strict=True)])]
        points = " ".join(f"{self.x(a):.1f},{self.y(min(b, self.most_y)):.1f}" for a, b in way)
        self.drawn.append(f'<polygon points="{points}" fill="{BAND}" stroke="none"/>')
        if name:
            self._named.append((name, f'stroke="{BAND}" stroke-width="7"'))

    def dots(self, x: Line, y: Line, color: str, *, full: bool = True, name: str = "") -> None:
        """Draw dots, full or open; x, y: any length."""
        fill = color if full else "#FFFFFF"
        for a, b in zip(x, y, strict=True):
            place = f'cx="{self.x(a):.1f}" cy="{self.y(b):.1f}" r="2.6"'
            self.drawn.append(f'<circle {place} fill="{fill}" stroke="{color}"/>')
        if name and len(x):
            look = f'stroke="{color}" stroke-width="5" stroke-dasharray="1 6"'
            self._named.append((name, f'{look} stroke-linecap="round"'))

    def legend(self, rows: Sequence[tuple[str, str]] | None = None) -> None:
        """Name the lines, in the lower right corner; rows: of names and looks, else as drawn."""
        shown = [*(self._named if rows is None else rows)]
        width = 32 + 6.2 * max((len(name) for name, _ in shown), default=0)
        left, top = self.wide - RIGHT - width, self.high - FOOT - LINE * len(shown) - 6
        box = f'<rect x="{left - 4:.1f}" y="{top - 4:.1f}" width="{width:.1f}"'
        height = LINE * len(shown) + 6
        self.drawn.append(f'{box} height="{height:.1f}" fill="#FFFFFF" fill-opacity="0.85"/>')
        for index, (name, look) in enumerate(shown):
            y = top + LINE * index + 6
            self.drawn.append(
                f'<line x1="{left:.1f}" y1="{y:.1f}" x2="{left + 24:.1f}" y2="{y:.1f}" {look}/>'
            )
            self.drawn.append(_text(left + 29, y + 4, name, "start"))

    def svg(self) -> bytes:
        """Return it as SVG. Source: SVG 1.1."""
        head = f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {self.wide:g} {self.high:g}"'
        return "\n".join(
            [
                f'{head} font-family="{FACE}" font-size="{TEXT}" fill="{INK}">',
                *self.drawn,
                "</svg>",
                "",
            ]
        ).encode()


def ticks(most: float) -> Line:
    """Return round figures from none to `most`, in steps of 1, 2 or 5; most: [-].

    Source: common practice.
    """
    tens = 10.0 ** np.floor(np.log10(most / TICKS))
    step = next(tens * part for part in (1.0, 2.0, 5.0, 10.0) if most / (tens * part) <= TICKS)
    return np.arange(0.0, most, step)


def _tick(tick: float, most: float) -> str:
    return written(tick, 0 if most > TICKS else 1)


def _rule(x1: float, y1: float, x2: float, y2: float, color: str) -> str:
    ends = f'x1="{x1:.1f}" y1="{y1:.1f}" x2="{x2:.1f}" y2="{y2:.1f}"'
    return f'<line {ends} stroke="{color}" stroke-width="0.6"/>'


def _text(x: float, y: float, words: str, anchor: str, size: int = TEXT) -> str:
    place = f'x="{x:.1f}" y="{y:.1f}" text-anchor="{anchor}" font-size="{size}"'
    return f"<text {place}>{escape(words)}</text>"
