"""Figures of published rules, for the builder's own comparison only."""

from typing import NamedTuple

import numpy as np

from urgens.physics.arrays import Array, Bools, Floats
from urgens.physics.atmosphere import GRAVITY

ADHESION_RANGE = (0.2, 0.8)  # [-], UN R13-H Annex 5 (from memory)
DECELERATION_RANGE = (0.15, 0.8)  # [g], UN R13-H Annex 5 (from memory)
TOLERANCE = 1e-9  # [-]


class FailedRule(NamedTuple):
    """What a rule keeps with half the brakes or the assist lost, and where it stands.

    `vehicles` it is of; the least `deceleration` [m/s²] at no more than `effort` of foot [N].
    """

    text: str
    vehicles: str
    deceleration: float
    effort: float

    @property
    def z(self) -> float:
        """The same [g]."""
        return self.deceleration / GRAVITY

    @property
    def basis(self) -> str:
        """What it is, in words, for a finding."""
        return f"{self.text}: {self.deceleration:g} m/s², for your own comparison"


class AdhesionRule(NamedTuple):
    """A rule z ≥ 0.1 + `steepness` (k − 0.2), for adhesion used k of 0.2 to 0.8: where it stands.

    `name` is what a plot calls it, `text` the whole of its place; `failed` goes with it.
    """

    name: str
    text: str
    steepness: float
    failed: FailedRule

    def allows(self, deceleration: Floats) -> Array:
        """Return the largest adhesion used [-] that the rule allows.

        deceleration: [g].
        Source: the rule, solved for k.
        """
        z = np.asarray(deceleration, dtype=float)
        return np.asarray((z - 0.1) / self.steepness + 0.2)

    def broken(self, used: Floats, deceleration: Floats) -> Bools:
        """Return where an axle uses more adhesion than the rule allows.

        used: adhesion used by the axle [-], NaN where it carries nothing.
        deceleration: [g].
        """
        low, high = ADHESION_RANGE
        counts = np.greater_equal(used, low - TOLERANCE) & np.less_equal(used, high + TOLERANCE)
        return np.asarray(counts & (used > self.allows(deceleration) + TOLERANCE))


CARS = AdhesionRule(
    "UN R13-H",
    "UN Regulation No. 13-H, Annex 5 (from memory)",
    0.7,
    FailedRule("UN Regulation No. 13-H, Annex 3 (from memory)", "cars and light vans", 2.44, 500.0),
)
TRUCKS = AdhesionRule(
    "UN R13",
    "UN Regulation No. 13, Annex 10 (from memory)",
    0.85,
    FailedRule(
        "UN Regulation No. 13, Annex 4, secondary braking (from memory)",
        "vehicles that carry goods",
        *(2.2, 700.0),
    ),
)

SERVICE_DECELERATION = 6.43  # m/s², UN R13-H Annex 3, service brake (from memory)


def stopping_distance_allowed(speed: Floats, *, failed: bool = False) -> Array:
    """Return the longest stop [m] the rule allows.

    speed: at the start [m/s].
    failed: with half the system or the booster lost [bool].
    Source: UN Regulation No. 13-H, Annex 3 (from memory): 0.1 v + 0.0060 v², failed 0.0158 v².
    """
    hourly = np.asarray(speed, dtype=float) * 3.6  # km/h, as the rule has it
    return np.asarray(0.1 * hourly + (0.0158 if failed else 0.0060) * np.square(hourly))


def mean_fully_developed_deceleration(
    begin_speed: Floats, end_speed: Floats, begin: Floats, end: Floats
) -> Array:
    """Return the mean fully developed deceleration [m/s²].

    begin_speed: 0.8 of the initial speed [m/s].
    end_speed: 0.1 of the initial speed [m/s].
    begin: distance run when the first is reached [m].
    end: distance run when the second is reached [m].
    Source: UN Regulation No. 13-H, Annex 3 (from memory), in km/h and m.
    """
    squares = np.square(np.multiply(begin_speed, 3.6)) - np.square(np.multiply(end_speed, 3.6))
    return np.asarray(squares / (25.92 * np.subtract(end, begin)))
