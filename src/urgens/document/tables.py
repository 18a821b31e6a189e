"""Shipped tables of fluids, hoses and pressure windows, each with its source."""

from functools import lru_cache
from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field

from urgens.data import FOLDER
from urgens.document.part import FluidVolume, Length, Name, Pressure, Temperature
from urgens.document.valves.adjustable import Adjustable
from urgens.quantity import HOSE_EXPANSION, Quantity, parse


class _Row(BaseModel):
    model_config = ConfigDict(extra="forbid", frozen=True)


class FluidClass(_Row):
    """Boiling points, dry and wet; viscosity at -40 °C [mm²/s]."""

    dry: Temperature
    wet: Temperature
    cold_viscosity: Annotated[float, Field(gt=0)]


class FluidTable(_Row):
    """Fluids by class."""

    source: str
    fluids: dict[str, FluidClass]


class Hose(_Row):
    """A hose, and the most it may swell over the length and at the pressure of its table."""

    name: Name
    expansion: FluidVolume


class HoseTable(_Row):
    """Hoses and how they are tested."""

    source: str
    pressure: Pressure
    length: Length
    hoses: tuple[Hose, ...]

    def expansion(self, hose: Hose) -> Quantity:
        """Return the most a hose may swell, per length and pressure; hose: of the table [object].

        Source: the table.
        """
        value = hose.expansion.value / self.length.value / self.pressure.value
        return parse(f"{value * 1e12:.3f} cm^3/m/MPa", HOSE_EXPANSION)


class Window(_Row):
    """A window of line pressure, and the uses it is usual for."""

    name: Name
    uses: tuple[str, ...]
    pressure: tuple[Pressure, Pressure]


class WindowTable(_Row):
    """Windows to start from."""

    source: str
    windows: tuple[Window, ...]


def _text(name: str) -> str:
    return (FOLDER / name).read_text(encoding="utf-8")


@lru_cache(maxsize=1)
def fluid_table() -> FluidTable:
    """Return the shipped fluids."""
    return FluidTable.model_validate_json(_text("fluids.json"))


@lru_cache(maxsize=1)
def hose_table() -> HoseTable:
    """Return the shipped hoses."""
    return HoseTable.model_validate_json(_text("hoses.json"))


@lru_cache(maxsize=1)
def window_table() -> WindowTable:
    """Return the shipped windows."""
    return WindowTable.model_validate_json(_text("windows.json"))


class ReducingValveTable(_Row):
    """Reducing valves as they are sold: knees, slopes, and an adjustable one."""

    source: str
    knees: tuple[Pressure, ...]
    slopes: tuple[Annotated[float, Field(ge=0, lt=1)], ...]
    adjustable: Adjustable


@lru_cache(maxsize=1)
def reducing_valve_table() -> ReducingValveTable:
    """Return the shipped reducing valves."""
    return ReducingValveTable.model_validate_json(_text("reducing_valves.json"))


class PistonTable(_Row):
    """Diameters of wheel cylinders and of caliper pistons."""

    source: str
    wheel_cylinders: tuple[Length, ...]
    calipers: tuple[Length, ...]


@lru_cache(maxsize=1)
def piston_table() -> PistonTable:
    """Return the shipped pistons."""
    return PistonTable.model_validate_json(_text("pistons.json"))
