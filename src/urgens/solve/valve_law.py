"""Valves as laws: from the document's valve to outlet pressure over inlet pressure."""

from collections.abc import Iterable
from dataclasses import dataclass
from functools import singledispatch
from typing import NamedTuple, Protocol

import numpy as np

from urgens.document.part import Part
from urgens.document.valves import (
    Adjustable,
    InertiaSensing,
    Lever,
    Limiting,
    LoadSensing,
    Metering,
    Reducing,
    Residual,
)
from urgens.physics import cylinder, valve
from urgens.physics.arrays import Array, Floats, figure
from urgens.physics.vehicle import Standing


class Felt(NamedTuple):
    """What valves feel of the vehicle: the rear axle's load as it moves, and at rest [N].

    `closing` is the inlet pressure [Pa] of an inertia-sensing valve at which the vehicle reached
    its deceleration; a ball that has not rolled leaves it open at any.
    """

    now: Floats
    still: Floats
    closing: Floats = np.inf


def at_rest(standing: Standing) -> Felt:
    """Return what a standing vehicle shows its valves; standing: load cases [N, -].

    Source: without downforce, and without braking.
    """
    return Felt(standing.rear_weight, standing.rear_weight)


MOST_TRAVEL = 1.0  # m; no suspension has as much, so it is no stop


class ValveLaw(Protocol):
    """A valve at its setting."""

    def outlet(self, inlet: Floats, felt: Felt) -> Array:
        """Return outlet pressure [Pa] on apply.

        inlet: [Pa]; felt: of the vehicle [object].
        Source: physics.valve.
        """

    def release(self, inlet: Floats, peak: Floats) -> Array:
        """Return outlet pressure [Pa] while the pedal is let go.

        inlet: falling [Pa]; peak: outlet pressure at the end of the apply [Pa].
        Source: physics.valve.
        """


class _LetsBack:
    """A valve whose outlet stays until the inlet has fallen to it."""

    def release(self, inlet: Floats, peak: Floats) -> Array:
        """Return outlet pressure [Pa]; inlet: [Pa]; peak: [Pa]. Source: physics.valve.released."""
        return valve.released(inlet, peak)


@dataclass(frozen=True)
class ReducingLaw(_LetsBack):
    """Knee [Pa] and slope [-] of a reducing valve; slope 0 limits."""

    knee: Floats
    slope: Floats

    def outlet(self, inlet: Floats, felt: Felt) -> Array:
        """Return outlet pressure [Pa]; inlet: [Pa]; felt: nothing of it [object].

        Source: physics.valve.reducing.
        """
        return valve.reducing(inlet, self.knee, self.slope)


@dataclass(frozen=True)
class LoadSensingLaw(_LetsBack):
    """Two loads [N], their knees [Pa], slope [-], and whether it feels the load as it moves."""

    light: Floats
    heavy: Floats
    light_knee: Floats
    heavy_knee: Floats
    slope: Floats
    dynamic: bool

    def knee(self, rear_load: Floats) -> Array:
        """Return the knee [Pa]; rear_load: [N]. Source: physics.valve.load_sensed_knee."""
        return valve.load_sensed_knee(
            rear_load, self.light, self.heavy, self.light_knee, self.heavy_knee
        )

    def outlet(self, inlet: Floats, felt: Felt) -> Array:
        """Return outlet pressure [Pa]; inlet: [Pa]; felt: of the vehicle [object].

        Source: physics.valve.reducing.
        """
        load = felt.now if self.dynamic else felt.still
        return valve.reducing(inlet, self.knee(load), self.slope)


@dataclass(frozen=True)
class InertiaSensingLaw(_LetsBack):
    """Deceleration [g] at which its ball rolls, and slope [-] from there on."""

    closes: Floats
    slope: Floats

    def outlet(self, inlet: Floats, felt: Felt) -> Array:
        """Return outlet pressure [Pa]; inlet: [Pa]; felt: whether the ball has rolled [object].

        Source: physics.valve.reducing, the knee being where the ball shut it.
        """
        return valve.reducing(inlet, np.minimum(felt.closing, inlet), self.slope)


@dataclass(frozen=True)
class MeteringLaw(_LetsBack):
    """Closing, opening and full pressure [Pa] of a metering valve."""

    closing: Floats
    opening: Floats
    full: Floats

    def outlet(self, inlet: Floats, felt: Felt) -> Array:
        """Return outlet pressure [Pa]; inlet: [Pa]; felt: nothing of it [object].

        Source: physics.valve.metering.
        """
        return valve.metering(inlet, self.closing, self.opening, self.full)


@dataclass(frozen=True)
class ResidualLaw:
    """Pressure [Pa] a residual valve keeps."""

    kept: Floats

    def outlet(self, inlet: Floats, felt: Felt) -> Array:
        """Return outlet pressure [Pa]; inlet: [Pa]; felt: nothing of it [object].

        Source: it opens freely towards the brakes.
        """
        return np.asarray(inlet, dtype=float)

    def release(self, inlet: Floats, peak: Floats) -> Array:
        """Return outlet pressure [Pa]; inlet: [Pa]; peak: [Pa].

        Source: physics.valve.residual_released.
        """
        return valve.residual_released(inlet, self.kept, peak)


@singledispatch
def law(part: Part) -> ValveLaw:
    """Return the law of a valve of the document.

    part: one of the document's valves [object]. Raises TypeError for any other part.
    Source: physics.valve.
    """
    raise TypeError(f"{type(part).__name__} is no valve")


@law.register
def _(part: Reducing) -> ValveLaw:
    return ReducingLaw(part.knee.value, part.slope)


@law.register
def _(part: Limiting) -> ValveLaw:
    return ReducingLaw(part.knee.value, 0.0)


@law.register
def _(part: Adjustable) -> ValveLaw:
    turns = [row[0] for row in part.table]
    shares = (valve.adjusted_knee(part.turns, turns, row) for row in np.eye(len(turns)))  # type: ignore[arg-type]
    knee = sum(share * row[1].value for share, row in zip(shares, part.table, strict=True))
    return ReducingLaw(figure(np.asarray(knee)), part.slope)


@law.register
def _(part: LoadSensing) -> ValveLaw:
    if part.lever is not None:
        return _lever_law(part.lever, part.slope, dynamic=part.follows == "dynamic")
    assert part.points is not None
    (light, light_knee), (heavy, heavy_knee) = part.points
    return LoadSensingLaw(
        light.value,
        heavy.value,
        light_knee.value,
        heavy_knee.value,
        part.slope,
        dynamic=part.follows == "dynamic",
    )


@law.register
def _(part: InertiaSensing) -> ValveLaw:
    return InertiaSensingLaw(figure(valve.ball_closes(part.ball_angle.value)), part.slope)


@law.register
def _(part: Metering) -> ValveLaw:
    return MeteringLaw(part.close.value, part.open.value, part.full_pressure)


@law.register
def _(part: Residual) -> ValveLaw:
    return ResidualLaw(part.pressure.value)


def _lever_law(lever: Lever, slope: Floats, *, dynamic: bool) -> LoadSensingLaw:
    """Return the law of a lever: its knee is straight in the load, between slack and the stops."""
    force, rate, at_load = lever.preload.value, lever.suspension_rate.value, lever.at_load.value
    rates = np.divide(lever.spring_rate.value, rate)
    light = at_load - np.divide(force, rates)  # where the spring is slack
    if lever.droop is not None:
        light = np.maximum(light, at_load - rate * lever.droop.value)
    heavy = at_load + rate * (MOST_TRAVEL if lever.bump is None else lever.bump.value)
    area = cylinder.bore_area(lever.piston_diameter.value)
    low, high = (
        valve.lever_knee(
            valve.spring_force(load, at_load, force, rates),
            *(lever.arm.value, lever.piston_arm.value, area, slope),
        )
        for load in (light, heavy)
    )
    return LoadSensingLaw(
        *(figure(np.asarray(light)), figure(np.asarray(heavy)), figure(low), figure(high)),
        slope=slope,
        dynamic=dynamic,
    )


def through(laws: Iterable[ValveLaw], inlet: Array, felt: Felt) -> Array:
    """Return the pressure [Pa] behind valves in flow order.

    laws: from the cylinder on [objects]; inlet: pressure at the cylinder [Pa]; felt: of the
    vehicle [object].
    Source: the outlet of one is the inlet of the next.
    """
    for each in laws:
        inlet = each.outlet(inlet, felt)
    return inlet
