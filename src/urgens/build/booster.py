"""Boosters: what helps the foot."""

from typing import Annotated, Literal

from pydantic import Field

from urgens.build.part import Force, ForceOrZero, Length, Number, Part, PressureOrZero
from urgens.quantity import FORCE, parse

Gain = Annotated[Number, Field(ge=1, le=1e3)]
Working = Annotated[bool, Field(strict=True)]


class NoBooster(Part):
    """The pedal works the cylinder alone."""

    kind: Literal["none"] = "none"


class VacuumBooster(Part):
    """A vacuum booster; `vacuum` is the depression below the air around it."""

    kind: Literal["vacuum"]
    diaphragm_diameters: Annotated[tuple[Length, ...], Field(min_length=1)]
    vacuum: PressureOrZero
    gain: Gain
    crack_force: ForceOrZero = parse("0 N", FORCE)
    jump_in: ForceOrZero = parse("0 N", FORCE)
    working: Working = True


class HydraulicBooster(Part):
    """A booster fed by a pump, with the most it can assist."""

    kind: Literal["hydraulic"]
    gain: Gain
    max_assist: Force
    crack_force: ForceOrZero = parse("0 N", FORCE)
    jump_in: ForceOrZero = parse("0 N", FORCE)
    working: Working = True


Booster = Annotated[NoBooster | VacuumBooster | HydraulicBooster, Field(discriminator="kind")]
