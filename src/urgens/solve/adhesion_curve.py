"""The whole line of a system: where rear and front swap places, and the ideal line."""

from dataclasses import dataclass

import numpy as np

from urgens.physics import standards, vehicle
from urgens.physics.arrays import Array, Bools
from urgens.physics.vehicle import StaticVehicle
from urgens.solve.ball import rolling
from urgens.solve.bracket import crossing
from urgens.solve.first_rise import EQUAL
from urgens.solve.rolling_forces import axle_forces
from urgens.solve.system import System, WheelEnd

LOWEST = 0.15  # g
HIGHEST = 1.2  # between which crossings are sought
POINTS = 513
STRONGEST: Array = np.exp2(
    np.arange(8, 21, dtype=float)
)  # N on the pushrod, tried until HIGHEST is reached


@dataclass(frozen=True)
class Crossings:
    """Decelerations [g] at which the rear's adhesion passes the front's, and which is above."""

    z: Array
    rear_above: Bools

    @property
    def critical_z(self) -> float:
        """Smallest deceleration [g] at which the rear is nearer to locking; NaN if at none."""
        above = self.z[self.rear_above]
        return float(above[0]) if above.size else float("nan")

    def above_between(self, low: float, high: float) -> bool:
        """Tell whether the rear is above somewhere between two decelerations.

        low: [g]; high: [g].
        """
        ends = np.append(self.z[1:], np.inf)
        return bool(np.any(self.rear_above & (self.z < high) & (ends > low)))


@dataclass(frozen=True)
class Regulation:
    """The two lines of a rule, for the builder's own comparison: UN R13-H's, a truck's UN R13's."""

    rear_below_front: bool
    adhesion_limit: bool


@dataclass(frozen=True)
class AdhesionCurve:
    """The system pressed ever harder, with no limit of effort: points along one axis.

    `pushrod` [N], `z` [g], adhesion used [-] of both axles; `lead` is above zero where the rear
    uses more of its grip than the front, a product so that a lifted rear counts too.
    """

    pushrod: Array
    z: Array
    front_used: Array
    rear_used: Array
    lead: Array


def line(system: System, standing: StaticVehicle, pushrod: Array) -> AdhesionCurve:
    """Return the points at `pushrod`.

    system: the system; standing: one load case [N, -]; pushrod: forces, (m,) [N].
    Source: Gillespie, Fundamentals of Vehicle Dynamics, braking (from memory).
    """
    front, rear, z, loads = _rolling(system, standing, pushrod)
    front_used, rear_used = (
        vehicle.adhesion(f, n) for f, n in zip((front, rear), loads, strict=True)
    )
    return AdhesionCurve(pushrod, z, front_used, rear_used, lead(front, rear, loads, standing))


def _rolling(
    system: System, standing: StaticVehicle, pushrod: Array
) -> tuple[Array, Array, Array, tuple[Array, Array]]:
    front, rear = axle_forces(system, pushrod, standing)
    z = vehicle.demand(front, rear, standing)
    return front, rear, z, vehicle.axle_loads(standing, z)


def lead(front: Array, rear: Array, loads: tuple[Array, Array], standing: StaticVehicle) -> Array:
    """Return how far the rear's share of its grip is above the front's, times both grips [N²].

    front, rear: axle forces, any shape [N]; loads: on the front and the rear axle [N]; standing:
    load cases [N, -]. A lifted rear is above.
    Source: each axle's force over its grip factor and load, without the division.
    """
    front_grip, rear_grip = standing.front_grip * loads[0], standing.rear_grip * loads[1]
    apart = rear * front_grip - front * rear_grip
    return np.asarray(apart - EQUAL * front_grip * np.abs(rear_grip))


def whole_line(system: System, standing: StaticVehicle) -> AdhesionCurve:
    """Return the line from rest to beyond 1.2 g, or as far as any foot could press.

    system: the system; standing: one load case, or several down a column [N, -].
    """
    system = rolling(system, standing)
    z = vehicle.demand(*axle_forces(system, STRONGEST, standing), standing)
    reached = np.all(z.reshape(-1, STRONGEST.size) >= HIGHEST, axis=0)
    top = STRONGEST[int(np.argmax(reached))] if reached.any() else STRONGEST[-1]
    return line(system, standing, np.linspace(0.0, top, POINTS))


def crossings(system: System, standing: StaticVehicle, whole: AdhesionCurve) -> Crossings:
    """Return all crossings from 0.15 g to 1.2 g.

    system: the system; standing: one load case [N, -]; whole: its line.
    Source: Limpert, Brake Design and Safety, critical deceleration (from memory).
    """
    system = rolling(system, standing)
    if whole.z[-1] < LOWEST:
        return Crossings(np.array([]), np.array([], dtype=bool))
    first = max(int(np.argmax(whole.z >= LOWEST)) - 1, 0)
    last = int(np.argmax(whole.z >= HIGHEST)) or POINTS - 1
    pushrod, leads = whole.pushrod[first : last + 1], whole.lead[first : last + 1]
    above = leads > 0.0
    turns = np.flatnonzero(above[1:] != above[:-1])
    sign = np.where(above[turns + 1], 1.0, -1.0)

    def lead_at(force: Array) -> Array:
        front, rear, _, loads = _rolling(system, standing, force)
        return sign * lead(front, rear, loads, standing)

    found = crossing(
        lead_at,
        *(pushrod[turns], pushrod[turns + 1]),
        *(sign * leads[turns], sign * leads[turns + 1]),
    )
    z = _rolling(system, standing, found)[2] if found.size else found
    # What turns below the range decides which is above where the range begins.
    starts_above = above[turns[z < LOWEST][-1] + 1] if np.any(z < LOWEST) else above[0]
    inside = (z >= LOWEST) & (z <= HIGHEST)
    z, states = z[inside], above[turns + 1][inside]
    if starts_above:
        z, states = np.append(LOWEST, z), np.append(True, states)
    return Crossings(z, states)


def regulation(
    system: System, standing: StaticVehicle, whole: AdhesionCurve, crossings: Crossings
) -> Regulation:
    """Compare the whole line with the rule for such a vehicle.

    system: the system; standing: one load case as it stands plain [N, -]; whole: its line;
    crossings: its crossings.
    Source: UN Regulation No. 13-H, Annex 5, or No. 13, Annex 10 (both from memory).
    """
    ends = [
        np.interp(
            standards.ADHESION_RANGE, used[np.isfinite(used)], whole.pushrod[np.isfinite(used)]
        )
        for used in (whole.front_used, whole.rear_used)
    ]
    at_ends = line(system, standing, np.concatenate(ends))
    exceeded = any(
        np.any(system.rule.broken(used, points.z))
        for points in (whole, at_ends)
        for used in (points.front_used, points.rear_used)
    )
    above = crossings.above_between(*standards.DECELERATION_RANGE)
    return Regulation(rear_below_front=not above, adhesion_limit=not exceeded)


def ideal_pressures(system: System, standing: StaticVehicle, z: Array) -> tuple[Array, Array]:
    """Return the line pressures [Pa] at which both axles use the same share of their grip.

    system: the system; standing: load cases [N, -]; z: deceleration [g]. The shapes broadcast.

    As `physics.vehicle.ideal_forces`, brakes inverted.
    """
    front, rear = vehicle.ideal_forces(standing, z)
    return _pressure_for(system.ends.front, front), _pressure_for(system.ends.rear, rear)


def _pressure_for(end: WheelEnd, force: Array) -> Array:
    torque = force * end.rolling_radius / 2.0
    return np.asarray(end.threshold + torque / end.torque_per_pressure)
