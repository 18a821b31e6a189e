"""Logs in binary form, read with libraries that need not be there."""

import importlib
import struct
from collections.abc import Callable
from pathlib import Path
from types import ModuleType

import numpy as np

from urgens.bench.logs.table import LogFile, titled
from urgens.document import BuildErrors

BROKEN = ValueError, LookupError, OSError, struct.error  # of a file that is cut off
RATE = 0.01  # s: a log whose channels have each a clock of their own is read at this step


def _library(path: Path, name: str, extra: str) -> ModuleType:
    try:
        return importlib.import_module(name)
    except ImportError:
        raise BuildErrors.one(
            path.name,
            f"cannot be read here: the library {name} is not installed",
            f'install it with `pip install "urgens[{extra}]"`, or export the log as CSV',
        ) from None


def _read_mdf(path: Path) -> LogFile:
    """Return the channels of an MDF4 file, all at the same times; raises BuildErrors."""
    library = _library(path, "asammdf", "mdf")
    try:
        with library.MDF(path) as file:
            signals = [one for one in file.iter_channels() if one.samples.dtype.kind in "iuf"]
    except (*BROKEN, library.blocks.utils.MdfException) as error:
        raise BuildErrors.one(path.name, f"is no MDF4 file: {error}", "export it anew") from None
    signals = [one for one in signals if len(one.timestamps) > 1]
    if not signals:
        raise BuildErrors.one(path.name, "holds no channel of figures", "export it anew")
    start = min(float(one.timestamps[0]) for one in signals)
    end = max(float(one.timestamps[-1]) for one in signals)
    times = np.arange(start, end, RATE)
    columns = [times]
    for one in signals:
        known = np.interp(times, one.timestamps, one.samples.astype(float))
        known[(times < one.timestamps[0]) | (times > one.timestamps[-1])] = np.nan
        columns.append(known)
    names = ("time", *(str(one.name) for one in signals))
    units = ("s", *(str(one.unit) for one in signals))
    return LogFile(names, units, np.column_stack(columns))


def _read_parquet(path: Path) -> LogFile:
    """Return the columns of figures of a Parquet file; raises BuildErrors."""
    library = _library(path, "polars", "parquet")
    try:
        frame = library.read_parquet(path)
    except library.exceptions.PolarsError as error:
        raise BuildErrors.one(path.name, f"is no Parquet file: {error}", "export it anew") from None
    numbers = frame.select(library.selectors.numeric())
    if not numbers.width or not numbers.height:
        raise BuildErrors.one(path.name, "holds no column of figures", "export it anew")
    names, units = titled(numbers.columns)
    return LogFile(names, units, numbers.to_numpy().astype(float))


READERS: dict[str, Callable[[Path], LogFile]] = {
    ".mf4": _read_mdf,
    ".mdf": _read_mdf,
    ".parquet": _read_parquet,
}
