"""What a gauge box said, as a log's channels."""

import numpy as np

from urgens.bench.gauges.box_protocol import CHANNEL_OF, BoxReading
from urgens.bench.logs.channels import Signals

LINES = "front", "rear"  # the brakes' own lines count before those across a valve


def as_log(readings: list[BoxReading]) -> Signals | None:
    """Return what was read as channels in SI, None where it was too little.

    The box's own names; the lines at the brakes where it gives them, else across the valve.
    """
    if len(readings) < 2:
        return None
    names = [name for name in readings[0].values if name in CHANNEL_OF]
    if all(one in names for one in LINES):
        names = [name for name in names if name not in ("in", "out")]
    found = {
        CHANNEL_OF[name]: np.array([one.values.get(name, np.nan) for one in readings])
        for name in names
    }
    return Signals(found)
