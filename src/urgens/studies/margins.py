"""The margin before the rear's lock, day by day, as the history tells the changes."""

from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime

import numpy as np

from urgens.document import Build, BuildErrors
from urgens.document.edits.past import as_of
from urgens.studies.unlimited import unlimited

Progress = Callable[[float], bool]


@dataclass(frozen=True)
class DatedMargin:
    """The margin after a change [-], NaN where it has none; `at` None before all of them."""

    at: datetime | None
    margin: float


def margins(build: Build, progress: Progress | None = None) -> tuple[DatedMargin, ...]:
    """Return the margin before the first change of the history and after each, in order of time.

    progress: told the share done, answers whether to go on [callable]; none where it does not.
    What made no build then has no margin. Source: by definition, as `unlimited`.
    """
    entries = sorted((one for one in build.history if one.changes), key=lambda one: one.at)
    found: list[DatedMargin] = []
    for place, at in enumerate((None, *(one.at for one in entries))):
        if progress is not None and not progress(place / (len(entries) + 1)):
            return ()
        found.append(DatedMargin(at, _margin(build, at)))
    return tuple(found)


def _margin(build: Build, at: datetime | None) -> float:
    try:
        once = as_of(build, datetime.min if at is None else at).build
    except BuildErrors:
        return float(np.nan)
    return float(unlimited(once).margin[0])
