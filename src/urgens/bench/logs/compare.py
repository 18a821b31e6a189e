"""Two logs beside each other, and a log beside the model: at the same foot or front pressure."""

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from urgens.bench.logs.channels import Signals
from urgens.bench.logs.presses import Press
from urgens.document import Build
from urgens.document.numeric import NOTHING
from urgens.physics.arrays import Array, Floats
from urgens.solve.line_pressure import pushrod_force
from urgens.solve.rolling_forces import rolling_lines
from urgens.solve.system import System, system
from urgens.studies.expected_pressures import Expected, expected, gauged_valves

READ = 0.03
TOLERANCE = 0.07
BINS = 12  # of the front pressure or the foot
LEAST = 3  # figures of a bin that say something


@dataclass(frozen=True)
class Along:
    """One figure over another, bin by bin (b,): medians and quartiles, NaN where too little is."""

    by: str
    at: Array
    quartiles: Array  # (3, b): low, middle, high
    counts: Array


@dataclass(frozen=True)
class BeforeAfter:
    """A pressure of two logs at the same foot, the same front pressure, or at its peaks.

    `what` is the channel; `apart` the median of how much more the second one has [Pa], `clear`
    whether it is beyond the quartiles of both at most places. `why_not` tells in words why nothing
    can be compared, and is empty else.
    """

    before: Along
    after: Along
    apart: float | None
    clear: bool
    what: str = "rear_pressure"
    why_not: str = ""


def rising_rows(signals: Signals, press: tuple[Press, ...]) -> Array:
    """Return the rows in which presses rise; signals: the log; press: its presses."""
    pressure = signals.get("front_pressure")
    pressure = signals.get("rear_pressure") if pressure is None else pressure
    if pressure is None or not press:
        return np.empty(0, dtype=int)
    return np.concatenate([_rising(pressure, one) for one in press])


def _rising(pressure: Array, press: Press) -> Array:
    rows = press.rows
    return np.arange(rows.start, rows.start + int(np.nanargmax(pressure[rows])) + 1)


def _in_time(signals: Signals, press: tuple[Press, ...], what: str) -> Array:
    """Return a channel in the rows in which presses rise, a rear line's delay taken out."""
    line, lead = signals.channels[what], signals.get("front_pressure")
    if what != "rear_pressure" or lead is None:
        return np.asarray(line[rising_rows(signals, press)])
    known = np.isfinite(line)
    if not known.any():
        return np.asarray(line[rising_rows(signals, press)])
    clock, told = signals.time[known], line[known]
    return np.concatenate([
        np.interp(signals.time[_rising(lead, one)] + (one.rear_delay or 0.0), clock, told)
        for one in press
    ])  # fmt: skip


def along(
    signals: Signals, press: tuple[Press, ...], by: str, edges: Array, what: str = "rear_pressure"
) -> Along:
    """Return a pressure over another channel; signals, press: a log and its presses.

    by, what: the channels' names [text]; edges: of the bins (b + 1,), any shape [SI].
    Source: medians and quartiles in each bin.
    """
    rows = rising_rows(signals, press)
    rear, over = signals.get(what), signals.get(by)
    middle = 0.5 * (edges[1:] + edges[:-1])
    quartiles, counts = np.full((3, middle.size), np.nan), np.zeros(middle.size)
    if rear is None or over is None:
        return Along(by, middle, quartiles, counts)
    place = np.digitize(over[rows], edges) - 1
    values = _in_time(signals, press, what) if press else np.empty(0)
    for one in range(middle.size):
        inside = values[(place == one) & np.isfinite(values)]
        counts[one] = inside.size
        if inside.size >= LEAST:
            quartiles[:, one] = np.quantile(inside, (0.25, 0.5, 0.75))
    return Along(by, middle, quartiles, counts)


Logged = tuple[Signals, tuple[Press, ...]]
PRESSURES = ("rear_pressure", "front_pressure")


def before_after(press: Logged, other: Logged) -> BeforeAfter:
    """Return two logs beside each other, or why they cannot be.

    press, other: each a log and its presses.

    At equal foot where both have it, else at equal front pressure, else peak by peak: one sensor is
    enough.
    """
    both = (press, other)
    for which, (_, presses) in zip(("first", "second"), both, strict=True):
        if not presses:
            return _not_compared(f"there is no press in the {which} log")
    common = [name for name in PRESSURES if _have(both, name)]
    if not common:
        return _not_compared("the two logs have no pressure of the same line")
    if _have(both, "foot"):
        return _by_channel(both, "foot", common[0])
    if len(common) == len(PRESSURES):
        return _by_channel(both, "front_pressure", "rear_pressure")
    return _by_peak(both, common[0])


def _have(both: tuple[Logged, Logged], name: str) -> bool:
    lines = [log.get(name) for log, _ in both]
    return all(line is not None and bool(np.isfinite(line).any()) for line in lines)


def _not_compared(why: str) -> BeforeAfter:
    none = Along("", np.empty(0), np.empty((3, 0)), np.empty(0))
    return BeforeAfter(none, none, None, clear=False, why_not=why)


def _by_channel(both: tuple[Logged, Logged], by: str, what: str) -> BeforeAfter:
    tops = [float(np.nanmax(log.channels[by])) for log, _ in both]
    edges = np.linspace(0.0, min(tops), BINS + 1)
    before, after = (along(*each, by, edges, what) for each in both)
    return _beside(before, after, what)


def _by_peak(both: tuple[Logged, Logged], what: str) -> BeforeAfter:
    """Return two logs of one sensor: the peaks of their presses, which were to be alike."""
    found = []
    for _, presses in both:
        peaks = [one.front_peak if what == "front_pressure" else one.rear_peak for one in presses]
        told = np.array([one for one in peaks if one is not None])
        quartiles = np.quantile(told, (0.25, 0.5, 0.75))[:, None]
        found.append(Along("peak", np.zeros(1), quartiles, np.array([float(told.size)])))
    before, after = found
    return _beside(before, after, what)


def _beside(before: Along, after: Along, what: str) -> BeforeAfter:
    apart = after.quartiles[1] - before.quartiles[1]
    known = np.isfinite(apart)
    if not known.any():
        why = "too few readings of both lie at the same places"
        return BeforeAfter(before, after, None, clear=False, what=what, why_not=why)
    beyond = (after.quartiles[0] > before.quartiles[2]) | (after.quartiles[2] < before.quartiles[0])
    clear = bool(beyond[known].mean() > 0.5)
    return BeforeAfter(before, after, float(np.median(apart[known])), clear, what)


@dataclass(frozen=True)
class BesideModel:
    """One figure of a log beside the model's, and how far both spread together.

    `figure` is `knee` [Pa], `slope` [-] or `rear pressure` [Pa], the last at the highest front one.
    """

    figure: str
    logged: float
    model: float
    spread: float

    @property
    def differs(self) -> bool:
        """Whether it differs by more than the spreads of both."""
        return abs(self.logged - self.model) > self.spread


def beside_model(
    build: Build, case: int, press: tuple[Press, ...], over: Mapping[str, Floats] = NOTHING
) -> tuple[BesideModel, ...]:
    """Return a log's figures beside those of the build.

    case: place of the load case [-]; press: the log's presses; over:
    how the build was set then, by path [SI].
    Source: medians over the presses, their quartiles, and the tolerance of the build's valve.
    """
    rows = []
    wanted = _rear_valve(build, case, over)
    if wanted is not None and wanted.knee is not None and wanted.slope is not None:
        for name, values, model, limits in (
            ("knee", [p.knee for p in press], wanted.knee, wanted.knee_limits),
            ("slope", [p.slope for p in press], wanted.slope, wanted.slope_limits),
        ):
            told = np.array([one for one in values if one is not None])
            if told.size and limits is not None:
                own = float(np.subtract(*np.quantile(told, (0.75, 0.25)))) + READ * model
                spread = own + (limits[1] - limits[0]) / 2.0
                rows.append(BesideModel(name, float(np.median(told)), model, spread))
    at_top = _at_top(system(build, over=over), case, press)
    return (*rows, at_top) if at_top is not None else tuple(rows)


def _rear_valve(build: Build, case: int, over: Mapping[str, Floats]) -> Expected | None:
    valves = [one for one in gauged_valves(build) if one.startswith("rear")]
    return expected(build, valves[0], case, over) if valves else None


def _at_top(built: System, case: int, press: tuple[Press, ...]) -> BesideModel | None:
    pairs = [(p.front_peak, p.rear_peak) for p in press]
    told = np.array([(f, r) for f, r in pairs if f is not None and r is not None])
    if not told.size:
        return None
    model = model_rear(built, case, told[:, 0])
    apart = told[:, 1] - model
    middle = float(np.median(model))
    own = float(np.subtract(*np.quantile(apart, (0.75, 0.25))))
    spread = own + TOLERANCE * middle
    return BesideModel("rear pressure", middle + float(np.median(apart)), middle, spread)


def model_rear(system: System, case: int, front: Array) -> Array:
    """Return the rear pressure of the model over the front's [Pa].

    system: the system; case: of it [-]; front: any shape [Pa].
    """
    efforts = np.linspace(0.0, 2.0 * float(system.max_effort), 800)
    lines = rolling_lines(system, pushrod_force(system, efforts), system.case(case))
    rising = np.maximum.accumulate(lines.front) + 1e-6 * np.arange(efforts.size)
    return np.asarray(np.interp(front, rising, np.broadcast_to(lines.rear, efforts.shape)))
