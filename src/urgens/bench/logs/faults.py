"""What is wrong with a log: clocks, gaps, sensors; each with its place, in words."""

from dataclasses import dataclass

import numpy as np

from urgens.bench.logs.channels import CHANNELS, Signals
from urgens.bench.logs.table import LogFile
from urgens.physics.arrays import Array, Bools

GAP = 5.0  # times the usual step
STOPPED = 3  # rows with one time: the clock stood
STUCK = 25  # rows at the very largest figure: the sensor is at its limit
NAMED = 5  # of one fault: the others are counted


@dataclass(frozen=True)
class LogFault:
    """One fault: when [s], None where it is of the file as a whole; what, in words."""

    at: float | None
    what: str


def rising(signals: Signals) -> tuple[Signals, tuple[LogFault, ...]]:
    """Return a log whose time rises, and what was left out for it.

    signals: as read. Rows whose time is not after the one before are left out.
    Source: by definition of a log.
    """
    time = signals.time
    known = np.isfinite(time)
    if not time.size:
        return signals, ()
    filled = np.where(known, time, -np.inf)
    later = np.concatenate(([True], np.maximum.accumulate(filled)[:-1] < filled[1:]))
    kept: Bools = known & later
    faults = list(_unknown_times(known))
    faults += _stood(time, kept & known, known)
    if not kept.any():
        faults.append(LogFault(None, "no row has a time: say which column is the time"))
    if kept.all():
        return signals, tuple(faults)
    rows = np.flatnonzero(kept)
    return Signals({name: one[rows] for name, one in signals.channels.items()}), tuple(faults)


def _unknown_times(known: Bools) -> list[LogFault]:
    count = int((~known).sum())
    if not count:
        return []
    rows = f"{count} rows have" if count > 1 else "a row has"
    return [LogFault(None, f"{rows} no time, the first one row {int(np.argmin(known)) + 1}")]


def _stood(time: Array, kept: Bools, known: Bools) -> list[LogFault]:
    """Return where the clock stood or went back."""
    out = known & ~kept
    if not out.any():
        return []
    starts = np.flatnonzero(out & ~np.concatenate(([False], out[:-1])))
    ends = np.flatnonzero(out & ~np.concatenate((out[1:], [False])))
    faults = []
    for first, last in list(zip(starts, ends, strict=True))[:NAMED]:
        count, at = int(last - first) + 1, float(time[first])
        same = bool(np.all(time[int(first) : int(last) + 1] == time[max(int(first) - 1, 0)]))
        if same and count >= STOPPED:
            words = f"the clock stands for {count} rows"
        elif same:
            words = f"{count} rows repeat the time before" if count > 1 else "a time comes twice"
        else:
            words = f"the time goes back for {count} rows"
        faults.append(LogFault(at, f"{words}; left out"))
    if len(starts) > NAMED:
        more = len(starts) - NAMED
        faults.append(LogFault(None, f"the clock stands or goes back at {more} more places"))
    return faults


def faults_of(log: LogFile, signals: Signals) -> tuple[LogFault, ...]:
    """Return what else is wrong with a log whose time rises.

    log: as read; signals: its channels. Source: common practice of looking
    through a log.
    """
    faults = [LogFault(None, words) for words in log.said]
    faults += [LogFault(None, f"line {number} is skipped: {what}") for number, what in log.skipped]
    if log.skipped_in_all > len(log.skipped):
        more = log.skipped_in_all - len(log.skipped)
        faults.append(LogFault(None, f"{more} more lines are skipped"))
    if not signals.time.size:
        return tuple(faults)
    faults += _gaps(signals.time)
    for name, values in signals.channels.items():
        if name != "time":
            faults += _of_sensor(CHANNELS[name].title, values, signals.time)
    return tuple(faults)


def _gaps(time: Array) -> list[LogFault]:
    steps = np.diff(time)
    if not steps.size:
        return [LogFault(None, "there is one row only")]
    usual = float(np.median(steps))
    wide = np.flatnonzero(steps > GAP * usual)
    found = [
        LogFault(float(time[at]), f"nothing for {steps[at]:.2f} s, usually {usual * 1e3:.0f} ms")
        for at in wide[:NAMED]
    ]
    if wide.size > NAMED:
        found.append(LogFault(None, f"{wide.size - NAMED} more gaps"))
    return found


def _of_sensor(title: str, values: Array, time: Array) -> list[LogFault]:
    known = np.isfinite(values)
    if not known.any():
        return [LogFault(None, f"{title}: no figure at all")]
    found = []
    missing = int((~known).sum())
    if missing:
        at = float(time[int(np.argmin(known))])
        found.append(LogFault(at, f"{title}: {missing} cells are empty, the first one here"))
    inside = values[known]
    if inside.size > STUCK and np.ptp(inside) == 0.0:
        return [*found, LogFault(None, f"{title}: dead, the same figure all the time")]
    top: Bools = known & (values == inside.max())
    run = _longest(top)
    if run[1] >= STUCK and run[1] > 0.001 * values.size and inside.max() > np.median(inside):
        at = float(time[run[0]])
        found.append(LogFault(at, f"{title}: at its limit for {run[1]} rows"))
    return found


def _longest(true: Bools) -> tuple[int, int]:
    """Return where the longest run of true begins, and how long it is."""
    edges = np.flatnonzero(np.diff(np.concatenate(([0], true.view(np.int8), [0]))))
    starts, ends = edges[::2], edges[1::2]
    if not starts.size:
        return 0, 0
    best = int(np.argmax(ends - starts))
    return int(starts[best]), int(ends[best] - starts[best])
