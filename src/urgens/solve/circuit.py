"""Valves as laws: from the document's valve to outlet pressure over inlet pressure."""

from collections.abc import Iterable
from dataclasses import dataclass
from functools import singledispatch
from typing import NamedTuple, Protocol

import numpy as np

from urgens.build.part import Part
from urgens.build.valves import Adjustable, Limiting, LoadSensing, Metering, Reducing, Residual
from urgens.physics import valve
from urgens.physics.arrays import Array, Floats
from urgens.physics.vehicle import Standing


class RearLoad(NamedTuple):
    """What load-sensing valves feel: the rear axle's load as it moves, and at rest [N]."""

    now: Floats
    still: Floats


def at_rest(standing: Standing) -> RearLoad:
    """Return the load a standing vehicle shows its valves; standing: load cases [N, -].

    Source: without downforce, and without braking.
    """
    return RearLoad(standing.rear_weight, standing.rear_weight)


class ValveLaw(Protocol):
    """A valve at its setting."""

    def outlet(self, inlet: Floats, load: RearLoad) -> Array:
        """Return outlet pressure [Pa] on apply.

        inlet: [Pa]; load: on the rear axle [N].
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

    def outlet(self, inlet: Floats, load: RearLoad) -> Array:
        """Return outlet pressure [Pa]; inlet: [Pa]; load: not felt [N].

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

    def outlet(self, inlet: Floats, load: RearLoad) -> Array:
        """Return outlet pressure [Pa]; inlet: [Pa]; load: on the rear axle [N].

        Source: physics.valve.reducing.
        """
        felt = load.now if self.dynamic else load.still
        return valve.reducing(inlet, self.knee(felt), self.slope)


@dataclass(frozen=True)
class MeteringLaw(_LetsBack):
    """Closing, opening and full pressure [Pa] of a metering valve."""

    closing: Floats
    opening: Floats
    full: Floats

    def outlet(self, inlet: Floats, load: RearLoad) -> Array:
        """Return outlet pressure [Pa]; inlet: [Pa]; load: not felt [N].

        Source: physics.valve.metering.
        """
        return valve.metering(inlet, self.closing, self.opening, self.full)


@dataclass(frozen=True)
class ResidualLaw:
    """Pressure [Pa] a residual valve keeps."""

    kept: Floats

    def outlet(self, inlet: Floats, load: RearLoad) -> Array:
        """Return outlet pressure [Pa]; inlet: [Pa]; load: not felt [N].

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
    return ReducingLaw(np.asarray(knee) if np.ndim(knee) else float(knee), part.slope)


@law.register
def _(part: LoadSensing) -> ValveLaw:
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
def _(part: Metering) -> ValveLaw:
    return MeteringLaw(part.close.value, part.open.value, part.full_pressure)


@law.register
def _(part: Residual) -> ValveLaw:
    return ResidualLaw(part.pressure.value)


def through(laws: Iterable[ValveLaw], inlet: Array, load: RearLoad) -> Array:
    """Return the pressure [Pa] behind valves in flow order.

    laws: from the cylinder on [objects]; inlet: pressure at the cylinder [Pa]; load: on the rear
    axle [N].
    Source: the outlet of one is the inlet of the next.
    """
    for each in laws:
        inlet = each.outlet(inlet, load)
    return inlet
