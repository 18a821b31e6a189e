"""What a builder turns between two stops: a valve's adjuster, or a balance bar."""

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from urgens.document import Build
from urgens.document.kinds.cylinders.twin import TwinMaster
from urgens.document.kinds.valves.adjustable import Adjustable
from urgens.document.paths import value_at
from urgens.physics.arrays import Floats
from urgens.quantity import LENGTH, Quantity, QuantityError, parse

TURN = 0.5  # between two settings that are tried
MOST_TURNS = 1.0  # at a time towards the rear
BAR_STEPS = 16  # from the middle to a quarter of the bar
MOST_BAR_STEPS = 2  # at a time


@dataclass(frozen=True)
class Adjuster:
    """What is turned: its path, and its settings from the least rear share to the most.

    `values` are numbers, or SI of a length; `most` how many settings at a time towards the rear;
    `counted` what a setting is in words.
    """

    path: str
    values: tuple[float, ...]
    most: int
    counted: str

    def place(self, value: float) -> int:
        """Return the place of the setting next to a value; value: of it [-]."""
        return int(np.argmin(np.abs(np.array(self.values) - value)))

    def typed(self, value: float) -> float | str:
        """Return a setting as it is typed into a build; value: of it [SI]."""
        return value if self.counted != "length" else f"{value * 1e3:.3g} mm"

    def laid(self, given: object) -> float | None:
        """Return a setting as a number [SI], None where it is none.

        given: as typed.
        """
        if isinstance(given, Quantity):
            return given.value
        if isinstance(given, str):
            try:
                return parse(given, LENGTH).value
            except QuantityError:  # of another kind: a setting of what is no longer fitted
                return None
        return float(given) if isinstance(given, int | float) else None

    def now(self, build: Build) -> float:
        """Return the setting that stands in a build [SI]."""
        found = self.laid(value_at(build, self.path))
        assert found is not None  # an adjuster has a setting
        return found


def adjuster(build: Build) -> Adjuster | None:
    """Return what is turned on a build, None where nothing is.

    Source: common practice: half turns and notches of a valve behind, else the bar.
    """
    for index, valve in enumerate(build.valves.rear):
        if isinstance(valve, Adjustable):
            return _of_valve(valve, f"valves.rear[{index}].turns")
    if isinstance(build.master, TwinMaster):
        quarter = build.master.bar_length.value / 4.0
        places = np.linspace(quarter, -quarter, 2 * BAR_STEPS + 1)
        values = tuple(round(float(one), 5) for one in places)
        return Adjuster("master.bar_offset", values, MOST_BAR_STEPS, "length")
    return None


def set_as(build: Build, setting: Mapping[str, object]) -> dict[str, Floats]:
    """Return what lies over a build's figures where it was set otherwise [SI].

    setting: as noted, by path.

    The build's own adjuster; nothing where no setting of it is noted.
    """
    turned = adjuster(build)
    value = None if turned is None else turned.laid(setting.get(turned.path))
    return {} if turned is None or value is None else {turned.path: value}


def _of_valve(valve: Adjustable, path: str) -> Adjuster:
    if valve.counted == "notches":
        return Adjuster(path, valve.settings, 1, "notches")
    first, last = valve.settings[0], valve.settings[-1]
    count = int((last - first) / TURN + 1e-9)
    values = [first + TURN * step for step in range(count + 1)]
    if values[-1] < last - 1e-9:
        values.append(last)
    return Adjuster(path, tuple(values), int(MOST_TURNS / TURN), "turns")
