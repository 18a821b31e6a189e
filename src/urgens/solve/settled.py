"""Where the load that a valve feels and the deceleration that the brakes make agree."""

from collections.abc import Callable
from typing import NamedTuple

import numpy as np

from urgens.physics import tyre, vehicle
from urgens.physics.arrays import Array, Floats
from urgens.physics.valve_law import Felt, LoadSensingLaw, ResidualLaw, at_rest, through
from urgens.physics.vehicle import States, StaticVehicle
from urgens.solve.bracket import EXACT, crossing
from urgens.solve.line_pressure import LinePressures, forces_at, line_pressures
from urgens.solve.system import System

HARD = 1e3  # g, beyond any deceleration
CLOSE = 1e-13  # of that, how near a root is looked for


class Left(NamedTuple):
    """What is left of the brakes: shares of the front's and the rear's force, and of the grip."""

    front: float = 1.0
    rear: float = 1.0
    grip: float = 1.0

    def of(self, forces: "Forces") -> "Forces":
        """Return what is left of axle forces [N]; forces: of the whole [N]."""
        return forces if self is WHOLE else (self.front * forces[0], self.rear * forces[1])


# The latter of a diagonal split with one circuit lost
WHOLE = Left()
HALF = Left(0.5, 0.5, 0.5)
FRONT_ALONE = Left(rear=0.0)
REAR_ALONE = Left(front=0.0)

Forces = tuple[Array, Array]  # N, of the front and the rear axle


def felt_at(standing: StaticVehicle, z: Floats) -> Felt:
    """Return what valves feel while the vehicle decelerates.

    standing: load cases [N, -]; z: deceleration [g].
    """
    return Felt(vehicle.axle_loads(standing, z)[1], standing.rear_weight)


def settled_lines(system: System, output: Array, standing: StaticVehicle) -> LinePressures:
    """Return line pressures [Pa] where a dynamic valve and the deceleration of all wheels agree.

    system: the system, its ball closed where it has one; output: force on the cylinder, any shape
    [N];
    standing: load cases [N, -]. More deceleration unloads the rear, which lowers the knee: the root
    is the only one. As in `settled_states`.
    Source: Limpert, Brake Design and Safety, load-sensing valves (from memory).
    """
    at = line_pressures(system, output, at_rest(standing))
    slope = _slope(system, at, standing)
    if slope is not None:
        front, _ = forces_at(system, at)
        z = (front + slope.start) / (standing.weight + slope.fall)
        return _with_rear(system, at, felt_at(standing, z))

    def reached(felt: Felt) -> Array:
        return vehicle.demand(*forces_at(system, line_pressures(system, output, felt)), standing)

    ends = [reached(Felt(load, standing.rear_weight)) for load in (-np.inf, np.inf)]
    z = _bracketed(
        lambda tried: np.asarray(tried - reached(felt_at(standing, tried))),
        np.stack(np.broadcast_arrays(*ends)),
    )
    return line_pressures(system, output, felt_at(standing, z))


def settled_states(
    system: System, output: Array, standing: StaticVehicle, grip: Floats, left: Left, kept: Floats
) -> tuple[States, tuple[Forces, ...]]:
    """Return the decelerations [g] at which a dynamic valve agrees with each state of the axles.

    system: the system, its ball closed where it has one; output: force on the cylinder, any shape
    [N].
    standing: load cases [N, -]; grip: the road's coefficient, of what is left [-]; left: of the
    brakes [-].
    kept: share of its coefficient that a locked axle keeps [-].
    With them the forces that both brakes could give [N] in each.
    In closed form where one valve behind feels the load and nothing after it bends what it passes:
    where the root of its slanted part is off that part, the valve is at the end on that side.
    """
    at = line_pressures(system, output, at_rest(standing))
    slope = _slope(system, at, standing)
    if slope is None:
        return _bracketed_states(system, output, standing, grip, left, kept)
    front, start = left.of((forces_at(system, at)[0], slope.start))
    tried = vehicle.states(front, start, standing, grip, kept, left.rear * slope.fall)

    def forces(z: Array) -> Forces:
        return left.of(forces_at(system, _with_rear(system, at, felt_at(standing, z))))

    rolling, front_only = forces(tried.rolling), forces(tried.front_only)
    found = tried._replace(
        rolling=vehicle.demand(*rolling, standing),
        front_only=vehicle.front_slides(front_only[1], standing, grip, kept),
    )
    return found, (rolling, front_only, forces(tried.rear_only), forces(tried.both))


class _Slope(NamedTuple):
    """Rear force [N] without deceleration, and what it loses for each g [N], while reducing."""

    start: Array
    fall: Array


def _with_rear(system: System, at: LinePressures, felt: Felt) -> LinePressures:
    """Return lines whose rear valves feel something else."""
    return at._replace(rear=through(system.valves.rear, at.master_rear, _shut(system, felt)))


def _shut(system: System, felt: Felt) -> Felt:
    return felt if system.closing is None else felt._replace(closing=system.closing)


def _slope(system: System, at: LinePressures, standing: StaticVehicle) -> _Slope | None:
    """Return the rear force while its valve reduces by the load, None where it is no line."""
    laws = system.valves.rear
    law = next((one for one in laws if isinstance(one, LoadSensingLaw) and one.feels_load), None)
    if law is None or sum(one.feels_load for one in system.all_valves) > 1:
        return None
    index = next(place for place, one in enumerate(laws) if one is law)
    if not all(isinstance(behind, ResidualLaw) for behind in laws[index + 1 :]):
        return None
    end = system.ends.rear
    inlet = through(laws[:index], at.master_rear, _shut(system, at_rest(standing)))
    at_none, rise = law.slanted(inlet)
    per_pressure = tyre.axle_force(end.torque_per_pressure, end.rolling_radius)
    still = standing.rear_weight + standing.rear_press
    start = per_pressure * (at_none + rise * still - end.threshold) + system.drag.rear
    return _Slope(start, per_pressure * rise * standing.weight * standing.transfer)


def _bracketed_states(
    system: System, output: Array, standing: StaticVehicle, grip: Floats, left: Left, kept: Floats
) -> tuple[States, tuple[Forces, ...]]:
    """Return the states, each bracketed; several valves that feel the load bend one another."""

    def forces(z: Array) -> Forces:
        return left.of(forces_at(system, line_pressures(system, output, felt_at(standing, z))))

    def settled(*slides: bool) -> Array:
        def excess(z: Array) -> Array:
            passed = vehicle.grip(standing, z, kept * grip)
            held = zip(forces(z), passed, slides, strict=True)
            force = sum(most if slid else own for own, most, slid in held)
            return np.asarray(z - force / standing.weight)

        nothing = np.zeros(np.shape(excess(np.asarray(0.0))))
        return _bracketed(excess, np.stack((nothing, nothing + HARD)), CLOSE)

    one_slides = settled(False, False), settled(True, False), settled(False, True)
    both = vehicle.attainable(standing, kept * grip)
    return States(*one_slides, both), tuple(forces(z) for z in (*one_slides, both))


def _bracketed(excess: Callable[[Array], Array], ends: Array, exact: float = EXACT) -> Array:
    """Return the deceleration [g] at which `excess` rises through zero; the low end if above it.

    `ends`: where it is zero or less, and zero or more, along the first axis [g].
    """
    at_ends = excess(ends)
    (low, high), (at_low, at_high) = np.broadcast_to(ends, at_ends.shape), at_ends
    idle = at_low >= 0.0
    return crossing(
        lambda tried: np.where(idle, 0.0, excess(tried)),
        *(low, np.where(idle, low, high)),
        *(np.where(idle, -1.0, at_low), np.where(idle, 0.0, np.maximum(at_high, 0.0))),
        exact,
    )
