"""Two gauges across a valve of the stand-in: what a builder would read off them."""

import numpy as np
from numpy.random import Generator

from urgens.bench.plant.plant import Plant, across
from urgens.physics.arrays import Array
from urgens.physics.valve_law import at_rest
from urgens.studies.expected_pressures import place_of
from urgens.studies.valve_verdict import ZERO

SCATTER = 0.125  # of its class: how far one reading is off (assumed)
DIVISION = 0.2  # of its class: how finely it is read


def effort_for_inlet(plant: Plant, valve: str, inlet: Array) -> Array:
    """Return the efforts that bring a pressure before a valve [N].

    plant: the stand-in; valve: its place [text]; inlet: any shape [Pa].
    """
    axle, place = place_of(valve)
    efforts = np.linspace(0.0, float(plant.system.max_effort) * 1.5, 601)
    reached = across(plant.system, axle, place, efforts, at_rest(plant.system.case(0)))[0]
    return np.asarray(np.interp(inlet, reached, efforts))


def readings(
    plant: Plant, valve: str, inlet: Array, down: Array, full_scale: float, grade: float,
    chance: Generator,
) -> list[tuple[float, float, str]]:  # fmt: skip
    """Return what two gauges show while the pedal goes down and comes up again [Pa].

    plant: the stand-in; valve: its place [text]; inlet: pressures to read at, rising, (n,) [Pa];
    down: on the way back, falling [Pa]; full_scale: of both gauges [Pa]; grade: their class [%];
    chance: to draw with.

    The plant's own valve; each gauge off by a zero and a scatter within its class.
    """
    axle, place = place_of(valve)
    error = grade / 100.0 * full_scale
    zero = chance.normal(0.0, ZERO * error, 2) if grade else np.zeros(2)
    effort = effort_for_inlet(plant, valve, np.concatenate((inlet, down)))
    pressures = across(plant.system, axle, place, effort, at_rest(plant.system.case(0)))
    shown = []
    for each, off in zip(pressures, zero, strict=True):
        drawn = each + off * (each > 0.0) + chance.normal(0.0, SCATTER * error, each.size)
        division = DIVISION * error
        read = np.round(drawn / division) * division if division else drawn
        shown.append(np.clip(read, 0.0, full_scale))
    ways = ["rising"] * inlet.size + ["falling"] * down.size
    return [(float(i), float(o), way) for i, o, way in zip(*shown, ways, strict=True)]
