"""The reducing valve of the rear circuit as Balance changes it: knee and slope, at any setting."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from urgens.build.valves import Adjustable, Reducing
from urgens.quantity import PRESSURE, UnitSystem, parse, retype
from urgens.solve.circuit import ReducingLaw, at_rest, law, through
from urgens.solve.stages import tolerance_ends
from urgens.ui.session import Session

LOWEST_KNEE = 1e5  # Pa; the knee stays above zero while it is dragged
TURN_STEP = 0.25
HIGHEST_SLOPE = 0.95
KNEE_STEP = {UnitSystem.INCH: parse("5 psi", PRESSURE).value, UnitSystem.METRIC: 0.5e5}  # Pa


@dataclass(frozen=True)
class ValveSetting:
    """The first valve of the rear circuit that reduces, and where it stands."""

    index: int
    valve: Reducing | Adjustable
    knee: float  # Pa
    slope: float

    @property
    def path(self) -> str:
        """Its place in the build."""
        return f"valves.rear[{self.index}]"

    def arriving(self, session: Session, master: NDArray[np.float64]) -> NDArray[np.float64]:
        """Return the pressure [Pa] in front of it for pressures at the cylinder [Pa]."""
        made, load = session.solution.system, at_rest(session.solution.standing)
        return through(made.rear_valves[: self.index], master, load)

    def at_tolerance(
        self, session: Session, arriving: NDArray[np.float64]
    ) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
        """Return the rear pressure [Pa] with the valve at both ends of its production tolerance."""
        made, load = session.solution.system, at_rest(session.solution.standing)
        ends = tolerance_ends(made.rear_valves[self.index], load)
        assert ends is not None
        behind = made.rear_valves[self.index + 1 :]
        low, high = (through((end, *behind), arriving, load) for end in ends)
        return low, high


def valve_setting(session: Session) -> ValveSetting | None:
    """Return the rear circuit's valve, None where nothing reduces."""
    for index, valve in enumerate(session.build.valves.rear):
        if isinstance(valve, Reducing | Adjustable):
            setting = law(valve)
            assert isinstance(setting, ReducingLaw)
            return ValveSetting(index, valve, float(setting.knee), valve.slope)
    return None


def set_knee(session: Session, setting: ValveSetting, knee: float) -> None:
    """Move the knee to `knee` [Pa], as near as the valve's adjuster comes; raises BuildErrors."""
    knee = max(knee, LOWEST_KNEE)
    if isinstance(setting.valve, Adjustable):
        rows = setting.valve.table
        turns = np.interp(knee, [row[1].value for row in rows], [row[0] for row in rows])
        set_turns(session, setting, setting.valve.nearest(float(turns), TURN_STEP))
    else:
        typed = retype(knee, PRESSURE, session.units)
        session.edit(f"{setting.path}.knee", typed, f"Knee {typed}")


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
    set_knee(session, setting, (round(setting.knee / step) + steps) * step)
