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
    """The rear pressure of two logs at the same foot, or the same front pressure.

    `apart` is the median of how much more the second one has [Pa], `clear` whether it is beyond the
    quartiles of both at most places.
    """

    before: Along
    after: Along
    apart: float | None
    clear: bool


def rising_rows(signals: Signals, press: tuple[Press, ...]) -> Array:
    """Return the rows in which presses rise; signals: the log; press: its presses."""
    pressure = signals.get("front_pressure")
    pressure = signals.get("rear_pressure") if pressure is None else pressure
    if pressure is None or not press:
        return np.empty(0, dtype=int)
    rows = [
        np.arange(one.rows.start, one.rows.start + int(np.nanargmax(pressure[one.rows])) + 1)
        for one in press
    ]
    return np.concatenate(rows)


def along(signals: Signals, press: tuple[Press, ...], by: str, edges: Array) -> Along:
    """Return the rear pressure over another channel; signals, press: a log and its presses.

    by: the channel's name [text]; edges: of the bins (b + 1,), any shape [SI].
    Source: medians and quartiles in each bin.
    """
    rows = rising_rows(signals, press)
    rear, over = signals.get("rear_pressure"), signals.get(by)
    middle = 0.5 * (edges[1:] + edges[:-1])
    quartiles, counts = np.full((3, middle.size), np.nan), np.zeros(middle.size)
    if rear is None or over is None:
        return Along(by, middle, quartiles, counts)
    place = np.digitize(over[rows], edges) - 1
    for one in range(middle.size):
        inside = rear[rows][(place == one) & np.isfinite(rear[rows])]
        counts[one] = inside.size
        if inside.size >= LEAST:
            quartiles[:, one] = np.quantile(inside, (0.25, 0.5, 0.75))
    return Along(by, middle, quartiles, counts)


def before_after(
    press: tuple[Signals, tuple[Press, ...]], other: tuple[Signals, tuple[Press, ...]]
) -> BeforeAfter | None:
    """Return two logs beside each other, None where they have no channel to compare at.

    press, other: each a log and its presses.

    At equal foot where both have it, else at equal front pressure.
    """
    by = next(
        (
            name
            for name in ("foot", "front_pressure")
            if all(log.get(name) is not None for log, _ in (press, other))
        ),
        None,
    )
    if by is None or any(log.get("rear_pressure") is None for log, _ in (press, other)):
        return None
    tops = [float(np.nanmax(log.channels[by])) for log, _ in (press, other)]
    edges = np.linspace(0.0, min(tops), BINS + 1)
    before, after = (along(*each, by, edges) for each in (press, other))
    apart = after.quartiles[1] - before.quartiles[1]
    known = np.isfinite(apart)
    if not known.any():
        return BeforeAfter(before, after, None, clear=False)
    beyond = (after.quartiles[0] > before.quartiles[2]) | (after.quartiles[2] < before.quartiles[0])
    clear = bool(beyond[known].mean() > 0.5)
    return BeforeAfter(before, after, float(np.median(apart[known])), clear)


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
