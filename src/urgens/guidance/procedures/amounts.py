"""How much fluid and how many strokes bleeding takes, from the layout and the cylinder."""

from dataclasses import dataclass
from math import ceil

import numpy as np

from urgens.document import Build
from urgens.guidance.procedures.facts import FARTHEST, Facts
from urgens.guidance.procedures.step import Wheel
from urgens.guidance.procedures.ways import ways_of
from urgens.physics.axle import Axle
from urgens.solve import system

TWICE = 2.0  # times what is in the way to a wheel runs through before it is clear; common practice
USED = 0.6  # of a reservoir that may go before it is low; common practice
FLUSH = 3.0  # times everything that is held; common practice
# Common practice
MINUTES_WHEEL = 6
MINUTES_REST = 15


@dataclass(frozen=True)
class Amounts:
    """What the way to each wheel holds [m³], strokes to flush it, and until a reservoir is low.

    `fluid` to have [m³], `minutes` it takes. What the build does not tell is None.
    """

    held: dict[Wheel, float | None]
    strokes: dict[Wheel, int | None]
    until_low: int | None
    fluid: float | None
    minutes: int


def amounts(build: Build) -> Amounts:
    """Return what bleeding a build takes.

    Source: volume over bore area times stroke; what is in the way to each wheel.
    """
    moved = swept_to(build)
    ways = ways_of(build)
    way = {wheel: None if ways is None else ways.volume(wheel) for wheel in FARTHEST}
    strokes: dict[Wheel, int | None] = {}
    for wheel, held in way.items():
        per_stroke = moved[Axle(wheel.partition("-")[0])]
        known = held is not None and per_stroke > 0
        strokes[wheel] = max(ceil(TWICE * held / per_stroke), 1) if known and held else None
    reservoir = build.master.reservoir_volume
    least = max(moved.values())
    low = None if reservoir is None or not least else int(USED * reservoir.value / least)
    volumes = [held for held in way.values() if held is not None]
    fluid = FLUSH * float(np.sum(volumes)) if len(volumes) == len(way) else None
    wheels = sum(len(group) for group in Facts(build).groups)
    return Amounts(way, strokes, low, fluid, MINUTES_WHEEL * wheels + MINUTES_REST)


def swept(build: Build, wheel: str) -> float:
    """Return what a full stroke moves towards a wheel [m³].

    wheel: its name [text].
    Source: bore area times stroke, of the chamber that feeds its axle.
    """
    return swept_to(build)[Axle(wheel.partition("-")[0])]


def swept_to(build: Build) -> dict[Axle, float]:
    """Return what a full stroke moves towards each axle [m³]; source: as `swept`."""
    chambers = system(build).volumes.chambers
    moved = [float(chamber.first_area * chamber.stroke) for chamber in chambers]
    return {axle: moved[-1 if axle is Axle.REAR else 0] for axle in Axle}  # one chamber: of both
