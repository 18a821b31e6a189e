"""Logs written out, so that anything reads them: CSV with the units in the header."""

from pathlib import Path

import numpy as np

from urgens.bench.logs.channels import CHANNELS, Signals, unit_of
from urgens.bench.logs.table import SIMULATED, LogFile
from urgens.bench.road.drives import Drive
from urgens.document.whole_file import write_whole
from urgens.physics.arrays import Array
from urgens.physics.atmosphere import GRAVITY

UNITS = {
    "time": "s", "front_pressure": "bar", "rear_pressure": "bar", "foot": "N", "travel": "mm",
    "deceleration": "g", "speed": "km/h", "front_speed": "km/h", "rear_speed": "km/h",
    "front_temperature": "°C", "rear_temperature": "°C",
}  # fmt: skip
NAMES = {
    "time": "time", "front_pressure": "front pressure", "rear_pressure": "rear pressure",
    "foot": "foot", "travel": "travel", "deceleration": "deceleration", "speed": "speed",
    "front_speed": "front wheel speed", "rear_speed": "rear wheel speed",
    "front_temperature": "front temperature", "rear_temperature": "rear temperature",
}  # fmt: skip
NOISE = {
    "front_pressure": 3e3,
    "rear_pressure": 3e3,
    "foot": 1.0,
    "deceleration": 0.004,
    "speed": 0.02,
    "front_speed": 0.05,
    "rear_speed": 0.05,
}  # of each sensor, standard deviation [SI; g]: assumed
DIGITS = {"time": 3, "deceleration": 4}


def written_anew(file: LogFile, name: str) -> tuple[str, ...]:
    """Return what stands above a log that is written anew; file: as read; name: its own [text]."""
    return (f"{f'{SIMULATED}, ' if file.simulated else ''}written anew from {name}",)


def csv_of(signals: Signals, comments: tuple[str, ...] = ()) -> str:
    """Return channels as a CSV file's text.

    signals: in SI; comments: lines above, without a mark.
        Source: RFC 4180; comments as `#` lines.
    """
    names = [name for name in CHANNELS if name in signals.channels]
    heads = [f"{NAMES[name]} [{UNITS[name]}]" for name in names]
    columns = [_column(name, signals.channels[name]) for name in names]
    rows = [",".join(row) for row in zip(*columns, strict=True)]
    above = [f"# {' '.join(line.split())}" for line in comments]
    return "\n".join([*above, ",".join(heads), *rows]) + "\n"


def _column(name: str, values: Array) -> list[str]:
    of = unit_of(CHANNELS[name], UNITS[name])
    assert of is not None  # its own unit
    shown = values if name == "deceleration" else (values - of.offset) / of.factor
    digits = DIGITS.get(name, 2)
    return ["" if not np.isfinite(one) else f"{one:.{digits}f}" for one in shown.tolist()]


def write_csv(path: Path, signals: Signals, comments: tuple[str, ...] = ()) -> None:
    """Write channels to a CSV file, whole or not at all.

    path: of it [text]; signals, comments: as `csv_of`.
    Raises OSError.
    """
    write_whole(path, csv_of(signals, comments).encode())


def of_drive(went: Drive) -> Signals:
    """Return a stop of the test road as a log's channels.

    went: the stop.
        Source: what the stand-in's sensors would give, without their noise.
    """
    channels = {
        "time": went.time, "front_pressure": went.front, "rear_pressure": went.rear,
        "foot": went.foot, "deceleration": -np.gradient(went.speed, went.time) / GRAVITY,
        "speed": went.speed, "front_speed": went.front_speed, "rear_speed": went.rear_speed,
    }  # fmt: skip
    return Signals(channels)


def sensed(went: Drive, seed: int) -> Signals:
    """Return a stop of the test road as sensors would give it; went: the stop; seed: [-].

    Source: noise of each sensor, assumed.
    """
    chance = np.random.default_rng(seed)
    plain = of_drive(went).channels
    noisy = {
        name: values + chance.normal(0.0, NOISE[name], values.size) if name in NOISE else values
        for name, values in plain.items()
    }
    floored = {
        name: values if name in ("time", "deceleration") else np.maximum(values, 0.0)
        for name, values in noisy.items()
    }
    return Signals(floored)
