"""Hoses, fluid and air: what takes volume besides the brakes."""

from urgens.document.part import (
    FluidVolume,
    HoseExpansion,
    LengthOrZero,
    Part,
    Pressure,
    VolumeOrZero,
)
from urgens.quantity import HOSE_EXPANSION, LENGTH, PRESSURE, VOLUME, parse


class Lines(Part):
    """Figures of both axles' plumbing; hose lengths are totals of both wheels of an axle."""

    front_hose_length: LengthOrZero = parse("0 m", LENGTH)
    rear_hose_length: LengthOrZero = parse("0 m", LENGTH)
    hose_expansion: HoseExpansion = parse("0.30 cm^3/m/MPa", HOSE_EXPANSION)
    fluid_volume: FluidVolume = parse("250 cm^3", VOLUME)
    fluid_bulk_modulus: Pressure = parse("1.8 GPa", PRESSURE)
    trapped_air_front: VolumeOrZero = parse("0 cm^3", VOLUME)
    trapped_air_rear: VolumeOrZero = parse("0 cm^3", VOLUME)
