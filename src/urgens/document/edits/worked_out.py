"""Figures that were worked out from readings, worked out again where what they rest on changed."""

from collections.abc import Mapping
from typing import Any

from urgens.document.build import Build
from urgens.document.edits.setups import stands_at
from urgens.document.readings import HeightEstimate, RaisedAxleReadings
from urgens.quantity import LENGTH, Quantity, Units, UnitSystem, retype

LOST = "its readings give no height with these tyres and this wheelbase"


def worked_out_again(before: Build, after: Build) -> tuple[dict[str, object], dict[str, Any]]:
    """Return figures by path that a change makes others, as typed, and what is known of them then.

    before, after: the build that is changed. Readings that give nothing any more leave the figure
    as it was, only assumed. Source: the readings kept beside the figure.
    """
    values: dict[str, object] = {}
    known: dict[str, Any] = {}
    for path, said in after.evidence.items():
        readings = said.readings
        if not isinstance(readings, RaisedAxleReadings) or _rests_on(before) == _rests_on(after):
            continue
        now = stands_at(after, path)
        assert isinstance(now, Quantity)
        whole = said.model_dump(mode="json", exclude_unset=True)
        try:
            found = readings.height(*_rests_on(after))
        except ValueError:
            known[path] = {"state": "assumed", "note": LOST}
            continue
        values[path], known[path] = _typed(found, now), whole
    return values, known


def moved_by_readings(
    before: Build, after: Build, written: Mapping[str, object]
) -> tuple[str, ...]:
    """Return the figures that a change made others by their readings alone.

    before, after: the build that was changed; written: what the change wrote, by path.
    Source: by definition.
    """
    return tuple(
        path
        for path, said in after.evidence.items()
        if said.readings is not None
        and path not in written
        and stands_at(before, path) != stands_at(after, path)
    )


def _rests_on(build: Build) -> tuple[float, tuple[float, float]]:
    """Return the wheelbase, and the radii of front and rear tyres [m]."""
    radii = build.front.tyre.radius, build.rear.tyre.radius
    return build.vehicle.wheelbase.value, radii


def _typed(found: HeightEstimate, now: Quantity) -> str:
    """Return a height in the system of units in which it stands."""
    inches = now.text.rstrip().endswith(("in", '"', "ft"))
    return retype(found.height, LENGTH, Units(UnitSystem.INCH if inches else UnitSystem.METRIC))
