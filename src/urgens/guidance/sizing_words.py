"""One choice of bore and ratio in words."""

from urgens.document import Build
from urgens.quantity import FORCE, PRESSURE, show
from urgens.studies.sizing import SizingMap


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
