"""Showing SI figures to a builder, in inch-psi-lbf or in mm-bar-N."""

import math
from dataclasses import dataclass
from enum import Enum
from functools import lru_cache

from urgens.quantity.kinds import (
    ANGLE,
    AREA,
    COMPLIANCE,
    DISTANCE,
    FORCE,
    HOSE_EXPANSION,
    LENGTH,
    LOAD,
    MASS,
    MASS_EXPONENTS,
    PRESSURE,
    SPEED,
    SPRING_RATE,
    TEMPERATURE,
    TIME,
    TORQUE,
    VOLUME,
    QuantityKind,
)
from urgens.quantity.units import STANDARD_GRAVITY, unit

MINUS = "\N{MINUS SIGN}"


class UnitSystem(Enum):
    """The units in which figures are shown; the value is its name on screen."""

    INCH = "in · psi"
    METRIC = "mm · bar"

    @property
    def system(self) -> "UnitSystem":
        """Itself, so that it reads as `Units` without overrides."""
        return self


@dataclass(frozen=True)
class Units:
    """A unit system with other units for some kinds: `overrides` are pairs of kind and unit.

    Raises LookupError where a unit does not fit its kind.
    """

    system: UnitSystem
    overrides: tuple[tuple[QuantityKind, str], ...] = ()

    def __post_init__(self) -> None:
        for kind, name in self.overrides:
            _override(kind, name)


@dataclass(frozen=True, slots=True)
class ShownFigure:
    """A figure ready to be read: number and unit apart, since they differ in size on screen."""

    number: str
    unit: str

    def __str__(self) -> str:
        return f"{self.number} {self.unit}".rstrip()


@dataclass(frozen=True, slots=True)
class _Style:
    unit: str
    decimals: int
    factor: float  # SI for one unit shown
    offset: float = 0.0  # SI at nought of the unit shown, as temperatures have
    step: float = 0.0  # SI: what a builder reads off his tools


def _style(name: str, decimals: int, step: float, factor: float | None = None) -> _Style:
    found = unit(name)
    if factor is None and found is not None:
        factor = found.factor
    if factor is None:
        raise LookupError(name)
    return _Style(name, decimals, factor, 0.0 if found is None else found.offset, step * factor)


_STYLES: dict[tuple[QuantityKind, UnitSystem], _Style] = {
    (LENGTH, UnitSystem.INCH): _style("in", 2, 1 / 16),
    (LENGTH, UnitSystem.METRIC): _style("mm", 1, 1),
    (DISTANCE, UnitSystem.INCH): _style("ft", 0, 10),
    (DISTANCE, UnitSystem.METRIC): _style("m", 0, 5),
    (FORCE, UnitSystem.INCH): _style("lbf", 0, 1),
    (FORCE, UnitSystem.METRIC): _style("N", 0, 5),
    (LOAD, UnitSystem.INCH): _style("lb", 0, 10, 0.45359237 * STANDARD_GRAVITY),
    (LOAD, UnitSystem.METRIC): _style("kg", 0, 5, STANDARD_GRAVITY),
    (PRESSURE, UnitSystem.INCH): _style("psi", 0, 5),
    (PRESSURE, UnitSystem.METRIC): _style("bar", 1, 0.5),
    (AREA, UnitSystem.INCH): _style("in^2", 2, 0.1),
    (AREA, UnitSystem.METRIC): _style("cm^2", 1, 1),
    (VOLUME, UnitSystem.INCH): _style("in^3", 2, 0.1),
    (VOLUME, UnitSystem.METRIC): _style("cm^3", 1, 1),
    (COMPLIANCE, UnitSystem.INCH): _style("cm^3/MPa", 2, 0.01),
    (COMPLIANCE, UnitSystem.METRIC): _style("cm^3/MPa", 2, 0.01),
    (HOSE_EXPANSION, UnitSystem.INCH): _style("cm^3/m/MPa", 2, 0.01),
    (HOSE_EXPANSION, UnitSystem.METRIC): _style("cm^3/m/MPa", 2, 0.01),
    (SPRING_RATE, UnitSystem.INCH): _style("lbf/in", 0, 5),
    (SPRING_RATE, UnitSystem.METRIC): _style("N/mm", 1, 1),
    (SPEED, UnitSystem.INCH): _style("mph", 0, 5),
    (SPEED, UnitSystem.METRIC): _style("km/h", 0, 5),
    (MASS, UnitSystem.INCH): _style("lb", 1, 0.5),
    (MASS, UnitSystem.METRIC): _style("kg", 1, 0.2),
    (ANGLE, UnitSystem.INCH): _style("deg", 1, 0.5),
    (ANGLE, UnitSystem.METRIC): _style("deg", 1, 0.5),
    (TIME, UnitSystem.INCH): _style("s", 1, 0.1),
    (TIME, UnitSystem.METRIC): _style("s", 1, 0.1),
    (TEMPERATURE, UnitSystem.INCH): _style("°F", 0, 10),
    (TEMPERATURE, UnitSystem.METRIC): _style("°C", 0, 5),
    (TORQUE, UnitSystem.INCH): _style("lbf.ft", 0, 5),
    (TORQUE, UnitSystem.METRIC): _style("N.m", 0, 5),
}


def _chosen(kind: QuantityKind, units: UnitSystem | Units) -> _Style:
    """Return how `kind` is shown in `units`; raises LookupError where the unit does not fit."""
    if isinstance(units, UnitSystem):
        return _STYLES[kind, units]
    for own, name in units.overrides:
        if own == kind:
            return _override(kind, name)
    return _STYLES[kind, units.system]


@lru_cache(maxsize=128)
def _override(kind: QuantityKind, name: str) -> _Style:
    for system in UnitSystem:
        if _STYLES[kind, system].unit == name:
            return _STYLES[kind, system]
    found = unit(name)
    if found is None or found.offset:
        raise LookupError(f'"{name}" is not a unit known here')
    if found.exponents == MASS_EXPONENTS and kind.takes_mass:
        factor = found.factor * STANDARD_GRAVITY
    elif found.exponents == kind.exponents:
        factor = found.factor
    else:
        raise LookupError(f'"{name}" is not a unit of {kind.noun}')
    usual = _STYLES[kind, UnitSystem.METRIC]
    # As fine as the usual unit, so that a figure says no more than it did.
    fineness = usual.factor * 10.0**-usual.decimals
    return _Style(name, max(0, math.ceil(-math.log10(fineness / factor) - 0.3)), factor)


def with_unit(units: Units, kind: QuantityKind, name: str) -> Units | None:
    """Return units with another one for a kind, None where it is no unit of it.

    units: all the others; kind: of the figure; name: of the unit [text].
    """
    try:
        return Units(units.system, ((kind, name), *units.overrides))
    except LookupError:
        return None


def other_unit(kind: QuantityKind, units: UnitSystem | Units) -> str | None:
    """Return the other system's unit of a kind, None where both have the same.

    kind: of the figure; units: it is shown in.
    """
    both = [_STYLES[kind, system].unit for system in UnitSystem]
    shown = _chosen(kind, units).unit
    return next((name for name in both if name != shown), None)


def written(number: float, decimals: int) -> str:
    """Return `number` [-] with `decimals` places, commas between thousands and a true minus."""
    text = f"{number:,.{decimals}f}"
    if float(text.replace(",", "")) == 0.0:
        return text.lstrip("-")
    return text.replace("-", MINUS)


def show(
    value: float, kind: QuantityKind, system: UnitSystem | Units, decimals: int | None = None
) -> ShownFigure:
    """Return `value` [SI unit of `kind`] as a builder reads it in `system`.

    `decimals` [-] overrides the places usual for the kind.
    """
    style = _chosen(kind, system)
    places = style.decimals if decimals is None else decimals
    return ShownFigure(written((value - style.offset) / style.factor, places), printed(style.unit))


def printed(unit_name: str) -> str:
    """Return a unit as it is printed: powers raised, products with a dot."""
    return unit_name.replace("^2", "²").replace("^3", "³")


def unit_shown(kind: QuantityKind, system: UnitSystem | Units) -> str:
    """Return the name of the unit in which `kind` is shown in `system`."""
    return _chosen(kind, system).unit


def places(kind: QuantityKind, system: UnitSystem | Units) -> int:
    """Return how many decimal places [-] `kind` is shown with in `system`."""
    return _chosen(kind, system).decimals


def in_units(kind: QuantityKind, system: UnitSystem | Units) -> float:
    """Return how many SI units of `kind` one unit shown in `system` is, as a difference."""
    return _chosen(kind, system).factor


def natural_step(kind: QuantityKind, system: UnitSystem | Units) -> float:
    """Return the step [SI unit of `kind`] by which a builder changes a figure in `system`."""
    style = _chosen(kind, system)
    return style.step if style.step else style.factor * 10.0**-style.decimals


def retype(
    value: float, kind: QuantityKind, system: UnitSystem | Units, decimals: int | None = None
) -> str:
    """Return `value` [SI unit of `kind`] as text for the build file, as if typed in `system`."""
    style = _chosen(kind, system)
    places = style.decimals if decimals is None else decimals
    return f"{(value - style.offset) / style.factor:.{places}f} {style.unit}"
