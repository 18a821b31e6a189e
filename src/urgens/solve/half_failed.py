"""What is left when one half of the brakes is lost."""

from dataclasses import dataclass

import numpy as np

from urgens.physics import vehicle
from urgens.physics.standards import FAILED_DECELERATION
from urgens.physics.vehicle import Standing
from urgens.solve.circuit import RearLoad, at_rest
from urgens.solve.press import achieved, booster_output, forces_at, line_pressures, pushrod_force
from urgens.solve.system import Chamber, System
from urgens.solve.travel import axle_volume

GRAVITY = 9.80665  # m/s²


@dataclass(frozen=True)
class HalfFailed:
    """One half lost: what is dead, deceleration left [g], pad travel [m], NaN out of reach."""

    dead: str
    z: float
    pedal_travel: float

    @property
    def meets_rule(self) -> bool:
        """Whether 2.44 m/s² is left, as in UN R13-H Annex 3 (from memory)."""
        return self.z * GRAVITY >= FAILED_DECELERATION


def half_failed(made: System, standing: Standing, surface: float) -> tuple[HalfFailed, ...]:
    """Return what each half lost leaves at the largest effort.

    made: the system; standing: one load case [N, -]; surface: tyre-road coefficient [-].
    Source: physics section 5, half failed.
    """
    if made.split == "single":
        return (HalfFailed("all", 0.0, float("nan")),)
    output = booster_output(made, pushrod_force(made, made.max_effort))
    if made.split == "diagonal":
        left = float(achieved(made, output, standing, surface, part=0.5).deceleration)
        travels = (_travel(made, output, standing, dead) for dead in (0, 1))
        return tuple(HalfFailed("diagonal", left, travel) for travel in travels)
    found = []
    for dead, name in enumerate(("front", "rear")):
        live = _all_to_the_live_rod(made, output, standing, dead)
        system_left = live if live is not None else made
        z = _axle_left(system_left, output, standing, surface, live_rear=dead == 0)
        found.append(HalfFailed(name, z, _travel(made, output, standing, dead)))
    return tuple(found)


def _axle_left(
    made: System, output: np.ndarray, standing: Standing, surface: float, *, live_rear: bool
) -> float:
    """Return the deceleration [g] one axle alone gives; a dynamic valve feels its load there."""
    z = np.asarray(0.0)
    for _ in range(60 if made.feels_load else 1):  # the load falls as z rises: it settles
        load = RearLoad(vehicle.axle_loads(standing, z)[1], standing.rear_weight)
        front, rear = forces_at(made, line_pressures(made, output, load))
        front, rear = (0.0 * front, rear) if live_rear else (front, 0.0 * rear)
        settled = vehicle.achieved(front, rear, standing, surface).deceleration
        z = settled if not made.feels_load else 0.5 * (z + settled)
    return float(z)


def _swing(made: System, dead: int, live_stroke: float) -> float | None:
    """Return the dead rod's stroke [m] where the bar's stop comes before it bottoms, else None."""
    limit, length = made.bar_max_angle, made.bar_length
    if limit is None or length is None:
        return None
    reach = live_stroke + length * limit
    return reach if reach < float(made.volumes.chambers[dead].stroke) else None


def _all_to_the_live_rod(
    made: System, output: np.ndarray, standing: Standing, dead: int
) -> System | None:
    """Return the system with all force on the live rod, where the bar meets its stop first."""
    live_stroke = _live_stroke(made, output, standing, dead)
    if _swing(made, dead, live_stroke) is None:
        return None
    return made.with_shares(*((0.0, 1.0) if dead == 0 else (1.0, 0.0)))


def _live_stroke(made: System, output: np.ndarray, standing: Standing, dead: int) -> float:
    """Return the stroke [m] the live chamber takes at this force."""
    figures = made.volumes
    live = figures.chambers[1 - dead]
    lines = line_pressures(made, output, at_rest(standing))
    front = axle_volume(figures, figures.front, lines.front)
    rear = axle_volume(figures, figures.rear, lines.rear)
    taken = live.front_part * front + live.rear_part * rear
    return float(figures.port_travel + taken / live.area)


def _travel(made: System, output: np.ndarray, standing: Standing, dead: int) -> float:
    """Return pad travel [m]: the dead chamber's stroke is used up, then the live one holds."""
    figures = made.volumes
    dead_chamber, live = figures.chambers[dead], figures.chambers[1 - dead]
    stroke = _live_stroke(made, output, standing, dead)
    dead_stroke = float(dead_chamber.stroke)
    swing = _swing(made, dead, stroke)
    if swing is not None:
        forced = made.with_shares(*((0.0, 1.0) if dead == 0 else (1.0, 0.0)))
        stroke = _live_stroke(forced, output, standing, dead)
        dead_stroke = stroke + float(made.bar_length or 0.0) * float(made.bar_max_angle or 0.0)
    rod = figures.pushrod_clearance + _lever(dead_chamber) * dead_stroke + _lever(live) * stroke
    pad = made.pedal_ratio * float(rod)
    out = stroke > float(live.stroke) or pad > float(figures.floor)
    return float("nan") if out else pad


def _lever(chamber: Chamber) -> float:
    return float(chamber.lever)
