"""Brakes that hold the car at the line against a stalled driveline."""

from dataclasses import dataclass

import numpy as np

from urgens.document import Build
from urgens.physics.arrays import Array
from urgens.physics.valve_law import at_rest
from urgens.physics.vehicle import StaticVehicle
from urgens.solve.bracket import crossing, first_rise
from urgens.solve.line_pressure import booster_output, line_pressures, pushrod_force, wheel_torque
from urgens.solve.system import System

SCANNED = 400  # steps of effort
LIMITS = ("other axle brakes", "other axle tyres", "driven brakes")


@dataclass(frozen=True)
class Hold:
    """Torque to hold [N·m], the effort [N] and pressure [Pa] that do, else what is short."""

    driven_torque: float
    effort: float | None
    pressure: float | None
    limited_by: str | None

    @property
    def holds(self) -> bool:
        """Whether the largest effort holds it."""
        return self.effort is not None


def hold(build: Build, system: System, standing: StaticVehicle, surface: float) -> Hold | None:
    """Return whether the brakes hold the launch, None where no launch is given.

    system: its system; standing: one load case [N, -]; surface:
    tyre-road coefficient, unless the launch has its own [-].
    Source: moments about the driven hubs; the road passes the other axle's force.
    """
    line = _line_of(build, surface)
    if line is None:
        return None

    def spare(effort: Array) -> Array:
        return _capacity(system, effort, standing, line)[0] - line.torque

    efforts = np.linspace(0.0, system.max_effort, SCANNED + 1)
    over = spare(efforts)
    if over[-1] < 0.0:
        parts = _capacity(system, efforts[-1:], standing, line)[1]
        limit = LIMITS[int(np.argmin([float(p[0]) for p in parts]))]
        return Hold(line.torque, None, None, limit)
    first = int(np.argmax(over >= 0.0))
    effort = 0.0
    if first:
        ends = (efforts[first - 1], efforts[first])
        effort = float(crossing(spare, *ends, over[first - 1], over[first]))
    output = booster_output(system, pushrod_force(system, effort))
    lines = line_pressures(system, output, at_rest(standing))
    pressure = float(lines.rear if line.rear_driven else lines.front)
    return Hold(line.torque, effort, pressure, None)


def hold_effort(
    build: Build, system: System, standing: StaticVehicle, shape: tuple[int, ...]
) -> Array:
    """Return the smallest effort [N] that holds, for a system of arrays; NaN where none does.

    build: one with a launch; system: its system, of arrays that broadcast to
    `shape`; standing: one load case [N, -]; shape: of the systems [-].
    """
    line = _line_of(build, build.targets.surface)
    if line is None:
        raise ValueError("there is no launch to hold")

    def spare(effort: Array) -> Array:
        held = _capacity(system, effort, standing, line)[0] - line.torque
        return np.asarray(np.broadcast_to(held, shape))

    ends = np.array([0.0, system.max_effort])
    over = np.stack([spare(np.full(shape, end)) for end in ends])
    held = over[-1] >= 0.0
    return np.where(held, first_rise(spare, ends, over, held), np.nan)


def held_by(
    build: Build, system: System, standing: StaticVehicle, effort: Array
) -> tuple[Array, Array]:
    """Return the torque held at the driven hubs [N·m], and the three limits on the road [N].

    build: one with a launch; system: its system; standing: one load case
    [N, -]; effort: foot forces (m,) [N]. The limits, shape (3, m), are in the order of `LIMITS`.
    Source: moments about the driven hubs.
    """
    line = _line_of(build, build.targets.surface)
    if line is None:
        raise ValueError("there is no launch to hold")
    torque, limits = _capacity(system, effort, standing, line)
    return torque, np.stack(limits)


@dataclass(frozen=True)
class _Line:
    """A driveline at the line: torque at the driven hubs [N·m], road [-], which end is driven."""

    torque: float
    surface: float
    rear_driven: bool


def _line_of(build: Build, surface: float) -> _Line | None:
    launch = build.vehicle.launch
    if launch is None:
        return None
    torque = launch.stall_torque.value * launch.converter_ratio * launch.gear_ratio
    torque *= launch.final_drive * launch.efficiency
    own = surface if launch.surface is None else launch.surface
    return _Line(torque, own, launch.driven == "rear")


def _capacity(
    system: System, effort: Array, standing: StaticVehicle, line: _Line
) -> tuple[Array, tuple[Array, Array, Array]]:
    """Return what can be held at the driven hubs [N·m], and the three limits of the road [N]."""
    output = booster_output(system, pushrod_force(system, effort))
    lines = line_pressures(system, output, at_rest(standing))
    front, rear = (
        2.0 * wheel_torque(system.ends.front, lines.front),
        2.0 * wheel_torque(system.ends.rear, lines.rear),
    )
    driven, other = (rear, front) if line.rear_driven else (front, rear)
    ends = (
        (system.ends.rear, system.ends.front)
        if line.rear_driven
        else (system.ends.front, system.ends.rear)
    )
    passed = [
        np.full_like(other, line.surface * float(grip * weight))
        for grip, weight in (
            (standing.front_grip, standing.front_weight),
            (standing.rear_grip, standing.rear_weight),
        )
    ]
    other_passes, driven_passes = passed if line.rear_driven else passed[::-1]
    limits = (other / ends[1].rolling_radius, other_passes, driven_passes)
    road = np.minimum(np.minimum(limits[0], limits[1]), limits[2])
    return driven + ends[0].rolling_radius * road, limits
