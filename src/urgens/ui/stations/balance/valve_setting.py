"""The rear circuit's valve as Balance changes it: its knee and slope, at any setting."""

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from urgens.document.valves import (
    KNEED,
    Adjustable,
    InertiaSensing,
    Limiting,
    LoadSensing,
    Reducing,
)
from urgens.quantity import PRESSURE, UnitSystem, parse, places, retype
from urgens.solve.valve_law import Felt, through
from urgens.studies.knee_here import knee_here, moves
from urgens.ui.session import Session

TURN_STEP = 0.25
HIGHEST_SLOPE = 0.95
KNEE_STEP = {UnitSystem.INCH: parse("5 psi", PRESSURE).value, UnitSystem.METRIC: 0.5e5}  # Pa
Pressures = NDArray[np.float64]


@dataclass(frozen=True)
class ValveSetting:
    """The first valve of the rear circuit that reduces, and where it stands.

    `knee` is that of the load case looked at [Pa], infinite where no press reaches it.
    """

    index: int
    valve: Reducing | Limiting | Adjustable | LoadSensing | InertiaSensing
    knee: float
    slope: float

    @property
    def path(self) -> str:
        """Its place in the build."""
        return f"valves.rear[{self.index}]"

    @property
    def reached(self) -> bool:
        """Whether some press reaches its knee."""
        return math.isfinite(self.knee)

    @property
    def has_slope(self) -> bool:
        """Whether something passes above the knee."""
        return not isinstance(self.valve, Limiting)

    def arriving(self, session: Session, master: Pressures, felt: Felt) -> Pressures:
        """Return the pressure [Pa] in front of it for pressures at the cylinder [Pa]."""
        made = session.solution.system
        return through(made.rear_valves[: self.index], master, felt)


def valve_setting(session: Session) -> ValveSetting | None:
    """Return the rear circuit's valve, None where nothing reduces."""
    for index, valve in enumerate(session.build.valves.rear):
        if isinstance(valve, KNEED):
            slope = 0.0 if isinstance(valve, Limiting) else valve.slope
            return ValveSetting(index, valve, knee_here(session.solution, index), slope)
    return None


def set_knee(session: Session, setting: ValveSetting, knee: float) -> None:
    """Move the knee to `knee` [Pa], as near as the valve's adjuster comes; raises BuildErrors."""
    if isinstance(setting.valve, Adjustable):
        rows = setting.valve.table
        turns = np.interp(knee, [row[1].value for row in rows], [row[0] for row in rows])
        set_turns(session, setting, setting.valve.nearest(float(turns), TURN_STEP))
        return
    units = session.units
    changes: dict[str, object] = {}
    for path, value, kind in moves(session.solution, setting.index, knee):
        finer = places(kind, units) + (kind is not PRESSURE)  # springs and ramps move much
        changes[f"{setting.path}.{path}"] = retype(value, kind, units, finer)
    session.edit_all(changes, f"Knee {retype(knee, PRESSURE, units)}")


def set_turns(session: Session, setting: ValveSetting, turns: float) -> None:
    """Set an adjustable valve to `turns`, within its table; raises BuildErrors."""
    assert isinstance(setting.valve, Adjustable)
    rows = setting.valve.table
    turns = min(max(turns, rows[0][0]), rows[-1][0])
    label = f"{turns:g} turns" if setting.valve.counted == "turns" else f"Notch {turns:g}"
    session.edit(f"{setting.path}.turns", turns, label)


def set_slope(session: Session, setting: ValveSetting, slope: float) -> None:
    """Set the slope, to two places; raises BuildErrors."""
    slope = round(min(max(slope, 0.0), HIGHEST_SLOPE), 2)
    session.edit(f"{setting.path}.slope", slope, f"Slope {slope:g}")


def step_knee(session: Session, setting: ValveSetting, steps: int) -> None:
    """Move the knee by natural steps: a notch, a quarter turn, 5 psi or 0.5 bar."""
    valve = setting.valve
    if isinstance(valve, Adjustable) and valve.counted == "notches":
        notches = [row[0] for row in valve.table]
        place = notches.index(valve.turns) + steps
        set_turns(session, setting, notches[min(max(place, 0), len(notches) - 1)])
        return
    if isinstance(valve, Adjustable):
        set_turns(session, setting, valve.turns + TURN_STEP * steps)
        return
    step = KNEE_STEP[session.units.system]
    if setting.reached:
        set_knee(session, setting, (round(setting.knee / step) + steps) * step)
