"""Boosters: what helps the foot."""

from typing import Annotated, Literal

from pydantic import Field

from urgens.document.part import (
    FluidVolume,
    Force,
    ForceOrZero,
    Length,
    Number,
    Part,
    Pressure,
    PressureOrZero,
)
from urgens.quantity import FORCE, PRESSURE, parse

Gain = Annotated[Number, Field(ge=1, le=1e3)]
Working = Annotated[bool, Field(strict=True)]


class NoBooster(Part):
    """The pedal works the cylinder alone."""

    kind: Literal["none"] = "none"


class Space(Part):
    """A round space: as wide as the booster's shell, as long as it is from firewall to cylinder."""

    diameter: Length
    length: Length


class Reservoir(Part):
    """A tank for vacuum, hose included; `swept` is the air that the booster takes at each press.

    Where `swept` is not given it is the diaphragms' area times the cylinder's stroke.
    """

    volume: FluidVolume
    swept: FluidVolume | None = None
    least: Pressure = parse("15 inHg", PRESSURE)
    rests: Literal["vacuum", "air"] = "vacuum"


class _Fitted(Part):
    """What any booster may tell of the room it takes, and the room there is."""

    envelope: Space | None = None
    room: Space | None = None


class VacuumBooster(_Fitted):
    """A vacuum booster; `vacuum` is the depression below the air around it.

    `pump` is the depression that a pump holds: the deeper of the two is there.
    """

    kind: Literal["vacuum"]
    diaphragm_diameters: Annotated[tuple[Length, ...], Field(min_length=1)]
    vacuum: PressureOrZero
    pump: PressureOrZero | None = None
    reservoir: Reservoir | None = None
    gain: Gain
    crack_force: ForceOrZero = parse("0 N", FORCE)
    jump_in: ForceOrZero = parse("0 N", FORCE)
    working: Working = True

    @property
    def depression(self) -> float:
        """The vacuum that is there [Pa], the engine's or the pump's."""
        return self.vacuum.value if self.pump is None else max(self.vacuum.value, self.pump.value)


class HydraulicBooster(_Fitted):
    """A booster fed by a pump, with the most it can assist."""

    kind: Literal["hydraulic"]
    gain: Gain
    max_assist: Force
    crack_force: ForceOrZero = parse("0 N", FORCE)
    jump_in: ForceOrZero = parse("0 N", FORCE)
    working: Working = True


Booster = Annotated[NoBooster | VacuumBooster | HydraulicBooster, Field(discriminator="kind")]
