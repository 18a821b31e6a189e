"""Assisted stops left in a vacuum reservoir when the engine has stopped."""

from dataclasses import dataclass, replace

import numpy as np

from urgens.document import Build
from urgens.document.kinds.boosters.kind import Reservoir
from urgens.document.kinds.boosters.vacuum import VacuumBooster
from urgens.document.kinds.cylinders.tandem import TwoChambers
from urgens.physics import booster, vehicle
from urgens.physics.arrays import Array
from urgens.physics.atmosphere import air_pressure
from urgens.physics.reservoir import assisted_stops, vacuum_at_end, vacuum_left
from urgens.physics.vehicle import StaticVehicle
from urgens.solve.bracket import first_rise
from urgens.solve.effort import effort_for
from urgens.solve.line_pressure import pushrod_force
from urgens.solve.rolling_forces import axle_forces, rolling_lines
from urgens.solve.system import System
from urgens.solve.travel import strokes

SHOWN = 12  # applications followed
SCANNED = 100  # steps of effort


@dataclass(frozen=True)
class Reserve:
    """What a reservoir keeps: `stops` until the vacuum is under the wanted least, inf if never.

    Of the applications 1, 2, 3 and so on: `vacuum` at rest before it and `at_end` of it [Pa],
    which assists, and `effort` for the wanted deceleration [N], NaN out of reach; `swept` [m³] of
    the booster.
    """

    stops: float
    vacuum: Array
    at_end: Array
    effort: Array
    swept: float


def reserve(build: Build, system: System, standing: StaticVehicle) -> Reserve | None:
    """Return what the reservoir keeps, None where there is none.

    system: its system; standing: one load case [N, -].

    Physics.reservoir, with the assist limit of the vacuum at the end of the stroke.
    """
    fitted = build.booster
    if not isinstance(fitted, VacuumBooster) or fitted.reservoir is None or not fitted.working:
        return None
    tank = fitted.reservoir
    ambient = float(air_pressure(build.vehicle.altitude.value))
    swept = swept_volume(build, fitted, tank)
    in_air = tank.rests == "air"
    volumes = (ambient, tank.volume.value, swept)
    count = np.arange(SHOWN, dtype=float)
    vacuum = vacuum_left(fitted.depression, *volumes, count, rests_in_air=in_air)
    stops = assisted_stops(fitted.depression, tank.least.value, *volumes, rests_in_air=in_air)
    at_end = vacuum_at_end(vacuum, *volumes, _share(build, system, standing), rests_in_air=in_air)
    return Reserve(float(stops), vacuum, at_end, _efforts(build, system, standing, at_end), swept)


def _share(build: Build, system: System, standing: StaticVehicle) -> float:
    """Return the share of the booster's stroke that the wanted deceleration takes; 1 unreached."""
    effort = effort_for(system, standing, build.targets.deceleration)
    if np.isnan(effort):
        return 1.0
    lines = rolling_lines(system, pushrod_force(system, effort), standing)
    chambers = system.volumes.chambers
    taken = strokes(system, lines.front, lines.rear)
    used = sum(c.lever * stroke for c, stroke in zip(chambers, taken, strict=True))
    return min(float(np.asarray(used / sum(c.lever * c.stroke for c in chambers))), 1.0)


def swept_volume(build: Build, fitted: VacuumBooster, tank: Reservoir) -> float:
    """Return the air a booster takes at a press [m³]; its own figure, else area times stroke.

    fitted: its booster; tank: its reservoir.
    Source: geometry.
    """
    if tank.swept is not None:
        return tank.swept.value
    area = sum(np.pi / 4.0 * d.value**2 for d in fitted.diaphragm_diameters)
    master = build.master
    stroke = sum(master.chamber_strokes) if isinstance(master, TwoChambers) else None
    return float(area * (master.stroke.value if stroke is None else stroke))


def _efforts(build: Build, system: System, standing: StaticVehicle, vacuum: Array) -> Array:
    fitted = build.booster
    assert isinstance(fitted, VacuumBooster)
    diameters = np.array([d.value for d in fitted.diaphragm_diameters])
    limit = booster.vacuum_assist_limit(diameters, vacuum)
    weak = replace(system, booster=replace(system.booster, assist_limit=limit))

    def excess(effort: Array) -> Array:
        forces = axle_forces(weak, pushrod_force(weak, effort), standing)
        return np.asarray(vehicle.demand(*forces, standing) - build.targets.deceleration)

    efforts = np.linspace(0.0, system.max_effort, SCANNED + 1)
    over = excess(np.repeat(efforts[:, None], vacuum.size, axis=1))
    reached = over[-1] >= 0.0
    return np.where(reached, first_rise(excess, efforts, over, reached), np.nan)
