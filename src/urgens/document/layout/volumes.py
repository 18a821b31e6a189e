"""Hoses, fluid and air: what takes volume besides the brakes."""

from typing import Annotated

from urgens.document.entry import TAPE, Entry
from urgens.document.model import (
    DocumentModel,
    FluidVolume,
    HoseExpansion,
    LengthOrZero,
    Pressure,
    VolumeOrZero,
)
from urgens.quantity import HOSE_EXPANSION, LENGTH, PRESSURE, VOLUME, parse

BLEED = "bleed again, and press three times"
HOSES = "Hoses of both wheels of the axle"
AIR = "Air that was not bled out"


class LineVolumes(DocumentModel):
    """Figures of both axles' plumbing; hose lengths are totals of both wheels of an axle."""

    front_hose_length: Annotated[LengthOrZero, Entry("Front hoses", TAPE, HOSES)] = parse(
        "0 m", LENGTH
    )
    rear_hose_length: Annotated[LengthOrZero, Entry("Rear hoses", TAPE, HOSES)] = parse(
        "0 m", LENGTH
    )
    hose_expansion: Annotated[
        HoseExpansion,
        Entry("Hoses swell by", "of their maker", "Fluid a hose takes per length and pressure"),
    ] = parse("0.30 cm^3/m/MPa", HOSE_EXPANSION)
    fluid_volume: Annotated[
        FluidVolume,
        Entry("Fluid, an axle", "weigh what comes out", "Fluid in the lines of one axle"),
    ] = parse("250 cm^3", VOLUME)
    fluid_bulk_modulus: Annotated[
        Pressure,
        Entry("Fluid's bulk modulus", "of its maker", "Pressure over the share it gives way by"),
    ] = parse("1.8 GPa", PRESSURE)
    trapped_air_front: Annotated[VolumeOrZero, Entry("Air in the front line", BLEED, AIR)] = parse(
        "0 cm^3", VOLUME
    )
    trapped_air_rear: Annotated[VolumeOrZero, Entry("Air in the rear line", BLEED, AIR)] = parse(
        "0 cm^3", VOLUME
    )
