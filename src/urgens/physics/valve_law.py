"""Valves as laws: outlet pressure over inlet pressure, and where that line bends.

All figures may be arrays of shapes that broadcast: draws, load cases and candidates are one law.
"""

from collections.abc import Iterable
from dataclasses import dataclass, replace
from typing import NamedTuple, Protocol, Self

import numpy as np

from urgens.physics import valve
from urgens.physics.arrays import Array, Floats
from urgens.physics.vehicle import StaticVehicle

KNEE_TOLERANCE = 0.05  # share of the knee, of slope: production
SLOPE_TOLERANCE = 0.03  # share of the knee, of slope: both ways
STEEPEST = 0.99  # slope at the end of a tolerance: a valve that reduces stays one


class Felt(NamedTuple):
    """What valves feel of the vehicle: the rear axle's load as it moves, and at rest [N].

    `closing` is the inlet pressure [Pa] of an inertia-sensing valve at which the vehicle reached
    its deceleration; a ball that has not rolled leaves it open at any.
    """

    now: Floats
    still: Floats
    closing: Floats = np.inf


def at_rest(standing: StaticVehicle) -> Felt:
    """Return what a standing vehicle shows its valves; standing: load cases [N, -]."""
    return Felt(standing.rear_weight, standing.rear_weight)


class ValveLaw(Protocol):
    """A valve at its setting; all pressures in Pa.

    `feels_load` tells whether it moves with the rear axle's load at the same press.
    """

    @property
    def feels_load(self) -> bool:
        """Whether it moves with the rear axle's load at the same press."""

    def outlet(self, inlet: Floats, felt: Felt) -> Array:
        """Return outlet pressure [Pa] on apply.

        inlet: [Pa]; felt: of the vehicle.
        """

    def release(self, inlet: Floats, peak: Floats) -> Array:
        """Return outlet pressure [Pa] while the pedal is let go.

        inlet: falling [Pa]; peak: outlet pressure at the end of the apply [Pa].
        """

    def inlet(self, outlet: Floats, felt: Felt) -> Array:
        """Return the smallest inlet pressure [Pa] that gives an outlet's; inf where none does.

        outlet: [Pa]; felt: of the vehicle.
        """

    def bends(self, felt: Felt) -> tuple[Floats, ...]:
        """Return the inlet pressures [Pa] at which the line bends; felt: of the vehicle."""

    def knee(self, felt: Felt) -> Array | None:
        """Return the inlet pressure [Pa] from which it reduces, None for a valve without a knee.

        felt: of the vehicle. Infinite where nothing brings it to reduce.
        """

    def tolerance(self, felt: Felt) -> "tuple[ValveLaw, ValveLaw] | None":
        """Return the valve at both ends of its production tolerance, None without a knee.

        felt: of the vehicle.
        Source: common practice: ±5 % of the knee and ±0.03 of the slope.
        """


@dataclass(frozen=True)
class _WithKnee:
    """A valve that reduces from its knee on; its outlet stays until the inlet has fallen to it."""

    def _at(self, felt: Felt) -> tuple[Floats, Floats]:
        """Return knee [Pa] and slope [-]."""
        raise TypeError(f"{type(self).__name__} has no knee")

    def knee(self, felt: Felt) -> Array:
        """Return the knee [Pa]; felt: of the vehicle."""
        return np.asarray(self._at(felt)[0], dtype=float)

    def outlet(self, inlet: Floats, felt: Felt) -> Array:
        """Return outlet pressure [Pa]; inlet: [Pa]; felt: of the vehicle."""
        return valve.reducing(inlet, *self._at(felt))

    def release(self, inlet: Floats, peak: Floats) -> Array:
        """Return outlet pressure [Pa]; inlet: [Pa]; peak: [Pa]."""
        return valve.released(inlet, peak)

    def inlet(self, outlet: Floats, felt: Felt) -> Array:
        """Return inlet pressure [Pa]; outlet: [Pa]; felt: of the vehicle."""
        return valve.reducing_inlet(outlet, *self._at(felt))

    def bends(self, felt: Felt) -> tuple[Floats, ...]:
        """Return the knee [Pa]; felt: of the vehicle."""
        return (self._at(felt)[0],)


@dataclass(frozen=True)
class ReducingLaw(_WithKnee):
    """Knee [Pa] and slope [-] of a reducing valve; slope 0 limits."""

    at: Floats
    slope: Floats
    feels_load = False

    def _at(self, felt: Felt) -> tuple[Floats, Floats]:
        return self.at, self.slope

    def tolerance(self, felt: Felt) -> tuple[Self, Self]:
        """Return both ends; felt: of the vehicle."""
        low, high = (
            replace(self, at=self.at * (1.0 + sign * KNEE_TOLERANCE), slope=_slope(self, sign))
            for sign in (-1.0, 1.0)
        )
        return low, high


@dataclass(frozen=True)
class LoadSensingLaw(_WithKnee):
    """Two loads [N], their knees [Pa], slope [-], and whether it feels the load as it moves."""

    light: Floats
    heavy: Floats
    light_knee: Floats
    heavy_knee: Floats
    slope: Floats
    feels_load: bool

    def knee_at(self, rear_load: Floats) -> Array:
        """Return the knee [Pa]; rear_load: [N]."""
        return valve.load_sensed_knee(
            rear_load, self.light, self.heavy, self.light_knee, self.heavy_knee
        )

    def slanted(self, inlet: Floats) -> tuple[Array, Array]:
        """Return the outlet pressure at no load [Pa], and its rise with the load [Pa/N].

        inlet: [Pa].
        While it reduces and its knee is between its two points.
        """
        rise = np.subtract(self.heavy_knee, self.light_knee) / np.subtract(self.heavy, self.light)
        share = np.subtract(1.0, self.slope)
        at_none = share * (self.light_knee - rise * self.light) + self.slope * np.asarray(inlet)
        return np.asarray(at_none), np.asarray(share * rise)

    def _at(self, felt: Felt) -> tuple[Floats, Floats]:
        return self.knee_at(felt.now if self.feels_load else felt.still), self.slope

    def tolerance(self, felt: Felt) -> tuple[Self, Self]:
        """Return both ends; felt: of the vehicle."""
        low, high = (
            replace(
                self,
                light_knee=self.light_knee * (1.0 + sign * KNEE_TOLERANCE),
                heavy_knee=self.heavy_knee * (1.0 + sign * KNEE_TOLERANCE),
                slope=_slope(self, sign),
            )
            for sign in (-1.0, 1.0)
        )
        return low, high


@dataclass(frozen=True)
class InertiaSensingLaw(_WithKnee):
    """Deceleration [g] at which its ball rolls, and slope [-] from there on."""

    closes: Floats
    slope: Floats
    feels_load = False

    def _at(self, felt: Felt) -> tuple[Floats, Floats]:
        return felt.closing, self.slope

    def outlet(self, inlet: Floats, felt: Felt) -> Array:
        """Return outlet pressure [Pa]; inlet: [Pa]; felt: whether the ball has rolled.

        Physics.valve.reducing, the knee being where the ball shut it.
        """
        return valve.reducing(inlet, np.minimum(felt.closing, inlet), self.slope)

    def tolerance(self, felt: Felt) -> tuple[ReducingLaw, ReducingLaw] | None:
        """Return both ends, None where the ball does not roll; felt: of the vehicle."""
        if not np.all(np.isfinite(felt.closing)):
            return None
        return ReducingLaw(felt.closing, self.slope).tolerance(felt)


@dataclass(frozen=True)
class MeteringLaw:
    """Closing, opening and full pressure [Pa] of a metering valve."""

    closing: Floats
    opening: Floats
    full: Floats
    feels_load = False

    def outlet(self, inlet: Floats, felt: Felt) -> Array:
        """Return outlet pressure [Pa]; inlet: [Pa]; felt: nothing of it."""
        return valve.metering(inlet, self.closing, self.opening, self.full)

    def release(self, inlet: Floats, peak: Floats) -> Array:
        """Return outlet pressure [Pa]; inlet: [Pa]; peak: [Pa]."""
        return valve.released(inlet, peak)

    def inlet(self, outlet: Floats, felt: Felt) -> Array:
        """Return inlet pressure [Pa]; outlet: [Pa]; felt: nothing of it."""
        return valve.metering_inlet(outlet, self.closing, self.opening, self.full)

    def bends(self, felt: Felt) -> tuple[Floats, ...]:
        """Return its three pressures [Pa]; felt: nothing of it."""
        return self.closing, self.opening, self.full

    def knee(self, felt: Felt) -> None:
        """Return nothing: it has no knee; felt: nothing of it."""

    def tolerance(self, felt: Felt) -> None:
        """Return nothing: none is usual; felt: nothing of it. Source: common practice."""


@dataclass(frozen=True)
class ResidualLaw:
    """Pressure [Pa] a residual valve keeps."""

    kept: Floats
    feels_load = False

    def outlet(self, inlet: Floats, felt: Felt) -> Array:
        """Return outlet pressure [Pa]; inlet: [Pa]; felt: nothing of it."""
        return np.asarray(inlet, dtype=float)

    def release(self, inlet: Floats, peak: Floats) -> Array:
        """Return outlet pressure [Pa]; inlet: [Pa]; peak: [Pa]."""
        return valve.residual_released(inlet, self.kept, peak)

    def inlet(self, outlet: Floats, felt: Felt) -> Array:
        """Return inlet pressure [Pa]; outlet: [Pa]; felt: nothing of it."""
        return np.asarray(outlet, dtype=float)

    def bends(self, felt: Felt) -> tuple[Floats, ...]:
        """Return nothing: it passes all; felt: nothing of it."""
        return ()

    def knee(self, felt: Felt) -> None:
        """Return nothing: it has no knee; felt: nothing of it."""

    def tolerance(self, felt: Felt) -> None:
        """Return nothing: none is usual; felt: nothing of it. Source: common practice."""


def _slope(law: ReducingLaw | LoadSensingLaw, sign: float) -> Array:
    """Return a slope at one end of its tolerance; one that limits stays nought."""
    given = np.asarray(law.slope, dtype=float)
    return np.where(given > 0, np.clip(given + sign * SLOPE_TOLERANCE, 0.0, STEEPEST), 0.0)


def through(laws: Iterable[ValveLaw], inlet: Array, felt: Felt) -> Array:
    """Return the pressure [Pa] behind valves in flow order.

    laws: from the cylinder on; inlet: pressure at the cylinder, any shape [Pa]; felt: of the
    vehicle.
    Source: the outlet of one is the inlet of the next.
    """
    for each in laws:
        inlet = each.outlet(inlet, felt)
    return inlet


def back_through(laws: Iterable[ValveLaw], outlet: Floats, felt: Felt) -> Array:
    """Return the smallest pressure [Pa] at the cylinder for one behind valves; inf where none.

    laws: from the cylinder on; outlet: pressure behind the last [Pa]; felt: of the
    vehicle.
    """
    for each in reversed(tuple(laws)):
        outlet = each.inlet(outlet, felt)
    return np.asarray(outlet, dtype=float)
