"""Brakes that hold the car at the line against a stalled driveline."""

from dataclasses import dataclass

import numpy as np

from urgens.build import Build
from urgens.physics.arrays import Array
from urgens.physics.vehicle import Standing
from urgens.solve.bracket import crossing
from urgens.solve.circuit import at_rest
from urgens.solve.press import booster_output, line_pressures, pushrod_force, wheel_torque
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


def hold(build: Build, made: System, standing: Standing, surface: float) -> Hold | None:
    """Return whether the brakes hold the launch, None where no launch is given.

    build: the document [object]; made: its system; standing: one load case [N, -]; surface:
    tyre-road coefficient, unless the launch has its own [-].
    Source: moments about the driven hubs; the road passes the other axle's force.
    """
    launch = build.vehicle.launch
    if launch is None:
        return None
    torque = launch.stall_torque.value * launch.converter_ratio * launch.gear_ratio
    torque *= launch.final_drive * launch.efficiency
    mu = surface if launch.surface is None else launch.surface
    rear_driven = launch.driven == "rear"

    def capacity(effort: Array) -> Array:
        return _capacity(made, effort, standing, mu, rear_driven=rear_driven)[0] - torque

    efforts = np.linspace(0.0, made.max_effort, SCANNED + 1)
    spare = capacity(efforts)
    if spare[-1] < 0.0:
        parts = _capacity(made, efforts[-1:], standing, mu, rear_driven=rear_driven)[1]
        return Hold(torque, None, None, LIMITS[int(np.argmin([float(p[0]) for p in parts]))])
    first = int(np.argmax(spare >= 0.0))
    effort = 0.0
    if first:
        ends = (efforts[first - 1], efforts[first])
        effort = float(crossing(capacity, *ends, spare[first - 1], spare[first]))
    output = booster_output(made, pushrod_force(made, effort))
    lines = line_pressures(made, output, at_rest(standing))
    return Hold(torque, effort, float(lines.rear if rear_driven else lines.front), None)


def _capacity(
    made: System, effort: Array, standing: Standing, surface: float, *, rear_driven: bool
) -> tuple[Array, tuple[Array, Array, Array]]:
    """Return what can be held at the driven hubs [N·m], and the three limits of the road [N]."""
    output = booster_output(made, pushrod_force(made, effort))
    lines = line_pressures(made, output, at_rest(standing))
    front, rear = (
        2.0 * wheel_torque(made.front, lines.front),
        2.0 * wheel_torque(made.rear, lines.rear),
    )
    driven, other = (rear, front) if rear_driven else (front, rear)
    ends = (made.rear, made.front) if rear_driven else (made.front, made.rear)
    weights = (standing.rear_weight, standing.front_weight)
    driven_weight, other_weight = weights if rear_driven else weights[::-1]
    limits = (
        other / ends[1].rolling_radius,
        np.full_like(other, surface * float(other_weight)),
        np.full_like(other, surface * float(driven_weight)),
    )
    road = np.minimum(np.minimum(limits[0], limits[1]), limits[2])
    return driven + ends[0].rolling_radius * road, limits
