"""Figures and roads as findings write them."""

from collections.abc import Sequence
from dataclasses import dataclass

from urgens.document.kinds.boosters.kind import VACUUM_UNITS
from urgens.document.practice import practice_words
from urgens.quantity import (
    FORCE,
    LENGTH,
    PRESSURE,
    TORQUE,
    Units,
    UnitSystem,
    in_units,
    nearest_fraction,
    retype,
    show,
    unit_shown,
)
from urgens.solve import ICE, WET

COMMON_PRACTICE = "common practice"


@dataclass(frozen=True)
class FigureWords:
    """Writes figures in one unit system."""

    units: UnitSystem | Units

    def force(self, value: float) -> str:
        """Return a force [N] in words."""
        return str(show(value, FORCE, self.units))

    def pressure(self, value: float) -> str:
        """Return a pressure [Pa] in words."""
        return str(show(value, PRESSURE, self.units))

    def vacuum(self, value: float) -> str:
        """Return a vacuum [Pa] in words, in the unit of its gauge."""
        system = self.units if isinstance(self.units, UnitSystem) else self.units.system
        name = VACUUM_UNITS[0 if system is UnitSystem.INCH else 1]
        figure = value / in_units(PRESSURE, Units(system, ((PRESSURE, name),)))
        return f"{figure:.3g} {name}"  # a gauge is read to a tenth of an inch

    def torque(self, value: float) -> str:
        """Return a torque [N·m] in words."""
        return str(show(value, TORQUE, self.units))

    def length(self, value: float) -> str:
        """Return a length [m] in words."""
        return str(show(value, LENGTH, self.units))

    def practice(self, name: str) -> str:
        """Return a figure of the trade in words; name: of the table, `_range` behind it [text]."""
        return practice_words(self.units)[name]

    def typed_length(self, value: float) -> str:
        """Return a length [m] as text for the build, as near as a rule is read."""
        if unit_shown(LENGTH, self.units) == "in":
            return f"{nearest_fraction(value)} in"
        return retype(value, LENGTH, self.units, 0)


def road(surface: float) -> str:
    """Return a tyre-road coefficient [-] as a place a sentence can go on from."""
    named = {ICE: "on ice", WET: "on a wet road"}.get(surface)
    return f"on a road of μ {surface:.2f}" if named is None else f"{named} (μ {surface:.2f})"


def state(case: str, surface: float) -> str:
    """Return a load case and a coefficient [-] as the start of a sentence."""
    return f"“{case}” {road(surface)}"


def states(case: str, runs: Sequence[Sequence[float]]) -> str:
    """Return a load case and runs of rising coefficients [-], as a place in a sentence."""
    named = [
        road(run[0]) if len(run) == 1 else f"on roads from μ {run[0]:.2f} to {run[-1]:.2f}"
        for run in runs
    ]
    return f"“{case}” {listed(named)}"


def listed(items: list[str]) -> str:
    """Return items as a builder would list them."""
    return items[0] if len(items) == 1 else ", ".join(items[:-1]) + " and " + items[-1]
