"""The rear line over the front's in one press: its delay taken out, its knee with honest limits."""

from dataclasses import dataclass

import numpy as np
from scipy.signal import savgol_filter

from urgens.physics.arrays import Array, Bools
from urgens.studies.valve_line_fit import BENDS, Bend, fit_bends

MOST_DELAY = 0.2  # s by which a line can be late
DELAYS = 31  # that are tried
CLOSER = 15  # then, around the best one
COARSE = 24  # places of the bend while the delay is looked for
MOST_POINTS = 120  # of a press
FEW_POINTS = 50  # of it, while the delay is looked for
LEAST_RISE = 8  # rows
SMOOTH = 9  # rows at least over which the front is smoothed by a parabola
OF_RISE = 5  # of a press that rises for long, one row in so many
ALIKE = 0.28  # of the rows it is smoothed over: readings that share an error because of it
HELD = 0.95  # of the peak: under it the foot is let off
BEFORE = 0.05  # of the peak: under it nothing has begun, and by so much the foot may waver
FOLLOWS = 0.02  # of what was pressed: a line that rises less does not follow
QUICK = 0.5  # of what was pressed: a knee that is known no better is not told


@dataclass(frozen=True)
class PressLine:
    """How much later the rear line rises than the front's [s], and its bend.

    `fit` is None where the press was too quick to tell.
    """

    delay: float
    fit: Bend | None


def press_line(time: Array, front: Array, rear: Array) -> PressLine | None:
    """Return the rear line of a press; None where too little of it rises.

    time: rising [s]; front, rear: of one press [Pa], each (n,).
    The rear is taken as read, and the front before it, smoothed: a delay at which two readings are
    averaged would always fit best.
    Source: the delay and the bend that leave least over together, limits by profile likelihood.
    """
    known = np.isfinite(front) & np.isfinite(rear)
    clock, into, late = time[known], front[known], rear[known]
    if clock.size < LEAST_RISE + SMOOTH or np.ptp(into) <= 0.0:
        return None
    begins, full = (int(np.argmax(into >= share * into.max())) for share in (BEFORE, HELD))
    across = max(SMOOTH, (full - begins) // OF_RISE | 1)
    into = savgol_filter(into, across, 2)  # evenly enough: what is not is only less smooth
    pressed = _pressed(into)
    every = max(np.count_nonzero(pressed) // MOST_POINTS, 1)
    at, rose, fell = (line[pressed][::every] for line in (clock, late, into))
    if np.count_nonzero(np.diff(fell) > 0.0) < LEAST_RISE or np.ptp(rose) < FOLLOWS * np.ptp(fell):
        return None
    found = _found(at, rose, (clock, into), ALIKE * across)
    if found is None:
        return None
    fit, delay = found
    quick = np.ptp(fit.knee_limits) > QUICK * np.ptp(fell)
    return PressLine(delay, None if quick else fit)


def _found(
    at: Array, late: Array, early: tuple[Array, Array], alike: float
) -> tuple[Bend, float] | None:
    """Return the bend and the delay [s] that fit best; None where the line does not follow."""
    step = min(MOST_DELAY, float(at[-1] - at[0])) / (DELAYS - 1)
    every = max(at.size // FEW_POINTS, 1)
    try:
        delays = step * np.linspace(0.0, DELAYS - 1.0, DELAYS)
        first = _best(at[::every], late[::every], early, delays, COARSE, alike)[1]
        delays = np.maximum(first + step * np.linspace(-2.0, 2.0, CLOSER), 0.0)
        return _best(at, late, early, delays, BENDS, alike)
    except ValueError:  # said by the fit
        return None


def _best(
    at: Array, late: Array, early: tuple[Array, Array], delays: Array, bends: int, alike: float
) -> tuple[Bend, float]:
    shifted = np.array([np.interp(at - delay, *early) for delay in delays])
    fit, place = fit_bends(shifted, late, bends, alike)
    return fit, float(delays[place])


def _pressed(front: Array) -> Bools:
    """Return where a press goes on, from its beginning to where the foot is let off or wavers."""
    peak, top = float(front.max()), int(np.argmax(front))
    begins = int(np.argmax(front >= BEFORE * peak))
    let_off = front[top:] < HELD * peak
    ends = top + (int(np.argmax(let_off)) if let_off.any() else let_off.size)
    ends = min(ends, top + max(top - begins, 1))  # no longer held than pressed: it says no more
    highest = np.maximum.accumulate(front[begins:ends])
    pressed = np.zeros(front.size, dtype=bool)
    pressed[begins:ends] = front[begins:ends] >= highest - BEFORE * peak
    return pressed
