"""The rear circuit's valve as Balance changes it: its knee and slope, at any setting."""

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from urgens.document import BuildChange
from urgens.document.kinds.valves import Valve, ValveKind, kind_of
from urgens.document.kinds.valves.adjustable import Adjustable
from urgens.physics.valve_law import Felt, through
from urgens.quantity import PRESSURE, UnitSystem, parse, places, retype
from urgens.studies.knee_here import knee_here, moves
from urgens.ui.session import Session

HIGHEST_SLOPE = 0.95
KNEE_STEP = {UnitSystem.INCH: parse("5 psi", PRESSURE).value, UnitSystem.METRIC: 0.5e5}  # Pa
Pressures = NDArray[np.float64]


@dataclass(frozen=True)
class ValveSetting:
    """The first valve of the rear circuit that reduces, and where it stands.

    `knee` is that of the load case looked at [Pa], infinite where no press reaches it.
    """

    index: int
    valve: Valve
    knee: float
    slope: float

    @property
    def path(self) -> str:
        """Its place in the build."""
        return f"valves.rear[{self.index}]"

    @property
    def kind(self) -> ValveKind:
        """The record of its kind."""
        return kind_of(self.valve)

    @property
    def reached(self) -> bool:
        """Whether some press reaches its knee."""
        return math.isfinite(self.knee)

    @property
    def states_knee(self) -> bool:
        """Whether its knee is a figure of its own."""
        return self.kind.knee_figure == "knee"

    def arriving(self, session: Session, master: Pressures, felt: Felt) -> Pressures:
        """Return the pressure [Pa] in front of it for pressures at the cylinder [Pa]."""
        made = session.solution.system
        return through(made.valves.rear[: self.index], master, felt)


def valve_setting(session: Session) -> ValveSetting | None:
    """Return the rear circuit's valve, None where nothing reduces."""
    for index, valve in enumerate(session.build.valves.rear):
        if kind_of(valve).has_knee:
            slope = float(getattr(valve, "slope", 0.0))
            return ValveSetting(index, valve, knee_here(session.solution, index), slope)
    return None


def knee_moved(session: Session, setting: ValveSetting, knee: float) -> BuildChange:
    """Return the change that moves the knee to `knee` [Pa], as near as the adjuster comes."""
    units = session.units
    values: dict[str, object] = {}
    for path, value, kind in moves(session.solution, setting.index, knee):
        place = f"{setting.path}.{path}"
        if kind is None:
            return turned(setting, value)
        finer = places(kind, units) + (kind is not PRESSURE)  # springs and ramps move much
        values[place] = retype(value, kind, units, finer)
    return BuildChange.planning(f"Knee {retype(knee, PRESSURE, units)}", values)


def turned(setting: ValveSetting, turns: float) -> BuildChange:
    """Return the change that sets an adjustable valve to `turns`, within its table."""
    assert isinstance(setting.valve, Adjustable)
    turns = setting.valve.within(turns)
    label = f"{turns:g} turns" if setting.valve.counted == "turns" else f"Notch {turns:g}"
    return BuildChange.planning(label, {f"{setting.path}.turns": turns})


def sloped(setting: ValveSetting, slope: float) -> BuildChange:
    """Return the change that sets the slope, to two places."""
    slope = round(min(max(slope, 0.0), HIGHEST_SLOPE), 2)
    return BuildChange.planning(f"Slope {slope:g}", {f"{setting.path}.slope": slope})


def knee_stepped(session: Session, setting: ValveSetting, steps: int) -> BuildChange | None:
    """Return the change by natural steps: a notch, a quarter turn, 5 psi or 0.5 bar."""
    if isinstance(setting.valve, Adjustable):
        return turned(setting, setting.valve.stepped(steps))
    if not setting.reached:
        return None
    step = KNEE_STEP[session.units.system]
    return knee_moved(session, setting, (round(setting.knee / step) + steps) * step)
