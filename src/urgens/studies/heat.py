"""How warm the brakes get in a series of stops, and how far the fluid is from boiling."""

from dataclasses import dataclass

import numpy as np

from urgens.document import Build
from urgens.document.heat import Heat
from urgens.document.kinds.brakes import brake_kind
from urgens.document.numeric import NumericBuild
from urgens.document.tables import fluid_table
from urgens.physics.arrays import Array
from urgens.physics.atmosphere import GRAVITY
from urgens.physics.axle import Axle, Pair
from urgens.physics.heat import cooling_time_measured, peaks_of_a_series, rise_of_one_stop
from urgens.solve.effort import effort_for
from urgens.solve.line_pressure import brake_forces_at, forces_at, pushrod_force
from urgens.solve.rolling_forces import rolling_lines
from urgens.solve.solution import Solution

# Times in which a rotor loses 63 % of its excess at road speed [s]: assumed, no source; a
# measured temperature settles them.
COOLING_TIMES = {"open": 300.0, "ducted": 180.0, "inboard": 480.0}
FLUID_SHARE = 0.3  # of the excess of the iron that reaches the fluid: assumed, no source


@dataclass(frozen=True)
class Heated:
    """One axle: rise of one stop [K], temperatures at the end of each [K], how it cools [s].

    `share` of the energy [-]; `fluid` hottest [K]; `settled` where a measured temperature tells
    the cooling time, and `unlike` where it is given but no cooling explains it.
    """

    share: float
    rise: float
    peaks: Array
    cooling_time: float
    fluid: float
    settled: bool
    unlike: bool


def mass_heated(build: Build, axle: Axle) -> float | None:
    """Return the mass of one rotor or drum [kg], None where it is not known.

    axle: which [-].
    """
    brake = build.axle(axle).brake
    mass = NumericBuild(brake).get(brake_kind(brake).iron)
    return None if mass is None else float(mass)


def shares(solution: Solution) -> Pair[float]:
    """Return the shares of the energy that either axle's brakes take [-].

    At the wanted deceleration, at the comfortable effort where that is out of reach. What the
    engine takes heats no brake.
    """
    wanted = solution.build.targets.deceleration
    effort = effort_for(solution.system, solution.standing, wanted)
    if not np.isfinite(effort) or effort <= 0:
        effort = solution.build.targets.comfortable_effort.value
    made = solution.system
    lines = rolling_lines(made, pushrod_force(made, effort), solution.standing)
    front, rear = (float(force) for force in brake_forces_at(made, lines))
    whole = sum(float(force) for force in forces_at(made, lines))
    return Pair(front / whole, rear / whole) if whole > 0 else Pair(0.0, 0.0)


def heated(solution: Solution, axle: Axle) -> Heated | None:
    """Return an estimate of one axle's heat, None where the iron's mass is not known.

    axle: which [-].
    Source: physics.heat, one lump a wheel; cooling and the fluid's share are assumed unless a
    temperature was measured.
    """
    build = solution.build
    iron = mass_heated(build, axle)
    if iron is None:
        return None
    series = build.heat or Heat()
    share = shares(solution).of(axle)
    mass = float(solution.standing.weight) / GRAVITY
    speed, air = series.speed.value, series.air.value
    rise = float(rise_of_one_stop(mass, speed, share, iron))
    between = series.between.value / speed
    brake = build.axle(axle).brake
    usual = brake_kind(brake).cooling_time
    cooling = COOLING_TIMES[brake.cooling] if brake.cooling is not None else usual
    measured = series.measured(axle)
    settled = unlike = False
    if measured is not None:
        found = cooling_time_measured(rise, series.stops, between, measured.value - air)
        settled = bool(np.isfinite(found))
        unlike = not settled
        cooling = float(found) if settled else cooling
    peaks = air + peaks_of_a_series(rise, series.stops, between, cooling)
    fluid = float(fluid_at(peaks, solution)[-1])
    return Heated(share, rise, peaks, cooling, fluid, settled, unlike)


def fluid_at(iron: Array, solution: Solution) -> Array:
    """Return the fluid's temperature beside iron of a temperature [K].

    iron: any shape [K];  Source: an assumed share of the iron's excess.
    """
    air = (solution.build.heat or Heat()).air.value
    return np.asarray(air + FLUID_SHARE * (iron - air))


def boiling_points(build: Build) -> tuple[float, float] | None:
    """Return the dry and the wet boiling point of the build's fluid [K], None if not known.

    Source: FMVSS 116, the least its class must have.
    """
    if build.fluid is None:
        return None
    row = fluid_table().fluids[build.fluid.grade]
    return row.dry.value, row.wet.value
