"""Shipped tables of fluids, hoses and pressure windows, each with its source."""

from functools import lru_cache
from typing import Annotated

from pydantic import Field

from urgens.data import data_text
from urgens.document.kinds.valves.adjustable import Adjustable
from urgens.document.model import FluidVolume, Length, Name, Pressure, TableRow, Temperature
from urgens.quantity import HOSE_EXPANSION, Quantity, parse


class FluidClass(TableRow):
    """Boiling points, dry and wet; viscosity at -40 °C [mm²/s]."""

    dry: Temperature
    wet: Temperature
    cold_viscosity: Annotated[float, Field(gt=0)]


class FluidTable(TableRow):
    """Fluids by class."""

    source: str
    fluids: dict[str, FluidClass]


class Hose(TableRow):
    """A hose, and the most it may swell over the length and at the pressure of its table."""

    name: Name
    expansion: FluidVolume


class HoseTable(TableRow):
    """Hoses and how they are tested."""

    source: str
    pressure: Pressure
    length: Length
    hoses: tuple[Hose, ...]

    def expansion(self, hose: Hose) -> Quantity:
        """Return the most a hose may swell, per length and pressure; hose: of the table."""
        value = hose.expansion.value / self.length.value / self.pressure.value
        return parse(f"{value * 1e12:.3f} cm^3/m/MPa", HOSE_EXPANSION)


class PressureWindow(TableRow):
    """A window of line pressure, and the uses it is usual for."""

    name: Name
    uses: tuple[str, ...]
    pressure: tuple[Pressure, Pressure]


class WindowTable(TableRow):
    """Windows to start from."""

    source: str
    windows: tuple[PressureWindow, ...]


@lru_cache(maxsize=1)
def fluid_table() -> FluidTable:
    """Return the shipped fluids."""
    return FluidTable.model_validate_json(data_text("fluids.json"))


@lru_cache(maxsize=1)
def hose_table() -> HoseTable:
    """Return the shipped hoses."""
    return HoseTable.model_validate_json(data_text("hoses.json"))


@lru_cache(maxsize=1)
def window_table() -> WindowTable:
    """Return the shipped windows."""
    return WindowTable.model_validate_json(data_text("windows.json"))


class ReducingValveTable(TableRow):
    """Reducing valves as they are sold: knees, slopes, and an adjustable one."""

    source: str
    knees: tuple[Pressure, ...]
    slopes: tuple[Annotated[float, Field(ge=0, lt=1)], ...]
    adjustable: Adjustable


@lru_cache(maxsize=1)
def reducing_valve_table() -> ReducingValveTable:
    """Return the shipped reducing valves."""
    return ReducingValveTable.model_validate_json(data_text("reducing_valves.json"))
