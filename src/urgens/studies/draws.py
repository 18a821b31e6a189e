"""Which figures of a build spread, and draws of them as what is known says."""

import math
import re
from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np
from numpy.random import Generator

from urgens.document import Build, value_at
from urgens.document.facts import half_width
from urgens.document.valves import Adjustable, LoadSensing
from urgens.physics.arrays import Array, Floats
from urgens.quantity import Quantity
from urgens.solve.system import self_locking_friction
from urgens.studies.settle import HIGHEST_SLOPE, usually_spread
from urgens.studies.spread import default_spread
from urgens.studies.valve_stages import KNEE_TOLERANCE
from urgens.studies.variants import varied

ALIKE = 0.5  # correlation of front and rear friction: one box of pads, one temperature
_FRICTION = re.compile(r"(front|rear)\.brake\.(pad_friction|shoe\.lining_friction)")


@dataclass(frozen=True)
class Spread:
    """One figure that spreads: its place, its value and half its width [SI].

    That of a whole table of knees is a share of each.
    """

    path: str
    value: float
    half_width: float


def spreads(build: Build, case: int) -> tuple[Spread, ...]:
    """Return the figures that spread: what evidence says, and what usually does.

    build: the document [object]; case: place of the load case, whose figures alone count [-].
    Source: build-file contract, evidence.
    """
    found = []
    for path in dict.fromkeys([*build.evidence, *usually_spread(build)]):
        other = re.match(r"vehicle\.load_cases\[(\d+)\]", path)
        if other is not None and int(other[1]) != case:
            continue
        value = value_at(build, path)
        if isinstance(value, bool) or not isinstance(value, Quantity | float | int):
            continue
        known = build.evidence.get(path)
        spread = (known.spread if known is not None else None) or default_spread(build, path)
        if spread is None:
            continue
        number = value.value if isinstance(value, Quantity) else float(value)
        width = half_width(spread, value)
        if width > 0:
            found.append(Spread(path, number, width))
    return (*found, *_whole_tables(build))


def _whole_tables(build: Build) -> Iterator[Spread]:
    """Yield the valves whose knees stand in a table: all of one valve are off together."""
    for circuit in ("front", "rear"):
        for index, valve in enumerate(getattr(build.valves, circuit)):
            place = f"valves.{circuit}[{index}]"
            if isinstance(valve, Adjustable):
                yield Spread(f"{place}.table", 1.0, KNEE_TOLERANCE)
            elif isinstance(valve, LoadSensing) and valve.points is not None:
                yield Spread(f"{place}.points", 1.0, KNEE_TOLERANCE)


def drawn(build: Build, figures: tuple[Spread, ...], draws: int, chance: Generator) -> Array:
    """Return draws of figures, shape (figures, draws) [SI].

    build: the document [object]; figures: that spread [objects]; draws: how many [-]; chance: to
    draw with [object].
    Source: normal, standard deviation half the spread, redrawn until they could be; friction
    front and rear correlated, the rest independent.
    """
    normal = chance.standard_normal((len(figures), draws))
    common = chance.standard_normal(draws)
    found = np.empty_like(normal)
    for row, figure in enumerate(figures):
        if _FRICTION.fullmatch(figure.path):
            normal[row] = math.sqrt(ALIKE) * common + math.sqrt(1.0 - ALIKE) * normal[row]
        low, high = _bounds(build, figure)
        deviation = figure.half_width / 2.0
        found[row] = figure.value + deviation * normal[row]
        out = (found[row] <= low) | (found[row] >= high)
        while out.any():
            found[row, out] = figure.value + deviation * chance.standard_normal(int(out.sum()))
            out = (found[row] <= low) | (found[row] >= high)
    return found


def _bounds(build: Build, figure: Spread) -> tuple[float, float]:
    """Return between what a figure has to stay: above zero, and short of what has no meaning."""
    if figure.value <= 0:
        return -np.inf, np.inf
    if figure.path.endswith(".slope"):
        return 0.0, HIGHEST_SLOPE
    if figure.path.endswith("lining_friction"):
        axle = figure.path.partition(".")[0]
        grabs = self_locking_friction(getattr(build, axle).brake)
        return 0.0, np.inf if grabs is None else grabs
    if figure.path.endswith(".efficiency"):
        return 0.0, 1.0 + 1e-12
    return 0.0, np.inf


def laid(build: Build, figure: Spread, value: Floats) -> Build:
    """Return a build with a figure drawn, not checked.

    build: the document [object]; figure: which [object]; value: of it, or draws [SI].
    Source: `variants.varied`; all knees of a table by the same share.
    """
    if not figure.path.endswith((".table", ".points")):
        return varied(build, figure.path, value)
    for row, (_, knee) in enumerate(value_at(build, figure.path)):
        build = varied(build, f"{figure.path}[{row}][1]", knee.value * value)
    return build
