"""Presses of the pedal in a log: found by themselves, and what each says."""

from dataclasses import dataclass

import numpy as np

from urgens.bench.logs.channels import Signals
from urgens.bench.logs.press_line import press_line
from urgens.physics.arrays import Array
from urgens.physics.atmosphere import GRAVITY
from urgens.studies.valve_line_fit import Bend

# Pa: a press begins and ends there
ON = 1e5
OFF = 0.5e5
SHORTEST = 0.2  # s
RISEN = 0.9  # of the peak
LOCKED_SLIP = 0.8  # of the speed
LOCKED_FOR = 0.1  # s
TOO_SLOW = 1.5  # m/s under which none is told


@dataclass(frozen=True)
class Press:
    """One press: when it begins and ends [s], rows; figures None where the log has no such channel.

    Peaks [Pa], `effort` and `travel` at their most [N, m], `share` the rear's peak over the front's
    [-], `rise` time to 90 % of the front's peak [s], `rear_delay` [s], `knee` and `slope` of the
    rear line over the front's with the fit they are from, `deceleration` mean from the rise's end
    to the press's [g], `front_slip`, `rear_slip` the most [-], `locked` axles with when [s].
    """

    rows: slice
    start: float
    end: float
    front_peak: float | None
    rear_peak: float | None
    effort: float | None
    travel: float | None
    share: float | None
    rise: float | None
    rear_delay: float | None
    fit: Bend | None
    quick: bool
    deceleration: float | None
    front_slip: float | None
    rear_slip: float | None
    locked: tuple[tuple[str, float], ...]

    @property
    def knee(self) -> float | None:
        """The knee [Pa], None where the rear line shows none."""
        return self.fit.knee if self.fit is not None and self.fit.bends else None

    @property
    def slope(self) -> float | None:
        """The slope above the knee [-], None where the rear line shows none."""
        return self.fit.slope if self.fit is not None and self.fit.bends else None


def presses(signals: Signals) -> tuple[Press, ...]:
    """Return the presses in a log whose time rises.

    signals: its channels. Source: pressure over 1 bar until it is under 0.5, for 0.2 s at
    least.
    """
    pressure = _leading(signals)
    if pressure is None or not pressure.size:
        return ()
    return tuple(_press(signals, rows) for rows in spans(signals.time, pressure))


def _leading(signals: Signals) -> Array | None:
    lines = [signals.get(name) for name in ("front_pressure", "rear_pressure")]
    known = [np.nan_to_num(line) for line in lines if line is not None]
    return np.maximum.reduce(known) if known else None


def spans(time: Array, pressure: Array) -> list[slice]:
    """Return the rows of each press; time: rising (n,) [s]; pressure: (n,) [Pa].

    Source: a switch with hysteresis.
    """
    on, off = pressure > ON, pressure < OFF
    places = np.where(on | off, np.arange(time.size), 0)
    last = np.maximum.accumulate(places)
    pressed = on[last]
    edges = np.flatnonzero(np.diff(np.concatenate(([0], pressed.view(np.int8), [0]))))
    found = zip(edges[::2], edges[1::2], strict=True)
    return [
        slice(int(first), int(end))
        for first, end in found
        if time[min(end, time.size - 1)] - time[first] >= SHORTEST
    ]


def _press(signals: Signals, rows: slice) -> Press:
    cut = {name: values[rows] for name, values in signals.channels.items()}
    time = cut["time"]
    front, rear = cut.get("front_pressure"), cut.get("rear_pressure")
    peaks = [None if line is None else float(np.nanmax(line)) for line in (front, rear)]
    share = None
    if peaks[0] and peaks[1] is not None:
        share = peaks[1] / peaks[0]
    leading = front if front is not None else rear
    assert leading is not None
    risen = _risen(time, leading)
    slips = _slips(signals, rows)
    line = None if front is None or rear is None else press_line(time, front, rear)
    return Press(
        rows=rows,
        start=float(time[0]),
        end=float(time[-1]),
        front_peak=peaks[0],
        rear_peak=peaks[1],
        effort=_most(cut.get("foot")),
        travel=_most(cut.get("travel")),
        share=share,
        rise=None if risen is None else float(time[risen] - time[0]),
        rear_delay=None if line is None else line.delay,
        fit=None if line is None else line.fit,
        quick=line is not None and line.fit is None,
        deceleration=_deceleration(cut, risen),
        front_slip=_most(slips.get("front")),
        rear_slip=_most(slips.get("rear")),
        locked=_locked(time, slips, cut),
    )


def _most(values: Array | None) -> float | None:
    if values is None or not np.isfinite(values).any():
        return None
    return float(np.nanmax(values))


def _risen(time: Array, pressure: Array) -> int | None:
    over = np.flatnonzero(pressure >= RISEN * np.nanmax(pressure))
    return int(over[0]) if over.size and over[0] < time.size else None


def _deceleration(cut: dict[str, Array], risen: int | None) -> float | None:
    """Return the mean deceleration once the pressure is up [g]: of its channel, or of the speed."""
    start = 0 if risen is None else risen
    given = cut.get("deceleration")
    if given is not None and np.isfinite(given[start:]).any():
        return float(np.nanmean(given[start:]))
    speed, time = cut.get("speed"), cut["time"]
    if speed is None:
        speed = _faster(cut)
    if speed is None or time.size - start < 3:
        return None
    v, t = speed[start:], time[start:]
    known = np.isfinite(v) & (v > TOO_SLOW)
    if known.sum() < 3 or np.ptp(t[known]) <= 0.0:
        return None
    centred = t[known] - t[known].mean()
    return float(-(centred @ v[known]) / (centred @ centred) / GRAVITY)


def _faster(cut: dict[str, Array]) -> Array | None:
    pair = [cut[name] for name in ("front_speed", "rear_speed") if name in cut]
    return np.fmax.reduce(pair) if pair else None


def _slips(signals: Signals, rows: slice) -> dict[str, Array]:
    """Return each axle's slip against the speed, or against the faster axle."""
    cut = {name: values[rows] for name, values in signals.channels.items()}
    speed = cut.get("speed")
    reference = speed if speed is not None else _faster(cut)
    if reference is None:
        return {}
    moves = reference > TOO_SLOW
    safe = np.where(moves, reference, 1.0)
    made = {}
    for axle in ("front", "rear"):
        own = cut.get(f"{axle}_speed")
        if own is not None and (speed is not None or len(cut) > 1):
            made[axle] = np.where(moves, 1.0 - own / safe, 0.0)
    return made


def _locked(
    time: Array, slips: dict[str, Array], cut: dict[str, Array]
) -> tuple[tuple[str, float], ...]:
    """Return the axles whose slip stays beyond what rolls, with when, in order."""
    moments = []
    for axle, slip in slips.items():
        beyond = np.nan_to_num(slip) > LOCKED_SLIP
        edges = np.flatnonzero(np.diff(np.concatenate(([0], beyond.view(np.int8), [0]))))
        for first, end in zip(edges[::2], edges[1::2], strict=True):
            if time[min(end, time.size - 1)] - time[first] >= LOCKED_FOR:
                moments.append((axle, float(time[first])))
                break
    return tuple(sorted(moments, key=lambda one: one[1]))
