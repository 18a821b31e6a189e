"""A load-sensing valve's lever, swept by hand with the inlet held: whether it follows both ways."""

from dataclasses import dataclass
from enum import StrEnum

import numpy as np

from urgens.document.ledger.proof import GaugeRun
from urgens.physics.arrays import Array
from urgens.physics.valve_law import Felt, LoadSensingLaw
from urgens.studies.expected_pressures import Expected
from urgens.studies.valve_verdict import gauge_error

LEAST = 4
SPAN = 0.6
MOVES = 0.08  # of the inlet by which the outlet has to move: less is seized (assumed)
APART = 0.15  # of the inlet between the two ways at one place: more is sticking (assumed)


class LeverVerdict(StrEnum):
    """What a sweep says."""

    FOLLOWS = "follows"
    STICKS = "sticks"
    SEIZED = "seized"
    TOO_FEW = "too-few-points"


@dataclass(frozen=True)
class LeverRead:
    """What a sweep of the lever says: outlet over inlet at its least and most, and between ways.

    `expected` are least and most by the build's own knees, None where it has no points.
    """

    verdict: LeverVerdict
    least: float
    most: float
    apart: float
    expected: tuple[float, float] | None


def lever_points(run: GaugeRun) -> Array:
    """Return place of the lever [-], inlet and outlet [Pa] in the order they were read, (n, 3).

    run: of readings.
    """
    rows = [(place, into.value, out.value) for place, into, out in run.lever]
    return np.array(rows, dtype=float).reshape(-1, 3)


def expected_ends(wanted: Expected, inlet: float) -> tuple[float, float] | None:
    """Return outlet over inlet at the lightest and the heaviest load [-].

    wanted: of the valve; inlet: that is held [Pa]. None for a valve without a lever.
    """
    law = wanted.law
    if not isinstance(law, LoadSensingLaw) or inlet <= 0.0:
        return None
    ends = [law.outlet(inlet, Felt(load, load)) for load in (law.light, law.heavy)]
    return float(ends[0]) / inlet, float(ends[1]) / inlet


def read_lever(run: GaugeRun, wanted: Expected) -> LeverRead | None:
    """Return what a sweep says, None where none was read.

    run: of readings; wanted: what the valve is to show.
    Source: common practice: the outlet goes from little, or its lowest knee, to as much as goes in,
    and follows both ways.
    """
    points = lever_points(run)
    if not points.size:
        return None
    share = points[:, 2] / np.maximum(points[:, 1], 1.0)
    expected = expected_ends(wanted, float(points[:, 1].mean()))
    least, most = float(share.min()), float(share.max())
    apart = _apart(points[:, 0], share)
    read = LeverRead(LeverVerdict.FOLLOWS, least, most, apart, expected)
    if len(points) < LEAST or np.ptp(points[:, 0]) < SPAN:
        return _as(read, LeverVerdict.TOO_FEW)
    noise = gauge_error(run) / float(points[:, 1].mean())
    if most - least < max(MOVES, noise):
        return _as(read, LeverVerdict.SEIZED)
    return _as(read, LeverVerdict.STICKS) if apart > APART else read


def _as(read: LeverRead, verdict: LeverVerdict) -> LeverRead:
    return LeverRead(verdict, read.least, read.most, read.apart, read.expected)


def _apart(place: Array, share: Array) -> float:
    """Return how far the way up and the way down are apart at most, where both were read."""
    top = int(np.argmax(place))
    up, down = np.argsort(place[: top + 1]), np.argsort(place[top:])
    if up.size < 2 or down.size < 2:
        return 0.0
    first, second = place[: top + 1][up], place[top:][down]
    low, high = max(first[0], second[0]), min(first[-1], second[-1])
    if high <= low:
        return 0.0
    grid = np.linspace(low, high, 11)
    ways = (
        np.interp(grid, first, share[: top + 1][up]),
        np.interp(grid, second, share[top:][down]),
    )
    return float(np.abs(ways[0] - ways[1]).max())
