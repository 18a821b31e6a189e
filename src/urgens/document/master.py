"""Master cylinders, and the balance bar between two of them."""

from collections.abc import Iterator
from typing import Annotated, Literal

from pydantic import Field

from urgens.document.part import (
    Angle,
    Efficiency,
    Fault,
    FluidVolume,
    ForceOrZero,
    Length,
    LengthOrZero,
    Offset,
    Part,
    PressureOrZero,
    no_longer_than,
)
from urgens.quantity import FORCE, LENGTH, Quantity, parse

Bore = Annotated[Quantity, no_longer_than(0.15)]


class Outlet(Part):
    """One outlet of a cylinder: which circuit it feeds, where it sits, what is behind its seat."""

    circuit: Literal["front", "rear", "primary", "secondary"]
    position: Literal["left", "right", "end", "top", "bottom"] | None = None
    residual: PressureOrZero | None = None


class _Facts(Part):
    """Facts of any cylinder that no figure needs, but a check does."""

    outlets: tuple[Outlet, ...] = ()
    socket_depth: Length | None = None
    pushrod_length: Length | None = None
    pushrod_held_by: Literal["none", "retainer", "insert"] | None = None
    made_for: Literal["manual", "booster"] | None = None
    reservoir_volume: FluidVolume | None = None
    mounting: Literal["firewall", "under-floor", "inside"] | None = None


class _OneBore(_Facts):
    bore: Bore
    stroke: Length = parse("1.1 in", LENGTH)
    port_travel: LengthOrZero = parse("1.5 mm", LENGTH)
    spring_preload: ForceOrZero = parse("0 N", FORCE)
    efficiency: Efficiency = 1.0


class SingleMaster(_OneBore):
    """One bore, one chamber."""

    kind: Literal["single"]


class TandemMaster(_OneBore):
    """One bore, two chambers in line; `stroke` is shared by them."""

    kind: Literal["tandem"]
    primary_stroke: Length | None = None
    secondary_stroke: Length | None = None
    primary_feeds: Literal["front", "rear"] = "front"

    def rules(self) -> Iterator[Fault]:
        """Check that a chamber's stroke leaves something for the other."""
        for name in ("primary_stroke", "secondary_stroke"):
            given, other = getattr(self, name), self._other(name)
            if given is not None and other is None and given.value >= self.stroke.value:
                yield Fault(
                    name,
                    f'"{given.text}" leaves nothing of the whole stroke "{self.stroke.text}"',
                    "write less than the whole stroke, or give both chambers' strokes",
                )

    def _other(self, name: str) -> object:
        other = "secondary_stroke" if name == "primary_stroke" else "primary_stroke"
        return getattr(self, other)

    @property
    def chamber_strokes(self) -> tuple[float, float]:
        """Primary and secondary stroke [m]: what is not given is the rest, or half of it each."""
        primary, secondary = self.primary_stroke, self.secondary_stroke
        if primary is not None and secondary is not None:
            return primary.value, secondary.value
        if primary is not None:
            return primary.value, self.stroke.value - primary.value
        if secondary is not None:
            return self.stroke.value - secondary.value, secondary.value
        return self.stroke.value / 2, self.stroke.value / 2


class TwinMaster(_Facts):
    """Two cylinders side by side, pushed through a balance bar.

    `bar_thread_pitch` is by how much the bearing moves at a turn of its adjuster.
    """

    kind: Literal["twin"]
    front_bore: Bore
    rear_bore: Bore
    stroke: Length = parse("1.1 in", LENGTH)
    bar_length: Length = parse("2.5 in", LENGTH)
    bar_max_angle: Angle | None = None
    bar_offset: Offset = parse("0 in", LENGTH)
    bar_thread_pitch: Length | None = None
    port_travel: LengthOrZero = parse("1.5 mm", LENGTH)
    spring_preload: ForceOrZero = parse("0 N", FORCE)
    efficiency: Efficiency = 1.0

    def rules(self) -> Iterator[Fault]:
        """Check that the bearing sits between the rods."""
        if abs(self.bar_offset.value) >= self.bar_length.value / 2:
            yield Fault(
                "bar_offset",
                f'"{self.bar_offset.text}" puts the bearing at or beyond a rod of a bar '
                f'"{self.bar_length.text}" long',
                "write less than half of bar_length, towards the front cylinder positive",
            )


Master = Annotated[SingleMaster | TandemMaster | TwinMaster, Field(discriminator="kind")]
