"""The sizing map as the JSON object the command line prints."""

from typing import Any

import numpy as np

from urgens.build import Build
from urgens.physics.arrays import Array
from urgens.quantity import FORCE, PRESSURE, show
from urgens.solve.sizing import SizingMap, Verdict


def printed(build: Build, found: SizingMap) -> dict[str, Any]:
    """Return a map as plain JSON values, SI throughout, null where there is no figure.

    build: the document [object]; found: its map [object].
    Source: build-file contract.
    """
    return {
        "bores": found.bores.tolist(),
        "rear_bores": found.rear_bores.tolist(),
        "ratios": found.ratios.tolist(),
        **{
            name: _nulls(getattr(found, name))
            for name in (
                "pressure",
                "effort",
                "pedal_travel",
                "stroke_used",
                "half_failed_travel",
            )
        },
        **({} if found.hold_effort is None else {"hold_effort": _nulls(found.hold_effort)}),
        "verdict": [[Verdict(int(v)).word for v in row] for row in found.verdict],
        "ranked": [
            {
                "bore": float(found.bores[row]),
                "ratio": float(found.ratios[column]),
                "score": float(found.score[row, column]),
                "why": why(build, found, row, column),
            }
            for row, column in found.ranked()
        ],
    }


def _nulls(values: Array) -> list[list[float | None]]:
    return [[float(v) if np.isfinite(v) else None for v in row] for row in values]


def why(build: Build, found: SizingMap, row: int, column: int) -> str:
    """Return in words what one choice gives.

    build: the document [object]; found: its map [object]; row, column: places in it [-].
    Source: the map.
    """
    units, at = build.natural_units, (row, column)
    floor = build.pedal.travel_available.value
    return (
        f"{show(float(found.effort[at]), FORCE, units)} of foot for the wanted deceleration, "
        f"{show(float(found.pressure[at]), PRESSURE, units)} at the comfortable effort, "
        f"{100 * found.pedal_travel[at] / floor:.0f} % of the way to the floor, "
        f"{100 * found.stroke_used[at]:.0f} % of the stroke."
    )
