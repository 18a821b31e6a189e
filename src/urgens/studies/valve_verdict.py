"""What the readings of two gauges say of a valve."""

import math
from dataclasses import dataclass, replace
from enum import StrEnum

import numpy as np

from urgens.document.ledger.proof import GaugeRun
from urgens.physics.arrays import Array
from urgens.studies.expected_pressures import Expected
from urgens.studies.metering_line_fit import MeteringFit, fit_metering
from urgens.studies.valve_line_fit import Hinge, TwoHinges, fit_hinge, fit_two_hinges

READ_TO = 0.1  # of its class: how finely a needle is read (assumed)
ZERO = 0.25  # of its class: standard deviation of a gauge's zero (assumed)
BLOCKED = 0.03  # of the inlet: less than that is nothing
NEAR = 0.05  # of a figure: common practice
SLOPE_NEAR = 0.03
TWICE = 20.0  # by which χ² falls where a second knee stands
EACH = 3  # readings of every piece of a line with two knees
STUCK = 0.65  # of the lowest pressure that was pressed: what stays under that comes from nothing
# Of the expected knee, and of its slope: common practice
SAME_KNEE = 0.25
HALF = (0.3, 0.7)
# Readings that are wanted on both sides of the knee
BELOW = 2
ABOVE = 3
LEAST_FOR_TWO = 3 * EACH  # readings
LEAST_TO_METER = 6  # readings
SEEN = 4.0  # times the scatter: what is larger is no chance
HELD_BACK = 0.35  # of what a metering valve is to hold back at most: less is none
BOTH = math.sqrt(2.0)  # errors of two gauges together
HARDLY = 0.2  # of what a valve is to take off: less is nothing
NEAR_FULL = 1.1  # of a metering valve's full pressure: from there on all is to pass


class ValveVerdict(StrEnum):
    """What the readings say; the value is its name on the command line."""

    REDUCES = "reduces"
    PASSES_ALL = "does-not-reduce"
    BLOCKED = "blocked"
    LIMITS = "limits"
    TWO = "two-in-series"
    TOO_FEW = "too-few-points"
    GAUGES_DIFFER = "gauges-differ"
    METERS = "meters"
    DOES_NOT_METER = "does-not-meter"


@dataclass(frozen=True)
class ValveRead:
    """What gauges across a valve say; figures None where the readings do not tell them.

    `fitted` is the line of a valve that reduces, `metered` that of a metering valve. `hysteresis`
    [Pa] is the most by which the outlet stayed above its line on the way back. `swapped` where the
    two gauges seem to have changed places. `two` are the knees of two in series; `other_slope`
    asks whether there is a second valve, or one of another slope. `kept` is what the outlet shows
    where nothing comes through [Pa]. Where there are too few readings, `wants_more` tells whether
    pressure is wanted above the knee, or below it, and `held` is the hardest pair so far [Pa].
    """

    expected: Expected
    verdict: ValveVerdict
    fitted: Hinge | None = None
    metered: MeteringFit | None = None
    hysteresis: float | None = None
    within: bool = False
    swapped: bool = False
    two: TwoHinges | None = None
    wants_more: bool = True
    other_slope: bool = False
    kept: float = 0.0
    held: tuple[float, float] | None = None

    @property
    def knows_line(self) -> bool:
        """Whether a knee and a slope were found that can be taken into the build."""
        return self.verdict in (ValveVerdict.REDUCES, ValveVerdict.LIMITS)


def rising(run: GaugeRun) -> tuple[Array, Array]:
    """Return the pairs read while the pedal went down [Pa].

    run: of readings.
    """
    return _pairs(run, "rising")


def falling(run: GaugeRun) -> tuple[Array, Array]:
    """Return the pairs read while the pedal came up [Pa].

    run: of readings.
    """
    return _pairs(run, "falling")


def _pairs(run: GaugeRun, way: str) -> tuple[Array, Array]:
    rows = [(into.value, out.value) for into, out, went in run.points if went == way]
    found = np.array(rows, dtype=float).reshape(-1, 2)
    return found[:, 0], found[:, 1]


def gauge_error(run: GaugeRun) -> float:
    """Return the largest error of a gauge [Pa]; run: of readings.

    Source: EN 837-1: class 1.6 is ±1.6 % of full scale.
    """
    return run.grade / 100.0 * run.full_scale.value


def read_valve(run: GaugeRun, wanted: Expected) -> ValveRead:
    """Return what readings say of a valve.

    run: of readings; wanted: what the build's valve is to show.
    Source: the segmented fit of `studies.valve_line_fit`; verdicts by its limits: common practice.
    """
    inlet, outlet = rising(run)
    error = gauge_error(run)
    told = _plain_verdict(inlet, outlet, error, wanted)
    if told is not None:
        return told
    if wanted.meters is not None:
        return _metering_read(run, wanted)
    return _reducing_read(run, wanted)


def _plain_verdict(inlet: Array, outlet: Array, error: float, wanted: Expected) -> ValveRead | None:
    """Return what is plain without a fit: nothing comes through, or more than went in."""
    pressed = inlet > 3.0 * error
    if pressed.sum() >= ABOVE and (flat := _flat(inlet[pressed], outlet[pressed], error)):
        low = float(inlet[pressed].min())
        kept = float(np.median(outlet[pressed]))
        if kept < STUCK * low or np.any(inlet < kept - BOTH * error):
            return ValveRead(wanted, ValveVerdict.BLOCKED, kept=kept if kept > error else 0.0)
        if flat and not np.any(inlet < kept):
            return ValveRead(wanted, ValveVerdict.TOO_FEW, wants_more=False,
                             held=_hardest(inlet, outlet))  # fmt: skip
    more = outlet - inlet
    if (more > 2.0 * error).sum() >= ABOVE:
        grows = more[np.argmax(inlet)] - more[np.argmin(inlet)] > 2.0 * error
        return ValveRead(wanted, ValveVerdict.GAUGES_DIFFER, swapped=bool(grows))
    return None


def _flat(inlet: Array, outlet: Array, error: float) -> bool:
    """Tell whether the outlet does not follow: its rise, and so without its zero, is next to none.

    Under 3 % of the inlet's, or no more than both gauges' class while the inlet rises by much more.
    """
    rise = float(outlet[np.argmax(inlet)] - outlet[np.argmin(inlet)])
    whole = float(np.ptp(inlet))
    within = rise <= BOTH * ZERO * error and whole > 3.0 * error
    return whole > 0.0 and (rise <= BLOCKED * whole or within)


def _hardest(inlet: Array, outlet: Array) -> tuple[float, float] | None:
    """Return the pair of the hardest press [Pa], None where nothing was read."""
    if not inlet.size:
        return None
    place = int(np.argmax(inlet))
    return float(inlet[place]), float(outlet[place])


def _reducing_read(run: GaugeRun, wanted: Expected) -> ValveRead:
    inlet, outlet = rising(run)
    error = gauge_error(run)
    knee = np.inf if wanted.knee is None else wanted.knee
    above = int((inlet > knee * (1.0 + NEAR)).sum())
    held = _hardest(inlet, outlet)
    if np.unique(inlet).size < BELOW + ABOVE:
        return ValveRead(wanted, ValveVerdict.TOO_FEW, wants_more=above < ABOVE, held=held)
    fit = _with_zero(fit_hinge(inlet, outlet, READ_TO * error), error)
    read = ValveRead(wanted, ValveVerdict.TOO_FEW, fit, hysteresis=_hysteresis(run, fit), held=held)
    if (two := _in_series(fit, inlet, outlet, READ_TO * error)) is not None:
        return replace(read, verdict=ValveVerdict.TWO, two=two)
    if abs(fit.offset) > BOTH * error:
        return replace(read, verdict=ValveVerdict.GAUGES_DIFFER)
    if fit.slope_limits[1] >= 1.0 or _takes_nothing(fit, inlet, wanted):
        if wanted.knee is None:
            return replace(read, verdict=ValveVerdict.PASSES_ALL, within=True)
        taken_off = float(inlet.max() - wanted.outlet(inlet.max()))
        seen = above >= ABOVE and taken_off > SEEN * fit.scatter
        return replace(read, verdict=ValveVerdict.PASSES_ALL) if seen else read
    if (inlet > fit.knee).sum() < ABOVE:
        return read
    if (inlet < fit.knee).sum() < BELOW:
        return replace(read, wants_more=False)
    read = replace(read, other_slope=_has_other_slope(fit, wanted))
    low, high = fit.slope_limits
    if low <= 0.0 <= high:
        return replace(read, verdict=ValveVerdict.LIMITS, within=_is_within(fit, wanted))
    return replace(read, verdict=ValveVerdict.REDUCES, within=_is_within(fit, wanted))


def _with_zero(fit: Hinge, error: float) -> Hinge:
    """Return a fit whose knee may be off by the inlet gauge's zero as well."""
    zero = 2.0 * ZERO * error
    low, high = fit.knee - fit.knee_limits[0], fit.knee_limits[1] - fit.knee
    wider = fit.knee - math.hypot(low, zero), fit.knee + math.hypot(high, zero)
    return replace(fit, knee_limits=wider)


def _takes_nothing(fit: Hinge, inlet: Array, wanted: Expected) -> bool:
    """Tell whether the fit takes off next to nothing of what was expected at the highest."""
    top = inlet.max()
    expected = float(top - wanted.outlet(top))
    found = float(top - fit.offset - fit.outlet(top))
    return expected > 0.0 and found < HARDLY * expected


def _is_within(fit: Hinge, wanted: Expected) -> bool:
    """Tell whether the limits of the fit meet the tolerance of what was expected."""
    if wanted.knee_limits is None or wanted.slope_limits is None:
        return False
    pairs = (fit.knee_limits, wanted.knee_limits), (fit.slope_limits, wanted.slope_limits)
    return all(one[0] <= other[1] and other[0] <= one[1] for one, other in pairs)


def _in_series(fit: Hinge, inlet: Array, outlet: Array, scatter: float) -> TwoHinges | None:
    """Return two knees where they fit better by more than chance, and the second reduces too.

    A second knee stands where χ² falls by more than TWICE and every piece has EACH readings.
    """
    if inlet.size < LEAST_FOR_TWO:
        return None
    two = fit_two_hinges(inlet, outlet)
    error = max(scatter, math.sqrt(two.squares / max(inlet.size - 5, 1)))
    falls = (fit.squares - two.squares) / error**2
    pieces = np.diff(np.searchsorted(np.sort(inlet), two.knees), prepend=0, append=inlet.size)
    again = two.slopes[1] < two.slopes[0] - SLOPE_NEAR and two.slopes[0] < 1.0 - SLOPE_NEAR
    return two if again and falls > TWICE and pieces.min() >= EACH else None


def _has_other_slope(fit: Hinge, wanted: Expected) -> bool:
    """Tell whether the knee is where it was expected, and the slope a share of what it was.

    A knee is set and moves, a slope is machined: common practice.
    """
    if wanted.knee is None or not wanted.slope or fit.slope_limits[0] <= 0.0:
        return False
    near = abs(fit.knee / wanted.knee - 1.0) < SAME_KNEE
    low, high = HALF
    share = fit.slope / wanted.slope
    clearly = fit.slope_limits[1] < wanted.slope * (1.0 - (1.0 - high) / 2.0)
    return bool(near and clearly and low < share < high)


def _hysteresis(run: GaugeRun, fit: Hinge | MeteringFit) -> float | None:
    inlet, outlet = falling(run)
    if not inlet.size:
        return None
    return max(float((outlet - fit.outlet(inlet)).max()), 0.0)


def _metering_read(run: GaugeRun, wanted: Expected) -> ValveRead:
    law = wanted.meters
    assert law is not None
    inlet, outlet = rising(run)
    at = float(law.closing), float(law.opening), float(law.full)
    inside = ((inlet > at[0]) & (inlet < at[2])).sum()
    if inlet.size < LEAST_TO_METER or inside < ABOVE or inlet.max() < at[2]:
        more = inlet.max(initial=0.0) < at[2]
        held = _hardest(inlet, outlet)
        return ValveRead(wanted, ValveVerdict.TOO_FEW, wants_more=more, held=held)
    scatter = READ_TO * gauge_error(run)
    held_back = inlet - outlet
    beyond = inlet > NEAR_FULL * at[2]
    if beyond.any() and np.all(outlet[beyond] < 0.5 * inlet[beyond]):
        return ValveRead(wanted, ValveVerdict.BLOCKED)
    if np.ptp(held_back) < HELD_BACK * (at[1] - at[0]):
        return ValveRead(wanted, ValveVerdict.DOES_NOT_METER)
    fit = fit_metering(inlet, outlet, at, scatter)
    if abs(fit.offset) > BOTH * gauge_error(run):
        return ValveRead(wanted, ValveVerdict.GAUGES_DIFFER, metered=fit)
    near = all(
        low - NEAR * at[2] <= one <= high + NEAR * at[2]
        for one, (low, high) in zip(at, fit.limits, strict=True)
    )
    stays = _hysteresis(run, fit)
    return ValveRead(wanted, ValveVerdict.METERS, metered=fit, hysteresis=stays, within=near)


def read_next(run: GaugeRun | None, read: ValveRead | None, at: Array) -> float | None:
    """Return the inlet pressure to read at next, (n,) [Pa], None where enough is known.

    run: what was read so far; read: what it says; at: where it is to be read,
    rising [Pa].

    Up first, each step once; then once more at the top while the limits are wide.
    """
    inlet = rising(run)[0] if run is not None else np.empty(0)
    left = [float(one) for one in at if not np.any(np.abs(inlet - one) < 0.25 * at[0])]
    higher = [one for one in left if one > inlet.max(initial=0.0)]
    if higher:
        return higher[0]
    if read is None or not at.size:
        return left[0] if left else None
    if read.verdict is ValveVerdict.TOO_FEW:
        return left[0] if left else float(at[-1])
    if read.verdict in (ValveVerdict.REDUCES, ValveVerdict.LIMITS) and read.fitted is not None:
        return None if _is_sure(read.fitted) else (left[-1] if left else float(at[-1]))
    return None


def _is_sure(fit: Hinge) -> bool:
    knee, slope = np.ptp(fit.knee_limits) / 2.0, np.ptp(fit.slope_limits) / 2.0
    return bool(knee <= NEAR * fit.knee and slope <= SLOPE_NEAR)
