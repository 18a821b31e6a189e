"""The curves of the pressure plane, in the units shown."""

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from urgens.physics.valve_law import Felt
from urgens.physics.vehicle import StaticVehicle
from urgens.quantity import PRESSURE
from urgens.quantity.display import in_units
from urgens.solve import AxleName, ideal_pressures
from urgens.solve.ball import rolling
from urgens.solve.line_pressure import LinePressures, booster_output, line_pressures, pushrod_force
from urgens.solve.rolling_forces import felt_rolling, rolling_lines
from urgens.solve.system import System
from urgens.studies.balance_curves import at_tolerance
from urgens.ui.session import Session
from urgens.ui.stations.balance.valve_setting import ValveSetting

LINE_POINTS = 121
IDEAL_POINTS = 121
IDEAL_Z = np.linspace(0.0, 2.0, IDEAL_POINTS)  # g
STRAIGHT = 1e-6  # sine of the smallest corner
NICE = (1.0, 1.2, 1.5, 2.0, 2.5, 3.0, 4.0, 5.0, 6.0, 8.0, 10.0)
Curve = NDArray[np.float64]


def nice_above(value: float) -> float:
    """Return the next round number at or above `value`."""
    power = 10.0 ** math.floor(math.log10(max(value, 1e-9)))
    return next(n * power for n in NICE if n * power >= value * (1 - 1e-9))


def corners(x: Curve, y: Curve) -> tuple[Curve, Curve]:
    """Return a line without the points that lie straight between their neighbours.

    Lines of valves are straight between knees; thick pens are slow on many points.
    """
    before, after = (np.diff(x[:-1]), np.diff(y[:-1])), (np.diff(x[1:]), np.diff(y[1:]))
    turn = np.abs(before[0] * after[1] - before[1] * after[0])
    size = np.hypot(*before) * np.hypot(*after)
    kept = np.concatenate(([True], turn > STRAIGHT * np.maximum(size, 1e-30), [True]))
    return x[kept], y[kept]


@dataclass(frozen=True)
class PressureCurves:
    """The line as built, the same before its valve, the ideal lines and the first lock.

    `low` and `high` are the rear with the valve at the ends of its production tolerance.
    Pressures in the units shown, `scale` [Pa] each. `ideal_*` have the shape cases by points.
    """

    scale: float
    front: Curve
    rear: Curve
    arriving: Curve
    low: Curve
    high: Curve
    ideal_front: Curve
    ideal_rear: Curve
    lock: tuple[AxleName, float, float, float] | None  # axle, front, rear, deceleration [g]

    @property
    def right(self) -> float:
        """Where the front axis ends."""
        return nice_above(float(self.front.max()))

    @property
    def top(self) -> float:
        """Where the rear axis ends."""
        shown = self.ideal_rear[self.ideal_front <= self.right]
        return nice_above(1.08 * max(float(self.rear.max()), float(shown.max(initial=0.0))))


def pressure_curves(session: Session, setting: ValveSetting | None) -> PressureCurves:
    """Return the curves of the session's build."""
    solution, scale = session.solution, in_units(PRESSURE, session.units)
    made = solution.system
    efforts = np.linspace(0.0, session.most_effort, LINE_POINTS)
    made = rolling(made, solution.standing)
    lines, felt = _lines(made, efforts, solution.standing)
    arriving = low = high = lines.rear
    if setting is not None:  # the knee itself belongs to the line
        arriving = setting.arriving(session, lines.master_rear, felt)
        if setting.reached:
            at_knee = np.interp(setting.knee, arriving, efforts)
            efforts = np.sort(np.append(efforts, at_knee))
            lines, felt = _lines(made, efforts, solution.standing)
            arriving = setting.arriving(session, lines.master_rear, felt)
        ends = at_tolerance(solution, efforts)
        if ends is not None:  # a ball that never rolls has none
            low, high = (end.rear_pressure for end in ends)
    cases = made.cases
    ideal_front, ideal_rear = ideal_pressures(made, cases, IDEAL_Z)
    return PressureCurves(
        scale,
        lines.front / scale,
        lines.rear / scale,
        arriving / scale,
        low / scale,
        high / scale,
        ideal_front / scale,
        ideal_rear / scale,
        _lock(session, scale),
    )


def _lines(system: System, efforts: Curve, standing: StaticVehicle) -> tuple[LinePressures, Felt]:
    """Return the pressures of all efforts, and what the valves feel at each."""
    output = booster_output(system, pushrod_force(system, efforts))
    felt = felt_rolling(system, output, standing)
    return line_pressures(system, output, felt), felt


def _lock(session: Session, scale: float) -> tuple[AxleName, float, float, float] | None:
    solution = session.solution
    made, at = solution.system, (solution.case, solution.road)
    axle = AxleName(int(solution.lock.axle[at]))
    if axle is AxleName.NONE:
        return None
    effort = float(solution.lock.effort[at])
    lines = rolling_lines(made, pushrod_force(made, effort), solution.standing)
    return axle, float(lines.front) / scale, float(lines.rear) / scale, float(solution.lock.z[at])
