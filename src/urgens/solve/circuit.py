"""Valves as laws: from the document's valve to outlet pressure over inlet pressure."""

from collections.abc import Iterable
from dataclasses import dataclass
from functools import singledispatch
from typing import Protocol

from urgens.build.part import Part
from urgens.build.valves import Adjustable, Metering, Reducing
from urgens.physics import valve
from urgens.physics.arrays import Array, Floats


class ValveLaw(Protocol):
    """A valve at its setting."""

    def outlet(self, inlet: Floats) -> Array:
        """Return outlet pressure [Pa]; inlet: [Pa]. Source: physics.valve."""


@dataclass(frozen=True)
class ReducingLaw:
    """Knee [Pa] and slope [-] of a reducing valve."""

    knee: Floats
    slope: Floats

    def outlet(self, inlet: Floats) -> Array:
        """Return outlet pressure [Pa]; inlet: [Pa]. Source: physics.valve.reducing."""
        return valve.reducing(inlet, self.knee, self.slope)


@dataclass(frozen=True)
class MeteringLaw:
    """Closing, opening and full pressure [Pa] of a metering valve."""

    closing: Floats
    opening: Floats
    full: Floats

    def outlet(self, inlet: Floats) -> Array:
        """Return outlet pressure [Pa]; inlet: [Pa]. Source: physics.valve.metering."""
        return valve.metering(inlet, self.closing, self.opening, self.full)


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
def _(part: Adjustable) -> ValveLaw:
    turns = [row[0] for row in part.table]
    knees = [row[1].value for row in part.table]
    knee = float(valve.adjusted_knee(part.turns, turns, knees))  # type: ignore[arg-type]
    return ReducingLaw(knee, part.slope)


@law.register
def _(part: Metering) -> ValveLaw:
    return MeteringLaw(part.close.value, part.open.value, part.full_pressure)


def through(laws: Iterable[ValveLaw], inlet: Array) -> Array:
    """Return the pressure [Pa] behind valves in flow order.

    laws: from the cylinder on [objects]; inlet: pressure at the cylinder [Pa].
    Source: the outlet of one is the inlet of the next.
    """
    for each in laws:
        inlet = each.outlet(inlet)
    return inlet
